import { DisjointSet } from "../kernel";
import type { Device, PlanIndex, Port } from "../plan";
import { sharedWires, type Fabric } from "../fabric";
import { addressNumber } from "./bridge-address";
import { costOfPort } from "./costs";
import type { Tree, TreeBridge, TreePort, TreePortState } from "./tree";

/** One tree of the plan: the common one, one of a region's, or one VLAN's. */
export interface NamedTree {
  /** "common", "region … 2", "VLAN 20". */
  readonly key: string;
  readonly title: string;
  readonly tree: Tree;
}

export const isForwarding = ({ role }: TreePortState): boolean => role !== "alternate" && role !== "backup";

/**
 * LANs: wires, joined through gear that knows VLANs and runs no tree. It is taken to pass the protocol's
 * frames on, as an unmanaged switch does.
 */
function lansOf(
  fabric: Fabric,
  runs: readonly boolean[],
): { readonly lans: DisjointSet; readonly joined: boolean } {
  const lans = new DisjointSet(fabric.wires.length);
  let joined = false;
  for (const [number, ports] of fabric.bridgePortsOf.entries()) {
    const [first, ...others] =
      runs[number] === true ? [] : ports.flatMap((port) => fabric.wireOf[port] ?? []);
    if (first !== undefined)
      for (const other of others) {
        lans.join(first, other);
        joined = true;
      }
  }
  return { lans, joined };
}

/** A bridge port that takes part in a tree, by its number, and the LAN it is at. */
export interface Taking {
  readonly number: number;
  readonly port: Port;
  readonly lan: number;
  readonly device: number;
}

/**
 * The bridge ports that hear another of the trees' ports; one with nothing but end devices behind it takes no
 * part in the choice.
 */
export function takingPart(fabric: Fabric, runs: readonly boolean[]): Taking[] {
  const { lans, joined } = lansOf(fabric, runs);
  // Where no gear passes the protocol's frames on, a LAN is a wire, and a wire with one bridge port has
  // nobody to hear.
  const ports = joined
    ? fabric.bridgePortsOf.flat()
    : sharedWires(fabric).flatMap((wire) => fabric.wires[wire]?.bridgePorts ?? []);
  const lanOf = (number: number): number => lans.rootOf(fabric.wireOf[number] ?? 0);
  const isOwn = (number: number): boolean => runs[fabric.deviceOf[number] ?? 0] === true;
  // Most ports of a large site are alone on their wire: nothing is made for them.
  const count = new Int32Array(fabric.wires.length);
  for (const number of ports) if (isOwn(number)) count[lanOf(number)] = (count[lanOf(number)] ?? 0) + 1;
  return ports.flatMap((number): Taking[] => {
    const [device, port] = [fabric.deviceOf[number] ?? 0, fabric.ports[number]];
    const lan = lanOf(number);
    return !isOwn(number) || port === undefined || (count[lan] ?? 0) < 2
      ? []
      : [{ number, port, lan, device }];
  });
}

/** A device as a bridge of one tree. */
export const bridgeIn = (
  index: PlanIndex,
  device: Device,
  priority: number,
  region: string | null = null,
): TreeBridge => ({ id: device.id, priority, address: addressNumber(index, device), region });

/** A port as one of a tree's, at a LAN by its name. */
export const treePortOf = (index: PlanIndex, { port }: Taking, lan: string): TreePort => ({
  id: port.id,
  bridge: port.device,
  lan,
  priority: port.treePriority,
  number: port.position,
  cost: costOfPort(index, port),
  restrictedRole: port.guards.restrictedRole,
});
