import type { PlanEdits, Kind } from "../plan";
import type { Refusal } from "../planners";

/** An entity of the plan that a finding, a step or a cause is about. */
export interface Subject {
  readonly kind: Kind;
  readonly id: string;
}

/**
 * A way to mend a finding or the cause of a probe's end: `edit` writes the changes; `ids` gives
 * ids to what it creates.
 */
export interface Repair {
  readonly label: string;
  readonly planner: string;
  readonly args: unknown;
  readonly edit: (edits: PlanEdits, ids: () => string) => Refusal | void;
}
