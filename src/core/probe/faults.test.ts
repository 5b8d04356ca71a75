import { bramblewick } from "../../../demo/bramblewick";
import { fennelStreet } from "../../../demo/fennel-street";
import { lockkeepersHouse } from "../../../demo/lockkeepers-house";
import { carryExactly } from "../planners";
import { afterEdit, donePlan } from "../testing/after-edit";
import { testId } from "../testing/build-plan";
import { judgeFaults } from "../testing/faults";
import { dice, PLANTS } from "../testing/plants";

const FAULTS = 1000;

test(`of ${FAULTS} single faults 95 % are mended by a repair, in 90 % the first cause is it`, () => {
  // What the sites lack on purpose is mended first, so that each fault is the only one.
  const sites = [bramblewick(), fennelStreet(), lockkeepersHouse()].map((plan) =>
    donePlan(afterEdit(plan, ({ edits, index }) => carryExactly(edits, index))),
  );
  let made = 0;
  const { planted, mended, blamed, kinds, missed } = judgeFaults(sites, FAULTS, dice(20_261_125), () =>
    testId("repair", `${(made += 1)}`),
  );
  expect(planted).toBe(FAULTS);
  expect(kinds.size).toBeGreaterThan(Object.keys(PLANTS).length - 4);
  expect({
    enough: mended / FAULTS >= 0.95,
    mended,
    missed: mended / FAULTS >= 0.95 ? [] : missed,
  }).toMatchObject({ enough: true });
  expect({
    enough: blamed / FAULTS >= 0.9,
    blamed,
    missed: blamed / FAULTS >= 0.9 ? [] : missed,
  }).toMatchObject({ enough: true });
});
