import { cpSync, mkdirSync, mkdtempSync, readdirSync, readFileSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join, resolve } from "node:path";
import { gunzipSync } from "node:zlib";
import { v7 } from "uuid";
import { lockkeepersHouse } from "../../demo/lockkeepers-house";
import { commitBatch } from "@/application/commit-batch";
import { undo } from "@/application/undo-redo";
import { storesOn } from "@/composition";
import { must } from "@/core/kernel";
import { applyChanges, diff, Draft, type Plan } from "@/core/plan";
import { connectTo } from "../../scripts/setup/connection.mjs";
import { startDatabase } from "../../scripts/setup/database.mjs";
import { migrate } from "../../scripts/setup/migrate.mjs";

// Databases in the forms of before, each with a site in it, as somebody's may stand on the day when they take this version.

const ROOT = resolve(__dirname, "..", "..");
const FORMS = readdirSync(join(ROOT, "tests", "fixtures", "database")).map((name) => ({ name, last: must(/^form-(\d{4})\.json\.gz$/.exec(name)?.[1], name) }));
const dir = mkdtempSync(join(tmpdir(), "older-data-"));
afterAll(() => rmSync(dir, { recursive: true, force: true }));

/** A database with the migrations up to one of them, and rows in it. */
async function inForm(last: string, rows: Readonly<Record<string, readonly Record<string, unknown>[]>>, url: string): Promise<void> {
  const [from, at] = [join(ROOT, "src", "storage", "migrations"), join(dir, last, "src", "storage", "migrations")];
  mkdirSync(at, { recursive: true });
  for (const file of readdirSync(from).filter((name) => name.slice(0, 4) <= last)) cpSync(join(from, file), join(at, file));
  await migrate(join(dir, last), url);
  const connection = await connectTo(url);
  await connection.query("SET FOREIGN_KEY_CHECKS = 0");
  for (const [table, list] of Object.entries(rows)) for (const row of list) await connection.query("INSERT INTO ?? SET ?", [table, row]);
  await connection.end();
}

/** The house as it was made, with one note changed by Ruth. */
function noted(): Plan {
  const plan = lockkeepersHouse();
  const draft = new Draft(plan);
  draft.patch("host", must(draft.all("host").find((host) => host.name === "tablet") ?? draft.all("host")[0], "a host").id, { notes: "moved to the kitchen" });
  const applied = applyChanges(plan, draft.changes());
  return must(applied.ok ? applied.value : null, "the note");
}

test.each(FORMS)("$name: brought to the present form, the site is whole, its history is found by what it touched, undo and edits go on", async ({ name, last }) => {
  const database = await startDatabase(join(dir, `data ${last}`), { durable: false });
  try {
    await inForm(last, JSON.parse(gunzipSync(readFileSync(join(ROOT, "tests", "fixtures", "database", name))).toString("utf8")) as Record<string, Record<string, unknown>[]>, database.url);
    expect((await migrate(ROOT, database.url)).length).toBeGreaterThan(0);
    const { plans, entries, close } = storesOn(database.url);
    try {
      const ruth = await entries.personNamed("Ruth", v7());
      const [site] = await plans.listSites();
      const id = must(site, "the site").id;
      const { plan, revision } = must(await plans.snapshot(id), "its plan");
      const wanted = noted();
      expect([revision, diff({ ...wanted, site: { ...wanted.site, id } }, plan)]).toEqual([2, []]);
      const changed = must([...plan.host.values()].find((host) => host.notes === "moved to the kitchen"), "the host with the note");
      expect(must(await plans.history(id, 10, changed.id, 50), "its history").map((line) => line.summary)).toContain("a note");
      const draft = new Draft(plan);
      draft.patch("host", changed.id, { notes: "and back" });
      expect((await commitBatch(plans, { site: id, revision, batch: { id: v7(), planner: "test", summary: "another", args: null, changes: draft.changes() }, by: ruth })).ok).toBe(true);
      for (const note of ["moved to the kitchen", ""]) {
        expect((await undo(plans, { site: id, batchId: v7(), by: ruth, settled: [] })).ok).toBe(true);
        expect(must((await plans.snapshot(id))?.plan.host.get(changed.id), "the host").notes).toBe(note === "" ? must(lockkeepersHouse().host.get(changed.id), "the host").notes : note);
      }
    } finally {
      await close();
    }
  } finally {
    await database.stop();
  }
});
