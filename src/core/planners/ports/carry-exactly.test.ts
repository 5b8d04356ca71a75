import fc from "fast-check";
import { must } from "../../kernel";
import {
  NO_GUARDS,
  applyChanges,
  PlanEdits,
  invert,
  PlanIndex,
  type Change,
  type Plan,
  type Port,
} from "../../plan";
import { isConsistent } from "../../fabric";
import { portCarries } from "../../forwarding";
import { aDevice, aDomain, aLink, aPort, aVlan, planWith, testId } from "../../testing/build-plan";
import { v } from "../../testing/written";
import { carryExactly } from "./carry-vlan";
import { fieldsOf, paintPorts, type PortRole } from "./paint-ports";
import { setCrossing, type CrossingWay } from "./crossing";
import { bramblewick } from "../../../../demo/bramblewick";
import { fennelStreet } from "../../../../demo/fennel-street";

const VIDS = [10, 20, 30, 40];
const EDGE = {
  ...NO_GUARDS,
  edge: true,
  bpduGuard: true,
  macLimit: 1,
};
const domain = aDomain();

interface Site {
  readonly size: number;
  readonly ring: boolean;
  readonly parents: readonly number[];
  readonly uses: readonly (readonly number[])[];
  readonly carried: readonly {
    readonly tagged: readonly number[];
    readonly tip: number | null;
    readonly pvid: number | null;
  }[];
  readonly plainAt: number;
  readonly strict: boolean;
}

/**
 * A random tree or ring of switches, each used by any of four VLANs, whose cables carry anything at all, even
 * what disagrees in itself.
 */
const anySite: fc.Arbitrary<Site> = fc.integer({ min: 2, max: 12 }).chain((size) =>
  fc.record({
    size: fc.constant(size),
    ring: fc.boolean(),
    parents: fc.array(fc.nat(1000), { minLength: size, maxLength: size }),
    uses: fc.array(fc.subarray(VIDS), { minLength: size, maxLength: size }),
    carried: fc.array(
      fc.record({
        tagged: fc.subarray(VIDS),
        tip: fc.constantFrom(null, ...VIDS),
        pvid: fc.constantFrom(null, ...VIDS),
      }),
      { minLength: 2 * size, maxLength: 2 * size },
    ),
    plainAt: fc.integer({ min: -1, max: size - 1 }),
    strict: fc.boolean(),
  }),
);

function planOf(site: Site): Plan {
  const { size, ring, parents, uses, carried, plainAt, strict } = site;
  const device = (i: number) => testId("device", `S${i}`);
  // One of them may know no VLANs: it passes every tag.
  const isPlain = (i: number) => i === plainAt && (uses[i] ?? []).length === 0;
  const devices = Array.from({ length: size }, (_, i) => {
    const made = aDevice({ name: `S${i}`, domain: domain.id, bridging: isPlain(i) ? "plain" : "vlan" });
    return { ...made, abilities: { ...made.abilities, mixesTagged: !strict } };
  });
  const pairs = Array.from({ length: ring ? size : size - 1 }, (_, i): [number, number] =>
    ring ? [i, (i + 1) % size] : [(parents[i + 1] ?? 0) % (i + 1), i + 1],
  ).filter(([a, b]) => a !== b);
  const users = uses.flatMap((vids, i) =>
    vids.map((vid) =>
      aPort({ device: device(i), label: `a${vid}`, pvid: v(vid), untagged: [v(vid)], guards: EDGE }),
    ),
  );
  const end = (at: number, label: string, n: number) => {
    const { tagged, tip, pvid } = must(carried[n % carried.length], "what it carries");
    return aPort({
      device: device(at),
      label,
      ...(isPlain(at)
        ? {}
        : {
            tagged: tagged.map(v),
            untagged: tip === null ? [] : [v(tip)],
            pvid: pvid === null ? null : v(pvid),
          }),
    });
  };
  const ends = pairs.map(([a, b], n) => [end(a, `c${n}`, 2 * n), end(b, `d${n}`, 2 * n + 1)] as const);
  return planWith({
    domain: [domain],
    vlan: VIDS.map((n) => aVlan({ vid: v(n), domain: domain.id })),
    device: devices,
    port: [...users, ...ends.flat()],
    link: ends.map(([a, b]) => aLink({ a: a.id, b: b.id })),
  });
}

const after = (plan: Plan, changes: readonly Change[]): Plan => {
  const done = applyChanges(plan, changes);
  return must(done.ok ? done.value : null, "applies");
};

test("the repair leaves nothing missing or needless on any tree or ring, and ends agree", () => {
  let repaired = 0;
  fc.assert(
    fc.property(anySite, (site) => {
      const plan = planOf(site);
      const edits = new PlanEdits(plan);
      carryExactly(edits, PlanIndex.of(plan));
      const changes = edits.changes();
      repaired += changes.length;
      const index = PlanIndex.of(after(plan, changes));
      for (const { port, missing, needless } of portCarries(index).values()) {
        expect([port.label, missing, needless]).toEqual([port.label, [], []]);
        expect([port.label, isConsistent(port)]).toEqual([port.label, true]);
        const far = index.peerOf(port.id);
        if (far !== undefined && index.plan.device.get(far.device)?.bridging === "vlan")
          expect([far.pvid, far.tagged]).toEqual([port.pvid, port.tagged]);
        if (site.strict) expect(port.pvid === null || port.tagged.length === 0).toBe(true);
      }
      // Done once, there is nothing left to do; undone, all is as it was.
      const again = new PlanEdits(index.plan);
      carryExactly(again, index);
      expect(again.changes()).toEqual([]);
      expect(after(index.plan, invert(changes)).port).toEqual(plan.port);
    }),
    { seed: 1988, numRuns: 400 },
  );
  expect(repaired).toBeGreaterThan(1000);
});

test("ports of end devices, guards and right ports are left alone; only chosen cables change", () => {
  const index = PlanIndex.of(fennelStreet());
  const edits = new PlanEdits(index.plan);
  carryExactly(edits, index);
  const changed = edits.changes().map(({ before, after: now }) => [before as Port, now as Port] as const);
  expect(changed.length).toBeGreaterThan(0);
  for (const [was, is] of changed) {
    expect(index.peerOf(was.id)).toBeDefined();
    expect(is.guards).toEqual(was.guards);
  }
  const port = must(changed[0], "a port")[0];
  const only = new PlanEdits(index.plan);
  carryExactly(only, index, new Set([port.id]));
  expect(
    only
      .changes()
      .map((change) => change.id)
      .sort(),
  ).toEqual(
    [port.id, must(index.peerOf(port.id), "the far end").id]
      .filter((id) => changed.some(([was]) => was.id === id))
      .sort(),
  );
});

const anyVid = fc.constantFrom(...VIDS.map(v));
const anyRole: fc.Arbitrary<PortRole> = fc.oneof(
  fc.record({ role: fc.constant("access" as const), vid: anyVid }),
  fc.uniqueArray(anyVid, { minLength: 2, maxLength: 2 }).map((pair): PortRole => ({
    role: "dataVoice",
    vid: must(pair[0], "a vid"),
    voice: must(pair[1], "a vid"),
  })),
  fc.record({
    role: fc.constant("trunk" as const),
    untagged: fc.option(anyVid),
    tagged: fc.subarray(VIDS.map(v)),
  }),
  fc.record({ role: fc.constant("park" as const), vid: fc.option(anyVid) }),
  fc.record({ role: fc.constant("wayBack" as const), vid: anyVid }),
  fc.constant<PortRole>({ role: "undecided" }),
);

test("what is painted agrees in itself, leaves all other ports alone and is undone exactly", () => {
  const plans = [fennelStreet(), bramblewick()];
  fc.assert(
    fc.property(
      fc.nat(1),
      fc.array(fc.nat(2000), { minLength: 1, maxLength: 60 }),
      fc.array(anyRole, { minLength: 1, maxLength: 4 }),
      (which, picks, roles) => {
        const plan = must(plans[which], "a plan");
        const all = [...plan.port.keys()];
        const chosen = [...new Set(picks.map((n) => must(all[n % all.length], "a port")))];
        const edits = new PlanEdits(plan);
        for (const role of roles) paintPorts(edits, chosen, role);
        const changes = edits.changes();
        const painted = after(plan, changes);
        for (const id of chosen) {
          const port = must(painted.port.get(id), "a painted port");
          expect(isConsistent(port)).toBe(true);
          // What becomes of the guards is told in keeps-the-rest.test.ts.
          expect(port).toMatchObject({ ...fieldsOf(must(roles.at(-1), "a role")), guards: {} });
        }
        expect(changes.every((change) => chosen.includes(change.id))).toBe(true);
        expect(after(painted, invert(changes)).port).toEqual(plan.port);
      },
    ),
    { seed: 40, numRuns: 300 },
  );
});

test("a crossing is set as asked, agrees in itself, and keeps the port's other VLANs", () => {
  fc.assert(
    fc.property(
      anySite,
      fc.array(
        fc.tuple(
          fc.nat(99),
          fc.constantFrom(...VIDS),
          fc.constantFrom<CrossingWay>("none", "tagged", "untagged"),
        ),
        { minLength: 1, maxLength: 6 },
      ),
      (site, steps) => {
        const base = planOf({ ...site, strict: false });
        const index = PlanIndex.of(base);
        const edits = new PlanEdits(base);
        const ports = [...base.port.values()].filter(
          (port) => base.device.get(port.device)?.bridging === "vlan",
        );
        for (const [pick, vid, way] of steps) {
          const { id } = must(ports[pick % ports.length], "a port");
          const was = edits.need("port", id);
          expect(setCrossing({ edits, index, ids: () => "" }, id, v(vid), way)).toBeNull();
          const is = edits.need("port", id);
          expect(isConsistent(is)).toBe(true);
          expect(is.tagged.includes(v(vid))).toBe(way === "tagged");
          expect(is.pvid === vid).toBe(way === "untagged");
          const others = was.tagged.filter((carried) => carried !== vid && carried !== is.pvid);
          expect(is.tagged.filter((carried) => carried !== vid)).toEqual(others);
        }
      },
    ),
    { seed: 7, numRuns: 200 },
  );
});

test("a device that can't mix untagged and tagged refuses the crossing that would", () => {
  const made = aDevice({ name: "Old switch", domain: domain.id });
  const port = aPort({ device: made.id, label: "1", pvid: v(10), untagged: [v(10)] });
  const plan = planWith({
    domain: [domain],
    vlan: VIDS.map((n) => aVlan({ vid: v(n), domain: domain.id })),
    device: [{ ...made, abilities: { ...made.abilities, mixesTagged: false } }],
    port: [port],
  });
  const edits = new PlanEdits(plan);
  expect(setCrossing({ edits, index: PlanIndex.of(plan), ids: () => "" }, port.id, v(20), "tagged")).toBe(
    "Old switch can't have untagged and tagged VLANs on one port; port 1 would have 10 untagged and 20 tagged.",
  );
  expect(edits.changes()).toEqual([]);
});
