import { formatAddress } from "../address";
import type { PlanIndex } from "../plan";
import { nextFreeFor } from "../planners";
import type { Repair } from "./repair";

/** Moves a static host to the next free address of its segment; empty when there is none. */
export function freeAddressRepairs(index: PlanIndex, host: string, segment: string): readonly Repair[] {
  const target = index.plan.segment.get(segment);
  const free = target === undefined ? null : nextFreeFor(index, target, "typed");
  return free === null
    ? []
    : [
        {
          label: `Give it ${formatAddress(free)}`,
          planner: "move-address",
          args: { host, to: formatAddress(free) },
          edit: (edits) => edits.patch("host", host, { ipv4: free }),
        },
      ];
}
