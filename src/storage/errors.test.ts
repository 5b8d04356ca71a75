import { storageErrorOf } from "./errors";

const thrown = (code: string, message: string) =>
  storageErrorOf(Object.assign(new Error(message), { code }))?.fault ?? null;

test.each([
  ["ER_DISK_FULL", "Disk full", "no-space"],
  [
    "ER_ERROR_ON_WRITE",
    "Error writing file './app/host' (Errcode: 28 \"No space left on device\")",
    "no-space",
  ],
  ["ER_GET_ERRNO", 'Got error 28 "No space left on device" from storage engine InnoDB', "no-space"],
  ["ER_TEMP_FILE_WRITE_FAILURE", "Temporary file write failure: No space left on device", "no-space"],
  ["ER_LOCK_DEADLOCK", "Deadlock found", "lock-conflict"],
  ["ECONNREFUSED", "connect ECONNREFUSED", "unreachable"],
  ["ER_STATEMENT_TIMEOUT", "Query execution was interrupted (max_statement_time exceeded)", "unreachable"],
  ["", "Queue limit reached.", "unreachable"],
  ["ER_GET_ERRNO", "Got error 282", null],
  ["ER_PARSE_ERROR", "You have an error in your SQL syntax", null],
])("%s, %j is %s", (code, message, fault) => {
  expect(thrown(code, message)).toBe(fault);
});
