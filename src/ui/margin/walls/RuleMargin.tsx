"use client";

import { addRule, moveRule, removeRules, switchRule, writeRules } from "@/core/commands";
import type { PlanIndex, Rule } from "@/core/plan";
import { RULE_COLUMNS, ruleCellText } from "@/core/planners";
import { ruleStateWords } from "@/core/sheets";
import { coverOf, STANDING_LISTS } from "@/core/walls";
import { toast } from "sonner";
import { useUi } from "../../frame/use-ui";
import { TextField } from "../../kit/TextField";
import { useIndex, usePlan } from "../../plan-store/use-plan";
import { FindingsSection } from "../findings/FindingsSection";
import { HistorySection } from "../HistorySection";
import { Fact, MarginHead, Section } from "../parts";

const KINDS = {
  "redundant-before": "do the same before it",
  shadowed: "do otherwise before it",
  mixed: "decide before it, some as it would and some not",
} as const;

const SWITCHES = [
  ["enabled", "Switched on"],
  ["log", "What it decides is recorded"],
] as const;

const numbersText = (numbers: readonly number[]): string => {
  const last = numbers.at(-1);
  return numbers.length > 1 ? `Rules ${numbers.slice(0, -1).join(", ")} and ${last}` : `Rule ${last}`;
};

/** Why a rule never decides, in a sentence; null for one that does. */
function whyNever(index: PlanIndex, rule: Rule): string | null {
  const standing = index.derived(STANDING_LISTS).get(rule.device);
  const cover = standing === undefined ? null : coverOf(standing, rule.id);
  if (cover === null) return null;
  const all = index.rulesOf(rule.device).map(({ id }) => id);
  const numbers = cover.by.map(({ id }) => all.indexOf(id) + 1);
  const does = KINDS[cover.kind];
  const ofOne = does.replace(/^do /, "does ").replace(/^decide /, "decides ");
  return `${numbersText(numbers)} ${numbers.length === 1 ? ofOne : does}.`;
}

/** One rule that stands on a device: what it says, what it comes to, and where it stands. */
export function RuleMargin({ id }: { id: string }) {
  const index = useIndex();
  const edit = usePlan((state) => state.edit);
  const select = useUi((state) => state.select);
  const rule = index.plan.rule.get(id);
  if (rule === undefined) return <p className="p-4 text-ink2">That rule is gone; choose another one.</p>;
  const rules = index.rulesOf(rule.device);
  const number = rules.findIndex((rule) => rule.id === id) + 1;
  const standing = index.derived(STANDING_LISTS).get(rule.device) ?? null;
  const state = ruleStateWords(standing, rule);
  const why = state === "never reached" ? whyNever(index, rule) : null;
  const go = (to: number) => {
    const refusal = edit(moveRule({ rule: id, to }));
    if (refusal !== null) toast.error(refusal);
  };
  const remove = () => {
    edit(removeRules({ rules: [id] }));
    select(null);
  };
  const insert = () => {
    const refusal = edit(addRule({ device: rule.device, before: id }));
    if (refusal !== null) toast.error(refusal);
  };
  return (
    <>
      <MarginHead kick={`Selected rule, on ${index.plan.device.get(rule.device)?.name ?? "a device"}`}>
        Rule {number}
      </MarginHead>
      <dl className="facts">
        <Fact name="Comes to">{state === "" ? "decides some packets" : state}</Fact>
        {why === null ? null : <Fact name="Because">{why}</Fact>}
      </dl>
      <Section title="Change">
        {RULE_COLUMNS.map(([column, head]) => (
          <TextField
            key={column}
            label={head}
            value={ruleCellText(index, rule, column)}
            write={(text) => edit(writeRules({ cells: [{ rule: id, column, text }] }))}
          />
        ))}
        <TextField
          label="Number"
          value={`${number}`}
          mono
          write={(text) =>
            /^\d+$/.test(text.trim())
              ? edit(moveRule({ rule: id, to: Number(text) }))
              : `The list has the numbers 1 to ${rules.length}.`
          }
        />
        <Switches rule={rule} />
        <div className="flex flex-wrap gap-[6px] px-4 pt-2">
          <button type="button" className="button" disabled={number === 1} onClick={() => go(number - 1)}>
            Move up
          </button>
          <button
            type="button"
            className="button"
            disabled={number === rules.length}
            onClick={() => go(number + 1)}
          >
            Move down
          </button>
          <button type="button" className="button" onClick={insert}>
            Insert one before it
          </button>
          <button type="button" className="button" onClick={remove}>
            Remove
          </button>
        </div>
      </Section>
      <FindingsSection ids={new Set([id])} />
      <HistorySection about={id} />
    </>
  );
}

function Switches({ rule }: { rule: Rule }) {
  const edit = usePlan((state) => state.edit);
  return SWITCHES.map(([what, label]) => (
    <label key={what} className="flex min-h-7 items-center gap-2 px-4 text-13">
      <input
        type="checkbox"
        checked={rule[what]}
        onChange={(event) => edit(switchRule({ rule: rule.id, what, on: event.target.checked }))}
      />
      {label}
    </label>
  ));
}
