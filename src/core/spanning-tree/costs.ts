import { linkSpeed } from "../cabling";
import type { PlanIndex, Port } from "../plan";

/** Cost of a port by its speed (IEEE 802.1Q table 13-4, long costs): 20,000 at 1 Gbit/s, 2,000 at 10 Gbit/s. */
export const pathCost = (mbps: number): number =>
  Math.max(1, Math.min(200_000_000, Math.round(20_000_000 / Math.max(1, mbps))));

/**
 * The 16-bit costs of older bridges (IEEE 802.1D-1998 table 8-5, with the values in use above 1 Gbit/s), by
 * the least speed in Mbit/s.
 */
const SHORT: readonly (readonly [least: number, cost: number])[] = [
  [20_000, 1],
  [10_000, 2],
  [2000, 3],
  [1000, 4],
  [100, 19],
  [16, 62],
  [10, 100],
  [0, 250],
];
export const shortPathCost = (mbps: number): number => SHORT.find(([least]) => mbps >= least)?.[1] ?? 250;

/** The speed of a port's cable; of all of them for the first port of a LAG. */
function speedOf(index: PlanIndex, port: Port): number {
  const far = index.peerOf(port.id);
  const members =
    port.lag === null
      ? 1
      : (index.groups("portsByLag").get(port.lag) ?? []).filter(
          (port) => port.enabled && index.linkAt(port.id) !== undefined,
        ).length;
  return (far === undefined ? port.speedMbps : linkSpeed(port, far)) * Math.max(1, members);
}

/**
 * What a port adds to the cost of a way that comes in at it: as entered, else by its speed and its device's
 * table.
 */
export function costOfPort(index: PlanIndex, port: Port): number {
  if (port.treeCost !== null) return port.treeCost;
  const mbps = speedOf(index, port);
  return index.plan.device.get(port.device)?.tree.costs === "short" ? shortPathCost(mbps) : pathCost(mbps);
}
