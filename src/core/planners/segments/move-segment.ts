import type { Prefix4 } from "../../address";
import type { Draft } from "../../plan";
import type { Refusal } from "../planner";
import { renumber } from "../addressing/renumber";

/** Moves one subnet of a segment with everything in it. */
export const moveSegmentTo = (draft: Draft, segment: string, from: Prefix4, to: Prefix4): Refusal =>
  renumber(draft, [{ segment, from, to }]);
