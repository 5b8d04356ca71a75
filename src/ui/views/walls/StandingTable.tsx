"use client";

import { addRule, clearRules, pasteRules, removeRules, writeRules } from "@/core/commands";
import { useMemo, type ReactNode, type RefObject } from "react";
import { toast } from "sonner";
import type { Device, PlanIndex, Rule } from "@/core/plan";
import { RULE_COLUMNS, ruleCellText, type RuleColumn } from "@/core/planners";
import { catalogueOf } from "@/core/policy";
import { ruleStateWords } from "@/core/sheets";
import type { StandingList } from "@/core/walls";
import { useUi } from "../../frame/use-ui";
import type { Column, GridActions } from "../../grid/column";
import { EditGrid } from "../../grid/EditGrid";
import { SeveritySign } from "../../kit/signs";
import { useIndex, usePlan, usePlanStore } from "../../plan-store/use-plan";

type Shown = "number" | RuleColumn | "state";

const isWritten = (column: Shown): column is RuleColumn => column !== "number" && column !== "state";

/** Names that can be an end of a rule. */
const endsOn = ({ plan }: PlanIndex): string[] => [
  "any",
  "Internet",
  "Gateway",
  ...[...plan.zone.values()].map(({ name }) => name),
  ...[...plan.segment.values()].map(({ name }) => name),
];

/** How wide a cell's text gets before it is cut; the margin has all of it. */
const WIDEST: Record<RuleColumn, string> = {
  from: "max-w-[140px]",
  to: "max-w-[100px]",
  services: "max-w-[124px]",
  action: "",
  note: "max-w-[132px]",
};

function shownIn(rule: Rule, column: RuleColumn, text: string): ReactNode {
  if (column === "action" && rule.action !== "accept")
    return (
      <>
        <span className="hatched mr-1 inline-block h-3 w-6 border border-rule align-[-2px]" />
        {text}
      </>
    );
  return (
    <span
      title={text}
      className={`block truncate ${WIDEST[column]} ${rule.enabled ? "" : "text-ink2 line-through"}`}
    >
      {text}
    </span>
  );
}

function columnsOf(
  index: PlanIndex,
  rules: readonly Rule[],
  standing: StandingList | null,
): Column<Rule, Shown>[] {
  const numbers = new Map(rules.map(({ id }, at) => [id, at + 1]));
  const offers: Partial<Record<RuleColumn, readonly string[]>> = {
    from: endsOn(index).filter((name) => name !== "Gateway"),
    to: endsOn(index),
    services: ["any", ...new Set(catalogueOf(index.plan).map(({ name }) => name))],
    action: ["accept", "drop", "reject"],
  };
  return [
    {
      id: "number",
      head: "Rule",
      derived: true,
      mono: true,
      held: true,
      text: ({ id }) => `${numbers.get(id) ?? ""}`,
    },
    ...RULE_COLUMNS.map(([id, head]): Column<Rule, Shown> => ({
      id,
      head,
      text: (rule) => ruleCellText(index, rule, id),
      offers: () => offers[id] ?? [],
      show: (rule) => shownIn(rule, id, ruleCellText(index, rule, id)),
    })),
    {
      id: "state",
      head: "Comes to",
      derived: true,
      text: (rule) => ruleStateWords(standing, rule),
      show: (rule) => <State words={ruleStateWords(standing, rule)} />,
    },
  ];
}

function State({ words }: { words: string }) {
  if (words === "" || words === "off") return <span className="text-ink2">{words}</span>;
  const severity = words === "can go" ? "note" : "warn";
  return (
    <span className={`inline-flex items-center gap-1 ${severity === "warn" ? "text-warn" : "text-note"}`}>
      <SeveritySign severity={severity} />
      {words}
    </span>
  );
}

/** The list that stands on a device, edited in place; the first rule that matches decides. */
export function StandingTable({
  device,
  standing,
  scroller,
}: {
  device: Device;
  standing: StandingList | null;
  scroller: RefObject<HTMLDivElement | null>;
}) {
  const index = useIndex();
  const store = usePlanStore();
  const edit = usePlan((state) => state.edit);
  const selection = useUi((state) => state.selection);
  const select = useUi((state) => state.select);
  const rules = useMemo(() => index.rulesOf(device.id), [index, device.id]);
  const actions: GridActions<Shown> = {
    edit: (id, column, text) => {
      if (!isWritten(column)) return null;
      if (id !== null) return edit(writeRules({ cells: [{ rule: id, column, text }] }));
      return edit(pasteRules({ device: device.id, rows: [[text]], from: column, onto: [] }));
    },
    paste: (rows, from, onto) =>
      isWritten(from)
        ? edit(pasteRules({ device: device.id, rows, from, onto }))
        : "Paste onto the column From or one behind it.",
    clear: (cells) =>
      edit(
        clearRules({
          cells: cells.flatMap(({ row, column }) => (isWritten(column) ? [{ row, column }] : [])),
        }),
      ),
    remove: (ids) => {
      const refusal = edit(removeRules({ rules: ids }));
      if (refusal !== null) toast.error(refusal);
    },
    select: (id) => {
      if (id !== null) select({ what: "rule", id });
    },
  };
  const add = () => {
    const refusal = edit(addRule({ device: device.id, before: null }));
    if (refusal !== null) return toast.error(refusal);
    const made = store.getState().held?.index.rulesOf(device.id).at(-1);
    if (made !== undefined) select({ what: "rule", id: made.id });
  };
  if (rules.length === 0)
    return (
      <div className="max-w-[64ch] px-4 pb-4">
        <p className="text-15">
          Nothing is noted that stands on {device.name}. Read its list from a table, note the rules that the
          walls need as entered, or begin one.
        </p>
        <button type="button" className="button mt-2" onClick={add}>
          Begin a list
        </button>
      </div>
    );
  return (
    <EditGrid<Rule, Shown>
      label={`Rules on ${device.name}`}
      rows={rules}
      idOf={(rule) => rule.id}
      columns={columnsOf(index, rules, standing)}
      actions={actions}
      scroller={scroller}
      selected={selection?.what === "rule" ? selection.id : null}
      newRow={{ from: "New rule", to: "or paste rows" }}
    />
  );
}
