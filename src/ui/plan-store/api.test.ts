import { ERRORS, type ErrorCode } from "@/http/errors";
import { call, fateOf } from "./api";

const answered = (body: string, status: number) => {
  globalThis.fetch = async () => new Response(body, { status });
};

test.each([
  ["<html>Bad gateway</html>", 502],
  ["", 500],
  ["null", 200],
  ["<html>", 200],
  ['{"error":"x"}', 504],
])("%s with %i is no answer that anything is dropped for", async (body, status) => {
  answered(body, status);
  const answer = await call("/x", "POST", {});
  expect(answer).toMatchObject({
    ok: false,
    status,
    refused: { code: "no-answer", sentence: expect.stringContaining("are kept here") },
  });
  expect(answer.ok ? "" : fateOf(answer.status, answer.refused.code)).toBe("again");
});

test("a refusal has its own sentence, an answer its value, a dead server neither", async () => {
  answered('{"code":"too-large","sentence":"At most 64 MB."}', 413);
  expect(await call("/x")).toEqual({
    ok: false,
    status: 413,
    refused: { code: "too-large", sentence: "At most 64 MB." },
  });
  answered('{"revision":3}', 200);
  expect(await call("/x")).toEqual({ ok: true, value: { revision: 3 } });
  globalThis.fetch = async () => {
    throw new TypeError("fetch failed");
  };
  expect(await call("/x")).toMatchObject({ ok: false, status: 0 });
});

test("of all the refusals there are, exactly four drop a batch", () => {
  const codes = Object.keys(ERRORS) as ErrorCode[];
  expect(codes.filter((code) => fateOf(ERRORS[code].status, code) === "drop").sort()).toEqual([
    "bad-request",
    "broken-plan",
    "no-such-site",
    "too-large",
  ]);
  expect(codes.filter((code) => fateOf(ERRORS[code].status, code) === "again")).toEqual(
    expect.arrayContaining(["database-full", "database-unreachable"]),
  );
});
