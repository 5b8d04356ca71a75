import { nameOf, type Device, type PlanIndex, type Port } from "../plan";
import { UNKNOWN_ADDRESS } from "./bridge-address";
import { TREE } from "./plan-tree";
import type { NamedTree } from "./taking-part";
import type { TreePortState } from "./tree";

/** A port's part in the tree, in words. */
export interface TreeRow {
  readonly port: Port;
  readonly role: TreePortState["role"];
  readonly forwards: boolean;
  readonly why: string;
}
/** A device's place in a tree. */
export interface TreePlace {
  readonly key: string;
  readonly title: string;
  readonly root: Device;
  readonly isRoot: boolean;
  readonly cost: number;
  /** How many bridges lie between it and the root, the root counted. */
  readonly hops: number;
  /**
   * Whether another of the same priority may be the root instead, since MAC addresses decide that and one is
   * not known.
   */
  readonly byAccident: readonly Device[];
  readonly rows: readonly TreeRow[];
}

const tell = (index: PlanIndex, port: string): string => nameOf(index, "port", port);

function reason(decidedBy: TreePortState["decidedBy"]): string {
  switch (decidedBy) {
    case "only way":
      return "";
    case "restricted":
      return "its role is restricted";
    case "root":
      return "it leads to a root with a lower identifier";
    case "path cost":
      return "the way is cheaper";
    case "region's root":
      return "the way costs the same, and it enters the region at a bridge with a lower identifier";
    case "cost inside the region":
      return "the way costs the same between regions and is cheaper inside this one";
    case "neighbour's identifier":
      return "the way costs the same, and the neighbour's bridge identifier is lower";
    case "neighbour's port":
      return "the way costs the same to the same neighbour, whose port identifier is lower";
    case "own port":
      return "all else is the same, and its own port identifier is lower";
  }
}

/**
 * Whether a tie of identifiers hangs on a MAC address that the plan does not know: the two bridges whose
 * identifiers were compared have the same priority.
 */
const isGuess = ({ between }: TreePortState): boolean =>
  between !== null &&
  between[0].priority === between[1].priority &&
  between.some(({ address }) => address === UNKNOWN_ADDRESS);

/** What made the far end win the cable, told of the far end. */
function onCable(decidedBy: TreePortState["decidedBy"]): string {
  if (decidedBy === "neighbour's identifier")
    return "its way costs the same, and its bridge identifier is lower";
  return decidedBy === "path cost"
    ? "its way is cheaper"
    : reason(decidedBy).replace(/^the way /u, "its way ");
}

function why(index: PlanIndex, state: TreePortState, root: string, alone: boolean): string {
  const against = state.against === null ? "" : `port ${index.plan.port.get(state.against.id)?.label ?? ""}`;
  const because = reason(state.decidedBy);
  switch (state.role) {
    case "root":
      if (state.decidedBy === "only way") {
        if (alone) return `its only way to ${root}`;
        return `its way to ${root}; no other port hears of one`;
      }
      return `its way to ${root}, before ${against}: ${because}`;
    case "master":
      return "the region's way to the common root";
    case "alternate":
      return state.decidedBy === "restricted"
        ? `blocking: ${tell(index, state.designated.id)} offers ` +
            "a way to the root, and this port may never take one"
        : `blocking: ${tell(index, state.designated.id)} serves this ` +
            `cable${because === "" ? "" : `: ${onCable(state.decidedBy)}`}`;
    case "backup":
      return `blocking: ${tell(index, state.designated.id)} serves the same cable`;
    case "designated":
      return state.against === null
        ? "serves what hangs on it"
        : `serves this cable, not ${tell(index, state.against.id)}`;
  }
}

/** The trees that a device takes part in: the common one, those of its region, or one for each VLAN. */
export const treesOf = (index: PlanIndex, device: Device): readonly NamedTree[] =>
  index.derived(TREE).named.filter(({ tree }) => tree.rootOf.has(device.id));

/**
 * Where a device stands in a tree (the first of its own without a key), and why each of its ports between
 * gear forwards or stands by; null when it takes no part.
 */
export function treePlace(index: PlanIndex, device: Device, key: string | null = null): TreePlace | null {
  const trees = treesOf(index, device);
  const named = trees.find((namedTree) => namedTree.key === key) ?? trees[0];
  const root = index.plan.device.get(named?.tree.rootOf.get(device.id)?.id ?? "");
  if (root === undefined || named === undefined) return null;
  const { unknownAddress } = index.derived(TREE);
  const { tree } = named;
  const taking = index.portsOf(device.id).flatMap((port) => {
    const state = tree.ports.get(port.id);
    return state === undefined ? [] : [{ port, state }];
  });
  const rows = taking.map(({ port, state }): TreeRow => ({
    port,
    role: state.role,
    forwards: state.role !== "alternate" && state.role !== "backup",
    why:
      `${why(index, state, root.name, taking.length === 1)}` +
      (isGuess(state) ? "; that hangs on MAC addresses, and the plan does not know both" : ""),
  }));
  const rootPriority = tree.rootOf.get(device.id)?.priority;
  const rivals = [...tree.rootOf]
    .filter(([, treeBridge]) => treeBridge.id === root.id)
    .flatMap(([id]) => index.plan.device.get(id) ?? [])
    .filter((other) => other.id !== root.id && priorityIn(other, named) === rootPriority);
  return {
    key: named.key,
    title: named.title,
    root,
    isRoot: root.id === device.id,
    cost: tree.costOf.get(device.id) ?? 0,
    hops: tree.hopsOf.get(device.id) ?? 0,
    byAccident: rivals.filter((other) => unknownAddress.has(other.id) || unknownAddress.has(root.id)),
    rows,
  };
}

/** The priority that a device stands with in one of its trees. */
export function priorityIn({ tree }: Device, { key }: Pick<NamedTree, "key">): number {
  if (key === "common") return tree.priority;
  const number = Number(key.split(" ").at(-1));
  if (key.startsWith("VLAN"))
    return (tree.perVlan.find((own) => own.vid === number)?.priority ?? tree.priority) + number;
  return (tree.instances.find((instance) => instance.number === number)?.priority ?? 32_768) + number;
}
