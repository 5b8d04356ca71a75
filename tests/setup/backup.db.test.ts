import { cpSync, mkdirSync, mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join, resolve } from "node:path";
import { gunzipSync, gzipSync } from "node:zlib";
import { v7 } from "uuid";
import { bramblewick } from "../../demo/bramblewick";
import { fennelStreet } from "../../demo/fennel-street";
import { commitBatch } from "@/application/commit-batch";
import { addToRecord } from "@/application/records";
import { storePlan } from "@/application/sites";
import { storesOn } from "@/composition";
import { must } from "@/core/kernel";
import { diff, planBefore, PlanEdits } from "@/core/plan";
import { aTick } from "@/core/testing/a-tick";
import { backUp } from "../../scripts/setup/backup.mjs";
import { connectTo } from "../../scripts/setup/connection.mjs";
import { startDatabase } from "../../scripts/setup/database.mjs";
import { migrate, migrationFiles } from "../../scripts/setup/migrate.mjs";
import { restore } from "../../scripts/setup/restore.mjs";
import { JPEG } from "../support/jpeg";

// What is backed up while people work comes out as it was, and what is no whole backup changes nothing.

const ROOT = resolve(__dirname, "..", "..");
const dir = mkdtempSync(join(tmpdir(), "backup-"));
const PHOTO = v7();
let from: Awaited<ReturnType<typeof startDatabase>>;
let to: Awaited<ReturnType<typeof startDatabase>>;
let source: ReturnType<typeof storesOn>;
let site = "";
const file = join(dir, "plans.backup.gz");

async function inTarget<T>(sql: string): Promise<T[]> {
  const connection = await connectTo(to.url);
  const [rows] = await connection.query(sql);
  await connection.end();
  return rows as T[];
}
const tablesInTarget = async (): Promise<number> => (await inTarget("SHOW TABLES")).length;
async function emptyTarget(): Promise<void> {
  const connection = await connectTo(to.url, { multipleStatements: true });
  const [tables] = await connection.query("SHOW TABLES");
  const names = (tables as object[]).map((row) => Object.values(row)[0] as string);
  await connection.query("SET foreign_key_checks = 0");
  for (const name of names) await connection.query("DROP TABLE ??", [name]);
  await connection.end();
}

beforeAll(async () => {
  from = await startDatabase(join(dir, "from"), { durable: false });
  to = await startDatabase(join(dir, "to"), { durable: false });
  await migrate(ROOT, from.url);
  source = storesOn(from.url);
  const { plans, accounts, entries, records, drills, tools } = source;
  const ruth = await accounts.personNamed("Ruth", v7());
  site = v7();
  const by = { by: ruth, record: [], photos: [] };
  await storePlan(plans, { ...by, id: v7(), batchId: v7(), plan: bramblewick() });
  const record = [{ by: "Marek", entry: aTick({ photos: [PHOTO], note: "Ωhm 'quoted' \\n\n“”" }) }];
  const photos = [{ id: PHOTO, jpeg: JPEG as Uint8Array<ArrayBuffer> }];
  await storePlan(plans, { by: ruth, id: site, batchId: v7(), plan: fennelStreet(), record, photos });
  await addToRecord(records, site, ruth, [aTick({ id: v7() })]);
  await drills.add(ruth.id, { id: v7(), what: "course", number: 4, isSolved: true, score: 17 });
  await entries.addLink(v7(), tools.hash("a link"), { kind: "first" });
});
afterAll(async () => {
  await source.close();
  await from.stop();
  await to.stop();
  rmSync(dir, { recursive: true, force: true });
});

/** Edits of the office, one after another, until it is told to stop. */
function editing(): { stop: () => Promise<number> } {
  let goes = true;
  const { plans, accounts } = source;
  const work = async (): Promise<number> => {
    const by = await accounts.personNamed("Marek", v7());
    let done = 0;
    while (goes) {
      const { plan, revision } = must(await plans.snapshot(site), "the office");
      const edits = new PlanEdits(plan);
      const host = must([...plan.host.keys()][done % plan.host.size], "a host");
      edits.patch("host", host, { notes: `edit ${done}` });
      const batch = { id: v7(), planner: "test", summary: "edit", args: null, changes: edits.changes() };
      expect((await commitBatch(plans, { site, revision, batch, by })).ok).toBe(true);
      done += 1;
    }
    return done;
  };
  const ended = work();
  return {
    stop: () => {
      goes = false;
      return ended;
    },
  };
}

test("what is backed up while somebody edits is one moment's, with all of its history", async () => {
  const people = editing();
  const { tables } = await backUp(from.url, file);
  const edits = await people.stop();
  expect(edits).toBeGreaterThan(0);
  expect(tables.map(([name]) => name)).toEqual(expect.arrayContaining(["photo", "site", "change_batch"]));
  expect(await restore(ROOT, to.url, file)).toEqual(tables);

  const restored = storesOn(to.url);
  try {
    const { plan, revision } = must(await restored.plans.snapshot(site), "the office");
    const now = must(await source.plans.snapshot(site), "the office now");
    expect(revision).toBeLessThanOrEqual(now.revision);
    const since = must(await source.plans.news(site, revision), "what came since").entries;
    const then = must(
      planBefore(
        now.plan,
        since.map(({ changes }) => changes),
      ),
      "the office then",
    );
    expect(diff(then, plan)).toEqual([]);
    const whole = { before: 4_000_000_000, about: null, by: null, from: null, until: null };
    expect(await restored.plans.history(site, whole, 5000)).toEqual(
      (await source.plans.history(site, { ...whole, before: revision + 1 }, 5000)) ?? [],
    );
    expect(await restored.records.after(site, 0, 10)).toEqual(await source.records.after(site, 0, 10));
    expect(await restored.photos.read(site, PHOTO)).toEqual(await source.photos.read(site, PHOTO));
    expect(Buffer.from(must(await restored.photos.read(site, PHOTO), "the photo")).equals(JPEG)).toBe(true);
    expect(await restored.drills.all(10, null)).toEqual(await source.drills.all(10, null));
    // Nobody gets in by what stood open then.
    expect(await restored.entries.useLink(restored.tools.hash("a link"))).toBe(false);
    // It goes on: edits, and their undo.
    const edit = new PlanEdits(plan);
    edit.patch("site", plan.site.id, { name: "Restored" });
    const by = await restored.accounts.personNamed("Ruth", v7());
    const batch = { id: v7(), planner: "test", summary: "edit", args: null, changes: edit.changes() };
    expect((await commitBatch(restored.plans, { site, revision, batch, by })).ok).toBe(true);
  } finally {
    await restored.close();
  }
});

test("what holds plans already is not restored into, and nothing in it changes", async () => {
  const before = await inTarget("SELECT id, revision FROM site ORDER BY id");
  await expect(restore(ROOT, to.url, file)).rejects.toThrow(
    /plans in this database already.*Nothing was changed/,
  );
  expect(await inTarget("SELECT id, revision FROM site ORDER BY id")).toEqual(before);
  await expect(backUp(from.url, file)).rejects.toThrow(/is there already/);
});

describe("what is no whole backup changes nothing", () => {
  const lines = () => gunzipSync(readFileSync(file)).toString("utf8").trimEnd().split("\n");
  const written = (name: string, of: readonly string[]): string => {
    const at = join(dir, name);
    writeFileSync(at, gzipSync(`${of.join("\n")}\n`));
    return at;
  };
  const site0 = (all: readonly string[]) => all.findIndex((line) => line.startsWith('{"table":"site"')) + 1;
  const BROKEN: readonly (readonly [string, () => string, RegExp])[] = [
    ["none at all", () => join(dir, "nowhere.gz"), /there is no such file/],
    [
      "one that was cut off",
      () => {
        const at = join(dir, "cut.gz");
        writeFileSync(at, readFileSync(file).subarray(0, 5000));
        return at;
      },
      /cut off or changed/,
    ],
    ["one without its end", () => written("endless.gz", lines().slice(0, -1)), /its end is missing/],
    [
      "one with a value of another",
      () => {
        const all = lines();
        const at = site0(all);
        return written(
          "changed.gz",
          all.with(at, must(all[at], "a site").replace(/Works|Practice/, "Other")),
        );
      },
      /its table site is not as it was written/,
    ],
    [
      "one without a table",
      () => {
        const all = lines();
        const [start, end] = [
          all.indexOf(
            must(
              all.find((l) => l.startsWith('{"table":"wall"')),
              "walls",
            ),
          ),
          0,
        ];
        const stop = all.findIndex((line, at) => at > start + end && line.startsWith('{"rows":'));
        return written("fewer.gz", [...all.slice(0, start), ...all.slice(stop + 1)]);
      },
      /tables of it are missing/,
    ],
    ["a plan file", () => written("plan.gz", ['{"format":"dianome-plan"}']), /it is no backup/],
    ["a picture", () => written("picture.gz", ["not JSON"]), /it is no backup/],
    ["nothing", () => written("null.gz", ["null"]), /it is no backup/],
    [
      "one of a version to come",
      () =>
        written(
          "later.gz",
          lines().with(0, must(lines()[0], "a head").replace('"version":1', '"version":2')),
        ),
      /a newer version/,
    ],
    [
      "one with a migration to come",
      () => {
        const head = JSON.parse(must(lines()[0], "a head")) as { migrations: unknown[] };
        head.migrations.push(["9999_to_come.sql", "0".repeat(64)]);
        return written("migrated.gz", lines().with(0, JSON.stringify(head)));
      },
      /has the migration 9999_to_come\.sql/,
    ],
    [
      "one whose table has another form",
      () => {
        const all = lines();
        const at = site0(all) - 1;
        return written(
          "columns.gz",
          all.with(at, must(all[at], "a table").replace('"revision"', '"edition"')),
        );
      },
      /table site is not in the form/,
    ],
  ];
  beforeAll(emptyTarget);
  test.each(BROKEN)("%s", async (_name, made, sentence) => {
    await expect(restore(ROOT, to.url, made())).rejects.toThrow(sentence);
    expect(await tablesInTarget()).toBe(0);
  });
});

const KEPT = join(ROOT, "tests", "fixtures", "backup");
test.each(readdirSync(KEPT))(
  "%s, made by an earlier version or this one, is restored and opens",
  async (name) => {
    await emptyTarget();
    const tables = new Map((await restore(ROOT, to.url, join(KEPT, name))) as [string, number][]);
    const restored = storesOn(to.url);
    try {
      const sites = await restored.plans.listSites(null);
      expect(sites).toHaveLength(must(tables.get("site"), "the sites"));
      for (const { id, revision } of sites)
        expect((await restored.plans.snapshot(id))?.revision).toBe(revision);
    } finally {
      await restored.close();
    }
  },
);

test("a newer version restores what an older one backed up, and brings it to its own form", async () => {
  const newer = join(dir, "newer");
  const migrations = join(newer, "src", "storage", "migrations");
  mkdirSync(migrations, { recursive: true });
  cpSync(join(ROOT, "src", "storage", "migrations"), migrations, { recursive: true });
  writeFileSync(
    join(migrations, "9998_to_come.sql"),
    "ALTER TABLE site ADD COLUMN IF NOT EXISTS colour VARCHAR(8) NOT NULL DEFAULT 'green';",
  );
  await emptyTarget();
  await restore(newer, to.url, file);
  expect(await inTarget("SELECT DISTINCT colour FROM site")).toEqual([{ colour: "green" }]);
  expect((await inTarget("SELECT name FROM migration")).length).toBe(migrationFiles(ROOT).length + 1);
});
