import type { PlanIndex } from "../plan";
import { egressTag, type Fabric } from "../fabric";
import { bridgeIn, treePortOf, type NamedTree, type Taking } from "./taking-part";
import { spanningTree } from "./tree";

/**
 * One tree for each VLAN: independent, their messages inside the VLAN; the VLAN's number is added to the
 * priority.
 */
export function vlanTrees(
  index: PlanIndex,
  fabric: Fabric,
  taking: readonly Taking[],
): Map<number, NamedTree> {
  const members = new Map<number, Taking[]>();
  for (const taken of taking)
    for (const vid of [...taken.port.untagged, ...taken.port.tagged]) {
      const list = members.get(vid);
      if (list === undefined) members.set(vid, [taken]);
      else if (list.at(-1) !== taken) list.push(taken);
    }
  const found = new Map<number, NamedTree>();
  for (const [vid, own] of [...members].sort(([a], [b]) => a - b)) {
    const devices = [...new Set(own.map(({ device }) => device))].flatMap(
      (number) => fabric.devices[number] ?? [],
    );
    const bridges = devices.map((device) =>
      bridgeIn(
        index,
        device,
        (device.tree.perVlan.find((own) => own.vid === vid)?.priority ?? device.tree.priority) + vid,
      ),
    );
    const ports = own.map((taking) =>
      treePortOf(index, taking, `${taking.lan} ${egressTag(taking.port, vid) ?? "untagged"}`),
    );
    const lans = new Map<string, number>();
    for (const { lan } of ports) lans.set(lan, (lans.get(lan) ?? 0) + 1);
    found.set(vid, {
      key: `VLAN ${vid}`,
      title: `VLAN ${vid}`,
      tree: spanningTree(
        bridges,
        ports.filter(({ lan }) => (lans.get(lan) ?? 0) > 1),
      ),
    });
  }
  return found;
}
