import { BLANK_RULE, MOST_RULES, type PlanIndex, type Rule } from "../../plan";
import type { EditContext, Refusal } from "../planner";
import { readServices, servicesText } from "./service-list-text";
import { readSides, sidesText } from "./side-text";

/** What of a rule is written in a cell. */
export type RuleColumn = "from" | "to" | "services" | "action" | "note";
export const RULE_COLUMNS: readonly (readonly [RuleColumn, string])[] = [
  ["from", "From"],
  ["to", "To"],
  ["services", "Services"],
  ["action", "Action"],
  ["note", "Note"],
];

const ACTIONS: readonly (readonly [RegExp, Rule["action"]])[] = [
  [/^(accept|allow|permit|pass|let through|open|yes)$/i, "accept"],
  [/^(drop|deny|block|discard|closed?|no)$/i, "drop"],
  [/^(reject|refuse)$/i, "reject"],
];

/** What is written in a cell as fields of the rule; a sentence where it can't be read. */
export function readRuleCell(index: PlanIndex, column: RuleColumn, text: string): Partial<Rule> | string {
  switch (column) {
    case "from": {
      const from = readSides(index, text);
      if (typeof from === "string") return from;
      return from.some(({ at }) => at === "gateway")
        ? "Nothing that the gateway itself starts meets its rules; write where else it comes from."
        : { from: [...from] };
    }
    case "to": {
      const to = readSides(index, text);
      return typeof to === "string" ? to : { to: [...to] };
    }
    case "services": {
      const services = readServices(index, text);
      return typeof services === "string" ? services : { services: [...services] };
    }
    case "action": {
      const action = ACTIONS.find(([pattern]) => pattern.test(text.trim()))?.[1];
      return action === undefined ? `"${text}" is no action: write accept, drop or reject.` : { action };
    }
    case "note":
      return text.trim().length > 120 ? "A note has at most 120 characters." : { note: text.trim() };
  }
}

/** What a cell says, as `readRuleCell` reads it. */
export function ruleCellText(index: PlanIndex, rule: Pick<Rule, RuleColumn>, column: RuleColumn): string {
  switch (column) {
    case "from":
      return sidesText(index, rule.from);
    case "to":
      return sidesText(index, rule.to);
    case "services":
      return servicesText(index, rule.services);
    case "action":
      return rule.action;
    case "note":
      return rule.note;
  }
}

/** Writes one cell of a rule. */
export function writeRuleCell(
  { edits, index }: EditContext,
  { rule, column, text }: { readonly rule: string; readonly column: RuleColumn; readonly text: string },
): Refusal {
  const fields = readRuleCell(index, column, text);
  if (typeof fields === "string") return fields;
  edits.patch("rule", rule, fields);
  return null;
}

/** Writes a block of texts onto rules; rows beyond `onto` are new rules behind the others. */
export function pasteRules(
  context: EditContext,
  {
    device,
    rows,
    from,
    onto,
  }: {
    readonly device: string;
    readonly rows: readonly (readonly string[])[];
    readonly from: RuleColumn;
    readonly onto: readonly string[];
  },
): Refusal {
  const columns = RULE_COLUMNS.map(([column]) => column);
  const start = columns.indexOf(from);
  const known = context.index.rulesOf(device);
  if (known.length + rows.length - onto.length > MOST_RULES)
    return `A list has at most ${MOST_RULES.toLocaleString("en-GB")} rules.`;
  let place = known.at(-1)?.place ?? 0;
  for (const [i, row] of rows.entries()) {
    let fields: Partial<Rule> = {};
    for (const [at, text] of row.entries()) {
      const column = columns[start + at];
      const read = column === undefined ? {} : readRuleCell(context.index, column, text);
      if (typeof read === "string") return `Row ${i + 1}: ${read}`;
      fields = { ...fields, ...read };
    }
    const id = onto[i];
    if (id !== undefined) context.edits.patch("rule", id, fields);
    else {
      place += 1000;
      context.edits.put("rule", { ...BLANK_RULE, ...fields, id: context.ids(), device, place });
    }
  }
  return null;
}
