import { v7 } from "uuid";
import { forgetSite, removeSite } from "@/application/bin";
import type { Person, PlanStore } from "@/application/stores";
import { storesOn } from "@/composition";
import { must } from "@/core/kernel";
import { openDatabase } from "@/storage/pool";
import { sql } from "@/storage/sql";

/**
 * The stores on the real MariaDB of the tests, with two people who own everything, closed when the file's tests
 * are done.
 */
export function testStores() {
  const url = must(process.env.TEST_DATABASE_URL, "the database of the tests");
  const { plans, accounts, close } = storesOn(url);
  const database = openDatabase(url);
  const people: { ruth: Person; marek: Person } = { ruth: { id: "", name: "" }, marek: { id: "", name: "" } };
  beforeAll(async () => {
    people.ruth = await accounts.personNamed("Ruth", v7());
    people.marek = await accounts.personNamed("Marek", v7());
    for (const { id } of Object.values(people))
      await database.run(sql`INSERT IGNORE INTO role_grant (person_id, scope, scope_id, role)
        VALUES (${id}, 'all', '00000000-0000-0000-0000-000000000000', 'owner')`);
  });
  afterAll(async () => {
    await database.close();
    await close();
  });
  return { url, plans, database, people };
}

/** Deletes a site, and takes it out of the bin for good. */
export async function removeForGood(plans: PlanStore, site: string, by: Person): Promise<void> {
  must((await removeSite(plans, site, by)).ok || null, "it is put into the bin");
  must((await forgetSite(plans, site, by)).ok || null, "it is deleted for good");
}
