/* eslint-disable max-lines -- one store against one database */
import type { HistoryAsked } from "@/application/stores";
import fc from "fast-check";
import { v7 } from "uuid";
import { bramblewick } from "../../demo/bramblewick";
import { fennelStreet } from "../../demo/fennel-street";
import { lockkeepersHouse } from "../../demo/lockkeepers-house";
import { FENNEL_STREET } from "../../demo/surveys";
import { BROKEN_FILES, corrupt, goodFile, PLACES } from "../../tests/generators/broken-plan-files";
import { commitBatch } from "@/application/commit-batch";
import { badFile, createSite, storePlan } from "@/application/sites";
import { removeSite } from "@/application/bin";
import type { Person } from "@/application/stores";
import { redo, undo } from "@/application/undo-redo";
import { must } from "@/core/kernel";
import { parsePrefix } from "@/core/address";
import { decodePlanSliced } from "@/core/formats";
import { applyChanges, diff, PlanEdits, emptyPlan, PlanIndex, type Change, type Plan } from "@/core/plan";
import {
  addStack,
  addTemplate,
  labelCables,
  makeLag,
  putModel,
  removeDevice,
  removeSegment,
  setNameSchool,
} from "@/core/planners";
import { afterEdit, donePlan } from "@/core/testing/after-edit";
import { draftBatch, DRAFT_PARTS } from "@/core/survey";
import { surveyPlan } from "@/core/testing/survey-plan";
import { planCache } from "./plan-cache";
import { planStore } from "./plan-store";
import { removeForGood, testStores } from "../../tests/support/stores";
import { sql } from "./sql";

const { plans, database, people } = testStores();

const value = <T>(result: { ok: true; value: T } | { ok: false; error: unknown }): T =>
  must(result.ok ? result.value : null, result.ok ? "" : JSON.stringify(result.error));
const store = async (plan: Plan) =>
  value(await storePlan(plans, { id: v7(), batchId: v7(), plan, by: people.ruth })).id;
const batch = (changes: readonly Change[], summary = "a change") => ({
  id: v7(),
  planner: "test",
  summary,
  args: null,
  changes,
});
const takeFile = async (file: unknown) => {
  const read = await decodePlanSliced(file, () => null);
  return read.ok
    ? storePlan(plans, { id: v7(), batchId: v7(), plan: read.value, by: people.ruth })
    : { ok: false as const, error: badFile(read.error) };
};
const net = (text: string) => must(parsePrefix(text), text);
const edited = (plan: Plan, edit: (edits: PlanEdits) => void) => {
  const edits = new PlanEdits(plan);
  edit(edits);
  return edits.changes();
};
/** What the rows say, with no cache in between. */
const fromRows = async (site: string) =>
  must(await planStore(database, planCache(1)).snapshot(site), "the site");
const countRows = async () => {
  const tables = [
    "site",
    "domain",
    "zone",
    "line",
    "vlan",
    "segment",
    "device",
    "port",
    "link",
    "link_end",
    "interface",
    "ssid",
    "host",
    "scope",
    "wall",
    "room",
    "host_kind",
    "gear",
    "device_vlan",
    "device_model",
    "template",
    "link_group",
    "radio",
    "sign_in",
    "forward",
    "expectation",
    "change_batch",
    "change_touch",
  ];
  const counts = await Promise.all(
    tables.map((table) =>
      database.all({ ...sql`SELECT 1`, text: `SELECT COUNT(*) AS n FROM ${table}` }, (row) => Number(row.n)),
    ),
  );
  return counts.flat();
};

test.each([
  ["office", fennelStreet()],
  ["home", lockkeepersHouse()],
  ["industrial", bramblewick()],
])("the %s demo comes back from its rows unchanged", async (_, plan) => {
  const site = await store(plan);
  const { plan: read, revision } = await fromRows(site);
  expect(revision).toBe(1);
  expect(diff({ ...plan, site: { ...plan.site, id: site } }, read)).toEqual([]);
});

test("surveys, kinds, IPv6, visits and what devices have are stored and go with the site", async () => {
  const plan = surveyPlan(
    {
      ...FENNEL_STREET,
      gear: [
        ...FENNEL_STREET.gear,
        {
          name: "Old 24",
          kind: "switch",
          fate: "keep",
          room: "Cabinet A",
          model: "switch-24-poe",
          prefixes: ["192.168.203.0/24", "fd00:9::/64"],
          addresses: ["192.168.203.1", "fd00:9::1"],
        },
      ],
    },
    { school: "type" },
    ["fd24:5a10:3c01::/48"],
  );
  const { batch: drafted } = draftBatch(PlanIndex.of(plan), v7, new Set(DRAFT_PARTS));
  const full = value(applyChanges(plan, must(drafted, "a draft").changes));
  const more = edited(full, (edits) => {
    edits.put("hostKind", {
      id: v7(),
      name: "kiosk",
      aliases: ["info desk", "terminal"],
      base: "pc",
      purpose: "people",
      manner: "reserved",
      wireless: true,
      poeClass: 4,
      kbps: 2000,
      speaksDhcp: true,
      speaksSignIn: false,
      internet: "never",
    });
    const device = must(
      edits.all("device").find((d) => d.kind === "switch"),
      "a switch",
    );
    edits.patch("device", device.id, { vlanNameLimit: 12 });
    edits.put("deviceVlan", {
      id: v7(),
      device: device.id,
      vid: must(edits.all("vlan")[0], "a VLAN").vid,
      name: "",
    });
    const line = must(edits.all("line")[0], "a line");
    edits.patch("line", line.id, {
      providerBox: "cannotBridge",
      boxPrefix: net("192.168.177.0/24"),
      locked: "the phone service",
    });
  });
  const whole = value(applyChanges(full, more));
  expect(
    [whole.room.size, whole.gear.size, whole.hostKind.size, whole.deviceVlan.size].every((n) => n > 0),
  ).toBe(true);
  expect([...whole.gear.values()].some((gear) => gear.device !== null)).toBe(true);
  const before = await countRows();
  const site = await store(whole);
  const { plan: read } = await fromRows(site);
  expect(diff({ ...whole, site: { ...whole.site, id: site } }, read)).toEqual([]);
  await removeForGood(plans, site, people.ruth);
  expect(await countRows()).toEqual(before);
});

/**
 * A house with everything that cabling and wireless can hold: LAGs, templates, models of its own, names for
 * each access point, rooms beside one another.
 */
function wired(): Plan {
  const house = donePlan(
    afterEdit(
      lockkeepersHouse(),
      (context) =>
        putModel(context, null, {
          name: "Barn switch",
          kind: "switch",
          bridging: "vlan",
          ports: "12 copper 2.5G type 3, 2 fibre 10G",
          budgetW: "240",
          oneLostW: "120",
          heightUnits: "1",
        }) ??
        addTemplate(context, "Mine", "txt", "{{ name }}") ??
        setNameSchool(context, "each") ??
        labelCables(context),
    ),
  );
  const stacked = donePlan(afterEdit(house, (context) => addStack(context, "2 × Barn switch in Barn")));
  return donePlan(
    afterEdit(stacked, (context) => {
      const [one, other] = context.edits.all("device").filter((device) => device.model === "Barn switch");
      const own = context.edits
        .all("port")
        .filter((port) => port.device === one?.id)
        .sort((a, b) => a.position - b.position)
        .slice(0, 2)
        .map((port) => port.id);
      const refusal = makeLag(context, own, "active");
      const [a, b] = context.edits.all("room");
      if (a !== undefined && b !== undefined)
        context.edits.patch("room", a.id, { beside: [b.id], building: "House" });
      const points = context.edits.all("device").filter((device) => device.kind === "accessPoint");
      if (points[0] !== undefined && points[1] !== undefined)
        context.edits.patch("device", points[0].id, { hears: [points[1].id] });
      for (const port of context.edits.all("port").filter((port) => port.medium === "fibre"))
        context.edits.patch("port", port.id, { optic: "10GBASE-SR" });
      if (other !== undefined)
        context.edits.patch("device", other.id, {
          feed: "circuit 4",
          backupFeed: "battery",
          rackUnit: 3,
          poe: "class4",
        });
      return refusal;
    }),
  );
}

test("LAGs, templates, models, radios and optics are stored one by one and all at once", async () => {
  const plan = wired();
  expect(
    [
      plan.lag.size,
      plan.template.size,
      plan.deviceModel.size,
      plan.radio.size,
      [...plan.ssid.values()].filter((ssid) => ssid.at.length > 0).length,
    ].every((n) => n > 0),
  ).toBe(true);
  const rows = await countRows();
  const site = await store(plan);
  const whole = { ...plan, site: { ...plan.site, id: site } };
  expect(diff(whole, (await fromRows(site)).plan)).toEqual([]);
  // From what the site was before, in one batch, and back again.
  const before = { ...lockkeepersHouse(), site: { ...lockkeepersHouse().site, id: site } };
  let revision = 1;
  for (const [from, to] of [
    [whole, before],
    [before, whole],
    [whole, emptyPlan(whole.site)],
    [emptyPlan(whole.site), whole],
  ] as const) {
    revision = value(
      await commitBatch(plans, { site, revision, batch: batch(diff(from, to)), by: people.ruth }),
    ).revision;
    expect(diff(to, (await fromRows(site)).plan)).toEqual([]);
  }
  await removeForGood(plans, site, people.ruth);
  expect(await countRows()).toEqual(rows);
});

test("any way from one plan to another can be written: the rows are then the other plan", async () => {
  const full = fennelStreet();
  const site = await store(full);
  const start = (await fromRows(site)).plan;
  const devices = [...start.device.keys()];
  const segments = [...start.segment.keys()];
  const anyEdit = fc.tuple(fc.subarray(devices), fc.subarray(segments), fc.boolean());
  let current = start;
  let revision = 1;
  await fc.assert(
    fc.asyncProperty(anyEdit, async ([goneDevices, goneSegments, empty]) => {
      const edits = new PlanEdits(start);
      for (const id of goneSegments) removeSegment(edits, id);
      for (const id of goneDevices) removeDevice(edits, id);
      const target = empty ? emptyPlan(start.site) : value(applyChanges(start, edits.changes()));
      const changes = diff(current, target);
      revision = value(
        await commitBatch(plans, { site, revision, batch: batch(changes), by: people.ruth }),
      ).revision;
      const { plan } = await fromRows(site);
      expect(diff(plan, target)).toEqual([]);
      current = target;
    }),
    { numRuns: 12, seed: 5 },
  );
});

test("of two who commit on one revision, one is told what came between and writes nothing", async () => {
  const site = await store(lockkeepersHouse());
  const { plan } = await fromRows(site);
  const host = must([...plan.host.values()][0], "a host");
  const rename = (name: string, by: Person) =>
    commitBatch(plans, {
      site,
      revision: 1,
      batch: batch(
        edited(plan, (d) => d.patch("host", host.id, { name })),
        name,
      ),
      by,
    });
  const results = await Promise.all([rename("One", people.ruth), rename("Two", people.marek)]);
  const [first, second] = results[0]?.ok === true ? [results[0], results[1]] : [results[1], results[0]];
  expect(first).toMatchObject({ ok: true, value: { revision: 2 } });
  expect(second).toMatchObject({
    ok: false,
    error: { code: "stale-revision", revision: 2, between: [{ revision: 2, changeCount: 1 }] },
  });
  const won = results[0]?.ok === true ? "One" : "Two";
  expect((await fromRows(site)).plan.host.get(host.id)?.name).toBe(won);
});

test("a batch sent again counts once and gets its first answer", async () => {
  const site = await store(lockkeepersHouse());
  const { plan } = await fromRows(site);
  const host = must([...plan.host.values()][0], "a host");
  const same = {
    site,
    revision: 1,
    batch: batch(edited(plan, (d) => d.patch("host", host.id, { place: "Attic" }))),
    by: people.ruth,
  };
  const answers = [await commitBatch(plans, same), await commitBatch(plans, same)];
  expect(answers).toMatchObject([
    { ok: true, value: { revision: 2, entries: [] } },
    { ok: true, value: { revision: 2, entries: [{ id: same.batch.id }] } },
  ]);
  expect((await fromRows(site)).revision).toBe(2);
});

test("a change that would break the plan is refused by name and nothing is written", async () => {
  const site = await store(fennelStreet());
  const { plan } = await fromRows(site);
  const zone = must(
    [...plan.zone.values()].find((z) => z.name === "Visitors"),
    "Visitors",
  );
  const before = await countRows();
  const result = await commitBatch(plans, {
    site,
    revision: 1,
    batch: batch([{ kind: "zone", id: zone.id, before: zone, after: null }]),
    by: people.ruth,
  });
  expect(result).toMatchObject({
    ok: false,
    error: {
      code: "broken-plan",
      sentence: expect.stringMatching(/Visitors is still used by the (segment|wall)/),
    },
  });
  expect(await countRows()).toEqual(before);
});

test("undo takes back my own last batch only, redo brings it back, and a clash changes nothing", async () => {
  const site = await store(lockkeepersHouse());
  const { plan } = await fromRows(site);
  const [a, b] = [...plan.host.values()] as [
    NonNullable<ReturnType<Plan["host"]["get"]>>,
    NonNullable<ReturnType<Plan["host"]["get"]>>,
  ];
  const place = async (host: typeof a, text: string, by: Person, revision: number) => {
    const now = (await fromRows(site)).plan;
    return value(
      await commitBatch(plans, {
        site,
        revision,
        batch: batch(
          edited(now, (d) => d.patch("host", host.id, { place: text })),
          `${host.name} to ${text}`,
        ),
        by,
      }),
    );
  };
  await place(a, "Attic", people.ruth, 1);
  await place(b, "Boathouse", people.marek, 2);
  expect(
    await undo(plans, { site, batchId: v7(), by: people.ruth, mayPlan: true, settled: [] }),
  ).toMatchObject({
    ok: true,
    value: { revision: 4 },
  });
  const undone = (await fromRows(site)).plan;
  expect([undone.host.get(a.id)?.place, undone.host.get(b.id)?.place]).toEqual([a.place, "Boathouse"]);
  expect(
    await redo(plans, { site, batchId: v7(), by: people.ruth, mayPlan: true, settled: [] }),
  ).toMatchObject({
    ok: true,
    value: { revision: 5 },
  });
  expect(
    await redo(plans, { site, batchId: v7(), by: people.ruth, mayPlan: true, settled: [] }),
  ).toMatchObject({
    ok: false,
    error: { code: "nothing-to-undo" },
  });
  await place(a, "Landing", people.marek, 5);
  const clash = await undo(plans, { site, batchId: v7(), by: people.ruth, mayPlan: true, settled: [] });
  expect(clash).toMatchObject({
    ok: false,
    error: { code: "clash", clashes: [{ field: "place", mine: a.place, theirs: "Landing" }] },
  });
  expect(await fromRows(site)).toMatchObject({ revision: 6 });
});

test("20 broken plan files and 200 corruptions are refused with their place; no row is written", async () => {
  const before = await countRows();
  const refusedAt: string[] = [];
  const take = async (file: unknown) => {
    const result = await takeFile(file);
    refusedAt.push(
      !result.ok && result.error.code === "bad-file" ? (result.error.faults[0]?.place ?? "") : "TAKEN",
    );
  };
  for (const [, spoil] of BROKEN_FILES) await take(spoil(goodFile()));
  await fc.assert(
    fc.asyncProperty(fc.nat(PLACES.length - 1), fc.integer({ min: 0, max: 3 }), (n, how) =>
      take(corrupt(must(PLACES[n], "a place"), how)),
    ),
    { numRuns: 200, seed: 7 },
  );
  expect(refusedAt).toHaveLength(BROKEN_FILES.length + 200);
  expect(refusedAt.filter((place) => place === "TAKEN" || place === "")).toEqual([]);
  expect(await countRows()).toEqual(before);
});

/** All of a history, but for what is asked otherwise. */
const asked = (more: Partial<HistoryAsked> = {}): HistoryAsked => ({
  before: 100,
  about: null,
  by: null,
  from: null,
  until: null,
  ...more,
});

test("a site is made once, whatever is sent again, and goes with all its rows", async () => {
  const before = await countRows();
  const id = v7();
  const how = { name: "Boathouse", kind: "home", timeZone: "Europe/London" } as const;
  const made = { ...how, id, customer: null, by: people.ruth };
  expect([await createSite(plans, made), await createSite(plans, made)]).toEqual([
    { ok: true, value: { id } },
    { ok: true, value: { id } },
  ]);
  const full = await store(fennelStreet());
  expect((await plans.listSites(null)).find((s) => s.id === full)).toMatchObject({
    name: "Fennel Street Veterinary Practice",
    segments: 10,
    devices: 8,
  });
  expect((await plans.history(full, asked(), 10))?.map((line) => [line.revision, line.authorName])).toEqual([
    [1, "Ruth"],
  ]);
  const touched = must([...(await fromRows(full)).plan.host.keys()][0], "a host");
  expect(await plans.history(full, asked({ about: [touched] }), 10)).toHaveLength(1);
  // By somebody, about several things, in a stretch of time.
  const [line] = must(await plans.history(full, asked(), 10), "its history");
  const at = must(line, "a line").madeAt;
  const later = new Date(Date.parse(at) + 1).toISOString();
  const count = async (more: Partial<HistoryAsked>) =>
    must(await plans.history(full, asked(more), 10), "its history").length;
  expect([
    await count({ about: [v7(), touched, v7()] }),
    await count({ about: [v7()] }),
    await count({ by: "Ruth" }),
    await count({ by: "Marek" }),
    await count({ by: "Ruth", about: [touched], from: at, until: later }),
    await count({ from: later }),
    await count({ until: at }),
    await count({ before: 1 }),
  ]).toEqual([1, 0, 1, 0, 1, 0, 0, 0]);
  // What touched a thing comes with what it did to that alone, though the batch made all of the site.
  const first = must([...(await fromRows(full)).plan.port.keys()][0], "a port");
  const told = must(
    await plans.touched(full, { before: 100, about: [v7(), touched, first] }, 10),
    "what touched them",
  );
  expect(told.map(({ revision, changes }) => [revision, changes.map((change) => change.id).sort()])).toEqual([
    [1, [touched, first].sort()],
  ]);
  expect(told[0]?.changes.find((change) => change.id === touched)).toMatchObject({
    ...{ kind: "host", before: null },
    after: (await fromRows(full)).plan.host.get(touched),
  });
  expect(await plans.touched(full, { before: 1, about: [touched] }, 10)).toEqual([]);
  expect(await plans.touched(v7(), { before: 100, about: [touched] }, 10)).toBeNull();
  for (const site of [id, full]) await removeForGood(plans, site, people.ruth);
  expect(await removeSite(plans, id, people.ruth)).toMatchObject({
    ok: false,
    error: { code: "no-such-site" },
  });
  expect(await countRows()).toEqual(before);
});

test("the database refuses what the core would: a second link, a row of another site", async () => {
  const site = await store(fennelStreet());
  const [row] = await database.all(
    sql`SELECT link_id, port_id FROM link_end WHERE site_id = ${site} LIMIT 1`,
    (r) => r,
  );
  const port = String(row?.port_id);
  const other = v7();
  await database.run(
    sql`INSERT INTO link (site_id, id, medium, label) VALUES (${site}, ${other}, 'copper', '')`,
  );
  await expect(
    database.run(
      sql`INSERT INTO link_end (site_id, link_id, which, port_id) VALUES (${site}, ${other}, 'a', ${port})`,
    ),
  ).rejects.toMatchObject({ fault: "duplicate" });
  const elsewhere = await store(lockkeepersHouse());
  const [segment] = await database.all(
    sql`SELECT id FROM segment WHERE site_id = ${elsewhere} LIMIT 1`,
    (r) => String(r.id),
  );
  await expect(
    database.run(
      sql`INSERT INTO ssid (site_id, id, name, segment_id) VALUES (${site}, ${v7()}, 'x', ${segment ?? ""})`,
    ),
  ).rejects.toMatchObject({ code: "ER_NO_REFERENCED_ROW_2" });
});
