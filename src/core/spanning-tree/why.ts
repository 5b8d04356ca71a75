import { nameOf, type Device, type PlanIndex, type Port } from "../plan";
import { TREE } from "./plan-tree";
import type { TreePortState } from "./tree";

/** A port's part in the tree, in words. */
export interface TreeRow { readonly port: Port; readonly role: TreePortState["role"]; readonly forwards: boolean; readonly why: string }
/** A device's place in the tree. */
export interface TreePlace {
  readonly root: Device;
  readonly isRoot: boolean;
  readonly cost: number;
  /** How many bridges lie between it and the root, the root counted. */
  readonly hops: number;
  /** Whether another of the same priority may be the root instead, since MAC addresses decide that and one is not known. */
  readonly byAccident: readonly Device[];
  readonly rows: readonly TreeRow[];
}

const tell = (index: PlanIndex, port: string): string => nameOf(index, "port", port);

function why(index: PlanIndex, port: Port, state: TreePortState, root: string, alone: boolean): string {
  const against = state.against === null ? "" : `port ${index.plan.port.get(state.against.id)?.label ?? ""}`;
  const reason = (): string => {
    switch (state.decidedBy) {
      case "only way": return "";
      case "path cost": return "the way is cheaper";
      case "neighbour's identifier": return "the way costs the same, and the neighbour's bridge identifier is lower";
      case "neighbour's port": return "the way costs the same to the same neighbour, whose port identifier is lower";
      case "own port": return "all else is the same, and its own port identifier is lower";
    }
  };
  switch (state.role) {
    case "root": return state.decidedBy === "only way" ? (alone ? `its only way to ${root}` : `its way to ${root}; no other port hears of one`) : `its way to ${root}, before ${against}: ${reason()}`;
    case "alternate": return `stands by: ${against} goes to ${root}; ${reason() || "there"}`;
    case "backup": return `stands by: ${tell(index, state.designated.id)} serves the same cable`;
    case "designated": return state.against === null ? "serves what hangs on it" : `serves this cable, not ${tell(index, state.against.id)}`;
  }
}

/** Where a device stands in the tree, and why each of its ports between gear forwards or stands by; null when it runs no spanning tree. */
export function treePlace(index: PlanIndex, device: Device): TreePlace | null {
  const tree = index.derived(TREE);
  const root = index.plan.device.get(tree.rootOf.get(device.id)?.id ?? "");
  if (root === undefined) return null;
  const taking = index.portsOf(device.id).flatMap((port) => { const state = tree.ports.get(port.id); return state === undefined ? [] : [{ port, state }]; });
  const rows = taking.map(({ port, state }): TreeRow => ({ port, role: state.role, forwards: state.role === "root" || state.role === "designated", why: why(index, port, state, root.name, taking.length === 1) }));
  const rivals = [...tree.rootOf].filter(([, one]) => one.id === root.id).flatMap(([id]) => index.plan.device.get(id) ?? []).filter((other) => other.id !== root.id && other.tree.priority === root.tree.priority);
  return {
    root, isRoot: root.id === device.id, cost: tree.costOf.get(device.id) ?? 0, hops: tree.hopsOf.get(device.id) ?? 0,
    byAccident: rivals.filter((other) => tree.unknownAddress.has(other.id) || tree.unknownAddress.has(root.id)), rows,
  };
}
