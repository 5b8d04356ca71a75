import { keepsState, type PlanIndex, type Rule, type Segment, type Wall } from "../plan";
import { shortPrefix } from "../address";
import { INTERNET, type Side } from "../policy";
import type { CompiledRule } from "../rules";
import { PLANNED_LISTS, serviceWords, type PlannedList, type Purpose, type StandingList } from "../walls";
import { hoursText, ruleCellText, sideText } from "../planners";
import { devicesInOrder } from "./port-sheet";
import { segmentsInOrder } from "./segment-sheet";

/** One end of a rule as a sheet shows it: a segment with its tape, or a word. */
export type RuleEnd =
  | { readonly segment: Segment; readonly only: string | null }
  | { readonly segment: null; readonly only: string };

/** A rule of a device's list as it is shown, printed and exported. */
export interface RuleRow {
  readonly number: number;
  /** Empty for any. */
  readonly from: readonly RuleEnd[];
  readonly to: readonly RuleEnd[];
  readonly lets: string;
  readonly closes: boolean;
  readonly reason: string;
  /** The hours of the week in which it is switched on; empty for always. */
  readonly when: string;
  /** The walls that it serves. */
  readonly walls: readonly Wall[];
}

/** The ends of a rule in the order of the segments' sheet, then what lies outside. */
function endsOf(index: PlanIndex, { universe }: PlannedList, sides: readonly Side[]): RuleEnd[] {
  const order = new Map(segmentsInOrder(index).map((segment, at) => [segment.id, at]));
  const segments = sides
    .flatMap(({ network, prefixes }) =>
      (universe.members.get(network) ?? []).flatMap((id) => {
        const segment = index.plan.segment.get(id);
        return segment === undefined
          ? []
          : [{ segment, only: prefixes === null ? null : prefixes.map(shortPrefix).join(", ") }];
      }),
    )
    .sort((a, b) => (order.get(a.segment.id) ?? 0) - (order.get(b.segment.id) ?? 0));
  const words = sides.flatMap(({ network, prefixes }): RuleEnd[] => {
    if (network === "router") return [{ segment: null, only: "Gateway" }];
    const isInside = universe.members.has(network) && network !== INTERNET;
    if (isInside || (network === "any" && prefixes === null)) return [];
    return (prefixes?.map(shortPrefix) ?? ["Internet"]).map((only) => ({ segment: null, only }));
  });
  return [...segments, ...words];
}

/** Every reason once; what nobody gave a reason for says so. */
function reasonOf({ serves }: CompiledRule<Purpose>): string {
  const reasons = [...new Set(serves.map(({ why }) => why).filter((why) => why !== ""))];
  return reasons.length === 0 ? "no reason given" : reasons.join("; ");
}

/**
 * A device's planned list, in the order in which it is entered: answers first where the device remembers what
 * it let through, the wall itself last.
 */
export function ruleRows(index: PlanIndex, planned: PlannedList): RuleRow[] {
  const first: RuleRow = {
    number: 1,
    from: [],
    to: [],
    lets: "answers",
    closes: false,
    reason: "to what was let through",
    when: "",
    walls: [],
  };
  const remembers = keepsState(planned.device);
  const all = [
    ...planned.rules.map((rule) => ({ rule, when: "" })),
    ...planned.inHours.flatMap(({ hours, rules: own }) =>
      own.map((rule) => ({ rule, when: hoursText(hours) })),
    ),
  ];
  const rules = all.map(({ rule, when }, at): RuleRow => ({
    number: at + (remembers ? 2 : 1),
    from: endsOf(index, planned, rule.from),
    to: endsOf(index, planned, rule.to),
    lets: serviceWords(index, rule.services),
    closes: false,
    reason: reasonOf(rule),
    when,
    walls: rule.serves.flatMap(({ wall }) => (wall === null ? [] : [wall])),
  }));
  const last: RuleRow = {
    ...first,
    number: rules.length + (remembers ? 2 : 1),
    lets: "closed",
    closes: true,
    reason: "the wall itself",
  };
  return [...(remembers ? [first] : []), ...rules, last];
}

/**
 * What a rule that stands on a device comes to, in a few words; empty for one that decides something of its
 * own.
 */
export function ruleStateWords(standing: StandingList | null, rule: Rule): string {
  if (!rule.enabled) return "off";
  const state = standing?.states[standing.rules.findIndex(({ id }) => id === rule.id)];
  if (state === undefined) return "";
  if (state.emptyMatch) return "no packet meets it";
  if (state.neverMatches) return "never reached";
  return state.removable ? "can go" : "";
}

const MOST_NOTE = 120;
const HEADS = ["Device", "List", "Rule", "From", "To", "Services", "Action", "On", "Recorded", "Note"];

const endText = (index: PlanIndex, { segment, only }: RuleEnd): string =>
  only ?? (segment === null ? "" : sideText(index, { at: "segment", segment: segment.id }));
const endsText = (index: PlanIndex, ends: readonly RuleEnd[]): string =>
  ends.map((end) => endText(index, end)).join(", ") || "any";

/**
 * All rules as a table of texts, heads first: those that each device's walls need, then those that stand on
 * it. The columns from "From" on are read again where a list is read.
 */
export function ruleTable(index: PlanIndex): string[][] {
  const needed = [...index.derived(PLANNED_LISTS).values()].flatMap((planned) =>
    ruleRows(index, planned)
      .slice(keepsState(planned.device) ? 1 : 0)
      .map((row) => [
        planned.device.name,
        "needed",
        String(row.number),
        endsText(index, row.from),
        endsText(index, row.to),
        row.closes ? "any" : row.lets.replace(/^open$/, "any"),
        row.closes ? "drop" : "accept",
        // A rule with hours is read again as one that is off: nobody lets something in for ever by a table.
        row.when === "" ? "yes" : "no",
        "no",
        // As long as a note can be, so that the table is read again.
        (row.when === "" ? row.reason : `on ${row.when}: ${row.reason}`).slice(0, MOST_NOTE),
      ]),
  );
  const standing = devicesInOrder(index).flatMap((device) =>
    index
      .rulesOf(device.id)
      .map((rule, at) => [
        device.name,
        "stands on it",
        String(at + 1),
        ...(["from", "to", "services", "action"] as const).map((column) => ruleCellText(index, rule, column)),
        rule.enabled ? "yes" : "no",
        rule.log ? "yes" : "no",
        rule.note,
      ]),
  );
  return [HEADS, ...needed, ...standing];
}
