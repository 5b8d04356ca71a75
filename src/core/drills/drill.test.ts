import { Study } from "../diagnosis";
import { dice } from "../kernel";
import { PlanIndex } from "../plan";
import { mixedSite } from "../testing/mixed-site";
import type { Level } from "./complaint";
import { debrief } from "./debrief";
import { isNamed, makeDrill, solve } from "./drill";

// Sites with and without VLANs, with routers behind one another, relays and servers of any kind: whatever is
// planted there can be found, and what it was can be told.

const LEVELS: readonly Level[] = [1, 2, 3];
const SEEDS = [11, 12, 13];

test("on any site what is planted can be found and told, or the site has nothing of that level", () => {
  let planted = 0;
  for (const seed of SEEDS) {
    const study = new Study(PlanIndex.of(mixedSite(dice(seed))));
    for (const level of LEVELS) {
      const drill = makeDrill(study, { level, about: null, accepts: () => true }, seed);
      if (drill === null) continue;
      planted += 1;
      expect(drill.copy.faults).toHaveLength(level === 3 ? 2 : 1);
      expect(isNamed(drill.copy, solve(drill))).toBe(true);
      const { faults, shortest, suggested } = debrief(drill, []);
      expect(faults.map(({ words }) => words)).toEqual(drill.copy.faults.map(({ words }) => words));
      expect([suggested.isNamed, shortest.minutes <= suggested.minutes]).toEqual([true, true]);
    }
  }
  expect(planted).toBeGreaterThan(SEEDS.length);
});
