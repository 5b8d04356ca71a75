import {
  freeRanges,
  rangeCount,
  step,
  usableRange,
  type Address,
  type AddressRange,
  type Prefix4,
} from "../../address";
import { isGateway, type Device, type Segment, PlanEdits } from "../../plan";
import { gatewayIn, staticBlockIn } from "../../planners";
import { groupKey, surveyed, type Group } from "../groups";
import { grown } from "../tally";
import { frontOf, homeGroup, mannerOf, segmentOf, standsApart, type Frame } from "./frame";

/** How a group's devices get their addresses, counted with growth. */
interface Manners {
  readonly typed: number;
  readonly reserved: number;
  readonly dynamic: number;
}

function mannersOf(frame: Frame, group: Group): Manners {
  const { growth } = frame.index.plan.site.conventions;
  const counts = { typed: 0, reserved: 0, dynamic: 0 };
  for (const { need, group: own } of surveyed(frame.index)) {
    if (groupKey(homeGroup(frame, own)) !== groupKey(group) || need.kind.role === "socket") continue;
    counts[mannerOf(frame, need, own)] += (need.count * (100 + (need.growth ?? growth))) / 100;
  }
  return {
    typed: Math.ceil(counts.typed),
    reserved: Math.ceil(counts.reserved),
    dynamic: Math.ceil(counts.dynamic),
  };
}

/**
 * The pool of a subnet: outside the static block and the fixed addresses, for what asks and half as much
 * again, at least 20 or half of a small subnet. The static block gives way only as far as the static
 * devices leave it.
 */
function poolIn(
  frame: Frame,
  prefix: Prefix4,
  segment: Segment,
  { typed, reserved, dynamic }: Manners,
): AddressRange | null {
  const { conventions } = frame.edits.plan.site;
  const usable = usableRange(prefix);
  const whole = Number(rangeCount(usable));
  const wanted = Math.max(
    Math.min(20, Math.floor(whole / 2)),
    Math.ceil(dynamic * 1.5) + reserved + grown(1, 0),
  );
  const size = Math.max(Math.min(typed + 1, whole - 2), Math.min(conventions.staticSize, whole - wanted - 1));
  const block = size < 1 ? null : staticBlockIn(conventions, prefix, size);
  const fixed: Address[] = [
    gatewayIn(conventions, prefix),
    ...frame.edits.all("interface").flatMap((leg) => (leg.segment === segment.id ? leg.addresses4 : [])),
    ...frame.edits
      .all("host")
      .flatMap((host) =>
        host.segment === segment.id && host.ipv4 !== null && host.manner === "typed" ? [host.ipv4] : [],
      ),
  ];
  const runs = freeRanges(usable, [
    ...(block === null ? [] : [block]),
    ...fixed.map((a) => ({ first: a, last: a })),
  ]);
  const best = runs.reduce<AddressRange | null>(
    (most, run) => (most === null || rangeCount(run) > rangeCount(most) ? run : most),
    null,
  );
  if (best === null) return null;
  const last = step<Address>(best.first, wanted - 1);
  return { first: best.first, last: last === null || last > best.last ? best.last : last };
}

/** The device that routes a group: the shared gateway, or where routers separate the group's own. */
function routerOf(frame: Frame, group: Group): Device | undefined {
  const front = frontOf(frame);
  const segment = segmentOf(frame.edits, group);
  const domain =
    segment?.vlan === null || segment === undefined
      ? undefined
      : frame.edits.get("vlan", segment.vlan)?.domain;
  const gateways = frame.edits
    .all("device")
    .filter((device) => isGateway(device))
    .sort((a, b) => (a.id < b.id ? -1 : 1));
  return front === null || groupKey(front) === groupKey(group)
    ? (gateways.find((device) => device.domain === domain) ?? gateways[0])
    : gateways.find((device) => device.domain === domain);
}

/** The gateway's leg in a segment, which gives names where the site lists no servers. */
function draftGateway(
  edits: PlanEdits,
  ids: Frame["ids"],
  segment: Segment,
  { prefix, router }: { readonly prefix: Prefix4; readonly router: Device },
): void {
  const { conventions } = edits.plan.site;
  const address = gatewayIn(conventions, prefix);
  const [prefix6] = segment.prefixes6;
  const address6 = prefix6 === undefined ? null : step(prefix6.network, 1);
  const leg = edits.put("interface", {
    id: ids(),
    device: router.id,
    port: null,
    segment: segment.id,
    line: null,
    name: segment.name,
    mac: null,
    addresses4: [address],
    addresses6: address6 === null ? [] : [address6],
    relayTo: null,
    translates: "asUsual",
  });
  const isListed = conventions.dns === "listed" && conventions.dnsServers.length > 0;
  const dns: Address[] = isListed ? [...conventions.dnsServers] : [address];
  edits.patch("segment", segment.id, {
    gatewayInterface: leg.id,
    dns: segment.dns.length > 0 ? segment.dns : dns,
  });
}

/** The gateway's leg in every segment that has none, and a scope where devices ask for addresses. */
export function draftScopes(frame: Frame): void {
  const { edits: edits, ids } = frame;
  const { conventions } = edits.plan.site;
  for (const { group } of frame.groups) {
    if (standsApart(frame, group)) continue;
    const segment = segmentOf(edits, group);
    const prefix = segment?.prefixes4[0];
    const router = routerOf(frame, group);
    if (segment === undefined || prefix === undefined || router === undefined) continue;
    if (segment.gatewayInterface === null) draftGateway(edits, ids, segment, { prefix, router });
    const manners = mannersOf(frame, group);
    const served = edits.all("scope").some((scope) => scope.segment === segment.id && scope.family === 4);
    const pool =
      served || manners.reserved + manners.dynamic === 0 ? null : poolIn(frame, prefix, segment, manners);
    if (pool === null) continue;
    edits.put("scope", {
      id: ids(),
      segment: segment.id,
      serverDevice: router.id,
      serverHost: null,
      family: 4,
      pools: [pool],
      exclusions: [],
      leaseSeconds: group.purpose === "guests" ? conventions.guestLeaseSeconds : conventions.leaseSeconds,
      options: [],
    });
  }
}
