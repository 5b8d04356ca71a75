import { ascending, DisjointSet } from "../kernel";
import type { Derived, PlanIndex } from "../plan";
import { FABRIC, sharedWires, type Fabric, classify, egressTag } from "../fabric";
import { TREE } from "./plan-tree";

/** A wire that closes a loop in some VLANs: nothing on the loop stands by. */
export interface Loop {
  readonly wire: number;
  readonly ports: readonly string[];
  readonly vids: readonly number[];
  /** The devices of the part that the loop is in. */ readonly devices: readonly string[];
}

/**
 * Ports between gear that knows VLANs, on wires that are nothing but cables: what goes through other gear is
 * found by itself.
 */
function gearPorts(index: PlanIndex, fabric: Fabric): Map<number, readonly number[]> {
  const plain = new Set(
    [...index.plan.device.values()]
      .filter((device) => device.bridging === "plain")
      .map((device) => device.id),
  );
  const mixed = new Set(
    plain.size === 0
      ? []
      : fabric.ports.flatMap((port, number) => (plain.has(port.device) ? [fabric.wireOf[number] ?? -1] : [])),
  );
  return new Map(
    sharedWires(fabric).flatMap((number): [number, readonly number[]][] =>
      mixed.has(number) ? [] : [[number, fabric.wires[number]?.bridgePorts ?? []]],
    ),
  );
}

/** Joins devices by wires and tells the wires that close a circle. */
function closing(
  fabric: Fabric,
  wires: ReadonlyMap<number, readonly number[]>,
  carries: (a: number, b: number) => boolean,
): { wires: number[]; sets: DisjointSet } {
  const sets = new DisjointSet(fabric.devices.length);
  const found: number[] = [];
  for (const [number, [first, ...others]] of wires)
    for (const other of others) {
      if (first === undefined || !carries(first, other)) continue;
      const [a, b] = [fabric.deviceOf[first] ?? 0, fabric.deviceOf[other] ?? 0];
      if (sets.rootOf(a) === sets.rootOf(b)) found.push(number);
      else sets.join(a, b);
    }
  return { wires: found, sets };
}

/** Whether the cables of a fabric go round anywhere. */
const ROUND = new WeakMap<Fabric["wires"], boolean>();

function loopsOf(index: PlanIndex): readonly Loop[] {
  const fabric = index.derived(FABRIC);
  // Without a circle of cables there is none in any VLAN; the wires stay the same object as long as no cable
  // moves.
  if (ROUND.get(fabric.wires) === false) return [];
  const wires = gearPorts(index, fabric);
  const isRound = closing(fabric, wires, () => true).wires.length > 0;
  ROUND.set(fabric.wires, isRound);
  if (!isRound) return [];
  const { discards } = index.derived(TREE);
  const vids = [
    ...new Set(
      [...wires.values()].flat().flatMap((number) => {
        const port = fabric.ports[number];
        return port === undefined ? [] : ([...port.untagged, ...port.tagged] as number[]);
      }),
    ),
  ].sort(ascending);
  const found = new Map<number, { vids: number[]; devices: string[] }>();
  for (const vid of vids) {
    const passes = (from: number, to: number): boolean => {
      const [out, into] = [fabric.ports[from], fabric.ports[to]];
      const tag = out === undefined ? undefined : egressTag(out, vid);
      return (
        tag !== undefined &&
        into !== undefined &&
        classify(into, tag) === vid &&
        !discards(from, vid) &&
        !discards(to, vid)
      );
    };
    const { wires: circles, sets } = closing(fabric, wires, (a, b) => passes(a, b) && passes(b, a));
    for (const wire of circles) {
      const root = sets.rootOf(fabric.deviceOf[wires.get(wire)?.[0] ?? 0] ?? 0);
      const own = found.get(wire) ?? {
        vids: [],
        devices: fabric.devices.filter((_, i) => sets.rootOf(i) === root).map((device) => device.id),
      };
      own.vids.push(vid);
      found.set(wire, own);
    }
  }
  return [...found].map(([wire, { vids: own, devices }]) => ({
    wire,
    vids: own,
    devices,
    ports: (wires.get(wire) ?? []).flatMap((number) => fabric.ports[number]?.id ?? []),
  }));
}

/**
 * Where frames go round for ever: circles on which no port stands by (IEEE 802.1Q section 13.4 asks for a
 * tree in each VLAN).
 */
export const LOOPS: Derived<readonly Loop[]> = { reads: FABRIC.reads, make: loopsOf };
