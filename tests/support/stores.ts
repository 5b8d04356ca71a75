import { v7 } from "uuid";
import type { Person } from "@/application/stores";
import { storesOn } from "@/composition";
import { must } from "@/core/kernel";
import { openDatabase } from "@/storage/pool";

/** The stores on the real MariaDB of the tests, with two people, closed when the file's tests are done. */
export function testStores() {
  const url = must(process.env.TEST_DATABASE_URL, "the database of the tests");
  const { plans, entries, close } = storesOn(url);
  const database = openDatabase(url);
  const people: { ruth: Person; marek: Person } = { ruth: { id: "", name: "" }, marek: { id: "", name: "" } };
  beforeAll(async () => {
    people.ruth = await entries.personNamed("Ruth", v7());
    people.marek = await entries.personNamed("Marek", v7());
  });
  afterAll(async () => {
    await database.close();
    await close();
  });
  return { url, plans, database, people };
}
