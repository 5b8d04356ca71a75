import fc from "fast-check";
import { must } from "../kernel";
import { NO_GUARDS, PlanIndex, type Plan, type Port, PlanEdits, applyChanges } from "../plan";
import { carryOn } from "../planners/ports/carry-vlan";
import { aDevice, aDomain, aHost, aLink, aPort, planWith, testId } from "../testing/build-plan";
import { v } from "../testing/written";
import { CARRY } from "./carry";
import { flood } from "./flood";

const edge = {
  ...NO_GUARDS,
  edge: true,
};

/**
 * A random tree of switches, each with an access port and a station in VLAN 10 or 20; trunks carry a random
 * choice of the two.
 */
const anyTree = fc.integer({ min: 2, max: 9 }).chain((count) =>
  fc.record({
    parents: fc.tuple(...Array.from({ length: count - 1 }, (_, i) => fc.nat(i))),
    vids: fc.array(fc.constantFrom(10, 20), { minLength: count, maxLength: count }),
    carried: fc.array(fc.tuple(fc.subarray([10, 20]), fc.subarray([10, 20])), {
      minLength: count,
      maxLength: count,
    }),
  }),
);
type Tree = typeof anyTree extends fc.Arbitrary<infer T> ? T : never;

function planOf({ parents, vids, carried }: Tree): Plan {
  const domain = aDomain();
  const devices = vids.map((_, i) => aDevice({ name: `S${i}`, domain: domain.id }));
  const id = (i: number) => testId("device", `S${i}`);
  const access = vids.map((n, i): Port =>
    aPort({ device: id(i), label: "1", pvid: v(n), untagged: [v(n)], guards: edge }),
  );
  const trunk = (device: number, label: string, list: number[]) =>
    aPort({ device: id(device), label, tagged: list.map(v) });
  const ends = parents.map((parent, i) => {
    const [up, down] = must(carried[i], "carried");
    return [trunk(i + 1, "up", up), trunk(parent, `to${i + 1}`, down)] as const;
  });
  return planWith({
    domain: [domain],
    device: devices,
    port: [...access, ...ends.flat()],
    link: ends.map(([a, b]) => aLink({ a: a.id, b: b.id })),
    host: vids.map((_, i) =>
      aHost({ name: `H${i}`, attachment: { at: "port", port: must(access[i], "a port").id } }),
    ),
  });
}

/** By the book: for every pair of stations in one VLAN, does a broadcast of the one reach the other? */
function cutOffByFlooding(plan: Plan, vids: readonly number[]): boolean {
  const index = PlanIndex.of(plan);
  return vids.some((n, i) => {
    const heard = new Set(
      flood(index, {
        at: "port",
        port: testId("port", `${testId("device", `S${i}`)} 1`),
        tag: null,
        host: testId("host", `H${i}`),
      }).heard.map((h) => h.host.name),
    );
    return vids.some((m, j) => m === n && j !== i && !heard.has(`H${j}`));
  });
}

test("a break is told exactly when flooding finds one, and carrying what lacks mends it", () => {
  fc.assert(
    fc.property(anyTree, (tree) => {
      let plan = planOf(tree);
      const { breaks } = PlanIndex.of(plan).derived(CARRY);
      expect(breaks.length > 0).toBe(cutOffByFlooding(plan, tree.vids));
      for (const found of breaks) expect(found.lacking.length).toBeGreaterThan(0);
      for (let round = 0; round < 12; round += 1) {
        const open = PlanIndex.of(plan).derived(CARRY).breaks;
        if (open.length === 0) break;
        const edits = new PlanEdits(plan);
        for (const found of open)
          carryOn(
            edits,
            found.lacking.map((p) => p.id),
            v(found.vid),
          );
        const applied = applyChanges(plan, edits.changes());
        plan = must(applied.ok ? applied.value : null, "applies");
      }
      expect(cutOffByFlooding(plan, tree.vids)).toBe(false);
    }),
    { seed: 8021, numRuns: 300 },
  );
});

test("only a native mismatch crosses VLANs, once each way; an end without a PVID drops instead", () => {
  const joined = (near: number | null, far: number | null) => {
    const port = (device: string, label: string, pvid: number | null) =>
      aPort({
        device: testId("device", device),
        label,
        pvid: pvid === null ? null : v(pvid),
        untagged: pvid === null ? [] : [v(pvid)],
        tagged: [v(30)],
      });
    const [a, b] = [port("A", "1", near), port("B", "1", far)];
    const plan = planWith({
      device: [aDevice({ name: "A" }), aDevice({ name: "B" })],
      port: [a, b],
      link: [aLink({ a: a.id, b: b.id })],
    });
    return PlanIndex.of(plan)
      .derived(CARRY)
      .crossings.map((c) => `${c.fromVid}>${c.toVid}`)
      .sort();
  };
  expect(joined(10, 10)).toEqual([]);
  expect(joined(10, 20)).toEqual(["10>20", "20>10"]);
  expect(joined(10, null)).toEqual([]);
});

test.each([255, 256, 257, 2000])(
  "in a chain of %i switches the last hears the first, each cable crossed once",
  (count) => {
    const ports = Array.from({ length: count }, (_, i) =>
      ["l", "r"].map((label) =>
        aPort({ device: testId("device", `S${i}`), label, pvid: v(10), untagged: [v(10)] }),
      ),
    ).flat();
    const links = Array.from({ length: count - 1 }, (_, i) =>
      aLink({ a: must(ports[2 * i + 1], "right").id, b: must(ports[2 * i + 2], "left").id }),
    );
    const plan = planWith({
      device: Array.from({ length: count }, (_, i) => aDevice({ name: `S${i}` })),
      port: ports,
      link: links,
      host: [
        aHost({ name: "first", attachment: { at: "port", port: must(ports[0], "").id } }),
        aHost({ name: "last", attachment: { at: "port", port: must(ports.at(-1), "").id } }),
      ],
    });
    const result = flood(PlanIndex.of(plan), {
      at: "port",
      port: must(ports[0], "").id,
      tag: null,
      host: testId("host", "first"),
    });
    expect(result.heard.map((h) => h.host.name)).toEqual(["last"]);
    expect(result.emissions.length).toBe(count + 1);
  },
);
