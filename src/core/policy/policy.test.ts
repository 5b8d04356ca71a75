import fc from "fast-check";
import { fennelStreet } from "../../../demo/fennel-street";
import { must } from "../kernel";
import { applyChanges, PlanEdits, PlanIndex, type Plan, type Service, type WallEnd } from "../plan";
import { openDoor, setWall } from "../planners";
import { testId } from "../testing/build-plan";
import { decide, wallBetween, type WallSide } from "./decide";
import { doorsInOrder, wallCell, wallEnds, zonesInOrder } from "./grid";
import { SERVICES, serviceText } from "./services";

const plan = fennelStreet();
const index = PlanIndex.of(plan);
const segment = (name: string) =>
  must(
    [...plan.segment.values()].find((s) => s.name === name),
    name,
  );
const zone = (name: string): WallEnd => ({
  at: "zone",
  zone: must(
    [...plan.zone.values()].find((z) => z.name === name),
    name,
  ).id,
});
const service = (name: string): Service =>
  must(
    SERVICES.find((s) => s.name === name),
    name,
  );
const edited = (on: Plan, edit: (edits: PlanEdits) => void): PlanIndex => {
  const edits = new PlanEdits(on);
  edit(edits);
  const result = applyChanges(on, edits.changes());
  return PlanIndex.of(must(result.ok ? result.value : null, "applies"));
};
let n = 0;
const ids = () => testId("wall", `${(n += 1)}`);

const decisions: readonly [string, WallSide, WallSide, string | null, boolean, RegExp][] = [
  ["one segment", segment("Staff"), segment("Staff"), "https", true, /nothing stands between/],
  [
    "one zone that is open inside",
    segment("Staff"),
    segment("Phones"),
    "sip",
    true,
    /may talk to one another/,
  ],
  [
    "a service with a door",
    segment("Staff"),
    segment("Servers"),
    "dns",
    true,
    /door for dns, records only\.$/,
  ],
  ["a service without one", segment("Staff"), segment("Servers"), "ssh", false, /not for ssh/],
  ["anything at all through a door", segment("Staff"), segment("Servers"), null, true, /only/],
  ["a pair without a wall", segment("Guests"), segment("Servers"), "dns", false, /is closed/],
  [
    "the way back of a door, as a new question",
    segment("Servers"),
    segment("Staff"),
    "dns",
    false,
    /is closed/,
  ],
  ["the internet when it is open", segment("Guests"), "internet", "https", true, /is open/],
  ["the internet for some services", segment("Cards"), "internet", "http", false, /not for http/],
  ["the gateway's pages from the kit", segment("Kit"), "gateway", "https", true, /is open/],
  ["the gateway's pages from the guests", segment("Guests"), "gateway", "https", false, /is closed/],
  ["from outside in", "internet", segment("Staff"), "https", false, /is closed/],
];

// eslint-disable-next-line max-params -- a row of the table of cases
test.each(decisions)("%s", (_, from, to, name, passes, reason) => {
  const decision = decide(index, from, to, name === null ? null : service(name));
  expect(decision.passes).toBe(passes);
  expect(decision.reason).toMatch(reason);
});

test("segments of one zone that is not open inside are kept apart", () => {
  const two = edited(plan, (edits) => {
    const guests = segment("Guests");
    edits.put("segment", {
      ...guests,
      id: testId("segment", "more guests"),
      name: "More guests",
      vlan: null,
    });
  });
  const more = must(two.plan.segment.get(testId("segment", "more guests")), "it");
  expect(decide(two, segment("Guests"), more, null)).toEqual({
    passes: false,
    wall: null,
    reason: "Both are in the zone Visitors, whose segments are kept apart.",
  });
  expect(decide(two, more, "internet", null).passes).toBe(true);
  expect(decide(two, "internet", more, null).passes).toBe(false);
});

/** Whether a service gets from the guests to the servers where their wall offers one. */
function passes(offered: Service, wanted: Service): boolean {
  const asked = edited(plan, (edits) =>
    setWall(edits, ids, {
      from: zone("Visitors"),
      to: zone("Servers"),
      door: "services",
      services: [offered],
      reason: "",
    }),
  );
  return decide(asked, segment("Guests"), segment("Servers"), wanted).passes;
}

test("a service without ports is its whole protocol: offered it lets all through, asked it needs all", () => {
  const [https, dns, ping] = [service("https"), service("dns"), service("ping")];
  const whole: Service = { ...https, ports: [] };
  expect([passes(whole, https), passes(whole, whole), passes(whole, dns), passes(https, whole)]).toEqual([
    true,
    true,
    false,
    false,
  ]);
  expect([passes(ping, ping), passes(https, https), passes(ping, https)]).toEqual([true, true, false]);
});

test("a door lets through exactly what it lists: every port of the question inside, same protocol", () => {
  const port = fc.integer({ min: 1, max: 65535 });
  const range = fc.tuple(port, port).map(([a, b]): [number, number] => (a <= b ? [a, b] : [b, a]));
  const anyService = fc.record({
    name: fc.constant("x"),
    protocol: fc.constantFrom("tcp" as const, "udp" as const),
    ports: fc.array(range, { minLength: 1, maxLength: 3 }),
  });
  fc.assert(
    fc.property(anyService, anyService, (offered, wanted) => {
      const inside =
        offered.protocol === wanted.protocol &&
        wanted.ports.every(([low, high]) => offered.ports.some(([a, b]) => a <= low && high <= b));
      expect(passes(offered, wanted)).toBe(inside);
    }),
    { numRuns: 60, seed: 61 },
  );
});

test("closing a pair takes its wall away; a door on an open wall changes nothing, on a door adds", () => {
  const closed = edited(plan, (edits) =>
    setWall(edits, ids, {
      from: zone("Practice"),
      to: zone("Servers"),
      door: "closed",
      services: [],
      reason: "",
    }),
  );
  expect(wallBetween(closed, zone("Practice"), zone("Servers"))).toBeNull();
  expect(closed.plan.wall.size).toBe(plan.wall.size - 1);
  const open = edited(plan, (edits) =>
    openDoor(edits, ids, { from: zone("Practice"), to: { at: "internet" }, service: service("ssh") }),
  );
  expect(open.plan).toEqual(plan);
  const more = edited(plan, (edits) =>
    openDoor(edits, ids, { from: zone("Practice"), to: zone("Servers"), service: service("ssh") }),
  );
  expect(wallBetween(more, zone("Practice"), zone("Servers"))?.services.map((s) => s.name)).toEqual([
    "dns",
    "dns",
    "records",
    "ssh",
  ]);
  expect(wallBetween(more, zone("Practice"), zone("Servers"))?.reason).toBe("records and names");
});

test("a door that changes stays in its conduit", () => {
  const conduit = { id: ids(), name: "Records", securityLevel: 2, owner: "", note: "" };
  const before = edited(plan, (edits) => {
    edits.put("conduit", conduit);
    const wall = wallBetween(index, zone("Practice"), zone("Servers"));
    edits.patch("wall", must(wall, "the wall").id, { conduit: conduit.id });
  });
  const after = edited(before.plan, (edits) =>
    openDoor(edits, ids, { from: zone("Practice"), to: zone("Servers"), service: service("ssh") }),
  );
  expect(wallBetween(after, zone("Practice"), zone("Servers"))?.conduit).toBe(conduit.id);
});

test("the grid has the internet first, the gateway last, zones by VLAN; doors are the plan's", () => {
  expect(zonesInOrder(index).map((z) => z.name)).toEqual([
    "Kit",
    "Practice",
    "Clinical",
    "Payment",
    "Servers",
    "Building",
    "Visitors",
    "By VPN",
  ]);
  const ends = wallEnds(index);
  expect([ends[0], ends.at(-1), ends.length]).toEqual([{ at: "internet" }, { at: "gateway" }, 10]);
  expect(doorsInOrder(index)).toHaveLength(plan.wall.size);
  const cells = ends.flatMap((from) => ends.map((to) => wallCell(index, from, to)));
  expect(cells.filter((cell) => cell.kind === "inside")).toHaveLength(8);
  expect(cells.filter((cell) => cell.kind === "itself")).toHaveLength(2);
  expect(cells.filter((cell) => cell.kind === "wall" && cell.door !== "closed")).toHaveLength(plan.wall.size);
  expect(wallCell(index, zone("Practice"), zone("Clinical"))).toEqual({
    kind: "wall",
    door: "services",
    text: "dicom https",
  });
  expect(serviceText(service("dicom"))).toBe("dicom, TCP 104 and 11112");
});
