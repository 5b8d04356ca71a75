import { nameOf, type Device } from "../plan";
import {
  addRule as addRuleIn,
  adoptPlanned,
  bringToNeeded,
  moveRule as moveRuleIn,
  pasteRules as pasteRulesInto,
  replaceRules as replaceRulesIn,
  RULE_COLUMNS,
  type RuleColumn,
  type RuleFields,
  setFilter,
  writeRuleCell,
} from "../planners";
import { counted } from "../repairs";
import { command, eachCell, inTurn, type Cell, type Pasted } from "./command";
import { emptied, pasted } from "./says";

export const addRule = command<{
  readonly device: string;
  /** The rule that it stands before; null for the end of the list. */
  readonly before: string | null;
}>("add-rule", {
  says: ({ device, before }, index) =>
    before === null
      ? `New rule at the end of the list on ${nameOf(index, "device", device)}`
      : `New rule before ${nameOf(index, "rule", before)}`,
  run: (context, { device, before }) => addRuleIn(context, { device, before, fields: {} }),
});

/** A cell of the list of rules with what is written in it. */
export interface RuleCell {
  readonly rule: string;
  readonly column: RuleColumn;
  readonly text: string;
}

const columnWord = (column: RuleColumn): string =>
  RULE_COLUMNS.find(([key]) => key === column)?.[1].toLowerCase() ?? column;

export const writeRules = command<{ readonly cells: readonly RuleCell[] }>("write-rules", {
  says: ({ cells }, index) => {
    const [cell] = cells;
    if (cells.length !== 1 || cell === undefined) return `${counted(cells.length, "cell", "cells")} of rules`;
    return `${nameOf(index, "rule", cell.rule)}, ${columnWord(cell.column)}: ${cell.text || "nothing"}`;
  },
  run: (context, { cells }) => inTurn(...cells.map((cell) => () => writeRuleCell(context, cell))),
});

export const pasteRules = command<Pasted<RuleColumn> & { readonly device: string }>("paste-rules", {
  says: ({ rows, device }, index) => pasted(rows, `the rules on ${nameOf(index, "device", device)}`),
  run: (context, args) => pasteRulesInto(context, args),
  log: ({ rows, from, device }) => ({ rows: rows.length, from, device }),
});

export const clearRules = command<{ readonly cells: readonly Cell<RuleColumn>[] }>("clear-rules", {
  says: ({ cells }) => emptied(cells, "the rules"),
  run: (context, { cells }) =>
    eachCell(cells, (rule, column) =>
      column === "action"
        ? "A rule has an action: write accept, drop or reject."
        : writeRuleCell(context, { rule, column, text: "" }),
    ),
});

export const switchRule = command<{
  readonly rule: string;
  readonly what: "enabled" | "log";
  readonly on: boolean;
}>("switch-rule", {
  says: ({ rule, what, on }, index) =>
    `${nameOf(index, "rule", rule)}: ${what === "enabled" ? "" : "recorded "}${on ? "on" : "off"}`,
  run: ({ edits }, { rule, what, on }) => edits.patch("rule", rule, { [what]: on }),
});

export const moveRule = command<{ readonly rule: string; readonly to: number }>("move-rule", {
  says: ({ rule, to }, index) => `Moved ${nameOf(index, "rule", rule)} to number ${to}`,
  run: (context, args) => moveRuleIn(context, args),
});

export const removeRules = command<{ readonly rules: readonly string[] }>("remove-rules", {
  says: ({ rules }, index) =>
    rules.length === 1 && rules[0] !== undefined
      ? `Removed ${nameOf(index, "rule", rules[0])}`
      : `Removed ${counted(rules.length, "rule", "rules")}`,
  run: ({ edits }, { rules }) => rules.forEach((rule) => edits.remove("rule", rule)),
});

export const replaceRules = command<{ readonly device: string; readonly rules: readonly RuleFields[] }>(
  "replace-rules",
  {
    says: ({ device, rules }, index) =>
      `Read the list on ${nameOf(index, "device", device)}: ${counted(rules.length, "rule", "rules")}`,
    run: (context, args) => replaceRulesIn(context, args),
    log: ({ device, rules }) => ({ device, count: rules.length }),
  },
);

export const adoptRules = command<{ readonly device: string }>("adopt-rules", {
  says: ({ device }, index) => `The rules that its walls need stand on ${nameOf(index, "device", device)}`,
  run: (context, { device }) => adoptPlanned(context, device),
});

export const bringRules = command<{ readonly device: string }>("bring-rules", {
  says: ({ device }, index) =>
    `The list on ${nameOf(index, "device", device)} is brought to what its walls need`,
  run: (context, { device }) => bringToNeeded(context, device),
});

/** By what a device filters, as History says it; "same": something else of it was set. */
const BY = {
  planned: "filters by what its walls need",
  found: "filters by the list that stands on it",
  none: "filters nothing",
  same: "filters otherwise: what no rule takes, answers, records",
} as const;

export const filterBy = command<{ readonly device: string; readonly fields: Partial<Device["filter"]> }>(
  "filter-by",
  {
    says: ({ device, fields }, index) => {
      const name = nameOf(index, "device", device);
      return `${name} ${BY[fields.list ?? "same"]}`;
    },
    run: (context, { device, fields }) => setFilter(context, device, fields),
  },
);
