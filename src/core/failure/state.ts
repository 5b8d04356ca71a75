import type { PlanIndex } from "../plan";
import type { Place } from "../places";
import type { PlanTree } from "../spanning-tree";
import { classify, type Fabric } from "../fabric";
import type { Nodes } from "../forwarding";

/**
 * A (device, VLAN) node; on a wire that no gear with VLANs has a port on, the wire itself (its number below
 * zero).
 */
export interface Spot {
  readonly device: number;
  readonly vid: number;
}

/** Gear that is cut off from the rest, and what is joined among it. */
export interface Split {
  readonly devices: ReadonlySet<number>;
  /** Null where no cable is left among it. */
  readonly nodes: Nodes | null;
}

/** A network as it stands at one moment: what hangs where, and what is joined. */
export interface State {
  readonly index: PlanIndex;
  readonly fabric: Fabric;
  readonly tree: PlanTree;
  readonly nodes: Nodes;
  /** Where it is told as another state less what is cut off: the joins of that part. */
  readonly split?: Split;
}

/** Where a place is, or null for what hangs nowhere. */
export function spotOf({ fabric }: Pick<State, "fabric">, place: Place | null): Spot | null {
  if (place === null) return null;
  if (place.at === "inside") {
    const device = fabric.deviceNumber.get(place.device);
    return device === undefined ? null : { device, vid: place.vid };
  }
  const number = fabric.wireOf[fabric.portNumber.get(place.port) ?? -1] ?? -1;
  const wire = fabric.wires[number];
  for (const port of wire?.bridgePorts ?? []) {
    const bridge = fabric.ports[port];
    const vid = bridge === undefined ? null : classify(bridge, place.tag);
    if (vid !== null) return { device: fabric.deviceOf[port] ?? 0, vid };
  }
  // Gear that knows no VLANs, and nothing on its wire that takes the frame into one: who shares the wire
  // shares the network.
  return wire === undefined ? null : { device: -1 - number, vid: place.tag ?? 0 };
}

/** Whether two places are in one broadcast domain. */
export function together({ nodes, split }: State, a: Spot | null, b: Spot | null): boolean {
  if (a === null || b === null) return false;
  if (a.device === b.device && a.vid === b.vid) return true;
  if (a.device < 0 || b.device < 0) return false;
  const isOff = split?.devices.has(a.device) === true;
  if (split !== undefined && isOff !== split.devices.has(b.device)) return false;
  return joined(split !== undefined && isOff ? split.nodes : nodes, a, b);
}

function joined(nodes: Nodes | null, a: Spot, b: Spot): boolean {
  if (nodes === null) return false;
  const { vids, number, sets } = nodes;
  const [i, j] = [number.get(a.vid), number.get(b.vid)];
  return (
    i !== undefined &&
    j !== undefined &&
    sets.rootOf(a.device * vids.length + i) === sets.rootOf(b.device * vids.length + j)
  );
}
