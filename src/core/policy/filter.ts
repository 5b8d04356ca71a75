import { containsAddress, type Prefix } from "../address";
import type { Packet } from "./packet";

/** A network at the filter, by a name of the caller's: a segment, the internet. */
export type Network = string;
export type FilterAction = "accept" | "drop" | "reject";

/**
 * One end of a rule: addresses of a network, those in any of the prefixes or all of them (null). "any" is every
 * network, never the router itself.
 */
export interface Side {
  readonly network: Network | "any" | "router";
  readonly prefixes: readonly Prefix[] | null;
}

/** Some ports of a protocol, any of the ranges or all of them (null); "any" is every protocol. */
export interface FilterService {
  readonly protocol: Packet["protocol"] | "any";
  readonly ports: readonly (readonly [low: number, high: number])[] | null;
}

/** One rule of an ordered list: what comes from any of these sides to any of those by any of these services. */
export interface FilterRule {
  readonly from: readonly Side[];
  readonly to: readonly Side[];
  readonly services: readonly FilterService[];
  readonly action: FilterAction;
}

export const EVERYTHING: readonly FilterService[] = [{ protocol: "any", ports: null }];

export interface FilterList {
  readonly rules: readonly FilterRule[];
  /** Whether answers to what was let through, and the errors that belong to it, pass before any rule. */
  readonly established: boolean;
  readonly forwardDefault: FilterAction;
  readonly inputDefault: FilterAction;
}

/** The rule's place in the list, or what decided instead of a rule. */
export type DecidedBy = number | "default" | "established";
export interface Judgement {
  readonly action: FilterAction;
  readonly by: DecidedBy;
}

const within = (prefixes: readonly Prefix[] | null, address: Packet["src"]): boolean =>
  prefixes === null || prefixes.some((prefix) => containsAddress(prefix, address));

const holds = ({ network, prefixes }: Side, at: Network | "router", address: Packet["src"]): boolean =>
  (network === at || (network === "any" && at !== "router")) && within(prefixes, address);

const serves = ({ protocol, ports }: FilterService, packet: Packet): boolean => {
  if (protocol !== "any" && protocol !== packet.protocol) return false;
  const port = packet.dport;
  return ports === null || (port !== null && ports.some(([low, high]) => low <= port && port <= high));
};

const matches = (rule: FilterRule, from: Network, to: Network | "router", packet: Packet): boolean =>
  rule.from.some((side) => holds(side, from, packet.src)) &&
  rule.to.some((side) => holds(side, to, packet.dst)) &&
  rule.services.some((service) => serves(service, packet));

/**
 * The rules of a list by the networks that they name as where something comes from, ascending; what names any
 * stands with each of them. Long lists are long.
 */
const BY_SOURCE = new WeakMap<FilterList, ReadonlyMap<string, readonly number[]>>();

function bySource({ rules }: FilterList): ReadonlyMap<string, readonly number[]> {
  const sources = rules.map(({ from }) => new Set<string>(from.map(({ network }) => network)));
  const found = new Map<string, number[]>([["any", []]]);
  for (const named of sources) for (const network of named) if (!found.has(network)) found.set(network, []);
  for (const [at, named] of sources.entries()) {
    const matching = named.has("any") ? found.keys() : named;
    for (const network of matching) found.get(network)?.push(at);
  }
  return found;
}

/** The places of the rules that can match what comes from a network. */
function rulesFrom(list: FilterList, from: Network): readonly number[] {
  const known = BY_SOURCE.get(list) ?? bySource(list);
  BY_SOURCE.set(list, known);
  return known.get(from) ?? known.get("any") ?? [];
}

/**
 * What the list does with a packet that comes from one network and goes to another, or to the router itself:
 * the first rule that matches decides. `answers` marks a packet of a conversation that was let through.
 */
export function judge(
  list: FilterList,
  {
    from,
    to,
    packet,
    answers = false,
  }: {
    readonly from: Network;
    readonly to: Network | "router";
    readonly packet: Packet;
    readonly answers?: boolean;
  },
): Judgement {
  if (answers && list.established) return { action: "accept", by: "established" };
  for (const by of rulesFrom(list, from)) {
    const rule = list.rules[by];
    if (rule !== undefined && matches(rule, from, to, packet)) return { action: rule.action, by };
  }
  return { action: to === "router" ? list.inputDefault : list.forwardDefault, by: "default" };
}
