import type { Prefix4 } from "../../address";
import type { PlanEdits } from "../../plan";
import type { Refusal } from "../planner";
import { renumber } from "../addressing/renumber";

/** Moves one subnet of a segment with everything in it. */
export const moveSegmentTo = (edits: PlanEdits, segment: string, from: Prefix4, to: Prefix4): Refusal =>
  renumber(edits, [{ segment, from, to }]);
