import { linkSpeed } from "../cabling/media";
import { DisjointSet } from "../kernel";
import type { Derived, Device, PlanIndex, Port } from "../plan";
import { FABRIC } from "../switching";
import { spanningTree, type Tree, type TreeBridge, type TreePort } from "./tree";

/** Cost of a port by its speed (IEEE 802.1Q table 13-4, long costs): 20,000 at 1 Gbit/s, 2,000 at 10 Gbit/s. */
export const pathCost = (mbps: number): number => Math.max(1, Math.min(200_000_000, Math.round(20_000_000 / Math.max(1, mbps))));

/** What every port begins with (IEEE 802.1Q section 13.27.44). */
const PORT_PRIORITY = 128;
/** Stands for a MAC address nobody has entered: higher than any there is. */
const UNKNOWN = 2 ** 48;

/** A device's bridge address as far as the plan knows it: the lowest of its interfaces. */
function addressOf(index: PlanIndex, device: Device): number {
  const known = index.interfacesOf(device.id).flatMap((leg) => (leg.mac === null ? [] : [Number.parseInt(leg.mac.replaceAll(":", ""), 16)]));
  return known.length === 0 ? UNKNOWN : Math.min(...known);
}

/** The tree of the plan's gear, and those whose identifier is not settled because their MAC address is not known. */
export interface PlanTree extends Tree { readonly unknownAddress: ReadonlySet<string> }

/**
 * The common tree of all gear that is set to a spanning tree of any kind. Gear that knows VLANs and runs none is taken to pass the
 * protocol's frames on, as an unmanaged switch does: its cables are one LAN.
 */
function treeOf(index: PlanIndex): PlanTree {
  const fabric = index.derived(FABRIC);
  const runs = fabric.devices.map((device) => device.bridging === "vlan" && device.tree.kind !== "none");
  const lans = new DisjointSet(fabric.wires.length);
  for (const [number, ports] of fabric.bridgePortsOf.entries()) {
    const [first, ...others] = runs[number] === true ? [] : ports.flatMap((port) => fabric.wireOf[port] ?? []);
    if (first !== undefined) for (const other of others) lans.join(first, other);
  }
  const bridges = fabric.devices.flatMap((device, i): TreeBridge[] => (runs[i] === true ? [{ id: device.id, priority: device.tree.priority, address: addressOf(index, device) }] : []));
  const attached = new Map<number, number>();
  for (const [number, ports] of fabric.bridgePortsOf.entries()) if (runs[number] === true) for (const port of ports) { const lan = lans.rootOf(fabric.wireOf[port] ?? 0); attached.set(lan, (attached.get(lan) ?? 0) + 1); }
  const ports = fabric.bridgePortsOf.flatMap((own, number): TreePort[] => (runs[number] !== true ? [] : own.flatMap((at): TreePort[] => {
    const port = fabric.ports[at];
    const lan = lans.rootOf(fabric.wireOf[at] ?? 0);
    // A port with nothing but end devices behind it takes no part in the choice.
    if (port === undefined || (attached.get(lan) ?? 0) < 2) return [];
    return [{ id: port.id, bridge: port.device, lan: String(lan), priority: PORT_PRIORITY, number: port.position, cost: pathCost(speedOf(index, port)) }];
  })));
  return { ...spanningTree(bridges, ports), unknownAddress: new Set(bridges.filter((bridge) => bridge.address === UNKNOWN).map((bridge) => bridge.id)) };
}

/** The speed of a port's cable; of all of them for the first port of a LAG. */
function speedOf(index: PlanIndex, port: Port): number {
  const far = index.peerOf(port.id);
  const members = port.lag === null ? 1 : (index.groups("portsByLag").get(port.lag) ?? []).filter((one) => one.enabled && index.linkAt(one.id) !== undefined).length;
  return (far === undefined ? port.speedMbps : linkSpeed(port, far)) * Math.max(1, members);
}

export const TREE: Derived<PlanTree> = { reads: FABRIC.reads, make: treeOf };
