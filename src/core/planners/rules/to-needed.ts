import { formatPrefix } from "../../address";
import { byText, equal, must, putInto } from "../../kernel";
import type { Device, PlanIndex, Rule, RuleSide } from "../../plan";
import { editScript, longestCommon, merged, spansOf, type EditStep } from "../../rules";
import { PLANNED_LISTS } from "../../walls";
import type { EditContext, Refusal } from "../planner";
import { adoptedRules, FILTERS_NOTHING, filterOfNeeded, namedPrefix } from "./adopt-list";
import { setFilter, type RuleFields } from "./rule-list";

/** One step from the list that stands on a device to the one that its walls need, with the rule it is about. */
export interface NeededStep {
  readonly step: EditStep;
  readonly rule: RuleFields;
}

/** What leads from the one list to the other. */
export interface WayToNeeded {
  readonly steps: readonly NeededStep[];
  /** Whether what happens to packets that no rule takes, or to answers, has to be set, too. */
  readonly setsDefaults: boolean;
  /** The list as it will be: rules that stand on the device, and new ones. */
  readonly list: readonly (Rule | RuleFields)[];
}

/** The ends that a side stands for: a zone is all of its segments. */
function endsOf(index: PlanIndex, side: RuleSide): string[] {
  switch (side.at) {
    case "zone":
      return (index.groups("segmentsByZone").get(side.zone) ?? []).map(({ id }) => id);
    case "segment":
      return [side.segment];
    case "host":
      return [side.host];
    case "prefix": {
      const named = namedPrefix(index, side.prefix);
      return named.at === "prefix" ? [formatPrefix(named.prefix)] : endsOf(index, named);
    }
    default:
      return [side.at];
  }
}

/** What a rule says, the same text for rules that say the same in other words. */
function sayingOf(index: PlanIndex, { from, to, services, action, log }: RuleFields): string {
  const side = (sides: readonly RuleSide[]) =>
    [...new Set(sides.flatMap((side) => endsOf(index, side)))].sort(byText).join();
  const spans = merged(
    services.flatMap(({ protocol, ports }) => spansOf(protocol, ports.length === 0 ? null : ports)),
  );
  return [side(from), side(to), spans.map(({ first, last }) => `${first}-${last}`).join(), action, log].join(
    "|",
  );
}

/** Puts the rules that are switched off behind the kept rule that they stand behind now: they stay. */
function withOff(
  index: PlanIndex,
  standing: readonly Rule[],
  needed: readonly RuleFields[],
): (Rule | RuleFields)[] {
  const on = standing.filter(({ enabled }) => enabled);
  const says = (rules: readonly RuleFields[]) => rules.map((rule) => sayingOf(index, rule));
  const kept = new Map(longestCommon(says(on), says(needed)).map(([have, want]) => [on[have]?.id, want]));
  const behind = new Map<number, Rule[]>();
  let place = -1;
  for (const rule of standing) {
    place = kept.get(rule.id) ?? place;
    if (!rule.enabled) putInto(behind, place, rule);
  }
  return [
    ...(behind.get(-1) ?? []),
    ...needed.flatMap((rule, at): (Rule | RuleFields)[] => [rule, ...(behind.get(at) ?? [])]),
  ];
}

const isStanding = (rule: Rule | RuleFields): rule is Rule => "id" in rule;

/**
 * The fewest steps from the list that stands on a device to the one that its walls need; null for a device that
 * filters nothing. Rules that are off stay where they are, rules with hours are no part of it.
 */
export function wayToNeeded(index: PlanIndex, device: Device): WayToNeeded | null {
  const planned = index.derived(PLANNED_LISTS).get(device.id);
  if (planned === undefined) return null;
  const standing = index.rulesOf(device.id);
  const wanted = withOff(index, standing, adoptedRules(index, planned));
  const key = (rule: Rule | RuleFields) =>
    isStanding(rule) && !rule.enabled ? `off ${rule.id}` : sayingOf(index, rule);
  const steps = editScript(standing.map(key), wanted.map(key));
  const list: (Rule | RuleFields)[] = [...standing];
  const told = steps.map((step): NeededStep => {
    const rule = must(
      step.do === "insert" ? wanted[step.wanted] : list.splice(step.at - 1, 1)[0],
      "a step stays inside the list",
    );
    if (step.do !== "delete") list.splice((step.do === "move" ? step.to : step.at) - 1, 0, rule);
    return { step, rule };
  });
  const { filter } = device;
  const setsDefaults = !equal({ ...filter, ...filterOfNeeded(device) }, filter);
  return { steps: told, setsDefaults, list };
}

/** Does these steps on the list that stands on a device, in the plan: what stays keeps its note. */
export function bringToNeeded({ edits, index, ids }: EditContext, device: string): Refusal {
  const known = index.plan.device.get(device);
  const way = known === undefined ? null : wayToNeeded(index, known);
  if (known === undefined || way === null) return FILTERS_NOTHING;
  const stays = new Set(way.list.flatMap((rule) => (isStanding(rule) ? [rule.id] : [])));
  for (const { id } of index.rulesOf(device)) if (!stays.has(id)) edits.remove("rule", id);
  way.list.forEach((rule, at) => {
    const place = (at + 1) * 1000;
    if (!isStanding(rule)) edits.put("rule", { ...rule, id: ids(), device, place });
    else if (rule.place !== place) edits.patch("rule", rule.id, { place });
  });
  return setFilter({ edits, index, ids }, device, filterOfNeeded(known));
}
