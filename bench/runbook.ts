import { bramblewick } from "../demo/bramblewick";
import { fennelStreet } from "../demo/fennel-street";
import { encodePlan } from "../src/core/formats";
import { must } from "../src/core/kernel";
import { PlanIndex, type Plan } from "../src/core/plan";
import { provenRunbook } from "../src/core/runbook";
import { generate, SIZES } from "./generate";

type Median = (runs: number, once: () => unknown) => number;
type Add = (what: string, ms: number, parse: number) => void;

const sized = (name: string): Plan =>
  generate(
    must(
      SIZES.find((size) => size.name === name),
      name,
    ),
  );

/** Rows about orders of work, all from gear out of the box. */
export function measureRunbook(median: Median, add: Add): void {
  const plans: readonly (readonly [string, Plan, number])[] = [
    ["practice", fennelStreet(), 3],
    ["works", bramblewick(), 3],
    ["office", sized("office"), 1],
  ];
  for (const [name, plan, runs] of plans) {
    const text = JSON.stringify(encodePlan(plan));
    const parse = median(5, () => JSON.parse(text));
    let words = "";
    const ms = median(runs, () => {
      const made = provenRunbook(PlanIndex.of(plan), null);
      words =
        made === null
          ? "no order"
          : `${made.operations.length} operations, ${made.runbook.moves} moves, ` +
            `${made.runbook.consoles} by console`;
    });
    add(`${name}: runbook out of the box, ${words}`, ms, parse);
  }
}
