import {
  asPrefix4,
  containsPrefix,
  formatPrefix,
  packSubnets,
  prefixesOverlap,
  supernetOf,
  type Prefix,
  type Prefix4,
} from "../../address";
import type { PlanEdits, Plan, Segment } from "../../plan";
import { forbiddenRanges } from "./forbidden";
import type { Refusal } from "../planner";
import { renumber } from "./renumber";

/** A larger subnet for a segment: around the present one, so that no address changes, or elsewhere. */
export interface Enlargement {
  readonly from: Prefix4;
  readonly to: Prefix4;
  readonly inPlace: boolean;
}

/**
 * The subnet of `length` that a segment can have: around its own where the neighbours leave room, else the
 * tightest free place; null without one.
 */
export function enlargementOf(plan: Plan, segment: Segment, length: number): Enlargement | null {
  const from = segment.prefixes4[0];
  if (from === undefined) return null;
  const others: Prefix[] = [
    ...[...plan.segment.values()].filter((s) => s.id !== segment.id).flatMap((s) => s.prefixes4),
    ...forbiddenRanges(plan).map((f) => f.prefix),
  ];
  const blocks = plan.site.blocks.filter((block): block is Prefix4 => block.family === 4);
  const around = asPrefix4(supernetOf(from, length));
  // Around means from the same first address on: with another network address every mask and broadcast would
  // still change, and offsets too.
  if (
    around !== null &&
    around.network === from.network &&
    blocks.some((block) => containsPrefix(block, around)) &&
    !others.some((o) => prefixesOverlap(o, around))
  )
    return { from, to: around, inPlace: true };
  const to = asPrefix4(
    packSubnets(blocks, [{ key: "it", length, roomLength: length }], others).placed.get("it") ?? null,
  );
  return to === null ? null : { from, to, inPlace: false };
}

export function enlarge(edits: PlanEdits, segment: string, { from, to, inPlace }: Enlargement): Refusal {
  if (!inPlace) return renumber(edits, [{ segment, from, to }]);
  const known = edits.need("segment", segment);
  edits.patch("segment", segment, {
    prefixes4: known.prefixes4.map((prefix) => (formatPrefix(prefix) === formatPrefix(from) ? to : prefix)),
  });
  return null;
}
