import { must } from "../kernel";
import type { PlanIndex, Port } from "../plan";
import { TREE } from "../spanning-tree";
import { FABRIC, type Fabric } from "../fabric";

/** One hop by cable: out of `near` on one device, into `far` on the next. */
export interface Hop {
  readonly near: Port;
  readonly far: Port;
}

/** The cables from a device whose two ends forward, in the order of its ports. */
function* hopsFrom(fabric: Fabric, device: number, discards: (port: number) => boolean): Generator<Hop> {
  for (const nearNumber of must(fabric.bridgePortsOf[device], "compiled gear")) {
    const wire = must(fabric.wires[fabric.wireOf[nearNumber] ?? -1], "a working port's wire");
    for (const farNumber of wire.bridgePorts)
      if (!discards(nearNumber) && !discards(farNumber))
        yield {
          near: must(fabric.ports[nearNumber], "a compiled port"),
          far: must(fabric.ports[farNumber], "a compiled port"),
        };
  }
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
  // Goes on to what is added on the way.
  for (const at of queue) {
    if (at === goal) break;
    for (const hop of hopsFrom(fabric, at, (port) => discards(port, vid))) {
      const next: number = fabric.deviceNumber.get(hop.far.device) ?? start;
      if (cameBy.has(next)) continue;
      cameBy.set(next, { from: at, hop });
      queue.push(next);
    }
  }
  const way: Hop[] = [];
  for (let at = goal; at !== start;) {
    const step = cameBy.get(at);
    if (step === undefined) return null;
    way.unshift(step.hop);
    at = step.from;
  }
  return way;
}
