import fc from "fast-check";
import { BRAMBLEWICK, FENNEL_STREET, LOCKKEEPERS_HOUSE, SURVEYS } from "../../../../demo/surveys";
import { bramblewick } from "../../../../demo/bramblewick";
import { fennelStreet } from "../../../../demo/fennel-street";
import { formatPrefix } from "../../address";
import { listFindings, runChecks, sentenceOf } from "../../checks";
import { decodeChanges, encodeChanges } from "../../formats";
import { must } from "../../kernel";
import { applyChanges, PlanEdits, PlanIndex, type Plan, type Room } from "../../plan";
import { plan as runPlanner } from "../../planners";
import { asClient, probe } from "../../probe";
import { surveyPlan } from "../../testing/survey-plan";
import { CATALOGUE } from "../../catalogue";
import { draftPlan, DRAFT_PARTS, USUAL_PARTS, type DraftPart, type DraftReport } from "./draft";
import { groupKey } from "../groups";
import { groupsToDraft } from "./frame";
import { marksOf } from "../marks";
import { schoolOf } from "../school";
import { tallySurvey } from "../tally";

let made = 0;
/** As in life: what is made later has the later id. */
const nextId = () => `00000000-0000-7000-8000-${(made += 1).toString(16).padStart(12, "0")}`;
function drafted(
  plan: Plan,
  parts: ReadonlySet<DraftPart> = USUAL_PARTS,
): { plan: Plan; report: DraftReport; changes: number } {
  let report: DraftReport | null = null;
  const { batch, refusal } = runPlanner(
    PlanIndex.of(plan),
    nextId,
    { planner: "draft", summary: "", args: null },
    (context) => {
      report = draftPlan(context, parts);
    },
  );
  if (batch === null) throw new Error(refusal);
  expect(decodeChanges(JSON.parse(JSON.stringify(encodeChanges(batch.changes))))).toEqual(batch.changes);
  const applied = applyChanges(plan, batch.changes);
  return {
    plan: must(
      applied.ok ? applied.value : null,
      `applies: ${applied.ok ? "" : JSON.stringify(applied.error)}`,
    ),
    report: must(report as DraftReport | null, "a report"),
    changes: batch.changes.length,
  };
}
const findings = (plan: Plan, severity: string) => {
  const index = PlanIndex.of(plan);
  return listFindings(runChecks(index))
    .filter((f) => f.severity === severity)
    .map((f) => `${f.code}: ${sentenceOf(f, index)}`);
};
/** The plan with one room's line changed. */
const withNeeds = (plan: Plan, name: string, needs: string): Plan => {
  const edits = new PlanEdits(plan);
  const room = must(
    [...plan.room.values()].find((r) => r.name === name),
    name,
  );
  edits.patch("room", room.id, { needs });
  const applied = applyChanges(plan, edits.changes());
  return must(applied.ok ? applied.value : null, "applies");
};

test("the marks that the tally shows are unique, and those the draft gives", () => {
  for (const survey of SURVEYS)
    for (const separation of ["vlans", "routers"] as const) {
      const before = PlanIndex.of(surveyPlan(survey, { separation }));
      const marks = marksOf(
        before,
        groupsToDraft(before, schoolOf(before)).map(({ group }) => group),
      );
      expect(new Set(marks.values()).size).toBe(marks.size);
      const { plan } = drafted(before.plan);
      expect(
        new Map(
          [...plan.segment.values()].map(({ purpose, group, mark }) => [
            groupKey({ purpose, name: group }),
            mark,
          ]),
        ),
      ).toEqual(marks);
    }
});

test("gear beyond the static block gets an address outside it at once, not drafted again only", () => {
  const { plan } = drafted(
    surveyPlan(
      {
        name: "Points",
        kind: "home",
        gear: [],
        rooms: [
          { name: "Hall", kind: "cabinet", group: "", needs: "17 access point" },
          { name: "Study", kind: "room", group: "", needs: "4 PC" },
        ],
      },
      { subnetScheme: "octet" },
    ),
  );
  expect(
    [...plan.device.values()]
      .filter(
        (device) =>
          device.kind !== "gateway" && ![...plan.interface.values()].some((leg) => leg.device === device.id),
      )
      .map((device) => device.name),
  ).toEqual([]);
  expect(drafted(plan).changes).toBe(0);
});

describe.each(SURVEYS.map((survey) => [survey.name, survey] as const))("%s", (_name, survey) => {
  test.each([
    ["as it is", {}, []],
    [
      "packed, gateway last, static block at the end",
      { subnetScheme: "packed", gatewayAt: "last", staticAt: "end", vidStart: 101, vidStep: 1 },
      [],
    ],
    ["typed in, listed name servers, IPv6", { school: "type", growth: 60 }, ["fd24:5a10:3c01::/48"]],
  ] as const)(
    "drafted %s: no stop, nothing left to draft, every wired thing has its port",
    (_what, conventions, blocks6) => {
      const { plan, report } = drafted(surveyPlan(survey, conventions, blocks6));
      expect(findings(plan, "stop")).toEqual([]);
      expect(findings(plan, "warn")).toEqual([]);
      expect(report.notes.filter((note) => !note.startsWith("The site has no address block"))).toEqual([]);
      expect(
        [...plan.host.values()].filter((h) => h.attachment.at === "unplaced").map((h) => h.name),
      ).toEqual([]);
      expect(drafted(plan).changes).toBe(0);
      expect(drafted(plan, new Set(DRAFT_PARTS)).changes).toBe(0);
    },
  );

  test("part by part is the same as all at once", () => {
    const start = surveyPlan(survey);
    let plan = start;
    for (const part of DRAFT_PARTS) plan = drafted(plan, new Set([part])).plan;
    const whole = drafted(start).plan;
    const names = (of: Plan) =>
      [...of.host.values()].map((h) => [h.name, h.manner, h.ipv4, h.attachment.at]).sort();
    expect(names(plan)).toEqual(names(whole));
    expect([...plan.wall.values()].length).toBe(whole.wall.size);
    expect(findings(plan, "stop")).toEqual([]);
  });

  test("growth of the survey drafts the difference only: what stands keeps its address and its port", () => {
    const before = drafted(surveyPlan(survey)).plan;
    const room = must(
      survey.rooms.find((r) => r.needs.includes("PC")),
      "a room with a PC",
    );
    const after = drafted(withNeeds(before, room.name, `${room.needs}, 4 PC, 1 printer`));
    for (const host of before.host.values())
      expect(after.plan.host.get(host.id)).toMatchObject({
        ipv4: host.ipv4,
        attachment: host.attachment,
        segment: host.segment,
      });
    expect(after.plan.host.size).toBe(before.host.size + 5);
    expect(findings(after.plan, "stop")).toEqual([]);
  });
});

test("the figures of the tally, by hand", () => {
  const tally = tallySurvey(PlanIndex.of(surveyPlan(FENNEL_STREET)));
  const reception = must(
    tally.rooms.find((r) => r.room.name === "Reception"),
    "Reception",
  );
  expect(reception).toMatchObject({ sockets: 6, hosts: 9, poeMw: 21_000 });
  expect(tally.rooms.find((r) => r.room.name === "Waiting room")).toMatchObject({
    sockets: 3,
    hosts: 63,
    poeMw: 45_400,
    accessPoints: 1,
  });
  expect(tally).toMatchObject({ accessPoints: 4, inCabinets: 6, unread: 0 });
  const guests = must(
    tally.groups.find((g) => g.group.purpose === "guests"),
    "guests",
  );
  expect([guests.now, guests.planned]).toEqual([60, 75]);
});

test("separate routers: plain switches and few groups; each behind its own, outside in front", () => {
  const survey = {
    ...LOCKKEEPERS_HOUSE,
    rooms: [
      { name: "Hall", kind: "cabinet" as const, needs: "1 PC, 1 printer" },
      { name: "Flat", cabinet: "Hall", group: "Lodger", needs: "1 PC" },
    ],
    gear: [
      {
        name: "Hall plain switch",
        kind: "switch" as const,
        fate: "keep" as const,
        room: "Hall",
        model: "switch-5-plain",
      },
    ],
  };
  const { plan, report } = drafted(surveyPlan(survey));
  expect(report.school).toMatchObject({ school: "routers", overridden: false });
  expect(
    [...plan.device.values()]
      .filter((d) => d.kind === "gateway")
      .map((d) => d.name)
      .sort(),
  ).toEqual(["Gateway", "Household router", "Lodger router"]);
  expect(findings(plan, "stop")).toEqual([]);
  const outside = must(
    [...plan.interface.values()].find((leg) => leg.name === "Outside"),
    "the router's outside",
  );
  expect(plan.segment.get(outside.segment ?? "")?.name).toBe("Kit");
  expect([...plan.host.values()].every((h) => h.attachment.at === "port")).toBe(true);
  expect(drafted(plan).changes).toBe(0);
});

test("a safety network has its own gear and domain, no gateway, no cable; a school may differ", () => {
  const { plan, report } = drafted(surveyPlan(BRAMBLEWICK));
  const index = PlanIndex.of(plan);
  const safety = must(
    [...plan.segment.values()].find((s) => s.purpose === "safety"),
    "safety",
  );
  expect(safety.gatewayInterface).toBeNull();
  const domain = must(plan.vlan.get(safety.vlan ?? ""), "its VLAN").domain;
  const own = [...plan.device.values()].filter((d) => d.domain === domain);
  expect(own.length).toBeGreaterThan(0);
  for (const device of own)
    for (const port of index.portsOf(device.id))
      expect([device.name, plan.device.get(index.peerOf(port.id)?.device ?? "")?.domain ?? domain]).toEqual([
        device.name,
        domain,
      ]);
  expect(report.school.reason).toMatch(/safety network is recorded on gear of its own/);
  expect(drafted(surveyPlan(BRAMBLEWICK, { separation: "routers" })).report.school).toMatchObject({
    school: "routers",
    overridden: true,
    fits: "vlans",
  });
  const gap = drafted(surveyPlan(BRAMBLEWICK, { separation: "gap" }));
  expect(findings(gap.plan, "stop")).toEqual([]);
  expect(
    [...gap.plan.segment.values()]
      .filter((s) => s.purpose === "cell")
      .every((s) => s.gatewayInterface === null),
  ).toBe(true);
});

test("a drafted PC reaches the internet through its port, a cell does not", () => {
  const { plan } = drafted(surveyPlan(BRAMBLEWICK));
  const index = PlanIndex.of(plan);
  const ask = (kind: string) =>
    probe(
      index,
      asClient(
        {
          at: "host",
          host: must(
            [...plan.host.values()].find((h) => h.surveyed?.what === kind),
            kind,
          ).id,
        },
        { to: "internet", service: null },
      ),
      () => "",
    ).stopsAt;
  expect(ask("PC")).toBeNull();
  expect(ask("controller")).not.toBeNull();
});

test("what the survey counts no more goes when nobody saw it, and stays with a sentence else", () => {
  const before = drafted(surveyPlan(FENNEL_STREET)).plan;
  const fewer = withNeeds(before, "Reception", "1 PC+phone, 2 card terminal, 1 printer");
  const after = drafted(fewer);
  expect(before.host.size - after.plan.host.size).toBe(4);
  const seen = new PlanEdits(fewer);
  const pc = must(
    [...fewer.host.values()].find((h) => h.name === "reception-pc-3"),
    "a PC",
  );
  seen.patch("host", pc.id, { mac: "02:5a:10:00:00:01" as never });
  const applied = applyChanges(fewer, seen.changes());
  const kept = drafted(must(applied.ok ? applied.value : null, "applies"));
  expect(kept.plan.host.has(pc.id)).toBe(true);
  expect(kept.report.notes.join()).toMatch(/reception-pc-3 stays?, since a MAC address has been entered/);
});

test("a subnet that is outgrown moves in its own part; how many addresses change is said", () => {
  const before = drafted(surveyPlan(FENNEL_STREET, { subnetScheme: "packed" })).plan;
  const more = withNeeds(before, "Waiting room", "1 screen, 1 camera, 1 access point, 600 guest");
  const usual = drafted(more);
  const guests = (plan: Plan) =>
    must(
      [...plan.segment.values()].find((s) => s.purpose === "guests"),
      "guests",
    ).prefixes4.map(formatPrefix)[0];
  expect(guests(usual.plan)).toBe(guests(before));
  const larger = drafted(more, new Set(DRAFT_PARTS));
  expect(guests(larger.plan)).toMatch(/\/21$/);
  expect(larger.report.notes.join()).toMatch(
    /Guests (grows from|moves from) .+ (no address changes|\d+ addresses in use change)/,
  );
});

test("kept gear becomes the device it is like, with its name and support date, and is not bought again", () => {
  const survey = {
    ...FENNEL_STREET,
    gear: [
      {
        name: "Old 24",
        kind: "switch" as const,
        fate: "keep" as const,
        room: "Cabinet A",
        model: "switch-24-poe",
        supportUntil: "2029-01-31",
      },
    ],
  };
  const { plan } = drafted(surveyPlan(survey));
  const kept = must(
    [...plan.device.values()].find((d) => d.name === "Old 24"),
    "the kept switch",
  );
  expect([kept.place, kept.supportUntil]).toEqual(["Cabinet A", "2029-01-31"]);
  const without = drafted(surveyPlan({ ...survey, gear: [] })).plan;
  const ports = (of: Plan) =>
    [...of.port.values()].filter(
      (p) => of.device.get(p.device)?.place === "Cabinet A" && of.device.get(p.device)?.kind === "switch",
    ).length;
  expect(ports(plan)).toBeLessThanOrEqual(ports(without) + 26);
  expect(drafted(plan).changes).toBe(0);
});

test("a demo site planned by hand is never rebuilt: no address moves, no device goes", () => {
  for (const plan of [fennelStreet(), bramblewick()]) {
    const after = drafted(plan).plan;
    for (const host of plan.host.values())
      expect(after.host.get(host.id)).toMatchObject({ ipv4: host.ipv4, manner: host.manner });
    for (const segment of plan.segment.values())
      expect(after.segment.get(segment.id)?.prefixes4).toEqual(segment.prefixes4);
  }
});

test("any survey of known things drafts to a plan that applies, without a stop, and settles", () => {
  const kinds = CATALOGUE.filter((kind) => kind.role !== "switch");
  const room = fc.record({
    kind: fc.constantFrom<Room["kind"]>("room", "cabinet", "outdoor"),
    group: fc.constantFrom("", "", "Upstairs"),
    items: fc.array(fc.tuple(fc.integer({ min: 1, max: 9 }), fc.nat(kinds.length - 1)), { maxLength: 5 }),
  });
  fc.assert(
    fc.property(
      fc.array(room, { minLength: 1, maxLength: 5 }),
      fc.constantFrom("home", "office", "industrial"),
      fc.constantFrom("octet", "packed"),
      (rooms, kind, subnetScheme) => {
        const survey = {
          name: "Any",
          kind: kind as "home",
          gear: [],
          rooms: rooms.map((r, i) => ({
            name: `Room ${i}`,
            kind: r.kind,
            group: r.group,
            needs: r.items.map(([count, n]) => `${count} ${must(kinds[n], "a kind").word}`).join(", "),
          })),
        };
        const { plan } = drafted(surveyPlan(survey, { subnetScheme: subnetScheme as "octet" }));
        expect(findings(plan, "stop")).toEqual([]);
        expect(drafted(plan).changes).toBe(0);
      },
    ),
    { numRuns: 40 },
  );
});

test("what could not be read is named with its room", () => {
  const survey = {
    ...LOCKKEEPERS_HOUSE,
    gear: [],
    rooms: [
      { name: "Hall", kind: "cabinet" as const, needs: "1 PC, 3 holodecks, 2 printer" },
      { name: "Flat", cabinet: "Hall", needs: "zz" },
    ],
  };
  expect(drafted(surveyPlan(survey)).report.notes).toContain(
    '2 items of the survey could not be read and are left out: "3 holodecks" in Hall, "zz" in Flat.',
  );
});
