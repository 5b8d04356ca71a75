import { assemble, invert, type Change } from "./change";
import type { Plan } from "./plan";

/**
 * What a plan was before the last batches that made it, oldest first; null where they are not its last ones.
 * Limits are not asked: what was there once was within those of its time.
 */
export function planBefore(plan: Plan, batches: readonly (readonly Change[])[]): Plan | null {
  let earlier = plan;
  for (const changes of batches.toReversed()) {
    const taken = assemble(earlier, invert(changes));
    if (!taken.ok) return null;
    earlier = taken.value;
  }
  return earlier;
}
