import { byNaturalText, must } from "../kernel";
import { afterEdits, PlanEdits, type Device, type PlanIndex, type Vid } from "../plan";
import { withPriorities, type TreeOf } from "../planners";
import type { Repair } from "../repairs";
import { fullest, portsInTrees, treeLoads, type TreeLoad } from "./tree-load";

/** Which bridge is the root of a tree, and which takes over. */
export interface RootsOf {
  readonly tree: TreeOf;
  readonly words: string;
  readonly root: Device;
  readonly second: Device | null;
}

/** Roots that let the cables share the load. */
export interface SharedRoots {
  readonly roots: readonly RootsOf[];
  readonly before: readonly TreeLoad[];
  readonly after: readonly TreeLoad[];
  /** Sets them; null where the roots of now are as good. */
  readonly repair: Repair | null;
}

/** So many bridges are tried as the root of each tree. */
const CANDIDATES = 4;
/** Beyond so many trials the trees are dealt out to the candidates in turn instead of being tried. */
const MOST_TRIALS = 64;

/** Trees that a region or one tree per VLAN has beside the common one, and the bridges that run them. */
function treesIn({ plan }: PlanIndex): { tree: TreeOf; words: string; devices: Device[] }[] {
  const found = new Map<string, { tree: TreeOf; words: string; devices: Device[] }>();
  const note = (key: string, tree: TreeOf, words: string, device: Device) => {
    const known = found.get(key) ?? { tree, words, devices: [] };
    known.devices.push(device);
    found.set(key, known);
  };
  const vids: Vid[] = [...new Set([...plan.vlan.values()].map(({ vid }) => vid))].sort((a, b) => a - b);
  const devices = [...plan.device.values()].sort((a, b) => byNaturalText(a.name, b.name));
  for (const device of devices) {
    if (device.bridging !== "vlan") continue;
    if (device.tree.kind === "multiple")
      for (const { number } of device.tree.instances)
        note(`instance ${number}`, { of: "instance", number }, `instance ${number}`, device);
    if (device.tree.kind === "perVlan")
      for (const vid of vids) note(`VLAN ${vid}`, { of: "vlan", vid }, `VLAN ${vid}`, device);
  }
  return [...found.values()];
}

/** Bridges that can be a root without a detour: those with the most cables to others. */
function candidates(index: PlanIndex, devices: readonly Device[]): Device[] {
  const ports = portsInTrees(index);
  const cables = (device: Device) => index.portsOf(device.id).filter(({ id }) => ports.has(id)).length;
  return [...devices]
    .filter((device) => cables(device) > 1)
    .sort((a, b) => cables(b) - cables(a) || byNaturalText(a.name, b.name))
    .slice(0, CANDIDATES);
}

/** The plan with some roots set. */
function withRoots(index: PlanIndex, roots: readonly RootsOf[]): { edits: PlanEdits; index: PlanIndex } {
  const edits = new PlanEdits(index.plan);
  for (const { tree, root, second } of roots) withPriorities(edits, tree, root.id, second?.id ?? null);
  return { edits, index: must(afterEdits(index, edits), "priorities can be set") };
}

/** Fuller cables weigh more: what is shared evenly has the least sum of squares. */
const uneven = (loads: readonly TreeLoad[]): number =>
  loads.reduce((sum, { kbps, mbps }) => sum + (mbps === 0 ? 0 : (kbps / 1000 / mbps) ** 2), 0);

type Wanted = ReturnType<typeof treesIn>[number];

function chosenRoots(index: PlanIndex, trees: readonly Wanted[], able: readonly Device[]): RootsOf[] {
  const roots: RootsOf[] = [];
  const isTried = trees.length * able.length <= MOST_TRIALS;
  for (const [at, { tree, words, devices }] of trees.entries()) {
    const own = able.filter((device) => devices.includes(device));
    const trials = own.map((root, i): RootsOf => ({
      tree,
      words,
      root,
      second: own[(i + 1) % own.length] === root ? null : (own[(i + 1) % own.length] ?? null),
    }));
    const [first] = trials;
    if (first === undefined) continue;
    const judged = isTried
      ? trials.map((trial) => {
          const loads = treeLoads(withRoots(index, [...roots, trial]).index);
          return { trial, worst: fullest(loads), uneven: uneven(loads) };
        })
      : [];
    judged.sort((a, b) => a.worst - b.worst || a.uneven - b.uneven);
    roots.push(judged[0]?.trial ?? trials[at % trials.length] ?? first);
  }
  return roots;
}

/**
 * Proposes a root and a second root for every tree of a region, or for every VLAN where each has its own
 * tree, so that the cables share the load. Null where there are no such trees, or no two bridges that could
 * be roots.
 */
export function shareRoots(index: PlanIndex): SharedRoots | null {
  const trees = treesIn(index);
  const able = candidates(index, [...new Set(trees.flatMap(({ devices }) => devices))]);
  if (trees.length === 0 || able.length < 2) return null;
  const roots = chosenRoots(index, trees, able);
  const before = treeLoads(index);
  const { edits, index: then } = withRoots(index, roots);
  const after = treeLoads(then);
  const isBetter =
    edits.changes().length > 0 &&
    (fullest(after) < fullest(before) ||
      (fullest(after) === fullest(before) && uneven(after) < uneven(before)));
  return {
    roots,
    before,
    after,
    repair: isBetter
      ? {
          label: `Set the roots of ${roots.length === 1 ? "one tree" : `${roots.length} trees`}`,
          planner: "share-roots",
          args: { roots: roots.map(({ words, root, second }) => [words, root.id, second?.id ?? null]) },
          edit: (now) => {
            for (const { tree, root, second } of roots)
              withPriorities(now, tree, root.id, second?.id ?? null);
          },
        }
      : null,
  };
}
