import { byNaturalText } from "../kernel";
import type { PlanIndex } from "../plan";
import { WISH_COLUMNS, wishCellText } from "../planners";
import { WAY_HEADS, WAYS, waysIn, type Tried } from "../ways-in";

const VERDICT = { works: "works", worksIf: "works if", cannot: "cannot" } as const;

function triedText({ line, verdict, says }: Tried): string {
  const reason = says === "" ? "" : `: ${says}`;
  return `${VERDICT[verdict]} by ${line.name}${reason}`;
}

/** Every wish to reach something from outside as a table of texts, heads first, with how each way fares. */
export const wishTable = (index: PlanIndex): string[][] => [
  [...WISH_COLUMNS.map(([, head]) => head), ...WAYS.map((way) => WAY_HEADS[way])],
  ...[...index.plan.wish.values()]
    .sort((a, b) => byNaturalText(a.name, b.name) || byNaturalText(a.id, b.id))
    .map((wish) => [
      ...WISH_COLUMNS.map(([column]) => wishCellText(index, wish, column)),
      ...waysIn(index, wish).map(({ best }) => (best === null ? "no line" : triedText(best))),
    ]),
];
