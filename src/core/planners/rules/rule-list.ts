import { BLANK_RULE, MOST_RULES, type Device, type PlanIndex, type Rule } from "../../plan";
import type { EditContext, Refusal } from "../planner";
import { readRuleCell, RULE_COLUMNS, type RuleColumn } from "./rule-cell";

const GAP = 1000;

/** What a rule says, without where it stands. */
export type RuleFields = Omit<Rule, "id" | "device" | "place">;

const thousands = (count: number): string => count.toLocaleString("en-GB");

const tooMany = (count: number): Refusal =>
  count > MOST_RULES
    ? `A list has at most ${thousands(MOST_RULES)} rules; this would be ${thousands(count)}.`
    : null;

/** Gives every rule of the list a place, in this order; those that have a fitting one keep it. */
function placed({ edits }: EditContext, order: readonly Rule[]): void {
  order.forEach((rule, at) => {
    if (rule.place !== (at + 1) * GAP) edits.patch("rule", rule.id, { place: (at + 1) * GAP });
  });
}

/** A place between two rules of the list; null where there is none left. */
function placeBetween(before: Rule | undefined, after: Rule | undefined): number | null {
  if (after === undefined) return (before?.place ?? 0) + GAP;
  const low = before?.place ?? 0;
  const middle = Math.floor((low + after.place) / 2);
  return middle > low && middle < after.place ? middle : null;
}

/** Puts a new rule before another one of the device's list, or behind all of them (null). */
export function addRule(
  context: EditContext,
  {
    device,
    before,
    fields,
  }: { readonly device: string; readonly before: string | null; readonly fields: Partial<RuleFields> },
): Refusal {
  const rules = context.index.rulesOf(device);
  const refusal = tooMany(rules.length + 1);
  if (refusal !== null) return refusal;
  const at = before === null ? rules.length : rules.findIndex(({ id }) => id === before);
  if (at < 0) return "The rule that it should stand before is gone.";
  const rule = { ...BLANK_RULE, ...fields, id: context.ids(), device };
  const place = placeBetween(rules[at - 1], rules[at]);
  if (place !== null) context.edits.put("rule", { ...rule, place });
  else {
    placed(context, [...rules.slice(0, at)]);
    context.edits.put("rule", { ...rule, place: (at + 1) * GAP });
    rules
      .slice(at)
      .forEach((after, i) => context.edits.patch("rule", after.id, { place: (at + 2 + i) * GAP }));
  }
  return null;
}

/** Moves a rule to a number of its list, counted from 1. */
export function moveRule(
  context: EditContext,
  { rule: id, to }: { readonly rule: string; readonly to: number },
): Refusal {
  const rule = context.index.plan.rule.get(id);
  if (rule === undefined) return "That rule is gone.";
  const others = context.index.rulesOf(rule.device).filter((rule) => rule.id !== id);
  if (!Number.isInteger(to) || to < 1 || to > others.length + 1)
    return `The list has the numbers 1 to ${others.length + 1}.`;
  const place = placeBetween(others[to - 2], others[to - 1]);
  if (place !== null) context.edits.patch("rule", id, { place });
  else placed(context, [...others.slice(0, to - 1), rule, ...others.slice(to - 1)]);
  return null;
}

/** Takes the device's list away and puts these rules in its place. */
export function replaceRules(
  context: EditContext,
  { device, rules }: { readonly device: string; readonly rules: readonly RuleFields[] },
): Refusal {
  const refusal = tooMany(rules.length);
  if (refusal !== null) return refusal;
  for (const { id } of context.index.rulesOf(device)) context.edits.remove("rule", id);
  rules.forEach((fields, at) =>
    context.edits.put("rule", { ...fields, id: context.ids(), device, place: (at + 1) * GAP }),
  );
  return null;
}

/** Sets by which list a device filters, and what happens to what no rule takes. */
export function setFilter(
  { edits, index }: EditContext,
  device: string,
  fields: Partial<Device["filter"]>,
): Refusal {
  const known = index.plan.device.get(device);
  if (known === undefined) return "That device is gone.";
  edits.patch("device", device, { filter: { ...known.filter, ...fields } });
  return null;
}

/** A table of rules as it was read. */
export interface RulesRead {
  readonly rules: readonly RuleFields[];
  /** Each line that can't be read, with why; they are not among the rules. */
  readonly faults: readonly string[];
  /** What lines that were read do besides, which no rule here can say. */
  readonly notes: readonly string[];
}

const HEADS: readonly (readonly [RegExp, RuleColumn | "enabled" | "log" | null])[] = [
  [/^(from|source|src)$/i, "from"],
  [/^(to|destination|dest|dst|target)$/i, "to"],
  [/^(services?|lets through|ports?|protocols?)$/i, "services"],
  [/^(action|does)$/i, "action"],
  [/^(note|reason|comment|description|name)$/i, "note"],
  [/^(on|enabled|active)$/i, "enabled"],
  [/^(log|recorded?)$/i, "log"],
  [/^(#|no\.?|number|rule)$/i, null],
];

type Head = RuleColumn | "enabled" | "log" | null;

const headOf = (cell: string): Head | undefined => HEADS.find(([pattern]) => pattern.test(cell.trim()))?.[1];

/** The columns of a table by its first line, or the usual ones when that is a rule itself. */
function headsOf(rows: readonly (readonly string[])[]): {
  readonly heads: readonly Head[];
  readonly from: number;
} {
  const first = (rows[0] ?? []).map(headOf);
  const isHead = first.filter((head) => head !== undefined && head !== null).length >= 2;
  return isHead
    ? { heads: first.map((head) => head ?? null), from: 1 }
    : { heads: RULE_COLUMNS.map(([column]) => column), from: 0 };
}

const isYes = (text: string): boolean => !/^(|no|off|false|0|-)$/i.test(text.trim());

/** Reads a pasted or imported table, one rule a line; the first line may name the columns. */
export function readRuleTable(index: PlanIndex, rows: readonly (readonly string[])[]): RulesRead | string {
  const filled = rows.filter((row) => row.some((cell) => cell.trim() !== ""));
  const { heads, from } = headsOf(filled);
  const lines = filled.slice(from);
  if (lines.length === 0) return "There is no rule in it: one rule a line, from, to, services, action.";
  const refusal = tooMany(lines.length);
  if (refusal !== null) return refusal;
  const rules: RuleFields[] = [];
  const faults: string[] = [];
  lines.forEach((row, at) => {
    const read = readRuleRow(index, heads, row);
    if (typeof read === "string") faults.push(`Line ${at + 1}, ${read}`);
    else rules.push(read);
  });
  return { rules, faults, notes: [] };
}

function readRuleRow(index: PlanIndex, heads: readonly Head[], row: readonly string[]): RuleFields | string {
  let rule: RuleFields = BLANK_RULE;
  for (const [at, head] of heads.entries()) {
    const text = row[at] ?? "";
    if (head === null || (head === "action" && text.trim() === "")) continue;
    if (head === "enabled" || head === "log") {
      rule = { ...rule, [head]: isYes(text) };
      continue;
    }
    const fields = readRuleCell(index, head, text);
    if (typeof fields === "string") return `${head}: ${fields}`;
    rule = { ...rule, ...fields };
  }
  return rule;
}

/** Puts new rules before all others of the list, in this order. */
export function putOnTop(
  context: EditContext,
  { device, rules }: { readonly device: string; readonly rules: readonly Partial<RuleFields>[] },
): Refusal {
  const known = context.index.rulesOf(device);
  const refusal = tooMany(known.length + rules.length);
  if (refusal !== null) return refusal;
  const step = Math.floor((known[0]?.place ?? (rules.length + 1) * GAP) / (rules.length + 1));
  if (step < 1)
    known.forEach(({ id }, at) => context.edits.patch("rule", id, { place: (rules.length + at + 1) * GAP }));
  rules.forEach((fields, at) =>
    context.edits.put("rule", {
      ...BLANK_RULE,
      ...fields,
      id: context.ids(),
      device,
      place: (at + 1) * (step < 1 ? GAP : step),
    }),
  );
  return null;
}
