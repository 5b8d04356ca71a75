import { DisjointSet, equal, must } from "../kernel";
import type { Change, Derived, PlanIndex, Port } from "../plan";
import { TREE, type PlanTree } from "../spanning-tree";
import { FABRIC, type Fabric, classify, dropsTagged, egressTag } from "../fabric";

/** What leaves one port in a VLAN and arrives at another in a different one. */
export interface Crossing {
  readonly from: Port;
  readonly fromVid: number;
  readonly to: Port;
  readonly toVid: number;
}

/** (device, VID) nodes with dense numbers, joined where a frame of the one becomes a frame of the other. */
export interface Nodes {
  readonly vids: readonly number[];
  readonly number: Map<number, number>;
  readonly sets: DisjointSet;
  /**
   * By VLAN number, how often it was joined anew since all were: the same count in the same `number` is the
   * same joins.
   */
  readonly rejoined: ReadonlyMap<number, number>;
}

export interface Joins {
  readonly fabric: Fabric;
  readonly tree: PlanTree;
  readonly nodes: Nodes;
  readonly crossings: readonly Crossing[];
}

const NEVER: ReadonlyMap<number, number> = new Map();

const membersOf = (port: Port): readonly number[] => [...port.untagged, ...port.tagged];

/** Marks VLAN IDs without ever being cleared: a mark holds as long as its round does. */
class Marks {
  readonly #rounds = new Uint32Array(4096);
  #round = 0;

  begin(): void {
    this.#round += 1;
  }
  add(vid: number): void {
    this.#rounds[vid] = this.#round;
  }
  has(vid: number): boolean {
    return this.#rounds[vid] === this.#round;
  }
}

/** The numbers that ports carry, ascending. */
export function carriedVids(fabric: Fabric): number[] {
  const seen = new Marks();
  const vids: number[] = [];
  const add = (vid: number) => {
    if (seen.has(vid)) return;
    seen.add(vid);
    vids.push(vid);
  };
  seen.begin();
  for (const port of fabric.ports) {
    if (port.pvid !== null) add(port.pvid);
    for (const vid of port.untagged) add(vid);
    for (const vid of port.tagged) add(vid);
  }
  return vids.sort((a, b) => a - b);
}

/** Every two bridge ports that hear one another on a wire, both ways. */
function* pairsOnWires({ wires }: Fabric): Generator<readonly [number, number]> {
  for (const { bridgePorts } of wires) {
    if (bridgePorts.length < 2) continue;
    for (const a of bridgePorts) for (const b of bridgePorts) if (a !== b) yield [a, b];
  }
}

/** Joins what frames pass between in a fabric with its trees. */
// eslint-disable-next-line complexity -- the inner loop of the whole site: what is not called costs nothing
export function joinNodes(
  fabric: Fabric,
  { anywhere, discards }: PlanTree,
  vids = carriedVids(fabric),
): { nodes: Nodes; crossings: Crossing[] } {
  const columns = new Int32Array(4096);
  for (const [column, vid] of vids.entries()) columns[vid] = column;
  const sets = new DisjointSet(fabric.devices.length * vids.length);
  const crossings: Crossing[] = [];
  const members = new Marks();
  for (const [a, b] of pairsOnWires(fabric)) {
    const from = must(fabric.ports[a], "a compiled port");
    const to = must(fabric.ports[b], "a compiled port");
    const rowA = (fabric.deviceOf[a] ?? 0) * vids.length;
    const rowB = (fabric.deviceOf[b] ?? 0) * vids.length;
    const pass = (vid: number, joined: number) => {
      if (anywhere && (discards(a, vid) || discards(b, joined))) return;
      sets.join(rowA + (columns[vid] ?? 0), rowB + (columns[joined] ?? 0));
      if (joined !== vid) crossings.push({ from, fromVid: vid, to, toVid: joined });
    };
    const untaggedJoins = classify(to, null);
    if (untaggedJoins !== null) for (const vid of from.untagged) pass(vid, untaggedJoins);
    if (to.admit === "untagged") continue;
    members.begin();
    for (const vid of to.untagged) members.add(vid);
    for (const vid of to.tagged) members.add(vid);
    // What is in both lists leaves untagged (section 8.8), so it has passed already, or can't.
    for (const vid of from.tagged)
      if (
        !(dropsTagged(to) && to.untagged.includes(vid)) &&
        (!to.ingressFilter || members.has(vid)) &&
        !from.untagged.includes(vid)
      )
        pass(vid, vid);
  }
  return {
    nodes: { vids, number: new Map(vids.map((vid, i) => [vid, i])), sets, rejoined: NEVER },
    crossings,
  };
}

/**
 * The tagged VLANs that an edit of a port puts on or takes off, when that is all it does to forwarding; null
 * for any other edit.
 */
function retagged(before: Port, after: Port): number[] | null {
  const same =
    before.pvid === after.pvid &&
    before.admit === after.admit &&
    before.ingressFilter === after.ingressFilter &&
    equal(before.untagged, after.untagged);
  if (!same) return null;
  const [was, is] = [new Set<number>(before.tagged), new Set<number>(after.tagged)];
  const changed = [...was, ...is].filter((vid) => was.has(vid) !== is.has(vid));
  // In the PVID's member set or not: that decides about untagged frames, too (section 8.6.2).
  if (after.pvid !== null && after.ingressFilter && changed.includes(after.pvid)) return null;
  return changed.some((vid) => (after.untagged as readonly number[]).includes(vid)) ? null : changed;
}

/**
 * Joins some VLANs anew and leaves the others as they are. Only where no VLAN leaks into another: then what
 * is joined has one number throughout, and one number can be taken apart alone. Null when one of them leaks
 * now.
 */
function rejoin(previous: Joins, fabric: Fabric, vids: ReadonlySet<number>): Joins | null {
  const { nodes } = previous;
  const sets = nodes.sets.clone();
  const columns = [...vids].map((vid) => ({ vid, column: nodes.number.get(vid) ?? 0 }));
  for (const { column } of columns)
    for (let device = 0; device < fabric.devices.length; device += 1)
      sets.isolate(device * nodes.vids.length + column);
  for (const [a, b] of pairsOnWires(fabric)) {
    const from = must(fabric.ports[a], "a compiled port");
    const to = must(fabric.ports[b], "a compiled port");
    const [rowA, rowB] = [a, b].map((port) => (fabric.deviceOf[port] ?? 0) * nodes.vids.length);
    for (const { vid, column } of columns) {
      const tag = egressTag(from, vid);
      const joined = tag === undefined ? null : classify(to, tag);
      if (joined === null || previous.tree.discards(a, vid) || previous.tree.discards(b, joined)) continue;
      if (joined !== vid) return null;
      sets.join((rowA ?? 0) + column, (rowB ?? 0) + column);
    }
  }
  const rejoined = new Map(nodes.rejoined);
  for (const vid of vids) rejoined.set(vid, (rejoined.get(vid) ?? 0) + 1);
  return { ...previous, fabric, nodes: { ...nodes, sets, rejoined } };
}

/** The VLANs whose joins a changed port may change; null when that can't be told from the port alone. */
function rejoinedBy(
  { nodes, crossings }: Joins,
  fabric: Fabric,
  change: Extract<Change, { kind: "port" }>,
): readonly number[] | null {
  const number = fabric.portNumber.get(change.id);
  const port = number === undefined ? undefined : fabric.ports[number];
  if (number === undefined || port === undefined) return null;
  const carried = port.pvid === null ? membersOf(port) : [...membersOf(port), port.pvid];
  if ([...carried].some((vid) => !nodes.number.has(vid))) return null;
  const wire = fabric.wires[fabric.wireOf[number] ?? -1];
  if (wire === undefined || wire.bridgePorts.length < 2) return [];
  if (change.before === null || change.after === null || crossings.length > 0) return null;
  return retagged(change.before, change.after);
}

/**
 * An edit of ports that face end devices joins and parts nothing between devices; one that retags trunks
 * concerns those VLANs only.
 */
function followJoins(previous: Joins, index: PlanIndex, changes: readonly Change[]): Joins | null {
  const fabric = index.derived(FABRIC);
  if (fabric.wires !== previous.fabric.wires || index.derived(TREE) !== previous.tree) return null;
  const changed = new Set<number>();
  for (const change of changes) {
    if (change.kind !== "port") continue;
    const vids = rejoinedBy(previous, fabric, change);
    if (vids === null) return null;
    for (const vid of vids) changed.add(vid);
  }
  return changed.size === 0 ? { ...previous, fabric } : rejoin(previous, fabric, changed);
}

/** What joins what, in all VLANs at once. */
export const JOINS: Derived<Joins> = {
  reads: FABRIC.reads,
  make: (index) => {
    const fabric = index.derived(FABRIC);
    const tree = index.derived(TREE);
    return { fabric, tree, ...joinNodes(fabric, tree) };
  },
  follow: followJoins,
};
