import { ascending } from "../kernel";
import type { Device } from "../plan";

/**
 * What makes two bridges one region: the same name, revision and map of VLANs to trees (IEEE 802.1Q section
 * 13.8).
 */
export function regionKey({ tree }: Pick<Device, "tree">): string {
  const map = [...tree.instances]
    .sort((a, b) => a.number - b.number)
    .map(({ number, vids }) => `${number}:${[...vids].sort(ascending).join(",")}`)
    .filter((text) => !text.endsWith(":"));
  return JSON.stringify([tree.region, tree.revision, map]);
}

/** What of two devices keeps them from being one region, in words; empty when they are one. */
export function regionDifference(a: Device, b: Device): string {
  if (a.tree.region !== b.tree.region) return `the region's name: "${a.tree.region}" and "${b.tree.region}"`;
  if (a.tree.revision !== b.tree.revision) return `the revision: ${a.tree.revision} and ${b.tree.revision}`;
  if (regionKey(a) === regionKey(b)) return "";
  const [left, right] = [treeByVid(a), treeByVid(b)];
  const differing = [...new Set([...left.keys(), ...right.keys()])]
    .filter((vid) => (left.get(vid) ?? 0) !== (right.get(vid) ?? 0))
    .sort(ascending);
  const [first] = differing;
  const more = differing.length > 1 ? `, and ${differing.length - 1} more` : "";
  return first === undefined
    ? "the map of VLANs"
    : `the map of VLANs: ${first} is in tree ${left.get(first) ?? 0} ` +
        `and in tree ${right.get(first) ?? 0}${more}`;
}

/**
 * Which tree of its region a device puts each VLAN into; those that are not listed are in the common tree, 0.
 */
export function treeByVid({ tree }: Pick<Device, "tree">): Map<number, number> {
  return new Map(
    tree.instances.flatMap(({ number, vids }) => vids.map((vid): [number, number] => [vid, number])),
  );
}
