import { bramblewick } from "../../../demo/bramblewick";
import { fennelStreet } from "../../../demo/fennel-street";
import { lockkeepersHouse } from "../../../demo/lockkeepers-house";
import { planOf, siteCases } from "../../../tests/support/site-cases";
import { KINDS, PlanIndex, type Kind, type Plan } from "../plan";
import { CHECKS } from "./registry";

// A check is run anew when a kind that it says it reads has changed. What it reads and does not say would
// leave old findings standing.

/** An index over a plan that writes down which kinds are asked for, once it is built. */
function recording(plan: Plan): { readonly index: PlanIndex; readonly read: Set<Kind> } {
  const read = new Set<Kind>();
  const kinds: readonly string[] = KINDS;
  const { plan: ordered } = PlanIndex.of(plan);
  const index = PlanIndex.of(
    new Proxy(ordered, {
      get: (target, name, self) => {
        if (typeof name === "string" && kinds.includes(name)) read.add(name as Kind);
        return Reflect.get(target, name, self) as unknown;
      },
    }),
    "2026-11-27",
  );
  read.clear();
  return { index, read };
}

const PLANS: readonly Plan[] = [
  bramblewick(),
  fennelStreet(),
  lockkeepersHouse(),
  ...siteCases().slice(0, 12).map(planOf),
];

test.each(CHECKS.map((check) => [check.code, check] as const))(
  "%s reads no kind that it does not name",
  (_, check) => {
    const said = new Set<Kind>(check.reads);
    for (const plan of PLANS) {
      const { index, read } = recording(plan);
      check.run(index);
      expect([...read].filter((kind) => !said.has(kind))).toEqual([]);
    }
  },
);

test("nor does what is derived from a plan while the kinds it names have not changed", () => {
  const recipes = new Set<Parameters<PlanIndex["derived"]>[0]>();
  const seen = jest.spyOn(PlanIndex.prototype, "derived");
  for (const plan of PLANS) for (const check of CHECKS) check.run(PlanIndex.of(plan, "2026-11-27"));
  for (const [recipe] of seen.mock.calls) recipes.add(recipe);
  seen.mockRestore();
  expect(recipes.size).toBeGreaterThan(10);
  for (const recipe of recipes) {
    for (const plan of PLANS) {
      const { index, read } = recording(plan);
      recipe.make(index);
      expect([...read].filter((kind) => !recipe.reads.includes(kind))).toEqual([]);
    }
  }
});
