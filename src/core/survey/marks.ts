import type { PlanIndex } from "../plan";
import { markAmong } from "../planners";
import { groupKey, groupTitle, type Group } from "./groups";

/**
 * The mark of each group by its key: its segment's, or the one that a draft would give it; no two are the
 * same as long as there are marks left.
 */
export function marksOf(index: PlanIndex, groups: readonly Group[]): ReadonlyMap<string, string> {
  const segments = [...index.plan.segment.values()];
  const taken = new Set(segments.map(({ mark }) => mark));
  return new Map(
    groups.map((group): [string, string] => {
      const known = segments.find(
        (segment) => groupKey({ purpose: segment.purpose, name: segment.group }) === groupKey(group),
      );
      const mark = known?.mark ?? markAmong(taken, groupTitle(index.plan.site, group));
      taken.add(mark);
      return [groupKey(group), mark];
    }),
  );
}
