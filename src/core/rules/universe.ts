import type { Address, Family } from "../address";
import type { FilterAction, FilterList, FilterRule, Network, Side } from "../policy";
import { spansOf, type ServiceSpan } from "./service-space";
import { merged, sizeOf, type Span } from "./spans";

/**
 * Which packets there are at a filter. A packet comes from the network that has its source and goes to the
 * one that has its destination, or to the router itself; none go out at the leg where they came in, and none
 * come from the router.
 */
export interface Universe {
  /**
   * The addresses that may send and receive in each network, as ascending ranges; no two networks share any.
   */
  readonly stations: ReadonlyMap<Network, readonly Span[]>;
  /** The router's own addresses, whichever network they lie in. */
  readonly router: readonly Address[];
  /** The router's leg that each network lies at; a network without one lies at a leg of its own. */
  readonly legs?: ReadonlyMap<Network, string>;
  /** The services there are, as numbers of the service space: ascending spans that do not touch. */
  readonly services: Readonly<Record<Family, readonly ServiceSpan[]>>;
}

/**
 * One rule of an ordered list: what comes from any of these sides to any of those, by any of these services.
 */
export interface ListRule {
  readonly from: readonly Side[];
  readonly to: readonly Side[];
  readonly services: readonly ServiceSpan[];
  readonly action: FilterAction;
}

/** An ordered list of which the first rule that matches decides, and what decides where none does. */
export interface RuleList {
  readonly rules: readonly ListRule[];
  readonly forwardDefault: FilterAction;
  readonly inputDefault: FilterAction;
}

const listRuleOf = ({ services, ...rule }: FilterRule): ListRule => ({
  ...rule,
  services: merged(services.flatMap(({ protocol, ports }) => spansOf(protocol, ports))),
});

/** A filter's list as the analysis reads it. Answers to what was let through are no question here. */
export const ruleListOf = ({
  rules,
  forwardDefault,
  inputDefault,
}: Omit<FilterList, "established">): RuleList => ({
  rules: rules.map(listRuleOf),
  forwardDefault,
  inputDefault,
});

/** How many packets there are. */
export function packetsIn({ stations, router, legs, services }: Universe): bigint {
  return ([4, 6] as const).reduce((sum, family) => {
    const isOurs = (value: number | bigint) => (typeof value === "number") === (family === 4);
    const byLeg = new Map<string, bigint>();
    for (const [network, spans] of stations) {
      const leg = legs?.get(network) ?? network;
      byLeg.set(leg, (byLeg.get(leg) ?? 0n) + sizeOf(spans.filter(({ first }) => isOurs(first))));
    }
    const sizes = [...byLeg.values()];
    const all = sizes.reduce((total, size) => total + size, 0n);
    const within = sizes.reduce((total, size) => total + size * size, 0n);
    const own = BigInt(router.filter(isOurs).length);
    return sum + (all * (all + own) - within) * sizeOf(services[family]);
  }, 0n);
}
