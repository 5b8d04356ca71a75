import { prefixOf, type Address, type Prefix } from "../address";
import type { Derived, Device, PlanIndex, Rule, RuleSide } from "../plan";
import { EVERYTHING, type FilterList, type FilterRule, type FilterService, type Side } from "./filter";
import { INTERNET, networkOfSegment } from "./networks";

/** A rule as it stands on a device. */
export interface FoundRule extends FilterRule {
  readonly rule: Rule;
}
/** The list that stands on a device; rules that are switched off are not in it. */
export interface FoundList extends FilterList {
  readonly rules: readonly FoundRule[];
}

const exactly = (address: Address | null): Prefix[] => {
  const prefix = address === null ? null : prefixOf(address, typeof address === "number" ? 32 : 128);
  return prefix === null ? [] : [prefix];
};

/**
 * An end of a rule as a filter sees it: a zone by its name, a segment by its prefixes, a host by its
 * addresses.
 */
export function sideOf({ plan }: PlanIndex, side: RuleSide): Side | null {
  switch (side.at) {
    case "zone":
      return { network: side.zone, prefixes: null };
    case "segment": {
      const segment = plan.segment.get(side.segment);
      return segment === undefined
        ? null
        : { network: networkOfSegment(segment), prefixes: [...segment.prefixes4, ...segment.prefixes6] };
    }
    case "host": {
      const host = plan.host.get(side.host);
      return host === undefined
        ? null
        : { network: "any", prefixes: [...exactly(host.ipv4), ...exactly(host.ipv6)] };
    }
    case "prefix":
      return { network: "any", prefixes: [side.prefix] };
    case "internet":
      return { network: INTERNET, prefixes: null };
    case "gateway":
      return { network: "router", prefixes: null };
  }
}

const ANYWHERE: readonly Side[] = [{ network: "any", prefixes: null }];

const sidesOf = (index: PlanIndex, sides: readonly RuleSide[]): readonly Side[] =>
  sides.length === 0 ? ANYWHERE : sides.flatMap((side) => sideOf(index, side) ?? []);

/** The services of a rule; none named is everything. */
const servicesOf = ({ services }: Rule): readonly FilterService[] =>
  services.length === 0
    ? EVERYTHING
    : services.map(({ protocol, ports }) => ({ protocol, ports: ports.length === 0 ? null : ports }));

/** The list that stands on a device, as its filter reads it. */
function foundList(index: PlanIndex, { id, filter }: Device): FoundList {
  return {
    rules: index
      .rulesOf(id)
      .filter(({ enabled }) => enabled)
      .map((rule) => ({
        rule,
        from: sidesOf(index, rule.from),
        to: sidesOf(index, rule.to),
        services: servicesOf(rule),
        action: rule.action,
      })),
    established: filter.established,
    forwardDefault: filter.forwardDefault,
    inputDefault: filter.inputDefault,
  };
}

/** The lists of all devices that filter by what stands on them, by the device. */
export const FOUND_LISTS: Derived<ReadonlyMap<string, FoundList>> = {
  reads: ["rule", "device", "segment", "host"],
  make: (index) =>
    new Map(
      [...index.plan.device.values()]
        .filter((device) => index.groups("rulesByDevice").has(device.id) || device.filter.list === "found")
        .map((device) => [device.id, foundList(index, device)]),
    ),
};
