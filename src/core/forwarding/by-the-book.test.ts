import fc from "fast-check";
import { must } from "../kernel";
import { applyChanges, PlanEdits, PlanIndex, type Plan, type Port, type Vid } from "../plan";
import { aDevice, aDomain, aHost, aLink, aPort, planWith, testId } from "../testing/build-plan";
import { v } from "../testing/written";
import { classify, dropReason, FABRIC, type Tag } from "../fabric";
import { flood } from "./flood";
import { JOINS } from "./joins";

// The slow twin of flooding: a frame is handed from port to port exactly as IEEE 802.1Q says, one rule a
// line, without a compiled fabric. On any network without loops both must give every station the same frames.

const VIDS = [10, 20, 30];

interface Node {
  readonly plain: boolean;
  readonly parent: number;
  readonly up: Membership;
  readonly down: Membership;
  readonly access: Membership;
  readonly tag: number | null;
}
interface Membership {
  readonly pvid: number | null;
  readonly untagged: readonly number[];
  readonly tagged: readonly number[];
  readonly admit: Port["admit"];
  readonly ingressFilter: boolean;
  readonly enabled: boolean;
}

const anyMembership: fc.Arbitrary<Membership> = fc.record({
  pvid: fc.option(fc.constantFrom(...VIDS), { nil: null }),
  untagged: fc.subarray(VIDS, { maxLength: 2 }),
  tagged: fc.subarray(VIDS),
  admit: fc.constantFrom("all" as const, "all" as const, "tagged" as const, "untagged" as const),
  ingressFilter: fc.boolean(),
  enabled: fc.integer({ min: 0, max: 9 }).map((n) => n > 0),
});
const anyNetwork = fc.integer({ min: 2, max: 7 }).chain((count) =>
  fc.tuple(
    ...Array.from({ length: count }, (_, i): fc.Arbitrary<Node> =>
      fc.record({
        plain: fc.integer({ min: 0, max: 4 }).map((n) => n === 0),
        parent: fc.nat(Math.max(0, i - 1)),
        up: anyMembership,
        down: anyMembership,
        access: anyMembership,
        tag: fc.option(fc.constantFrom(...VIDS), { nil: null }),
      }),
    ),
  ),
);

/**
 * A tree of switches, some of which know no VLANs; each has one station. Memberships may be inconsistent, as
 * found on a site.
 */
function planOf(nodes: readonly Node[]): Plan {
  const domain = aDomain();
  const devices = nodes.map((node, i) =>
    aDevice({
      name: `S${i}`,
      domain: node.plain ? null : domain.id,
      bridging: node.plain ? "plain" : "vlan",
    }),
  );
  const port = (i: number, label: string, m: Membership): Port =>
    aPort({
      device: must(devices[i], "a switch").id,
      label,
      ...m,
      pvid: m.pvid === null ? null : v(m.pvid),
      untagged: m.untagged.map(v),
      tagged: m.tagged.map(v),
    });
  const access = nodes.map((node, i) => port(i, "1", node.access));
  const trunks = nodes
    .slice(1)
    .map((node, i) => [port(i + 1, "up", node.up), port(node.parent, `to ${i + 1}`, node.down)] as const);
  return planWith({
    domain: [domain],
    device: devices,
    port: [...access, ...trunks.flat()],
    link: trunks.map(([a, b]) => aLink({ a: a.id, b: b.id })),
    host: nodes.map((node, i) =>
      aHost({
        name: `H${i}`,
        tag: node.tag === null ? null : v(node.tag),
        attachment: { at: "port", port: must(access[i], "a port").id },
      }),
    ),
  });
}

const list = (vids: readonly Vid[]): readonly number[] => vids;
/**
 * The VLAN that an arriving frame is classified to: its tag's, or for one without a tag the PVID; null when
 * its kind is not admitted (section 6.9).
 */
const classifiedTo = (port: Port, tag: Tag): number | null => {
  if (tag === null) {
    if (port.admit === "tagged") return null;
    return port.pvid;
  }
  if (port.admit === "untagged") return null;
  return tag;
};
/**
 * With ingress filtering on, a frame goes on only if the port is in the member set, tagged or untagged, of
 * the VLAN it was classified to (section 8.6.2).
 */
function joins(port: Port, tag: Tag): number | null {
  const vlan = classifiedTo(port, tag);
  const memberSet = [...list(port.untagged), ...list(port.tagged)];
  return vlan === null || (port.ingressFilter && !memberSet.includes(vlan)) ? null : vlan;
}
/** How a VLAN leaves a port: untagged, tagged, or not at all. */
const leaves = (port: Port, vlan: number): Tag | undefined => {
  if (list(port.untagged).includes(vlan)) return null;
  if (list(port.tagged).includes(vlan)) return vlan;
  return undefined;
};

function heardByTheBook(plan: Plan, sender: string): string[] {
  const portsOf = (device: string) =>
    [...plan.port.values()].filter((port) => port.device === device && port.enabled);
  const peerOf = (port: Port) => {
    const link = [...plan.link.values()].find((l) => l.a === port.id || l.b === port.id);
    const peer = link === undefined ? undefined : plan.port.get(link.a === port.id ? link.b : link.a);
    return peer?.enabled === true ? peer : undefined;
  };
  const stationAt = (port: Port) =>
    [...plan.host.values()].find((host) => host.attachment.at === "port" && host.attachment.port === port.id);
  const heard: string[] = [];
  /** The frame is on the cable that leaves `from`; it comes out at the other end. */
  const onCable = (from: Port, tag: Tag): void => {
    const station = stationAt(from);
    if (station !== undefined && station.id !== sender) heard.push(`${station.name} ${tag}`);
    const peer = peerOf(from);
    if (peer !== undefined) arrives(peer, tag);
  };
  const arrives = (port: Port, tag: Tag): void => {
    const device = must(plan.device.get(port.device), "a switch");
    const others = portsOf(device.id).filter((other) => other.id !== port.id);
    if (device.bridging === "plain") {
      for (const other of others) onCable(other, tag);
      return;
    }
    const vlan = joins(port, tag);
    if (vlan === null) return;
    for (const other of others) {
      const out = leaves(other, vlan);
      if (out !== undefined) onCable(other, out);
    }
  };
  const host = must(plan.host.get(sender), "the sender");
  const port = host.attachment.at === "port" ? plan.port.get(host.attachment.port) : undefined;
  if (port?.enabled === true) arrives(port, host.tag);
  return heard.sort();
}

test("flooding gives every station exactly what the rules give it, port by port", () => {
  let frames = 0;
  fc.assert(
    fc.property(anyNetwork, (nodes) => {
      const plan = planOf(nodes);
      const index = PlanIndex.of(plan);
      for (const host of plan.host.values()) {
        const port = host.attachment.at === "port" ? host.attachment.port : "";
        const fast = flood(index, { at: "port", port, tag: host.tag, host: host.id })
          .heard.map((h) => `${h.host.name} ${h.tag}`)
          .sort();
        const slow = heardByTheBook(plan, host.id);
        frames += slow.length;
        expect([host.name, fast]).toEqual([host.name, slow]);
      }
    }),
    { numRuns: 500, seed: 8022 },
  );
  expect(frames).toBeGreaterThan(500);
});

test("after any edits of memberships what is joined is what joining anew gives", () => {
  let followed = 0;
  const anyRetag = fc.record({
    port: fc.nat(99),
    vid: fc.constantFrom(...VIDS),
    untag: fc.integer({ min: 0, max: 5 }),
  });
  fc.assert(
    fc.property(anyNetwork, fc.array(anyRetag, { minLength: 1, maxLength: 6 }), (nodes, edits) => {
      let index = PlanIndex.of(planOf(nodes));
      index.derived(JOINS);
      for (const { port: n, vid, untag } of edits) {
        const draft = new PlanEdits(index.plan);
        const port = must([...index.plan.port.values()][n % index.plan.port.size], "a port");
        if (untag === 0) draft.patch("port", port.id, { untagged: [v(vid)], pvid: v(vid) });
        else
          draft.patch("port", port.id, {
            tagged: list(port.tagged).includes(vid)
              ? port.tagged.filter((t) => t !== vid)
              : [...port.tagged, v(vid)],
          });
        const applied = applyChanges(index.plan, draft.changes());
        index = index.derive(must(applied.ok ? applied.value : null, "applies"), draft.changes());
      }
      const [kept, anew] = [index.derived(JOINS), PlanIndex.of(index.plan).derived(JOINS)];
      const fabric = index.derived(FABRIC);
      const together = (of: typeof kept, a: number, b: number, vid: number) => {
        const column = of.nodes.number.get(vid);
        return (
          column !== undefined &&
          of.nodes.sets.rootOf(a * of.nodes.vids.length + column) ===
            of.nodes.sets.rootOf(b * of.nodes.vids.length + column)
        );
      };
      if (kept.nodes.rejoined.size > 0) followed += 1;
      for (const vid of VIDS) {
        for (let a = 0; a < fabric.devices.length; a += 1)
          for (let b = 0; b < a; b += 1)
            expect([vid, a, b, together(kept, a, b, vid)]).toEqual([vid, a, b, together(anew, a, b, vid)]);
      }
      const named = (of: typeof kept) =>
        of.crossings.map((c) => `${c.from.id} ${c.fromVid} ${c.to.id} ${c.toVid}`).sort();
      expect(named(kept)).toEqual(named(anew));
    }),
    { numRuns: 300, seed: 8023 },
  );
  expect(followed).toBeGreaterThan(10);
});

test.each([255, 256, 257, 1025])(
  "in a chain of %i switches the last hears the first, each cable crossed once",
  (count) => {
    const domain = aDomain();
    const names = Array.from({ length: count }, (_, i) => `S${i}`);
    const end = (i: number, label: string) =>
      aPort({ device: testId("device", `S${i}`), label, tagged: [v(10)] });
    const access = (i: number) =>
      aPort({ device: testId("device", `S${i}`), label: "1", pvid: v(10), untagged: [v(10)] });
    const cables = names.slice(1).map((_, i) => [end(i, "down"), end(i + 1, "up")] as const);
    const [first, last] = [access(0), access(count - 1)];
    const plan = planWith({
      domain: [domain],
      device: names.map((name) => aDevice({ name, domain: domain.id })),
      port: [first, last, ...cables.flat()],
      link: cables.map(([a, b]) => aLink({ a: a.id, b: b.id })),
      host: [
        aHost({ name: "A", attachment: { at: "port", port: first.id } }),
        aHost({ name: "Z", attachment: { at: "port", port: last.id } }),
      ],
    });
    const result = flood(PlanIndex.of(plan), {
      at: "port",
      port: first.id,
      tag: null,
      host: testId("host", "A"),
    });
    expect(result.heard.map((h) => [h.host.name, h.tag])).toEqual([["Z", null]]);
    expect(result.emissions).toHaveLength(count + 1);
    expect(result.arrivals).toHaveLength(count);
  },
);

test("untagged at a port whose PVID is in no list: dropped with ingress filtering, else taken", () => {
  const port = (ingressFilter: boolean, tagged: Vid[]) =>
    aPort({ device: testId("device", "S"), label: "1", pvid: v(10), untagged: [], tagged, ingressFilter });
  expect([
    classify(port(true, []), null),
    classify(port(false, []), null),
    classify(port(true, [v(10)]), null),
    classify(port(true, []), 0),
  ]).toEqual([null, 10, 10, null]);
  expect(dropReason(port(true, []), null)).toBe(
    "untagged frames join VLAN 10 here (its PVID), which is in neither list of the port",
  );
});
