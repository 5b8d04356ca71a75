import type { Prefix } from "../../address";
import { equal } from "../../kernel";
import { BLANK_RULE, keepsState, type Device, type PlanIndex, type RuleSide } from "../../plan";
import { INTERNET, type Side } from "../../policy";
import { PLANNED_LISTS, type PlannedList } from "../../walls";
import type { EditContext, Refusal } from "../planner";
import { catalogueOf } from "../../policy";
import { ruleServices } from "./mend-pair";
import { replaceRules, setFilter, type RuleFields } from "./rule-list";

/**
 * The ends of a planned rule as ends of a rule that stands on a device: zones where all of their segments are
 * meant.
 */
function sidesOf(index: PlanIndex, { universe }: PlannedList, sides: readonly Side[]): RuleSide[] {
  const segments = new Set(
    sides
      .filter(({ prefixes }) => prefixes === null)
      .flatMap(({ network }) => universe.members.get(network) ?? []),
  );
  const zones = [...index.plan.zone.keys()].filter((zone) => {
    const own = index.groups("segmentsByZone").get(zone) ?? [];
    return own.length > 0 && own.every(({ id }) => segments.has(id));
  });
  const single = [...segments].filter((id) => !zones.includes(index.plan.segment.get(id)?.zone ?? ""));
  return [
    ...zones.map((zone): RuleSide => ({ at: "zone", zone })),
    ...single
      .filter((id) => index.plan.segment.has(id))
      .map((segment): RuleSide => ({ at: "segment", segment })),
    ...sides.flatMap(({ network, prefixes }): RuleSide[] => {
      if (prefixes !== null) return prefixes.map((prefix) => namedPrefix(index, prefix));
      if (network === INTERNET) return [{ at: "internet" }];
      return network === "router" ? [{ at: "gateway" }] : [];
    }),
  ];
}

/**
 * What a subnet or an address is in the plan: all of a zone, the only one of a segment or a host, or itself.
 */
export function namedPrefix(index: PlanIndex, prefix: Prefix): RuleSide {
  const segment = [...index.plan.segment.values()].find(({ prefixes4, prefixes6 }) =>
    equal([...prefixes4, ...prefixes6], [prefix]),
  );
  if (segment !== undefined)
    return (index.groups("segmentsByZone").get(segment.zone) ?? []).length === 1
      ? { at: "zone", zone: segment.zone }
      : { at: "segment", segment: segment.id };
  const isOne = prefix.length === (prefix.family === 4 ? 32 : 128);
  const [host, other] = isOne ? (index.groups("hostsByAddress").get(prefix.network) ?? []) : [];
  const isAll = host !== undefined && other === undefined && (host.ipv4 === null || host.ipv6 === null);
  return isAll ? { at: "host", host: host.id } : { at: "prefix", prefix };
}

/** The rules that a device's walls need, as rules that stand on it. */
export function adoptedRules(index: PlanIndex, planned: PlannedList): RuleFields[] {
  return planned.rules.map((rule) => ({
    ...BLANK_RULE,
    from: sidesOf(index, planned, rule.from),
    to: sidesOf(index, planned, rule.to),
    services: ruleServices(rule.services, catalogueOf(index.plan)),
    note: [...new Set(rule.serves.map(({ why }) => why).filter((why) => why !== ""))]
      .join("; ")
      .slice(0, 120),
  }));
}

/**
 * What the list that the walls need is read with: what no rule takes is dropped, and answers pass first where
 * the device remembers what it let through.
 */
export const filterOfNeeded = (device: Device) =>
  ({ forwardDefault: "drop", inputDefault: "drop", established: keepsState(device) }) as const;

/** What is said of a device that has no list. */
export const FILTERS_NOTHING = "That device filters nothing; say first by what it shall filter.";

/** Notes that the rules its walls need stand on the device now, in place of those that stood there. */
export function adoptPlanned(context: EditContext, device: string): Refusal {
  const planned = context.index.derived(PLANNED_LISTS).get(device);
  if (planned === undefined) return FILTERS_NOTHING;
  return (
    replaceRules(context, { device, rules: adoptedRules(context.index, planned) }) ??
    setFilter(context, device, filterOfNeeded(planned.device))
  );
}
