import { containsPrefix, prefixOf } from "../src/core/address";
import { encodePlan } from "../src/core/formats";
import { must } from "../src/core/kernel";
import { applyChanges, BLANK_RULE, PlanEdits, PlanIndex, type Plan, type Rule } from "../src/core/plan";
import {
  closedList,
  conflictingPairs,
  listSpace,
  ruleStates,
  without,
  type ListRule,
  type ListSpace,
} from "../src/core/rules";
import type { Side } from "../src/core/policy";
import { filteringDevices, PLANNED_LISTS, proveList, STANDING_LISTS } from "../src/core/walls";
import { dice } from "../src/core/testing/plants";
import { testId } from "../src/core/testing/build-plan";
import { generate, SIZES } from "./generate";

type Median = (runs: number, once: () => unknown) => number;
type Add = (what: string, ms: number, parse: number) => void;

/**
 * A list as somebody's hands leave it: zone to zone, hosts in front, repeated and contradicted here and
 * there.
 */
function untidyRules(plan: Plan, count: number): Omit<Rule, "id" | "device" | "place">[] {
  const roll = dice(count);
  const pick = <T>(all: readonly T[]): T => must(all[roll(all.length)], "one of them");
  const zones = [...plan.zone.keys()];
  const hosts = [...plan.host.values()].flatMap(({ ipv4 }) => (ipv4 === null ? [] : [ipv4])).slice(0, 2000);
  return Array.from({ length: count }, (_, at) => {
    const port = 1 + roll(600);
    const host = roll(5) === 0 ? prefixOf(pick(hosts), 32) : null;
    return {
      ...BLANK_RULE,
      from: host === null ? [{ at: "zone", zone: pick(zones) }] : [{ at: "prefix", prefix: host }],
      to: roll(10) === 0 ? [{ at: "internet" }] : [{ at: "zone", zone: pick(zones) }],
      services:
        roll(10) === 0 ? [] : [{ name: `tcp ${port}`, protocol: "tcp", ports: [[port, port + roll(20)]] }],
      action: at === count - 1 || roll(7) === 0 ? "drop" : "accept",
    };
  });
}

/** The plan with that list on its gateway. */
function withRules(plan: Plan, count: number): PlanIndex {
  const edits = new PlanEdits(plan);
  const device = must(filteringDevices(PlanIndex.of(plan))[0], "the gateway").id;
  untidyRules(plan, count).forEach((rule, at) =>
    edits.put("rule", { ...rule, id: testId("rule", `${at}`), device, place: (at + 1) * 1000 }),
  );
  const applied = applyChanges(plan, edits.changes());
  return PlanIndex.of(must(applied.ok ? applied.value : null, "it stands"));
}

const sideIn = (inner: Side, outer: Side): boolean =>
  (outer.network === "any" || outer.network === inner.network) &&
  (outer.prefixes === null ||
    (inner.prefixes !== null &&
      inner.prefixes.every((own) => outer.prefixes?.some((other) => containsPrefix(other, own)))));

/**
 * The plain method beside it: every rule against every earlier one; it finds only what one rule covers alone.
 */
function pairwise({ list: { rules } }: ListSpace): number {
  const within = (later: ListRule, earlier: ListRule) =>
    later.from.every((side) => earlier.from.some((other) => sideIn(side, other))) &&
    later.to.every((side) => earlier.to.some((other) => sideIn(side, other))) &&
    without(later.services, earlier.services).length === 0;
  return rules.filter((later, at) => rules.slice(0, at).some((earlier) => within(later, earlier))).length;
}

/** Rows about rule lists: what walls come to, and what lists that stand on devices come to. */
export function measureRules(median: Median, add: Add): void {
  for (const size of SIZES) {
    const plan = generate(size);
    const text = JSON.stringify(encodePlan(plan));
    const parse = median(5, () => JSON.parse(text));
    add(`${size.name}: JSON.parse`, parse, parse);
    add(
      `${size.name}: the list that its walls need`,
      median(3, () => PlanIndex.of(plan).derived(PLANNED_LISTS)),
      parse,
    );
    const index = PlanIndex.of(plan);
    const planned = must([...index.derived(PLANNED_LISTS).values()][0], "its list");
    add(
      `${size.name}: proof of it`,
      median(3, () => proveList(index, planned, closedList(planned.rules))),
      parse,
    );
    for (const count of [400, 5000]) {
      const with_ = withRules(plan, count);
      const standing = must([...with_.derived(STANDING_LISTS).values()][0], "the list");
      const analyse = () => {
        const space = listSpace(standing.universe, standing.list);
        return [ruleStates(space), conflictingPairs(space)];
      };
      add(`${size.name}: anomalies of ${count} rules`, median(3, analyse), parse);
      add(
        `${size.name}: proof of ${count} rules`,
        median(3, () => proveList(with_, standing, standing.list)),
        parse,
      );
      add(
        `${size.name}: the same ${count}, pair by pair`,
        median(1, () => pairwise(standing.space)),
        parse,
      );
    }
  }
}
