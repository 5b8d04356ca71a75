// Writes the three made-up sites into the database, each as one import under its own id, so that a start cut
// off in the middle can do it again, and notes that it was done.
import { readFileSync } from "node:fs";
import { v7 } from "uuid";
import { storePlan } from "../src/application/sites";
import { storesOn } from "../src/composition";
import { config } from "../src/config";
import { readPlanFile } from "../src/core/formats";
import { openDatabase } from "../src/storage/pool";
import { sql } from "../src/storage/sql";

const url = config().databaseUrl;
const { plans, accounts, close } = storesOn(url);
const drawer = await accounts.personNamed("Demo", v7());
for (const file of ["fennel-street", "lockkeepers-house", "bramblewick"]) {
  const read = readPlanFile(readFileSync(new URL(`../demo/${file}.json`, import.meta.url), "utf8"));
  if (!read.ok) throw new Error(`demo/${file}.json: ${read.error.map((fault) => fault.sentence).join(" ")}`);
  const plan = read.value;
  const stored = await storePlan(plans, { id: plan.site.id, batchId: v7(), plan, by: drawer });
  if (!stored.ok) throw new Error(`demo/${file}.json: ${stored.error.sentence}`);
}
const database = openDatabase(url);
await database.run(sql`INSERT INTO setting (name, value) VALUES ('demo-loaded', 'yes')`);
await database.close();
await close();
