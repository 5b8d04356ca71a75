import { madeMac } from "../address";
import type { PlanIndex, Port } from "../plan";
import { bridgeAddress, TREE, type TreeBridge } from "../spanning-tree";
import { FABRIC } from "../fabric";
import { big, macBytes } from "./bytes";

const BRIDGES = [0x01, 0x80, 0xc2, 0, 0, 0];
const ROLE = { designated: 0x0c, root: 0x08, alternate: 0x04, backup: 0x04, master: 0 } as const;

/**
 * What a port of a rapid spanning tree says every two seconds (IEEE 802.1Q section 14.5, the rapid form), as
 * a frame; null for a port that says nothing, or another kind of tree.
 */
export function bpduFrame(index: PlanIndex, port: Port): number[] | null {
  const device = index.plan.device.get(port.device);
  const tree = index.derived(TREE);
  const number = index.derived(FABRIC).portNumber.get(port.id);
  if (
    device?.tree.kind !== "rapid" ||
    device.bridging !== "vlan" ||
    !port.enabled ||
    number === undefined ||
    tree.shut.has(port.id)
  )
    return null;
  const root = tree.rootOf.get(device.id);
  const role = tree.ports.get(port.id)?.role ?? "designated";
  if (root === undefined || role !== "designated") return null;
  const own = bridgeAddress(index, device) ?? madeMac(device.id);
  const identifier = (priority: number, mac: readonly number[]) => [...big(priority, 2), ...mac];
  const macOf = (bridge: TreeBridge) =>
    bridge.address >= 2 ** 48 ? macBytes(madeMac(bridge.id)) : big(bridge.address, 6);
  const body = [
    0,
    0,
    2,
    2,
    ROLE[role] + 0x30,
    ...identifier(root.priority, macOf(root)),
    ...big(tree.costOf.get(device.id) ?? 0, 4),
    ...identifier(device.tree.priority, macBytes(own)),
    ...big(port.treePriority * 256 + Math.min(4095, port.position), 2),
    ...big((tree.hopsOf.get(device.id) ?? 0) * 256, 2),
    ...big(20 * 256, 2),
    ...big(2 * 256, 2),
    ...big(15 * 256, 2),
    0,
  ];
  const llc = [0x42, 0x42, 0x03, ...body];
  const frame = [...BRIDGES, ...macBytes(own), ...big(llc.length, 2), ...llc];
  return [...frame, ...Array.from({ length: Math.max(0, 60 - frame.length) }, () => 0)];
}
