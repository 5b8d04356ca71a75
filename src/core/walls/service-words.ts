import { grouped } from "../kernel";
import type { PlanIndex, Service } from "../plan";
import { catalogueOf } from "../policy";
import { everyService, groupsOf, merged, spansOf, without, type ServiceSpan } from "../rules";

const servicesOf = ({ plan }: PlanIndex): Service[] => [
  ...catalogueOf(plan),
  ...[...plan.wall.values()].flatMap(({ services }) => services),
];

/** All that a service's name stands for, as numbers of the service space. */
function spansByName(index: PlanIndex): Map<string, ServiceSpan[]> {
  const named = grouped(servicesOf(index), ({ name }) => name);
  return new Map(
    [...named].map(([name, parts]) => [
      name,
      merged(parts.flatMap(({ protocol, ports }) => spansOf(protocol, ports.length === 0 ? null : ports))),
    ]),
  );
}

const PROTOCOLS = { tcp: "TCP", udp: "UDP", icmp: "ICMP" } as const;

/** What no name stands for: "TCP 8007 and 9000 to 9010". */
function numbersText(spans: readonly ServiceSpan[]): string[] {
  return groupsOf(spans).map(({ protocol, ports }) => {
    if (typeof protocol === "number") return `IP protocol ${protocol}`;
    const all = ports?.length === 1 && ports[0]?.[0] === 0 && ports[0][1] === 65_535;
    if (ports === null || all) return PROTOCOLS[protocol];
    const numbers = ports.map(([low, high]) => (low === high ? `${low}` : `${low} to ${high}`));
    const last = numbers.at(-1) ?? "";
    const listed = numbers.length > 1 ? `${numbers.slice(0, -1).join(", ")} and ${last}` : last;
    return `${PROTOCOLS[protocol]} ${listed}`;
  });
}

const covers = (spans: readonly ServiceSpan[], all: readonly ServiceSpan[]): boolean =>
  without(all, spans).length === 0;

/** How much wider a range may be than a service in it that is named: in "1024 and up" none is. */
const MOST_BESIDE = 64;

/** Whether a service's ranges are what is meant, and no chance part of a wide range. */
const isMeant = (own: readonly ServiceSpan[], spans: readonly ServiceSpan[]): boolean =>
  own.every(({ first, last }) =>
    spans.some(
      (serviceSpan) =>
        serviceSpan.first <= first &&
        last <= serviceSpan.last &&
        serviceSpan.last - serviceSpan.first - (last - first) <= MOST_BESIDE,
    ),
  );

/** Names where they fit, and numbers for the rest. */
function namesAndNumbers(index: PlanIndex, spans: readonly ServiceSpan[]): string {
  let rest: ServiceSpan[] = [...spans];
  const names: string[] = [];
  for (const [name, own] of spansByName(index))
    if (isMeant(own, spans) && without(own, rest).length < own.length) {
      names.push(name);
      rest = without(rest, own);
    }
  return [...names, ...numbersText(rest)].join(", ");
}

/** A set of services in numbers, as it is entered: "TCP 443 and 8443; UDP 123"; "everything" for all. */
export const serviceNumbers = (spans: readonly ServiceSpan[]): string =>
  [everyService(4), everyService(6)].some((all) => covers(spans, all))
    ? "everything"
    : numbersText(spans).join("; ");

/** More than these protocols for themselves: then what is missing is said sooner. */
const MANY = 100;

/**
 * The words for a set of services: "open" for all, "everything but https" for nearly all, else what it holds.
 */
export function serviceWords(index: PlanIndex, spans: readonly ServiceSpan[]): string {
  const families = [everyService(4), everyService(6)];
  if (families.some((all) => covers(spans, all))) return "open";
  const left = families
    .map((all) => without(all, spans))
    .sort((a, b) => groupsOf(a).length - groupsOf(b).length)[0];
  return left !== undefined && groupsOf(spans).length > MANY
    ? `everything but ${namesAndNumbers(index, left)}`
    : namesAndNumbers(index, spans);
}
