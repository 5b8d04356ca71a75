import { byNaturalText, putInto } from "../kernel";
import type { Device, PlanIndex, Port } from "../plan";
import type { NamedTree } from "./taking-part";
import { priorityIn } from "./why";

/**
 * A bridge of a tree where it is drawn: its level is how far it is from the root, its place counts along the
 * level.
 */
export interface DrawnBridge {
  readonly device: Device;
  readonly level: number;
  readonly place: number;
  readonly priority: number;
  readonly isRoot: boolean;
}
/** A cable of a tree: from the end that serves it to the other. */
export interface DrawnBranch {
  readonly from: Port;
  readonly to: Port;
  readonly standsBy: boolean;
}
export interface TreePicture {
  readonly bridges: readonly DrawnBridge[];
  readonly branches: readonly DrawnBranch[];
  readonly levels: number;
  readonly widest: number;
}

/**
 * A tree as it is drawn: roots on top, each level in the order of what it hangs on, so that few lines cross.
 */
export function treePicture(index: PlanIndex, named: NamedTree): TreePicture {
  const { tree } = named;
  const branches: DrawnBranch[] = [...tree.ports].flatMap(([id, state]): DrawnBranch[] => {
    const [to, from] = [index.plan.port.get(id), index.plan.port.get(state.designated.id)];
    return state.role === "designated" || to === undefined || from === undefined
      ? []
      : [{ from, to, standsBy: state.role === "alternate" || state.role === "backup" }];
  });
  const above = new Map(
    branches.filter((branch) => !branch.standsBy).map(({ from, to }) => [to.device, from.device]),
  );
  const byLevel = new Map<number, Device[]>();
  for (const [id, hops] of tree.hopsOf) {
    const device = index.plan.device.get(id);
    if (device !== undefined) putInto(byLevel, hops, device);
  }
  const placeOf = new Map<string, number>();
  const bridges: DrawnBridge[] = [];
  let widest = 0;
  // A bridge settles after the one it hangs on: levels are met from the top.
  for (const [level, devices] of byLevel) {
    const ordered = devices.sort(
      (a, b) =>
        (placeOf.get(above.get(a.id) ?? "") ?? 0) - (placeOf.get(above.get(b.id) ?? "") ?? 0) ||
        byNaturalText(a.name, b.name),
    );
    widest = Math.max(widest, ordered.length);
    for (const [place, device] of ordered.entries()) {
      placeOf.set(device.id, place);
      bridges.push({
        device,
        level,
        place,
        priority: priorityIn(device, named),
        isRoot: tree.rootOf.get(device.id)?.id === device.id,
      });
    }
  }
  return { bridges, branches, levels: byLevel.size, widest };
}
