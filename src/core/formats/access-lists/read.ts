import { containsPrefix, formatAddress, formatPrefix, type Family, type Prefix } from "../../address";
import { byText, grouped } from "../../kernel";
import {
  BLANK_RULE,
  MOST_RULES,
  prefixesOf,
  type Device,
  type PlanIndex,
  type RuleSide,
  type Service,
} from "../../plan";
import { catalogueOf } from "../../policy";
import { ruleServices, type RuleFields, type RulesRead } from "../../planners";
import { merged } from "../../rules";
import { ownPrefixes, EVERYWHERE, outsidePrefixes } from "./ends";
import { readEntry, type Entry, type Joined } from "./entries";
import { undecidedOf } from "./own-inside";

const text = (prefix: Prefix | null): string => (prefix === null ? "any" : formatPrefix(prefix));
const sorted = (prefixes: readonly (Prefix | null)[]): (Prefix | null)[] =>
  [...new Map(prefixes.map((prefix) => [text(prefix), prefix])).entries()]
    .sort(([a], [b]) => byText(a, b))
    .map(([, entry]) => entry);
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
  readonly #own: Readonly<Record<Family, ReadonlyMap<string, Prefix>>>;
  readonly #outside: Readonly<Record<Family, string>>;
  readonly catalogue: readonly Service[];
  /** A name stands for both families: with IPv6 on the site only prefixes say what an entry says. */
  readonly #oneFamily: boolean;

  constructor(index: PlanIndex, device: Device) {
    this.#index = index;
    this.catalogue = catalogueOf(index.plan);
    const own = (family: Family) =>
      new Map(ownPrefixes(index, device, family).map((prefix) => [text(prefix), prefix]));
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
    return [...this.#own[family].keys()].every((label) => named.has(label));
  }
  /** The device's own addresses that lie in any of the subnets. */
  ownIn(prefixes: readonly (Prefix | null)[], family: Family): Prefix[] {
    const subnets = prefixes.flatMap((prefix) => prefix ?? []);
    return [...this.#own[family].values()].filter((own) =>
      subnets.some((subnet) => containsPrefix(subnet, own)),
    );
  }

  sides(prefixes: readonly (Prefix | null)[], family: Family): RuleSide[] {
    if (prefixes.includes(null)) return this.#oneFamily ? [] : [{ at: "prefix", prefix: EVERYWHERE[family] }];
    const own = prefixes.flatMap((prefix) => prefix ?? []);
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
    for (const [zone, own] of grouped(segment.values(), (segment) => segment.zone))
      take(
        own.flatMap((segment) => prefixesOf(segment, family)),
        { at: "zone", zone },
      );
    for (const own of segment.values()) take(prefixesOf(own, family), { at: "segment", segment: own.id });
    return [...sides, ...[...left.values()].map((prefix): RuleSide => ({ at: "prefix", prefix }))];
  }
}

const MOST_SIDES = 64;

/** Parts of a list that has more in it than a rule takes. */
const inParts = <T>(all: readonly T[], most: number): T[][] =>
  all.length <= most
    ? [[...all]]
    : Array.from({ length: Math.ceil(all.length / most) }, (_, at) => all.slice(at * most, (at + 1) * most));

/** What became of some joined entries. */
interface Said {
  readonly rules: readonly RuleFields[];
  /** What they do besides, which no rule here can say; null where nothing. */
  readonly note: string | null;
}

/** The rules that say what some joined entries say, after `before`; a sentence where none can. */
function rulesFrom(names: Names, rule: Joined, before: readonly Joined[]): Said | string {
  const own = rule.to.filter(names.isOwn);
  if (own.length > 0 && !names.hasAllOwn(own, rule.family))
    return (
      `it names ${own.map(text).join(", ")}, one of the device's own addresses: ` +
      "a rule here is for all of them"
    );
  const others = rule.to.filter((prefix) => !names.isOwn(prefix));
  const everywhere = others.includes(null);
  const inside =
    own.length > 0 || everywhere ? [] : undecidedOf(names.ownIn(others, rule.family), rule, before);
  const isForAllOwn =
    own.length > 0 || everywhere || (inside.length > 0 && names.hasAllOwn(inside, rule.family));
  const to: RuleSide[] = [
    ...(others.length > 0 ? names.sides(others, rule.family) : []),
    ...(isForAllOwn ? [{ at: "gateway" } as const] : []),
  ];
  const from = names.sides(rule.from, rule.family);
  // "Anywhere" has no ends to stand beside: what is for the device itself is a rule of its own.
  const aims = everywhere && to.length === 1 ? [[], to] : inParts(to, MOST_SIDES);
  const services = ruleServices(rule.services, names.catalogue);
  const rules = inParts(from, MOST_SIDES).flatMap((senders) =>
    aims.map((receivers) => ({
      ...BLANK_RULE,
      from: senders,
      to: receivers,
      services,
      action: rule.action,
      log: rule.log,
    })),
  );
  return { rules, note: isForAllOwn || inside.length === 0 ? null : besidesText(rule, inside) };
}

const besidesText = ({ to, action }: Joined, inside: readonly Prefix[]): string =>
  `what is for ${to.map(text).join(", ")} ${action === "accept" ? "lets in" : "stops"} what is for the ` +
  `device itself at ${inside.map((prefix) => formatAddress(prefix.network)).join(", ")}, too. ` +
  "A rule here is for hosts, or for all addresses of the device, and leaves that out";

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
  const notes: string[] = [];
  const names = new Names(index, device);
  const rules = lists.flatMap(({ name, family, entries }) => {
    const read = entries.flatMap((entry, at) => {
      const prefix = readEntry(entry, family);
      if (typeof prefix === "string") faults.push(`${name}, entry ${nameOf(entry, at)}: ${prefix}.`);
      return prefix === null || typeof prefix === "string" ? [] : [prefix];
    });
    const entriesJoined = joined(read);
    return entriesJoined.flatMap((rule, at) => {
      const made = rulesFrom(names, rule, entriesJoined.slice(0, at));
      if (typeof made === "string") faults.push(`${name}: ${made}.`);
      else if (made.note !== null) notes.push(`${name}: ${made.note}.`);
      return typeof made === "string" ? [] : made.rules;
    });
  });
  if (rules.length > MOST_RULES)
    return `These lists come to ${rules.length} rules; a device has at most ${MOST_RULES}.`;
  return { rules, faults, notes };
}
