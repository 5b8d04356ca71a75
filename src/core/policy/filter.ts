import { containsAddress, type Prefix } from "../address";
import type { Packet } from "./packet";

/** A network at the filter, by a name of the caller's: a segment, the internet. */
export type Network = string;
export type FilterAction = "accept" | "drop" | "reject";

/**
 * One rule of an ordered list. Several prefixes or ranges are alternatives; null asks for nothing. `to:
 * "router"` is for packets to the router itself, every other rule for those passing through.
 */
export interface FilterRule {
  readonly from: Network | "any";
  readonly to: Network | "any" | "router";
  readonly src: readonly Prefix[] | null;
  readonly dst: readonly Prefix[] | null;
  readonly protocol: Packet["protocol"] | "any";
  readonly ports: readonly (readonly [low: number, high: number])[] | null;
  readonly action: FilterAction;
}

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

function matches(rule: FilterRule, from: Network, to: Network | "router", packet: Packet): boolean {
  if ((rule.to === "router") !== (to === "router")) return false;
  if (rule.from !== "any" && rule.from !== from) return false;
  if (rule.to !== "any" && rule.to !== to) return false;
  if (rule.protocol !== "any" && rule.protocol !== packet.protocol) return false;
  const port = packet.dport;
  if (
    rule.ports !== null &&
    (port === null || !rule.ports.some(([low, high]) => low <= port && port <= high))
  )
    return false;
  return within(rule.src, packet.src) && within(rule.dst, packet.dst);
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
  const by = list.rules.findIndex((rule) => matches(rule, from, to, packet));
  const rule = list.rules[by];
  return rule === undefined
    ? { action: to === "router" ? list.inputDefault : list.forwardDefault, by: "default" }
    : { action: rule.action, by };
}
