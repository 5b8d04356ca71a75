import fc from "fast-check";
import { DisjointSet, grouped, must } from "../kernel";
import { heldOtherwise } from "../testing/held-otherwise";
import { spanningTree, type DecidedBy, type TreeBridge, type TreePort, type TreeRole } from "./tree";

interface Net {
  readonly bridges: readonly TreeBridge[];
  readonly ports: readonly TreePort[];
}

/**
 * Any bridges on any LANs: cables, shared LANs, two ports of one bridge on one LAN, two regions beside bridges
 * that are on their own, ports that never become the root port.
 */
const anyNet: fc.Arbitrary<Net> = fc.integer({ min: 1, max: 8 }).chain((size) =>
  fc
    .record({
      bridges: fc.array(
        fc.record({
          priority: fc.constantFrom(0, 4096, 32_768),
          region: fc.constantFrom(null, null, null, "north", "south"),
        }),
        { minLength: size, maxLength: size },
      ),
      ports: fc.array(
        fc.record({
          bridge: fc.nat(size - 1),
          lan: fc.nat(9),
          priority: fc.constantFrom(64, 128),
          cost: fc.constantFrom(2000, 20_000),
          restrictedRole: fc.constantFrom(false, false, false, true),
        }),
        { maxLength: 20 },
      ),
    })
    .map(({ bridges, ports }) => ({
      bridges: bridges.map((given, i): TreeBridge => ({ id: `b${i}`, address: 1000 - i, ...given })),
      ports: ports.map(({ bridge, lan, ...given }, i): TreePort => ({
        id: `p${i}`,
        bridge: `b${bridge}`,
        lan: `l${lan}`,
        number: i + 1,
        ...given,
      })),
    })),
);

/**
 * A priority vector as numbers, in the order of IEEE 802.1Q section 13.9: root, external path cost, regional
 * root, internal path cost, designated bridge, designated port.
 */
type Vector = readonly [number, number, number, number, number, number];

const SETTLED_BY: readonly DecidedBy[] = [
  "root",
  "path cost",
  "region's root",
  "cost inside the region",
  "neighbour's identifier",
  "neighbour's port",
  "own port",
];

const bridgeKey = ({ priority, address }: TreeBridge) => priority * 10_000 + address;
const portKey = ({ priority, number }: TreePort) => priority * 1000 + number;

const compared = (a: Vector, b: Vector): number => {
  const place = a.findIndex((value, at) => value !== b[at]);
  return place === -1 ? 0 : must(a[place], "a part") - must(b[place], "a part");
};
const least = (vectors: readonly Vector[]): Vector =>
  vectors.reduce((best, next) => (compared(next, best) < 0 ? next : best));

/** A network whose bridges tell one another what they believe until nobody changes their mind. */
class Talk {
  readonly #belief = new Map<string, Vector>();
  readonly #bridge: ReadonlyMap<string, TreeBridge>;
  readonly #onLan: ReadonlyMap<string, readonly TreePort[]>;
  readonly #net: Net;

  constructor(net: Net) {
    this.#net = net;
    this.#bridge = new Map(net.bridges.map((bridge) => [bridge.id, bridge]));
    this.#onLan = grouped(net.ports, ({ lan }) => lan);
    for (const bridge of net.bridges) this.#belief.set(bridge.id, this.#own(bridge));
    // A message crosses at most every bridge; what a round changes, the next tells on.
    for (let round = 0; round <= net.bridges.length; round += 1) {
      const next = net.bridges.map((bridge) => least([this.#own(bridge), ...this.#heardBy(bridge)]));
      for (const [i, bridge] of net.bridges.entries())
        this.#belief.set(bridge.id, must(next[i], "what it believes now"));
    }
  }

  #own(bridge: TreeBridge): Vector {
    const key = bridgeKey(bridge);
    return [key, 0, key, 0, key, 0];
  }

  #heardBy(bridge: TreeBridge): Vector[] {
    return this.#portsOf(bridge)
      .filter((port) => !port.restrictedRole)
      .flatMap((port) => this.heard(port));
  }

  #portsOf(bridge: TreeBridge): TreePort[] {
    return this.#net.ports.filter((port) => port.bridge === bridge.id);
  }

  bridgeOf(port: TreePort): TreeBridge {
    return must(this.#bridge.get(port.bridge), port.bridge);
  }

  belief(bridge: TreeBridge): Vector {
    return must(this.#belief.get(bridge.id), bridge.id);
  }

  said(port: TreePort): Vector {
    const [root, outside, regional, inside] = this.belief(this.bridgeOf(port));
    return [root, outside, regional, inside, bridgeKey(this.bridgeOf(port)), portKey(port)];
  }

  others(port: TreePort): TreePort[] {
    return (this.#onLan.get(port.lan) ?? []).filter((other) => other !== port);
  }

  /** What a port makes of all that the others' ports at its LAN say (section 13.10). */
  heard(port: TreePort): Vector[] {
    const at = this.bridgeOf(port);
    return this.others(port)
      .filter((other) => other.bridge !== port.bridge)
      .map((other) => {
        const [root, outside, regional, inside, ...who] = this.said(other);
        const isInside = at.region !== null && at.region === this.bridgeOf(other).region;
        return isInside
          ? [root, outside, regional, inside + port.cost, ...who]
          : [root, outside + port.cost, bridgeKey(at), 0, ...who];
      });
  }

  /** The ports of a bridge that could be its root port, the best first: each with the best that it hears. */
  ways(bridge: TreeBridge): { port: TreePort; vector: Vector }[] {
    return this.#portsOf(bridge)
      .filter((port) => !port.restrictedRole && this.isServed(port))
      .map((port) => ({ port, vector: least(this.heard(port)) }))
      .sort((a, b) => compared(a.vector, b.vector) || portKey(a.port) - portKey(b.port));
  }

  /** The ports at a port's LAN by what they say, the best first. */
  speakers(port: TreePort): TreePort[] {
    return [port, ...this.others(port)].sort((a, b) => compared(this.said(a), this.said(b)));
  }

  /** Whether another bridge serves the LAN. */
  isServed(port: TreePort): boolean {
    return must(this.speakers(port)[0], "itself").bridge !== port.bridge;
  }

  /** Which part of two vectors differs first; a region's root says something only where there is a region. */
  settledBy(a: Vector, b: Vector): DecidedBy {
    const hasRegion = (key: number) =>
      this.#net.bridges.some((bridge) => bridgeKey(bridge) === key && bridge.region !== null);
    const place = a.findIndex(
      (value, at) => value !== b[at] && (at !== 2 || hasRegion(value) || hasRegion(must(b[at], "a part"))),
    );
    return must(SETTLED_BY.at(place), "a name");
  }

  state(port: TreePort): [role: TreeRole, decidedBy: DecidedBy, against: string | null] {
    const [best, second] = this.ways(this.bridgeOf(port));
    if (best?.port === port)
      return second === undefined
        ? ["root", "only way", null]
        : ["root", this.settledBy(best.vector, second.vector), second.port.id];
    const [speaker, next] = this.speakers(port);
    const designated = must(speaker, "itself");
    if (designated === port)
      return next === undefined
        ? ["designated", "only way", null]
        : ["designated", this.settledBy(this.said(port), this.said(next)), next.id];
    if (designated.bridge === port.bridge) return ["backup", "neighbour's port", designated.id];
    return [
      "alternate",
      port.restrictedRole ? "restricted" : this.settledBy(this.said(designated), this.said(port)),
      designated.id,
    ];
  }
}

test("root, costs and the region's root are what bridges come to believe by telling one another", () => {
  fc.assert(
    fc.property(anyNet, (net) => {
      const [tree, talk] = [spanningTree(net.bridges, net.ports), new Talk(net)];
      for (const bridge of net.bridges) {
        const [root, outside, regional] = talk.belief(bridge);
        const found = [tree.rootOf, tree.regionalRootOf].map((of) =>
          bridgeKey(must(of.get(bridge.id), bridge.id)),
        );
        expect([...found, tree.costOf.get(bridge.id)]).toEqual([root, regional, outside]);
      }
    }),
    { seed: 14, numRuns: 500 },
  );
});

test("each port's role, what decided it and against whom, with regions and restricted ports", () => {
  const [roles, reasons] = [new Set<TreeRole>(), new Set<DecidedBy>()];
  fc.assert(
    fc.property(anyNet, (net) => {
      const [tree, talk] = [spanningTree(net.bridges, net.ports), new Talk(net)];
      const found = net.ports.map((port) => {
        const { role, decidedBy, against } = must(tree.ports.get(port.id), port.id);
        roles.add(role);
        reasons.add(decidedBy);
        return [role, decidedBy, against?.id ?? null];
      });
      expect(found).toEqual(net.ports.map((port) => talk.state(port)));
    }),
    { seed: 16, numRuns: 500 },
  );
  expect([...roles].sort()).toEqual(["alternate", "backup", "designated", "root"]);
  expect([...reasons].sort()).toEqual([...SETTLED_BY, "only way", "restricted"].sort());
});

test("of two bridges whose identifiers settled it the better is named first", () => {
  fc.assert(
    fc.property(anyNet, (net) => {
      const tree = spanningTree(net.bridges, net.ports);
      for (const { decidedBy, between } of tree.ports.values()) {
        const isSettledByBridges = ["root", "region's root", "neighbour's identifier"].includes(decidedBy);
        expect(between !== null).toBe(isSettledByBridges);
        if (between !== null) expect(bridgeKey(between[0])).toBeLessThan(bridgeKey(between[1]));
      }
    }),
    { seed: 17, numRuns: 300 },
  );
});

test("what forwards is a tree: no loop, and everything that hangs together still does", () => {
  fc.assert(
    fc.property(anyNet, (net) => {
      const { bridges } = net;
      // A port that may not become the root port can cut what is behind it off.
      const ports = net.ports.map((port): TreePort => ({ ...port, restrictedRole: false }));
      const tree = spanningTree(bridges, ports);
      const number = new Map(
        [...bridges.map(({ id }) => id), ...new Set(ports.map(({ lan }) => lan))].map((id, i) => [id, i]),
      );
      const at = (id: string) => must(number.get(id), id);
      const [cabled, open] = [new DisjointSet(number.size), new DisjointSet(number.size)];
      for (const port of ports) {
        cabled.join(at(port.bridge), at(port.lan));
        if (!["root", "designated"].includes(must(tree.ports.get(port.id), "a state").role)) continue;
        expect(open.rootOf(at(port.bridge))).not.toBe(open.rootOf(at(port.lan)));
        open.join(at(port.bridge), at(port.lan));
      }
      expect(heldOtherwise(number.size, open, cabled)).toEqual([]);
    }),
    { seed: 13, numRuns: 600 },
  );
});
