import { LOCKKEEPERS_HOUSE } from "../../../../demo/surveys";
import { listFindings, runChecks } from "../../checks";
import { diff, PlanIndex, type Host, type Plan } from "../../plan";
import { decide, SERVICES } from "../../policy";
import { must } from "../../kernel";
import { asClient, probe } from "../../probe";
import { dice } from "../../testing/plants";
import { surveyPlan } from "../../testing/survey-plan";
import { afterEdit, donePlan } from "../../testing/after-edit";
import { draftPlan, USUAL_PARTS } from "./draft";

const ids = () => "00000000-0000-7000-8000-000000000001";
const PLAIN = {
  name: "Hall plain switch",
  kind: "switch" as const,
  fate: "keep" as const,
  room: "Hall",
  model: "switch-5-plain",
};
const room = (name: string, needs: string, group?: string) => ({
  name,
  needs,
  ...(name === "Hall" ? { kind: "cabinet" as const } : { cabinet: "Hall" }),
  ...(group === undefined ? {} : { group }),
});
function drafted(rooms: ReturnType<typeof room>[]): { plan: Plan; notes: readonly string[] } {
  let notes: readonly string[] = [];
  const plan = donePlan(
    afterEdit(
      surveyPlan({ ...LOCKKEEPERS_HOUSE, rooms, gear: [PLAIN] }, { separation: "routers" }),
      (context) => {
        notes = draftPlan(context, USUAL_PARTS).notes;
      },
    ),
  );
  return { plan, notes };
}
const SITES = {
  few: [room("Hall", "1 PC, 1 printer"), room("Flat", "1 PC", "Lodger")],
  "an untrusted network with more than its router's ports": [
    room("Hall", "3 PC, 1 printer, 2 television"),
    room("Den", "3 game console"),
  ],
  "a household and its lodger, wireless": [
    room("Hall", "2 PC, 1 access point, 3 mobile"),
    room("Flat", "1 PC, 2 mobile", "Lodger"),
  ],
  "visitors and gadgets, an access point in each room": [
    room("Hall", "6 PC, 1 access point"),
    room("Den", "2 television, 1 access point, 4 wireless game console"),
    room("Garden room", "8 visitors, 1 access point"),
  ],
  "powered things behind a router": [
    room("Hall", "3 PC, 2 phone"),
    room("Drive", "3 camera"),
    room("Flat", "4 PC", "Lodger"),
  ],
  "one network": [room("Hall", "5 PC, 1 printer")],
  "three networks": [
    room("Hall", "4 PC, 2 television"),
    room("Flat", "6 PC, 1 printer", "Lodger"),
    room("Attic", "5 game console, 2 PC"),
  ],
};
const HTTPS = must(
  SERVICES.find(({ name }) => name === "https"),
  "https",
);

/** The device that serves the addresses of a segment. */
const serverOf = (index: PlanIndex, segment: string) =>
  index.plan.device.get(index.gatewayOf(must(index.plan.segment.get(segment), "a segment"))?.device ?? "")
    ?.name;

test.each(Object.entries(SITES))(
  "%s: every host is plugged in, is served by its own network's router, and reaches exactly what its walls say",
  (_, rooms) => hold(drafted(rooms).plan),
);

function hold(plan: Plan): void {
  const index = PlanIndex.of(plan);
  expect(listFindings(runChecks(index)).filter(({ severity }) => severity === "stop")).toEqual([]);
  const hosts = [...plan.host.values()];
  const segmentOf = (host: Host) => must(plan.segment.get(host.segment ?? ""), host.name);
  for (const host of hosts) {
    const { lease, cause } = probe(
      index,
      asClient({ at: "host", host: host.id }, { to: "internet", service: HTTPS }),
      ids,
    );
    expect([
      host.name,
      host.attachment.at,
      host.manner === "typed" ? null : lease?.server,
      cause?.sentence ?? "passes",
    ]).toEqual([
      host.name,
      host.attachment.at === "ssid" ? "ssid" : "port",
      host.manner === "typed" ? null : serverOf(index, host.segment ?? ""),
      decide(index, segmentOf(host), "internet", HTTPS).passes ? "passes" : expect.stringContaining("wall"),
    ]);
  }
  for (const from of hosts)
    for (const to of hosts) {
      if (from === to || from.segment === to.segment) continue;
      const reached =
        probe(
          index,
          asClient({ at: "host", host: from.id }, { to: "host", host: to.id, service: HTTPS }),
          ids,
        ).cause === null;
      expect([from.name, to.name, reached]).toEqual([
        from.name,
        to.name,
        decide(index, segmentOf(from), segmentOf(to), HTTPS).passes,
      ]);
    }
}

/** The segments of the legs that lead out of each network but the one in front, by the network's router. */
const outsides = (plan: Plan) =>
  [...plan.interface.values()]
    .filter(({ name }) => name === "Outside")
    .map((leg) => [plan.device.get(leg.device)?.name, plan.segment.get(leg.segment ?? "")?.name])
    .sort();

test("two of which one opens the other make a chain; any others a Y with nobody in front", () => {
  const two = drafted(SITES["an untrusted network with more than its router's ports"]).plan;
  expect(outsides(two)).toEqual([["Household router", "Gadgets"]]);
  expect(
    [...two.wall.values()]
      .filter(({ from, to }) => from.at === "zone" && to.at === "zone")
      .map((wall) => wall.door),
  ).toEqual(["services"]);
  const three = drafted(SITES["three networks"]).plan;
  expect(outsides(three)).toEqual([
    ["Gadgets router", "Kit"],
    ["Household router", "Kit"],
    ["Lodger router", "Kit"],
  ]);
  expect(
    [...three.host.values()].filter((host) => three.segment.get(host.segment ?? "")?.name === "Kit"),
  ).toEqual([]);
  expect(outsides(drafted(SITES.few).plan)).toEqual([
    ["Household router", "Kit"],
    ["Lodger router", "Kit"],
  ]);
  expect(outsides(drafted(SITES["one network"]).plan)).toEqual([]);
});

test("what the purposes would want and a router does not let in is said, and no door is drawn for it", () => {
  const { plan, notes } = drafted(SITES["three networks"]);
  expect(notes).toContainEqual(
    expect.stringMatching(/^Household can open nothing in Gadgets: the router there lets in only answers/),
  );
  expect([...plan.wall.values()].filter(({ from, to }) => from.at === "zone" && to.at === "zone")).toEqual(
    [],
  );
});

test("the switch that stays is used by the first network that has a place for it, once", () => {
  for (const rooms of Object.values(SITES))
    expect(
      [...drafted(rooms).plan.device.values()].filter(({ name }) => name === "Hall plain switch"),
    ).toHaveLength(1);
});

test("one access point can't be in two networks: each has one of its own, and it is said", () => {
  const { plan, notes } = drafted(SITES["a household and its lodger, wireless"]);
  expect(
    [...plan.device.values()]
      .filter(({ kind }) => kind === "accessPoint")
      .map(({ name }) => name)
      .sort(),
  ).toEqual(["Flat Lodger AP", "Hall AP"]);
  expect(notes).toContainEqual(
    "Lodger gets an access point of its own in Flat, beside those of " +
      "the survey: one can't be in two networks that routers separate.",
  );
  const told = drafted(SITES["visitors and gadgets, an access point in each room"]).plan;
  expect(
    [...told.device.values()]
      .filter(({ kind }) => kind === "accessPoint")
      .map(({ name, domain }) => [name, told.domain.get(domain ?? "")?.name]),
  ).toEqual(
    expect.arrayContaining([
      ["Den AP", "Gadgets"],
      ["Garden room AP", "Visitors"],
    ]),
  );
});

test("a host in another network than planned is found, whatever stands between the two", () => {
  let found = 0;
  for (const rooms of Object.values(SITES)) {
    const { plan } = drafted(rooms);
    const index = PlanIndex.of(plan);
    const wired = [...plan.host.values()].filter(({ attachment }) => attachment.at === "port");
    for (const host of wired)
      for (const other of wired) {
        if (host.segment === other.segment || other.attachment.at !== "port") continue;
        // It takes the place of the other at its port.
        const moved = donePlan(
          afterEdit(plan, ({ edits }) => {
            edits.patch("host", other.id, { attachment: { at: "unplaced" } });
            edits.patch("host", host.id, { attachment: other.attachment, tag: null });
          }),
        );
        const findings = listFindings(runChecks(PlanIndex.of(moved))).filter(
          (finding) =>
            ["host-in-other-network", "host-in-wrong-vlan"].includes(finding.code) &&
            finding.subjects.some(({ id }) => id === host.id),
        );
        expect([host.name, other.name, findings.length]).toEqual([host.name, other.name, 1]);
        found += 1;
        if (found % 12 > 0) break;
      }
    expect(listFindings(runChecks(index)).filter(({ code }) => code === "host-in-other-network")).toEqual([]);
  }
  expect(found).toBeGreaterThan(20);
});

test("any home that routers separate: served by its own, reaching what walls say, stable", () => {
  const words = ["PC", "printer", "television", "mobile", "game console", "phone", "camera", "visitors"];
  for (let seed = 1; seed <= 25; seed += 1) {
    const roll = dice(seed);
    const rooms = ["Hall", "Den", "Flat"].map((name) =>
      room(
        name,
        Array.from({ length: 1 + roll(3) }, () => `${1 + roll(4)} ${words[roll(words.length)] ?? ""}`)
          .concat(name === "Hall" || roll(3) === 0 ? ["1 access point"] : [])
          .join(", "),
        name === "Flat" && roll(2) === 0 ? "Lodger" : undefined,
      ),
    );
    const { plan } = drafted(rooms);
    hold(plan);
    expect([
      seed,
      diff(
        plan,
        donePlan(
          afterEdit(plan, (context) => {
            draftPlan(context, USUAL_PARTS);
          }),
        ),
      ),
    ]).toEqual([seed, []]);
  }
});

test("drafted again, nothing is added or changed", () => {
  for (const rooms of Object.values(SITES)) {
    const { plan } = drafted(rooms);
    expect(
      diff(
        plan,
        donePlan(
          afterEdit(plan, (context) => {
            draftPlan(context, USUAL_PARTS);
          }),
        ),
      ),
    ).toEqual([]);
  }
});
