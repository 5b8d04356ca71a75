import { byText } from "../kernel";
import type { Plan } from "./plan";
import { COLLECTION_KINDS } from "./schema/kinds";

export function isInIdOrder(rows: ReadonlyMap<string, unknown>): boolean {
  let last = "";
  for (const id of rows.keys()) {
    if (id < last) return false;
    last = id;
  }
  return true;
}

/** The rows in ascending order of their ids; the very map when they are so already, which is the usual case. */
export const inIdOrder = <T>(rows: ReadonlyMap<string, T>): ReadonlyMap<string, T> =>
  isInIdOrder(rows) ? rows : new Map([...rows].sort(([a], [b]) => byText(a, b)));

/**
 * The plan with its rows in the order of their ids. Who asks: `PlanIndex`, so that whatever goes through rows
 * meets them in one order, however they were added or read. The plan itself when it is so already.
 */
export function planInIdOrder(plan: Plan): Plan {
  const moved = COLLECTION_KINDS.filter((kind) => !isInIdOrder(plan[kind]));
  return moved.length === 0
    ? plan
    : ({
        ...plan,
        ...Object.fromEntries(moved.map((kind) => [kind, inIdOrder<unknown>(plan[kind])])),
      } as Plan);
}
