import { testStores } from "../../tests/support/stores";
import { instant } from "./pool";
import { sql } from "./sql";

const { database } = testStores();

test.each([
  ["2026-12-02 13:09:21.120", "2026-12-02T13:09:21.120Z"],
  ["2026-12-02 13:09:21.000", "2026-12-02T13:09:21.000Z"],
  ["2026-12-02 00:00:00.000", "2026-12-02T00:00:00.000Z"],
])("an instant has its milliseconds, of a whole second or day, too: %s", async (kept, told) => {
  const asked = sql`SELECT CAST(${kept} AS DATETIME(3)) AS kept_at`;
  expect(await database.maybeOne(asked, (row) => instant(row.kept_at))).toBe(told);
});
