import { FABRIC } from "../../fabric";
import type { PlanIndex } from "../../plan";
import { runOn, type ProbeRun, type ServerReached } from "../../probe";
import type { Repair } from "../../repairs";

const nobody = () => "";

/** What decides whether a device reaches the servers that it asks. */
export const ASKED_READS = [
  ...FABRIC.reads,
  "segment",
  "scope",
  "vlan",
  "signIn",
  "wall",
  "zone",
  "line",
  "forward",
  "exception",
  "service",
] as const;

/** Asks a question about servers without making anything. */
export const askedOn = (index: PlanIndex): ProbeRun => runOn(index, nobody);

/**
 * Repairs of why servers are not reached. What they create gets its id when it is made, not when it is
 * offered.
 */
export function repairsFor(index: PlanIndex, ask: (run: ProbeRun) => ServerReached | null): Repair[] {
  let next = nobody;
  const reached = ask(runOn(index, () => next()));
  if (reached === null || "server" in reached) return [];
  return reached.cause.repairs.map((repair): Repair => ({
    ...repair,
    edit: (edits, ids) => {
      next = ids;
      return repair.edit(edits, ids);
    },
  }));
}
