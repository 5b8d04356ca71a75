import { bramblewick } from "../../../demo/bramblewick";
import { fennelStreet } from "../../../demo/fennel-street";
import { parseMac } from "../address";
import { must } from "../kernel";
import { BLANK_TREE, PlanIndex, type Device, type Plan, type PlanEdits } from "../plan";
import { LOOPS, TREE } from "../spanning-tree";
import { afterEdit, donePlan } from "../testing/after-edit";
import {
  aDevice,
  aDomain,
  aHost,
  aLink,
  anInterface,
  aPort,
  aSegment,
  aVlan,
  aZone,
  planWith,
  testId,
} from "../testing/build-plan";
import { v } from "../testing/written";
import { hasNetwork, reachesGateway } from "./way-there";
import { migration, type Migration } from "./migration";
import { shareRoots } from "./share-roots";
import { fullest, treeLoads } from "./tree-load";
import { treeReach, treeTimes } from "./tree-times";

const VIDS = [10, 20].map(v);
const OTHERS = [3, 4, 5, 6];

/**
 * A gateway on two cores that are joined, and four switches that hang on both: each VLAN has its own server.
 */
function twoCores(tree: Partial<Device["tree"]>): Plan {
  const domain = aDomain();
  const own = {
    ...BLANK_TREE,
    region: "hall",
    instances: VIDS.map((vid, i) => ({ number: i + 1, vids: [vid], priority: 32_768 })),
    ...tree,
  };
  const id = (n: number) => testId("device", `S${n}`);
  const devices = [1, 2, ...OTHERS].map((n) =>
    aDevice({ name: `S${n}`, domain: domain.id, tree: own, bridgeMac: parseMac(`02:00:00:00:00:0${n}`) }),
  );
  const trunk = (n: number, label: string) => aPort({ device: id(n), label, tagged: VIDS });
  const cables = [[1, 2] as const, ...OTHERS.flatMap((n) => [[1, n] as const, [2, n] as const])].map(
    ([a, b]) => [trunk(a, `to${b}`), trunk(b, `to${a}`)] as const,
  );
  const vlans = VIDS.map((vid) => aVlan({ vid: vid, domain: domain.id }));
  const zone = aZone({ name: "Inside" });
  // VLAN 10 ends at the first core, VLAN 20 at the second.
  const legs = VIDS.map((vid, i) =>
    anInterface({ name: `leg ${vid}`, device: id(i + 1), segment: testId("segment", `V${vid}`) }),
  );
  const segments = VIDS.map((vid, i) =>
    aSegment({
      name: `V${vid}`,
      zone: zone.id,
      vlan: must(vlans[i], "it").id,
      gatewayInterface: must(legs[i], "it").id,
    }),
  );
  const access = OTHERS.flatMap((n) =>
    VIDS.map((vid) => aPort({ device: id(n), label: `a${vid}`, pvid: vid, untagged: [vid] })),
  );
  return planWith({
    domain: [domain],
    zone: [zone],
    vlan: vlans,
    segment: segments,
    interface: legs,
    device: devices,
    port: [...cables.flat(), ...access],
    link: cables.map(([a, b]) => aLink({ a: a.id, b: b.id })),
    host: access.map((port) =>
      aHost({
        name: `H ${port.device} ${port.label}`,
        segment: testId("segment", `V${must(port.pvid, "it")}`),
        attachment: { at: "port", port: port.id },
      }),
    ),
  });
}

const done = (plan: Plan, work: (edits: PlanEdits) => void): Plan =>
  donePlan(
    afterEdit(plan, ({ edits }) => {
      work(edits);
      return null;
    }),
  );

test.each(["multiple", "perVlan"] as const)(
  "%s: roots are proposed where each VLAN goes, and the load is shared",
  (kind) => {
    const plan = twoCores({ kind });
    const index = PlanIndex.of(plan);
    const shared = must(shareRoots(index), "a proposal");
    expect(shared.roots.map(({ words, root }) => [words, root.name])).toEqual(
      kind === "multiple"
        ? [
            ["instance 1", "S1"],
            ["instance 2", "S2"],
          ]
        : [
            ["VLAN 10", "S1"],
            ["VLAN 20", "S2"],
          ],
    );
    expect(shared.roots.every(({ root, second }) => second !== null && second !== root)).toBe(true);
    expect(fullest(shared.after)).toBeLessThan(fullest(shared.before));
    // What is told before is what comes of it, and then nothing is left to do.
    const repair = must(shared.repair, "something to set");
    const then = PlanIndex.of(done(plan, (edits) => void repair.edit(edits, () => "")));
    expect(treeLoads(then)).toEqual(shared.after);
    expect(shareRoots(then)?.repair).toBeNull();
    // Nothing goes over the cable between the cores any more.
    const between = [...plan.link.values()].find(({ a, b }) =>
      [a, b].every((end) =>
        ["S1", "S2"].includes(plan.device.get(plan.port.get(end)?.device ?? "")?.name ?? ""),
      ),
    );
    expect(shared.after.find(({ link }) => link === between?.id)?.kbps).toBe(0);
  },
);

test("the load of all cables is what everybody sends, once for each cable on the way", () => {
  const loads = treeLoads(PlanIndex.of(twoCores({ kind: "rapid" })));
  // The root is S1: VLAN 10 goes up one cable, VLAN 20 two.
  const total = loads.reduce((sum, { kbps }) => sum + kbps, 0);
  const each = total / (OTHERS.length * 3);
  expect(loads.map(({ kbps }) => kbps / each).sort((a, b) => b - a)).toEqual([4, 2, 2, 2, 2, 0, 0, 0, 0]);
});

test("no trees beside the common one, or no second bridge: nothing is proposed", () => {
  expect(shareRoots(PlanIndex.of(fennelStreet()))).toBeNull();
});

/** Every state on the way, as the steps say it: none has a loop, and nobody loses anything. */
function walk(plan: Plan, way: Migration): Plan {
  const before = PlanIndex.of(plan);
  const hosts = [...plan.host.values()].filter((host) => hasNetwork(before, host));
  const reach = hosts.filter((host) => reachesGateway(before, host));
  let now = plan;
  for (const { device } of way.steps) {
    now = done(now, (edits) => {
      const { tree } = edits.need("device", device.id);
      edits.patch("device", device.id, { tree: { ...tree, kind: "multiple", ...way.region } });
    });
    const index = PlanIndex.of(now);
    expect(index.derived(LOOPS)).toEqual([]);
    expect(hosts.filter((host) => !hasNetwork(index, host)).map(({ name }) => name)).toEqual([]);
    expect(reach.filter((host) => !reachesGateway(index, host)).map(({ name }) => name)).toEqual([]);
  }
  return now;
}

test("from rapid to multiple trees: an order is found, and between nobody has lost anything", () => {
  const plan = done(bramblewick(), (edits) => {
    for (const device of edits.all("device"))
      if (device.tree.kind !== "none")
        edits.patch("device", device.id, { tree: { ...device.tree, kind: "rapid", instances: [] } });
  });
  const way = must(migration(PlanIndex.of(plan)), "a way");
  expect([way.isClean, way.steps.length > 2]).toEqual([true, true]);
  const end = walk(plan, way);
  const planned = done(plan, (edits) => void way.repair.edit(edits, () => ""));
  const kinds = (of: Plan) =>
    [...of.device.values()].map(({ tree }) => [tree.kind, tree.region, tree.revision]);
  expect(kinds(planned)).toEqual(kinds(end));
  expect(migration(PlanIndex.of(planned))).toBeNull();
});

test("two cores with instances: who goes over early sees one; the steps say which ports change", () => {
  const plan = twoCores({ kind: "rapid" });
  const apart = done(plan, (edits) => {
    const s2 = must(
      edits.all("device").find(({ name }) => name === "S2"),
      "it",
    );
    edits.patch("device", s2.id, {
      tree: {
        ...s2.tree,
        kind: "multiple",
        instances: s2.tree.instances.map((own) => (own.number === 2 ? { ...own, priority: 4096 } : own)),
      },
    });
  });
  const way = must(migration(PlanIndex.of(apart)), "a way");
  expect(way.isClean).toBe(true);
  expect(way.steps.map(({ device }) => device.name)).toHaveLength(5);
  expect(way.steps.some(({ blocks, opens }) => blocks.length + opens.length > 0)).toBe(true);
  walk(apart, way);
});

test("switches with one tree per VLAN are said to be unknown", () => {
  const plan = done(twoCores({ kind: "rapid" }), (edits) => {
    const s6 = must(
      edits.all("device").find(({ name }) => name === "S6"),
      "it",
    );
    edits.patch("device", s6.id, { tree: { ...s6.tree, kind: "perVlan" } });
  });
  expect(migration(PlanIndex.of(plan))?.unknown.map(({ name }) => name)).toEqual(["S6"]);
});

test("how far a tree reaches and how long what happens takes, by the root's timers", () => {
  const plan = twoCores({ kind: "rapid", helloSeconds: 1, forwardDelay: 10 });
  const index = PlanIndex.of(plan);
  const [reach] = treeReach(index);
  expect([reach?.root.name, reach?.hops, reach?.most]).toEqual(["S1", 1, 20]);
  expect(index.derived(TREE).hopsOf.size).toBe(6);
  const times = treeTimes(must(reach, "a reach").root);
  expect(times.map(({ takes }) => takes)).toEqual([
    "well under a second",
    "3 s",
    "20 s",
    "20 s",
    "under a second to neighbours, 20 s to others",
  ]);
});
