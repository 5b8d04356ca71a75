import { encodePlan, VERSION } from "../formats";
import { byText } from "../kernel";
import type { Plan } from "../plan";

const idOf = (entity: unknown): string =>
  typeof entity === "object" && entity !== null && "id" in entity && typeof entity.id === "string"
    ? entity.id
    : "";

/** The form of that text: it changes with the form of plan files. */
export const STATE_FORM = VERSION;

/**
 * A plan as one text that is the same for the same plan, in whatever order its rows are: what a check value is
 * taken of.
 */
export function stateText(plan: Plan): string {
  const file = encodePlan(plan) as Readonly<Record<string, unknown>>;
  const sorted = Object.entries(file).map(([name, value]): [string, unknown] => [
    name,
    Array.isArray(value) ? value.toSorted((a, b) => byText(idOf(a), idOf(b))) : value,
  ]);
  return JSON.stringify(Object.fromEntries(sorted.sort(([a], [b]) => byText(a, b))));
}
