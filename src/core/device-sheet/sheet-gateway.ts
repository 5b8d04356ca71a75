import { formatAddress, formatPrefix } from "../address";
import { byNaturalText } from "../kernel";
import { nameOf, prefixesOf, type Device, type PlanIndex } from "../plan";
import { forwardHolds, INTERNET, type Side } from "../policy";
import { hoursText } from "../planners";
import { facingAddresses, translatesAt } from "../routing";
import { PLANNED_LISTS, serviceNumbers, type PlannedList } from "../walls";
import type { DeviceData, SheetForward, SheetRule, SheetTranslation } from "./sheet-types";

/** Routes that are entered by hand. */
export const routesOn = ({ routes }: Device): DeviceData["routes"] =>
  routes.map(({ prefix, via, metric }) => ({
    prefix: formatPrefix(prefix),
    via: formatAddress(via),
    metric,
  }));

/** The legs where what leaves gets the leg's own address (NAT). */
export const translationsOn = (index: PlanIndex, { id }: Device): SheetTranslation[] =>
  index
    .interfacesOf(id)
    .filter(translatesAt)
    .map((leg) => ({
      out: leg.line === null ? nameOf(index, "segment", leg.segment ?? "") : nameOf(index, "line", leg.line),
      address: leg.addresses4.map(formatAddress).join(", "),
    }))
    .sort((a, b) => byNaturalText(a.out, b.out));

/** What comes in on the device's lines and is sent on to a host. */
export function forwardsOn(index: PlanIndex, { id }: Device): SheetForward[] {
  const legs = new Map(index.interfacesOf(id).flatMap((leg) => (leg.line === null ? [] : [[leg.line, leg]])));
  return [...index.plan.forward.values()]
    .flatMap((forward): SheetForward[] => {
      const leg = legs.get(forward.line);
      const host = index.plan.host.get(forward.host);
      if (leg === undefined || host === undefined || !forwardHolds(index, forward)) return [];
      const [low, high] = forward.ports;
      return [
        {
          name: forward.name,
          line: nameOf(index, "line", forward.line),
          outside: facingAddresses(index, leg, 4).map(formatAddress).join(", "),
          protocol: forward.protocol,
          ports: low === high ? `${low}` : `${low} to ${high}`,
          to: host.ipv4 === null ? "" : formatAddress(host.ipv4),
          host: host.name,
          toPort: forward.toPort === null ? "the same" : String(forward.toPort),
          hairpin: forward.hairpin,
          sources: forward.sources.map(formatPrefix),
          until: forward.until,
        },
      ];
    })
    .sort((a, b) => byNaturalText(a.name, b.name));
}

/**
 * An end of a rule as it is entered: a segment with its subnets, a host's address, the internet, the device.
 */
function endText(index: PlanIndex, { universe }: PlannedList, sides: readonly Side[]): string[] {
  return sides
    .flatMap(({ network, prefixes }): string[] => {
      if (network === "router") return ["the device itself"];
      if (prefixes !== null) return prefixes.map(formatPrefix);
      if (network === INTERNET) return ["the internet"];
      return (universe.members.get(network) ?? []).flatMap((id) => {
        const segment = index.plan.segment.get(id);
        if (segment === undefined) return [];
        const subnets = ([4, 6] as const).flatMap((family) => prefixesOf(segment, family).map(formatPrefix));
        return [`${segment.name} (${subnets.join(", ")})`];
      });
    })
    .sort(byNaturalText);
}

/**
 * The rules that the device's walls need, in the order in which they are entered; none where it filters
 * nothing.
 */
export function rulesOn(index: PlanIndex, { id }: Device): SheetRule[] {
  const planned = index.derived(PLANNED_LISTS).get(id);
  if (planned === undefined) return [];
  const all = [
    ...planned.rules.map((rule) => ({ ...rule, when: "" })),
    ...planned.inHours.flatMap(({ hours, rules }) =>
      rules.map((rule) => ({ ...rule, when: hoursText(hours) })),
    ),
  ];
  return all.map(({ from, to, services, serves, when }, at) => ({
    number: at + 1,
    from: endText(index, planned, from),
    to: endText(index, planned, to),
    services: serviceNumbers(services),
    action: "accept",
    when,
    reason: [...new Set(serves.map(({ why }) => why).filter((why) => why !== ""))].join("; "),
  }));
}
