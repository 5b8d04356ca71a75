import fc from "fast-check";
import { bramblewick } from "../../../demo/bramblewick";
import { DisjointSet, must } from "../kernel";
import { BLANK_TREE, PlanIndex, type Device, type Plan } from "../plan";
import { chooseRoot, setTreeKind, setTreePriority } from "../planners";
import { afterEdit, donePlan } from "../testing/after-edit";
import { aDevice, aLink, aPort, planWith, testId } from "../testing/build-plan";
import { heldOtherwise } from "../testing/held-otherwise";
import { v } from "../testing/written";
import { TREE } from "./plan-tree";
import { treePlace } from "./why";

const ring = bramblewick();
const named = (plan: Plan, name: string): Device =>
  must(
    [...plan.device.values()].find((device) => device.name === name),
    name,
  );
const place = (plan: Plan, name: string) => treePlace(PlanIndex.of(plan), named(plan, name));

test("the cider works' ring: the office is root, one port of the ring stands by and says why", () => {
  const switches = [
    "Office switch",
    "Press house switch",
    "Tank farm switch",
    "Bottling hall switch",
    "Cold store switch",
  ];
  const places = switches.map((name) => must(place(ring, name), name));
  expect(places.map((treePlace) => treePlace.root.name)).toEqual(switches.map(() => "Office switch"));
  const standing = places.flatMap((treePlace) => treePlace.rows.filter((row) => !row.forwards));
  expect(standing.length).toBe(1);
  expect(standing[0]?.why).toMatch(
    new RegExp(
      "^blocking: .+ switch port \\d+ serves this cable: " +
        "its way costs the same, and its bridge identifier is lower$",
    ),
  );
  expect(place(ring, "Gateway")).toBeNull();
});

test("a tie between identifiers is told as a guess while a MAC address that decides it is not known", () => {
  const switches = [
    "Press house switch",
    "Tank farm switch",
    "Bottling hall switch",
    "Cold store switch",
  ].map((name) => named(ring, name));
  const equal = donePlan(
    afterEdit(ring, ({ edits }) => {
      for (const { id, tree } of switches) edits.patch("device", id, { tree: { ...tree, priority: 32_768 } });
      for (const leg of edits.all("interface")) edits.patch("interface", leg.id, { mac: null });
    }),
  );
  const rows = switches.flatMap(({ name }) => must(place(equal, name), name).rows);
  const standing = rows.filter(({ forwards }) => !forwards);
  expect(standing).toHaveLength(1);
  expect(standing[0]?.why).toMatch(
    /its bridge identifier is lower; that hangs on MAC addresses, and the plan does not know both$/,
  );
});

test("a cable out lets the one that stood by forward; the root chosen anew is the root", () => {
  const index = PlanIndex.of(ring);
  const office = named(ring, "Office switch");
  const cable = must(
    index
      .portsOf(office.id)
      .map((port) => index.linkAt(port.id))
      .find(
        (link) =>
          link !== undefined &&
          [link.a, link.b].some(
            (id) => ring.device.get(ring.port.get(id)?.device ?? "")?.name === "Press house switch",
          ),
      ),
    "a cable",
  );
  const cut = donePlan(afterEdit(ring, (context) => context.edits.remove("link", cable.id)));
  for (const name of ["Press house switch", "Tank farm switch", "Bottling hall switch", "Cold store switch"])
    expect(place(cut, name)?.rows.every((row) => row.forwards)).toBe(true);
  const chosen = donePlan(
    afterEdit(ring, (context) =>
      chooseRoot(context, named(ring, "Tank farm switch").id, named(ring, "Cold store switch").id),
    ),
  );
  expect(place(chosen, "Office switch")?.root.name).toBe("Tank farm switch");
  expect(
    [
      named(chosen, "Tank farm switch"),
      named(chosen, "Cold store switch"),
      named(chosen, "Office switch"),
    ].map((device) => device.tree.priority),
  ).toEqual([4096, 8192, 32_768]);
});

test("with priorities as they come out of the box, and an unknown MAC, the root is an accident", () => {
  const plain = donePlan(
    afterEdit(ring, (context) => {
      for (const device of context.edits.all("device"))
        context.edits.patch("device", device.id, { tree: { ...device.tree, priority: 32_768 } });
      for (const leg of context.edits.all("interface"))
        context.edits.patch("interface", leg.id, { mac: null });
    }),
  );
  expect(place(plain, "Cold store switch")?.byAccident.length).toBe(4);
  expect(place(ring, "Cold store switch")?.byAccident).toEqual([]);
});

test("priorities come in steps of 4096, and a tree a device does not have is refused", () => {
  const { id } = named(ring, "Office switch");
  for (const text of ["5000", "-4096", "65536", "low", ""])
    expect(afterEdit(ring, (context) => setTreePriority(context, id, text))).toMatch(
      /is no bridge priority; write 0 to 61440 in steps of 4096/,
    );
  expect(
    donePlan(afterEdit(ring, (context) => setTreePriority(context, id, "12,288"))).device.get(id)?.tree
      .priority,
  ).toBe(12_288);
  expect(afterEdit(ring, (context) => setTreeKind(context, named(ring, "Office AP").id, "rapid"))).toMatch(
    /Office AP is not known to have that tree/,
  );
});

const KINDS = ["rapid", "multiple", "multiple", "perVlan"] as const;
const VIDS = [10, 20, 30];
/** Gear of any kinds, two regions among them, cabled any way, every port carrying three VLANs. */
const anyGear = fc.integer({ min: 2, max: 9 }).chain((size) =>
  fc.record({
    gear: fc.array(
      fc.record({
        kind: fc.nat(2),
        region: fc.constantFrom("north", "south"),
        priority: fc.constantFrom(4096, 32_768),
        inner: fc.constantFrom(0, 8192, 32_768),
      }),
      { minLength: size, maxLength: size },
    ),
    perVlan: fc.boolean(),
    cables: fc.array(fc.tuple(fc.nat(size - 1), fc.nat(size - 1), fc.constantFrom(100, 1000, 10_000)), {
      minLength: 1,
      maxLength: 16,
    }),
  }),
);

test("in every VLAN what forwards is a tree, whatever trees meet, and holds all that is cabled", () => {
  let stood = 0;
  fc.assert(
    fc.property(anyGear, ({ gear, perVlan, cables }) => {
      const device = (i: number) => testId("device", `G${i}`);
      const devices = gear.map(({ kind, region, priority, inner }, i) =>
        aDevice({
          name: `G${i}`,
          tree: {
            ...BLANK_TREE,
            kind: perVlan ? "perVlan" : (KINDS[kind] ?? "rapid"),
            priority,
            costs: "long",
            region,
            revision: 1,
            instances: [
              { number: 1, vids: [v(10)], priority: inner },
              { number: 7, vids: [v(20)], priority: 32_768 },
            ],
            perVlan: [{ vid: v(20), priority: inner }],
          },
        }),
      );
      const ends = cables.map(([a, b, speedMbps], n) =>
        ["a", "b"].map((side, k) =>
          aPort({
            device: device(k === 0 ? a : b),
            label: `${n}${side}`,
            position: n * 2 + k,
            speedMbps,
            tagged: VIDS.map(v),
          }),
        ),
      );
      const plan = planWith({
        device: devices,
        port: ends.flat(),
        link: ends.map(([a, b]) => aLink({ a: must(a, "a").id, b: must(b, "b").id })),
      });
      const index = PlanIndex.of(plan);
      const { discards, portNumber } = index.derived(TREE);
      for (const vid of VIDS) {
        const [cabled, open] = [new DisjointSet(gear.length), new DisjointSet(gear.length)];
        for (const [n, [a, b]] of cables.entries()) {
          const [near, far] = (ends[n] ?? []).map((port) =>
            discards(must(portNumber.get(port.id), "a number"), vid),
          );
          cabled.join(a, b);
          if (near === true || far === true) {
            stood += 1;
            continue;
          }
          expect([vid, n, open.rootOf(a) === open.rootOf(b)]).toEqual([vid, n, false]);
          open.join(a, b);
        }
        expect(heldOtherwise(gear.length, open, cabled)).toEqual([]);
      }
    }),
    { seed: 15, numRuns: 400 },
  );
  expect(stood).toBeGreaterThan(500);
});

test("a region's tree has its own root; its port to the common root is the master port", () => {
  const tree = (priority: number, inner: number) => ({
    ...BLANK_TREE,
    kind: "multiple" as const,
    priority,
    costs: "long" as const,
    region: "hall",
    revision: 3,
    instances: [{ number: 2, vids: [v(20)], priority: inner }],
    perVlan: [],
  });
  const port = (name: string, label: string) =>
    aPort({ device: testId("device", name), label, tagged: VIDS.map(v) });
  const cables = [
    ["Outside", "1", "A", "1"],
    ["A", "2", "B", "1"],
    ["B", "2", "C", "1"],
    ["C", "2", "A", "3"],
  ] as const;
  const ports = cables.flatMap(([a, p, b, q]) => [port(a, p), port(b, q)]);
  const plan = planWith({
    device: [
      aDevice({ name: "Outside", tree: { ...tree(0, 0), kind: "rapid" } }),
      aDevice({ name: "A", tree: tree(4096, 28_672) }),
      aDevice({ name: "B", tree: tree(32_768, 32_768) }),
      aDevice({ name: "C", tree: tree(32_768, 4096) }),
    ],
    port: ports,
    link: cables.map((_, i) => aLink({ a: must(ports[2 * i], "a").id, b: must(ports[2 * i + 1], "b").id })),
  });
  const index = PlanIndex.of(plan);
  const inner = must(
    index.derived(TREE).named.find(({ key }) => key.endsWith(" 2")),
    "tree 2",
  );
  expect(inner.title).toBe("Region hall, tree 2");
  const at = (name: string, key: string) =>
    must(
      treePlace(
        index,
        must(
          [...plan.device.values()].find((device) => device.name === name),
          name,
        ),
        key,
      ),
      name,
    );
  expect(["A", "B", "C"].map((name) => at(name, inner.key).root.name)).toEqual(["C", "C", "C"]);
  expect(["A", "B", "C"].map((name) => at(name, "common").root.name)).toEqual([
    "Outside",
    "Outside",
    "Outside",
  ]);
  expect(at("A", inner.key).rows.map((row) => [row.port.label, row.role])).toEqual([
    ["1", "master"],
    ["2", "designated"],
    ["3", "root"],
  ]);
  // Which of the ring's cables stands by differs: each tree has its own.
  const standing = (key: string) =>
    ["A", "B", "C"].flatMap((name) =>
      at(name, key)
        .rows.filter((row) => !row.forwards)
        .map((row) => `${name} ${row.port.label}`),
    );
  expect([standing("common"), standing(inner.key)]).toEqual([["C 1"], ["B 1"]]);
});

test("a BPDU guard shuts a port that hears gear, a restricted port is never the way to the root", () => {
  const index = PlanIndex.of(ring);
  const office = named(ring, "Office switch");
  const [, uplink] = index
    .portsOf(office.id)
    .filter(
      (port) =>
        index.peerOf(port.id) !== undefined &&
        ring.device.get(index.peerOf(port.id)?.device ?? "")?.tree.kind === "rapid",
    );
  const far = must(index.peerOf(must(uplink, "a ring port").id), "its far end");
  const guarded = PlanIndex.of(
    donePlan(
      afterEdit(ring, (context) =>
        context.edits.patch("port", far.id, { guards: { ...far.guards, bpduGuard: true } }),
      ),
    ),
  );
  expect([...guarded.derived(TREE).shut]).toEqual([far.id]);
  expect(
    guarded.derived(TREE).discards(must(guarded.derived(TREE).portNumber.get(far.id), "a number"), 110),
  ).toBe(true);
  const restricted = PlanIndex.of(
    donePlan(
      afterEdit(ring, (context) =>
        context.edits.patch("port", far.id, { guards: { ...far.guards, restrictedRole: true } }),
      ),
    ),
  );
  const row = must(
    treePlace(restricted, must(restricted.plan.device.get(far.device), "a device"))?.rows.find(
      (treeRow) => treeRow.port.id === far.id,
    ),
    "its row",
  );
  expect([row.role, row.why]).toEqual(["alternate", expect.stringMatching(/may never take one/)]);
});
