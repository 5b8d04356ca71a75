import type { Device, PlanEdits, Vid } from "../../plan";

/** A tree beside the common one: an instance of a region, or a VLAN's own. */
export type TreeOf =
  { readonly of: "instance"; readonly number: number } | { readonly of: "vlan"; readonly vid: Vid };

/**
 * Priorities of a root and of the one that takes over; the others have the usual one (IEEE 802.1Q section
 * 13.26.3).
 */
const [ROOT, SECOND, USUAL] = [4096, 8192, 32_768];

type Tree = Device["tree"];

/** A device's tree settings with its priority in one tree. */
function withPriority(tree: Tree, which: TreeOf, priority: number): Tree {
  if (which.of === "instance")
    return {
      ...tree,
      instances: tree.instances.map((instance) =>
        instance.number === which.number ? { ...instance, priority } : instance,
      ),
    };
  const { vid } = which;
  const others = tree.perVlan.filter((other) => other.vid !== vid);
  const own = priority === tree.priority ? [] : [{ vid, priority }];
  return { ...tree, perVlan: [...others, ...own].sort((a, b) => a.vid - b.vid) };
}

/**
 * Makes one device the root of a tree and another the one that takes over; all others get the usual priority.
 */
export function withPriorities(edits: PlanEdits, tree: TreeOf, root: string, second: string | null): void {
  const kind = tree.of === "instance" ? "multiple" : "perVlan";
  const chosen = new Map([
    [second ?? "", SECOND],
    [root, ROOT],
  ]);
  for (const device of edits.all("device")) {
    if (device.bridging !== "vlan" || device.tree.kind !== kind) continue;
    const priority = chosen.get(device.id) ?? USUAL;
    edits.patch("device", device.id, { tree: withPriority(device.tree, tree, priority) });
  }
}
