import { formatPrefix, type Family, type Prefix } from "../../address";
import { byText, grouped } from "../../kernel";
import { BLANK_RULE, MOST_RULES, prefixesOf, type Device, type PlanIndex, type RuleSide } from "../../plan";
import { ruleServices, type RuleFields, type RulesRead } from "../../planners";
import { merged } from "../../rules";
import { ownPrefixes, EVERYWHERE, outsidePrefixes } from "./ends";
import { readEntry, type Entry } from "./entries";

/** Several entries as one: what comes from any of these to any of those by any of these services. */
interface Joined extends Pick<Entry, "family" | "services" | "action" | "log"> {
  /** Sorted by their texts; null among them is any address. */
  readonly from: readonly (Prefix | null)[];
  readonly to: readonly (Prefix | null)[];
}

const text = (prefix: Prefix | null): string => (prefix === null ? "any" : formatPrefix(prefix));
const sorted = (prefixes: readonly (Prefix | null)[]): (Prefix | null)[] =>
  [...new Map(prefixes.map((one) => [text(one), one])).entries()]
    .sort(([a], [b]) => byText(a, b))
    .map(([, one]) => one);
const keyOf = (prefixes: readonly (Prefix | null)[]): string => prefixes.map(text).join();
const servicesKey = ({ services }: Joined): string =>
  services.map(({ first, last }) => `${first}-${last}`).join();

const WAYS: readonly ((rule: Joined) => string)[] = [
  ({ from, to }) => `${keyOf(from)} > ${keyOf(to)}`,
  (rule) => `${keyOf(rule.from)} : ${servicesKey(rule)}`,
  (rule) => `${keyOf(rule.to)} : ${servicesKey(rule)}`,
];

/** Neighbours that differ in one thing only, and do the same, are one: nothing stands between them. */
function joinedNeighbours(rules: readonly Joined[], keyBy: (rule: Joined) => string): Joined[] {
  const out: Joined[] = [];
  let run: Joined[] = [];
  const close = () => {
    const [first] = run;
    if (first !== undefined)
      out.push({
        ...first,
        from: sorted(run.flatMap(({ from }) => from)),
        to: sorted(run.flatMap(({ to }) => to)),
        services: merged(run.flatMap(({ services }) => services)),
      });
    run = [];
  };
  let open = "";
  for (const rule of rules) {
    const key = `${rule.family} ${rule.action} ${rule.log} ${keyBy(rule)}`;
    if (key !== open) close();
    open = key;
    run.push(rule);
  }
  close();
  return out;
}

function joined(entries: readonly Entry[]): Joined[] {
  let rules: Joined[] = entries.map((entry) => ({ ...entry, from: [entry.from], to: [entry.to] }));
  for (let before = Infinity; rules.length < before;) {
    before = rules.length;
    for (const way of WAYS) rules = joinedNeighbours(rules, way);
  }
  return rules;
}

/** What prefixes are called in this plan. */
class Names {
  readonly #index: PlanIndex;
  readonly #own: Readonly<Record<Family, ReadonlySet<string>>>;
  readonly #outside: Readonly<Record<Family, string>>;
  /** A name stands for both families: with IPv6 on the site only prefixes say what an entry says. */
  readonly #oneFamily: boolean;

  constructor(index: PlanIndex, device: Device) {
    this.#index = index;
    const own = (family: Family) => new Set(ownPrefixes(index, device, family).map(text));
    const outside = (family: Family) => keyOf(sorted(outsidePrefixes(index, family)));
    this.#own = { 4: own(4), 6: own(6) };
    this.#outside = { 4: outside(4), 6: outside(6) };
    const { segment, interface: legs } = index.plan;
    this.#oneFamily =
      [...segment.values()].every(({ prefixes6 }) => prefixes6.length === 0) &&
      [...legs.values()].every(({ addresses6 }) => addresses6.length === 0);
  }

  isOwn = (prefix: Prefix | null): boolean =>
    prefix !== null && this.#own[prefix.family].has(formatPrefix(prefix));
  /** Whether all addresses of the device are among the prefixes. */
  hasAllOwn(prefixes: readonly (Prefix | null)[], family: Family): boolean {
    const named = new Set(prefixes.map(text));
    return [...this.#own[family]].every((one) => named.has(one));
  }

  sides(prefixes: readonly (Prefix | null)[], family: Family): RuleSide[] {
    if (prefixes.includes(null)) return this.#oneFamily ? [] : [{ at: "prefix", prefix: EVERYWHERE[family] }];
    const own = prefixes.flatMap((one) => one ?? []);
    if (!this.#oneFamily) return own.map((prefix) => ({ at: "prefix", prefix }));
    if (keyOf(sorted(own)) === this.#outside[family]) return [{ at: "internet" }];
    return this.#named(own, family);
  }

  /** Zones where all of a zone's subnets are among them, then segments, then prefixes. */
  #named(prefixes: readonly Prefix[], family: Family): RuleSide[] {
    const left = new Map(prefixes.map((prefix) => [formatPrefix(prefix), prefix]));
    const sides: RuleSide[] = [];
    const take = (wanted: readonly Prefix[], side: RuleSide) => {
      const names = wanted.map(formatPrefix);
      if (names.length === 0 || !names.every((name) => left.has(name))) return;
      names.forEach((name) => left.delete(name));
      sides.push(side);
    };
    const { segment } = this.#index.plan;
    for (const [zone, own] of grouped(segment.values(), (one) => one.zone))
      take(
        own.flatMap((one) => prefixesOf(one, family)),
        { at: "zone", zone },
      );
    for (const one of segment.values()) take(prefixesOf(one, family), { at: "segment", segment: one.id });
    return [...sides, ...[...left.values()].map((prefix): RuleSide => ({ at: "prefix", prefix }))];
  }
}

const MOST_SIDES = 64;

/** Parts of a list that has more in it than a rule takes. */
const inParts = <T>(all: readonly T[], most: number): T[][] =>
  all.length <= most
    ? [[...all]]
    : Array.from({ length: Math.ceil(all.length / most) }, (_, at) => all.slice(at * most, (at + 1) * most));

/** The rules that say what some joined entries say; a sentence where none can. */
function rulesFrom(names: Names, rule: Joined): RuleFields[] | string {
  const own = rule.to.filter(names.isOwn);
  if (own.length > 0 && !names.hasAllOwn(own, rule.family))
    return (
      `it names ${own.map(text).join(", ")}, one of the device's own addresses: ` +
      "a rule here is for all of them"
    );
  const others = rule.to.filter((one) => !names.isOwn(one));
  const everywhere = others.includes(null);
  const to: RuleSide[] = [
    ...(others.length > 0 ? names.sides(others, rule.family) : []),
    ...(own.length > 0 || everywhere ? [{ at: "gateway" } as const] : []),
  ];
  const from = names.sides(rule.from, rule.family);
  // "Anywhere" has no ends to stand beside: what is for the device itself is a rule of its own.
  const aims = everywhere && to.length === 1 ? [[], to] : inParts(to, MOST_SIDES);
  const services = ruleServices(rule.services);
  return inParts(from, MOST_SIDES).flatMap((senders) =>
    aims.map((receivers) => ({
      ...BLANK_RULE,
      from: senders,
      to: receivers,
      services,
      action: rule.action,
      log: rule.log,
    })),
  );
}

/** A list of entries with its name, as it stands in the data. */
export interface ReadList {
  readonly name: string;
  readonly family: Family | null;
  readonly entries: readonly unknown[];
}

const nameOf = (entry: unknown, at: number): string =>
  typeof entry === "object" && entry !== null && "name" in entry && typeof entry.name === "string"
    ? `"${entry.name}"`
    : `${at + 1}`;

/**
 * The rules of a device that say what access lists say (RFC 8519), in their order. Neighbours that differ in
 * one thing become one rule, and what has a name in the plan gets it.
 */
export function rulesOfLists(
  index: PlanIndex,
  device: Device,
  lists: readonly ReadList[],
): RulesRead | string {
  const faults: string[] = [];
  const names = new Names(index, device);
  const rules = lists.flatMap(({ name, family, entries }) => {
    const read = entries.flatMap((entry, at) => {
      const one = readEntry(entry, family);
      if (typeof one === "string") faults.push(`${name}, entry ${nameOf(entry, at)}: ${one}.`);
      return one === null || typeof one === "string" ? [] : [one];
    });
    return joined(read).flatMap((rule) => {
      const made = rulesFrom(names, rule);
      if (typeof made === "string") faults.push(`${name}: ${made}.`);
      return typeof made === "string" ? [] : made;
    });
  });
  if (rules.length > MOST_RULES)
    return `These lists come to ${rules.length} rules; a device has at most ${MOST_RULES}.`;
  return { rules, faults };
}
