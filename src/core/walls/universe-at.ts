import { lastOf, usableRange, type Address, type Family, type Prefix } from "../address";
import { ascending } from "../kernel";
import { prefixesOf, type Device, type PlanIndex, type Segment } from "../plan";
import { INTERNET } from "../policy";
import { facingAddresses, OUTSIDE, routeFrom } from "../routing";
import { everyService, merged, without, type Span, type Universe } from "../rules";

/** What can be a sender or a receiver on the internet: unicast space (RFC 6890, RFC 4291, RFC 4193). */
const UNICAST: Readonly<Record<Family, readonly Span[]>> = {
  4: [
    { first: 0x0100_0000, last: 0x7eff_ffff },
    { first: 0x8000_0000, last: 0xdfff_ffff },
  ],
  6: [
    { first: 2n ** 125n, last: 2n ** 126n - 1n },
    { first: 0xfcn * 2n ** 120n, last: 0xfen * 2n ** 120n - 1n },
  ],
};

const subnetsOf = (segment: Segment): readonly Prefix[] => [
  ...prefixesOf(segment, 4),
  ...prefixesOf(segment, 6),
];

/** The leg by which the device reaches each segment; a segment that it has no way to is not in it. */
function legsToSegments(index: PlanIndex, device: Device): Map<string, string> {
  const legs = new Map<string, string>();
  for (const segment of index.plan.segment.values()) {
    const [prefix] = subnetsOf(segment);
    const route = prefix === undefined ? null : routeFrom(index, device, prefix.network);
    if (route !== null && route.line === null) legs.set(segment.id, route.leg.id);
  }
  return legs;
}

const ownAddresses = (index: PlanIndex, device: Device): Address[] => [
  ...new Set(
    index
      .interfacesOf(device.id)
      .flatMap((leg) => [...facingAddresses(index, leg, 4), ...facingAddresses(index, leg, 6)]),
  ),
];

const onlyOf = (spans: readonly Span[], family: Family): Span[] =>
  merged(spans.filter(({ first }) => (typeof first === "number") === (family === 4)));

/** What is left of the spans without the holes, each family by itself. */
const less = (spans: readonly Span[], holes: readonly Span[]): Span[] =>
  ([4, 6] as const).flatMap((family) => without(onlyOf(spans, family), onlyOf(holes, family)));

/**
 * Every packet that can meet a device's filter: from and to the stations of all segments that it has a way
 * to, the internet where a way out leads through it, and to its own addresses. Where two subnets overlap the
 * smaller one has the addresses.
 */
export function universeAt(index: PlanIndex, device: Device): Universe {
  const legs = legsToSegments(index, device);
  const own = ownAddresses(index, device);
  const ownSpans = own.map((address): Span => ({ first: address, last: address }));
  const subnets = [...index.plan.segment.values()]
    .flatMap((segment) => subnetsOf(segment).map((prefix) => ({ segment, prefix })))
    .sort((a, b) => b.prefix.length - a.prefix.length || ascending(a.prefix.network, b.prefix.network));
  const stations = new Map<string, Span[]>();
  const taken: Span[] = [...ownSpans];
  for (const { segment, prefix } of subnets) {
    const free = less([usableRange(prefix)], taken);
    if (legs.has(segment.id)) stations.set(segment.id, [...(stations.get(segment.id) ?? []), ...free]);
    taken.push({ first: prefix.network, last: lastOf(prefix) });
  }
  const out = ([4, 6] as const).flatMap((family) => {
    const route = routeFrom(index, device, OUTSIDE[family]);
    return route === null ? [] : [{ family, leg: route.leg.id }];
  });
  const [first] = out;
  if (first !== undefined) {
    legs.set(INTERNET, first.leg);
    stations.set(
      INTERNET,
      out.flatMap(({ family }) => less(UNICAST[family], taken)),
    );
  }
  return {
    stations,
    router: own,
    legs,
    services: { 4: everyService(4), 6: everyService(6) },
  };
}
