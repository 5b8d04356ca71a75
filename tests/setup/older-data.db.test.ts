import { cpSync, mkdirSync, mkdtempSync, readdirSync, readFileSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join, resolve } from "node:path";
import { gunzipSync } from "node:zlib";
import { v7 } from "uuid";
import { commitBatch } from "@/application/commit-batch";
import { undo } from "@/application/undo-redo";
import { storesOn } from "@/composition";
import { readPlanFile } from "@/core/formats";
import { must } from "@/core/kernel";
import { parseAddress, parsePrefix } from "@/core/address";
import { applyChanges, diff, PlanEdits, USUAL_METRIC, type Plan } from "@/core/plan";
import { connectTo } from "../../scripts/setup/connection.mjs";
import { startDatabase } from "../../scripts/setup/database.mjs";
import { migrate } from "../../scripts/setup/migrate.mjs";

// Databases in the forms of before, each with a site in it, as somebody's may stand on the day when they take
// this version.

const ROOT = resolve(__dirname, "..", "..");
/** The plan that each form's site was made with, and what its edits, all by Ruth, made of it. */
const fileOf = (file: string) => (): Plan => {
  const read = readPlanFile(readFileSync(join(ROOT, "tests", "fixtures", file), "utf8"));
  return must(read.ok ? read.value : null, "the file of then");
};
/** The home as it was then: without the forward that it has now. */
const home = (): Plan => ({ ...fileOf("plan-version-5-lines.json")(), forward: new Map() });
/**
 * What she edited beside the note: took a profile off a port, turned a forward to the inside, let the
 * standby line share, too, gave the gateway a route, opened the zones inside, asked servers at an old port, let
 * switches add option 82 and ports with a profile take nine MAC addresses, or put a switch into the attic.
 */
type Second = "profile" | "forward" | "line" | "route" | "zone" | "signIn" | "guards" | "place" | null;
const SITES: Readonly<
  Record<
    string,
    { readonly plan: () => Plan; readonly noted: string; readonly note: string; readonly second: Second }
  >
> = {
  "0011": { plan: home, noted: "tablet", note: "moved to the kitchen", second: null },
  "0013": {
    plan: fileOf("plan-version-3-practice.json"),
    noted: "Staff laptop 1",
    note: "moved to the back office",
    second: "profile",
  },
  "0014": {
    plan: fileOf("plan-version-4-forward.json"),
    noted: "Staff laptop 1",
    note: "moved to the back office",
    second: "forward",
  },
  "0016": {
    plan: fileOf("plan-version-6.json"),
    noted: "Staff laptop 1",
    note: "moved to the back office",
    second: "route",
  },
  "0017": {
    plan: fileOf("plan-version-7.json"),
    noted: "Staff laptop 1",
    note: "moved to the back office",
    second: "zone",
  },
  "0018": {
    plan: fileOf("plan-version-8.json"),
    noted: "Staff laptop 1",
    note: "moved to the back office",
    second: "signIn",
  },
  "0019": {
    plan: fileOf("plan-version-9.json"),
    noted: "Staff laptop 1",
    note: "moved to the back office",
    second: "guards",
  },
  "0021": {
    plan: fileOf("plan-version-10.json"),
    noted: "Staff laptop 1",
    note: "moved to the back office",
    second: "place",
  },
  "0022": {
    plan: fileOf("plan-version-11.json"),
    noted: "Staff laptop 1",
    note: "moved to the back office",
    second: "place",
  },
  "0023": {
    plan: fileOf("plan-version-12.json"),
    noted: "Staff laptop 1",
    note: "moved to the back office",
    second: "place",
  },
  "0024": {
    plan: fileOf("plan-version-16.json"),
    noted: "Staff laptop 1",
    note: "moved to the back office",
    second: "place",
  },
  "0025": {
    plan: fileOf("plan-version-17.json"),
    noted: "Staff laptop 1",
    note: "moved to the back office",
    second: "place",
  },
  "0030": {
    plan: fileOf("plan-version-18.json"),
    noted: "Staff laptop 1",
    note: "moved to the back office",
    second: "place",
  },
  "0029": {
    plan: fileOf("plan-version-18.json"),
    noted: "Staff laptop 1",
    note: "moved to the back office",
    second: "place",
  },
  "0027": {
    plan: fileOf("plan-version-17.json"),
    noted: "Staff laptop 1",
    note: "moved to the back office",
    second: "place",
  },
  "0026": {
    plan: fileOf("plan-version-17.json"),
    noted: "Staff laptop 1",
    note: "moved to the back office",
    second: "place",
  },
  "0015": {
    plan: fileOf("plan-version-5-lines.json"),
    noted: "tablet",
    note: "moved to the kitchen",
    second: "line",
  },
};
const FORMS = readdirSync(join(ROOT, "tests", "fixtures", "database")).map((name) => ({
  name,
  last: must(/^form-(\d{4})\.json\.gz$/.exec(name)?.[1], name),
}));
const dir = mkdtempSync(join(tmpdir(), "older-data-"));
afterAll(() => rmSync(dir, { recursive: true, force: true }));

/** A database with the migrations up to one of them, and rows in it. */
async function inForm(
  last: string,
  rows: Readonly<Record<string, readonly Record<string, unknown>[]>>,
  url: string,
): Promise<void> {
  const [from, at] = [
    join(ROOT, "src", "storage", "migrations"),
    join(dir, last, "src", "storage", "migrations"),
  ];
  mkdirSync(at, { recursive: true });
  for (const file of readdirSync(from).filter((name) => name.slice(0, 4) <= last))
    cpSync(join(from, file), join(at, file));
  await migrate(join(dir, last), url);
  const connection = await connectTo(url);
  await connection.query("SET FOREIGN_KEY_CHECKS = 0");
  for (const [table, list] of Object.entries(rows))
    for (const row of list) await connection.query("INSERT INTO ?? SET ?", [table, row]);
  await connection.end();
}

const moveToAttic = (draft: PlanEdits, plan: Plan): void => {
  for (const { id, name } of plan.device.values())
    if (name === "Upper switch") draft.patch("device", id, { place: "Attic" });
};

/**
 * A sign-in of then had no stage, no timers; protections, ports and devices no guards of IPv6, no isolation, no
 * administrators.
 */
function editGear(draft: PlanEdits, plan: Plan, second: Second): void {
  if (second === "place") return moveToAttic(draft, plan);
  if (second === "signIn") {
    for (const profile of plan.signIn.keys()) draft.patch("signIn", profile, { port: 1645 });
    return;
  }
  if (second !== "guards") return;
  for (const { id, kind, protections } of plan.device.values())
    if (kind === "switch")
      draft.patch("device", id, { protections: { ...protections, option82: !protections.option82 } });
  for (const { id, guards } of plan.port.values())
    if (guards.profile !== null) draft.patch("port", id, { guards: { ...guards, macLimit: 9 } });
}

/** A form's site as Ruth left it. */
function asLeft({ plan: made, noted, note, second }: (typeof SITES)[string]): Plan {
  const plan = made();
  const draft = new PlanEdits(plan);
  draft.patch("host", hostCalled(plan, noted).id, { notes: note });
  if (second === "profile") {
    const port = profiled(plan);
    draft.patch("port", port.id, { guards: { ...port.guards, profile: null } });
  }
  if (second === "forward")
    for (const forward of plan.forward.keys()) draft.patch("forward", forward, { hairpin: true });
  // "Shares" of then had no percents.
  if (second === "line")
    for (const line of plan.line.values())
      if (line.place > 0) draft.patch("line", line.id, { place: 1, share: 50 });
  // A zone of then had no level.
  if (second === "zone") for (const zone of plan.zone.keys()) draft.patch("zone", zone, { insideOpen: true });
  editGear(draft, plan, second);
  // A route of then had no metric.
  if (second === "route")
    for (const device of plan.device.values())
      if (device.kind === "gateway")
        draft.patch("device", device.id, {
          routes: [
            {
              prefix: must(parsePrefix("10.61.0.0/20"), "a subnet"),
              via: must(parseAddress("10.24.20.7"), "a router"),
              metric: USUAL_METRIC,
            },
          ],
        });
  const applied = applyChanges(plan, draft.changes());
  return must(applied.ok ? applied.value : null, "her edits");
}

const hostCalled = (plan: Plan, name: string) =>
  must(
    [...plan.host.values()].find((host) => host.name.toLowerCase() === name.toLowerCase()),
    name,
  );
const profiled = (plan: Plan) =>
  must(
    [...plan.port.values()].find((port) => port.guards.profile !== null),
    "a port with a profile",
  );

test.each(FORMS)(
  "$name: brought to the present form the site is whole, with its history; undo and edits go on",
  async ({ name, last }) => {
    const site = must(SITES[last], `the site of form ${last}`);
    const database = await startDatabase(join(dir, `data ${last}`), { durable: false });
    try {
      await inForm(
        last,
        JSON.parse(
          gunzipSync(readFileSync(join(ROOT, "tests", "fixtures", "database", name))).toString("utf8"),
        ) as Record<string, Record<string, unknown>[]>,
        database.url,
      );
      expect((await migrate(ROOT, database.url)).length).toBeGreaterThan(0);
      const { plans, accounts, close } = storesOn(database.url);
      try {
        const ruth = await accounts.personNamed("Ruth", v7());
        const id = must((await plans.listSites(null))[0], "the site").id;
        const { plan, revision } = must(await plans.snapshot(id), "its plan");
        const wanted = asLeft(site);
        expect([revision, diff({ ...wanted, site: { ...wanted.site, id } }, plan)]).toEqual([
          site.second === null ? 2 : 3,
          [],
        ]);
        const changed = hostCalled(plan, site.noted);
        expect(
          must(
            await plans.history(
              id,
              { before: 10, about: [changed.id], by: null, from: null, until: null },
              50,
            ),
            "its history",
          ).map((line) => line.summary),
        ).toContain("a note");
        const edits = new PlanEdits(plan);
        edits.patch("host", changed.id, { notes: "and back" });
        expect(
          (
            await commitBatch(plans, {
              site: id,
              revision,
              batch: { id: v7(), planner: "test", summary: "another", args: null, changes: edits.changes() },
              by: ruth,
            })
          ).ok,
        ).toBe(true);
        const goBack = async () => {
          expect(
            (await undo(plans, { site: id, batchId: v7(), by: ruth, mayPlan: true, settled: [] })).ok,
          ).toBe(true);
          return must((await plans.snapshot(id))?.plan, "the plan");
        };
        expect(hostCalled(await goBack(), site.noted).notes).toBe(site.note);
        // What was logged in the form of then is undone in that of today: the profile comes back, by its id.
        if (site.second !== null) {
          const { port, forward, line, device, zone, signIn } = await goBack();
          const made = site.plan();
          expect({ port, forward, line, device, zone, signIn }).toEqual({
            port: made.port,
            forward: made.forward,
            line: made.line,
            device: made.device,
            zone: made.zone,
            signIn: made.signIn,
          });
        }
        expect(hostCalled(await goBack(), site.noted).notes).toBe(hostCalled(site.plan(), site.noted).notes);
      } finally {
        await close();
      }
    } finally {
      await database.stop();
    }
  },
);
