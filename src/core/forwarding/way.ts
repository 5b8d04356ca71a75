import type { PlanIndex, Port } from "../plan";
import { TREE } from "../spanning-tree";
import { FABRIC } from "../fabric";

/** One hop by cable: out of `near` on one device, into `far` on the next. */
export interface Hop {
  readonly near: Port;
  readonly far: Port;
}

/**
 * The shortest way by cable from one device to another, whatever VLANs its ports carry, without what stands
 * by for `vid`; null when no cable joins them.
 */
export function cableWay(index: PlanIndex, from: string, to: string, vid: number): Hop[] | null {
  const fabric = index.derived(FABRIC);
  const { discards } = index.derived(TREE);
  const start = fabric.deviceNumber.get(from);
  const goal = fabric.deviceNumber.get(to);
  if (start === undefined || goal === undefined) return null;
  const cameBy = new Map<number, { from: number; hop: Hop }>();
  const queue = [start];
  for (let i = 0; i < queue.length; i += 1) {
    const at: number = queue[i] ?? start;
    if (at === goal) break;
    const ports: readonly number[] = fabric.bridgePortsOf[at] ?? [];
    for (const nearNumber of ports) {
      const wire = fabric.wires[fabric.wireOf[nearNumber] ?? -1];
      for (const farNumber of wire?.bridgePorts ?? []) {
        const next = fabric.deviceOf[farNumber] ?? 0;
        const near = fabric.ports[nearNumber];
        const far = fabric.ports[farNumber];
        if (
          next === start ||
          next === at ||
          cameBy.has(next) ||
          near === undefined ||
          far === undefined ||
          discards(nearNumber, vid) ||
          discards(farNumber, vid)
        )
          continue;
        cameBy.set(next, { from: at, hop: { near, far } });
        queue.push(next);
      }
    }
  }
  if (start !== goal && !cameBy.has(goal)) return null;
  const way: Hop[] = [];
  for (let at = goal; at !== start;) {
    const step = cameBy.get(at);
    if (step === undefined) return null;
    way.unshift(step.hop);
    at = step.from;
  }
  return way;
}
