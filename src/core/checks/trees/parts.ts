import { putInto } from "../../kernel";
import { type Device, type PlanIndex, type Port } from "../../plan";
import { TREE } from "../../spanning-tree";
import { FABRIC, type Fabric, sharedWires } from "../../fabric";

/**
 * By their numbers, ports that share a wire with another bridge; the wires stay the same object as long as no
 * cable moves.
 */
const PAIRS = new WeakMap<Fabric["wires"], readonly (readonly [port: number, far: number])[]>();
function pairsOf(fabric: Fabric): readonly (readonly [port: number, far: number])[] {
  const { wires, deviceOf } = fabric;
  const known = PAIRS.get(wires);
  if (known !== undefined) return known;
  const found = sharedWires(fabric).flatMap((wire) => {
    const ports = wires[wire]?.bridgePorts ?? [];
    return ports.flatMap((port): [number, number][] => {
      const far = ports.find((far) => deviceOf[far] !== deviceOf[port]);
      return far === undefined ? [] : [[port, far]];
    });
  });
  PAIRS.set(wires, found);
  return found;
}

export const READS = FABRIC.reads;

/** The parts that the common tree has, by their root: those with at least two bridges. */
export function partsOf(index: PlanIndex): { root: Device; members: Device[] }[] {
  const tree = index.derived(TREE);
  const parts = new Map<string, Device[]>();
  for (const [id, root] of tree.rootOf) {
    const device = index.plan.device.get(id);
    if (device !== undefined) putInto(parts, root.id, device);
  }
  return [...parts].flatMap(([id, members]) => {
    const root = index.plan.device.get(id);
    return root === undefined || members.length < 2 ? [] : [{ root, members }];
  });
}

/** How many cables to other gear of the tree a device has. */
export const degree = (index: PlanIndex, device: Device): number =>
  index.portsOf(device.id).filter((port) => index.derived(TREE).ports.has(port.id)).length;

/** Who should be the root: the device the gateway hangs on, else the one with the most cables to other gear. */
export function middleOf(index: PlanIndex, members: readonly Device[]): Device[] {
  const byGateway = (device: Device) =>
    index
      .portsOf(device.id)
      .some((port) => index.plan.device.get(index.peerOf(port.id)?.device ?? "")?.kind === "gateway");
  return [...members]
    .filter((device) => device.kind !== "accessPoint")
    .sort(
      (a, b) =>
        Number(byGateway(b)) - Number(byGateway(a)) ||
        degree(index, b) - degree(index, a) ||
        (a.name < b.name ? -1 : 1),
    );
}

export const devicesOf = (index: PlanIndex, ids: readonly string[]): Device[] =>
  ids.flatMap((id) => index.plan.device.get(id) ?? []);

/** Ports between bridges, with the far port. */
export const betweenBridges = (index: PlanIndex): { port: Port; far: Port }[] => {
  const fabric = index.derived(FABRIC);
  return pairsOf(fabric).flatMap(([port, far]) => {
    const ends = [fabric.ports[port], fabric.ports[far]];
    return ends[0] === undefined || ends[1] === undefined ? [] : [{ port: ends[0], far: ends[1] }];
  });
};
