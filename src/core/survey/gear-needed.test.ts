import fc from "fast-check";
import { switchesFor } from "./gear-needed";

const ports = (models: ReturnType<typeof switchesFor>) =>
  models.reduce(
    (sum, model) =>
      sum + model.runs.filter((run) => run.medium === "copper").reduce((n, run) => n + run.count, 0),
    0,
  );
const powered = (models: ReturnType<typeof switchesFor>) => models.filter((model) => model.poeBudgetMw > 0);

test("the switches have the ports, the powered ports and the power, and none of them could be left out", () => {
  fc.assert(
    fc.property(
      fc.integer({ min: 0, max: 400 }),
      fc.integer({ min: 0, max: 200 }),
      fc.integer({ min: 0, max: 2_000_000 }),
      (wanted, poe, mw) => {
        const [asked, watts] = [Math.max(wanted, poe), poe === 0 ? 0 : mw];
        const chosen = switchesFor(asked, poe, watts);
        const enough = (models: typeof chosen) =>
          ports(models) >= asked &&
          ports(powered(models)) >= poe &&
          models.reduce((sum, model) => sum + model.poeBudgetMw, 0) >= watts;
        expect(enough(chosen)).toBe(true);
        for (const [i] of chosen.entries()) expect(enough(chosen.filter((_, n) => n !== i))).toBe(false);
      },
    ),
  );
});

test("where routers separate, plain switches do", () => {
  expect(switchesFor(4, 0, 0, true).map((model) => model.bridging)).toEqual(["plain"]);
  expect(switchesFor(0, 0, 0)).toEqual([]);
});

test("power alone that is still missing comes from a switch that gives it, also where routers separate", () => {
  expect(switchesFor(0, 0, 30_000, true).map((model) => model.poeBudgetMw > 0)).toEqual([true]);
});
