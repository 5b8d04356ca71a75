import { encodePlan } from "../formats";
import { byText } from "../kernel";
import type { Plan } from "../plan";

const idOf = (entity: unknown): string =>
  typeof entity === "object" && entity !== null && "id" in entity && typeof entity.id === "string"
    ? entity.id
    : "";

/**
 * The form of that text: the version of plan files in which a plan last was told otherwise. Records may have
 * got more since, which a state has none of.
 */
export const STATE_FORM = 17;

/**
 * A plan as one text that is the same for the same plan, in whatever order its rows are: what a check value is
 * taken of.
 */
export function stateText(plan: Plan): string {
  const file = encodePlan(plan) as Readonly<Record<string, unknown>>;
  const sorted = Object.entries({ ...file, version: STATE_FORM }).map(([name, value]): [string, unknown] => [
    name,
    Array.isArray(value) ? value.toSorted((a, b) => byText(idOf(a), idOf(b))) : value,
  ]);
  return JSON.stringify(Object.fromEntries(sorted.sort(([a], [b]) => byText(a, b))));
}
