import { prefixOf } from "../address";
import { byNaturalText } from "../kernel";
import { exceptionRules } from "./exceptions";
import { INTERNET, networkOfSegment } from "./networks";
import {
  isFilter,
  isGateway,
  keepsState,
  type Derived,
  type Device,
  type Exception,
  type Forward,
  type PlanIndex,
  type Segment,
  type Service,
  type Wall,
  type WallEnd,
} from "../plan";
import {
  EVERYTHING,
  type FilterList,
  type FilterRule,
  type FilterService,
  type Network,
  type Side,
} from "./filter";

/** Why a rule stands in a list: the wall it follows from, or what has to work for everyone. */
export interface WallRule extends FilterRule {
  readonly wall: Wall | null;
  /** The exception that it follows from; null for any other rule. */
  readonly exception: Exception | null;
  readonly why: string;
  /** Whether it only lets answers back, at a filter that does not remember what it let through. */
  readonly answers?: boolean;
}
export interface WallRules extends FilterList {
  readonly rules: readonly WallRule[];
}

const networkOfEnd = (end: WallEnd): Network | "router" => {
  if (end.at === "zone") return end.zone;
  if (end.at === "internet") return INTERNET;
  return "router";
};

const all = (network: Network | "any" | "router"): Side => ({ network, prefixes: null });

/** A rule that lets pass. */
const rule = (
  from: Network | "any",
  to: Network | "any" | "router",
  services: readonly FilterService[],
  purpose: Pick<WallRule, "wall" | "why">,
): WallRule => ({
  from: [all(from)],
  to: [all(to)],
  services,
  action: "accept",
  exception: null,
  ...purpose,
});

const ofService = (
  from: Network,
  to: Network | "router",
  { protocol, ports, name }: Service,
  wall: Wall,
): WallRule =>
  rule(from, to, [{ protocol, ports: ports.length === 0 ? null : ports }], {
    wall,
    why: `a door for ${name}`,
  });

function ofWall(wall: Wall): WallRule[] {
  const [from, to] = [networkOfEnd(wall.from), networkOfEnd(wall.to)];
  if (wall.door === "closed" || from === "router") return [];
  return wall.door === "open"
    ? [rule(from, to, EVERYTHING, { wall, why: "open" })]
    : wall.services.map((service) => ofService(from, to, service, wall));
}

const toRouter = (zone: Network, why: string, service: FilterService): WallRule =>
  rule(zone, "router", [service], { wall: null, why });

/** What DHCP servers and relays are asked at (RFC 2131 section 4.1), and by IPv6 (RFC 8415 section 7.2). */
const DHCP: FilterService = { protocol: "udp", ports: [[67, 68]] };
/** Where devices announce themselves (RFC 6762 section 5). */
const MDNS: FilterService = { protocol: "udp", ports: [[5353, 5353]] };
const DHCP6: FilterService = { protocol: "udp", ports: [[547, 547]] };

/**
 * What a device has to answer whatever the walls say: addresses, names and time where it serves them, what
 * devices announce where it tells of them, and the echo by which it is found.
 */
function ofItself(index: PlanIndex, device: Device): WallRule[] {
  const { id } = device;
  // A gateway passes questions for names on to another one's; a switch that routes answers for itself alone.
  const legs = isGateway(device) ? [...index.plan.interface.values()] : index.interfacesOf(id);
  const own = new Set(legs.flatMap((leg) => [...leg.addresses4, ...leg.addresses6].map(String)));
  const zones = (test: (segment: Segment) => boolean) => [
    ...new Set([...index.plan.segment.values()].filter(test).map(networkOfSegment)),
  ];
  const isServed = (segment: Segment) =>
    index.scopesOf(segment.id).some((scope) => scope.serverDevice === id) ||
    index.interfacesIn(segment.id).some((leg) => leg.device === id && leg.relayTo !== null);
  return [
    ...zones(isServed).map((zone) => toRouter(zone, "DHCP is answered here", DHCP)),
    ...zones((segment) => isServed(segment) && segment.prefixes6.length > 0).map((zone) =>
      toRouter(zone, "DHCP is answered here", DHCP6),
    ),
    ...zones((segment) => segment.dns.some((address) => own.has(String(address)))).flatMap((zone) => [
      toRouter(zone, "DNS is answered here", { protocol: "udp", ports: [[53, 53]] }),
      toRouter(zone, "DNS is answered here", { protocol: "tcp", ports: [[53, 53]] }),
    ]),
    ...zones((segment) => segment.time.some((address) => own.has(String(address)))).map((zone) =>
      toRouter(zone, "time (NTP) is answered here", { protocol: "udp", ports: [[123, 123]] }),
    ),
    ...zones(({ id: segment }) => device.repeatsDiscovery.includes(segment)).map((zone) =>
      toRouter(zone, "what there is in one segment is told in others here", MDNS),
    ),
    ...zones(() => true).map((zone) =>
      toRouter(zone, "an echo from inside is answered", { protocol: "icmp", ports: null }),
    ),
  ];
}

/** Whether a forward still holds on the day for which the plan is asked. */
export const forwardHolds = ({ today }: PlanIndex, { until }: Pick<Forward, "until">): boolean =>
  until === null || today === null || today <= until;

/** What a forward lets in: from those outside who may to its host, at the port inside. */
function ofForwards(index: PlanIndex): WallRule[] {
  const { plan } = index;
  return [...plan.forward.values()].flatMap((forward): WallRule[] => {
    const host = plan.host.get(forward.host);
    const segment = host?.segment === null || host === undefined ? undefined : plan.segment.get(host.segment);
    const to = host?.ipv4 === null || host === undefined ? null : prefixOf(host.ipv4, 32);
    const ports: [number, number] =
      forward.toPort === null ? forward.ports : [forward.toPort, forward.toPort];
    if (segment === undefined || to === null || !forwardHolds(index, forward)) return [];
    return [
      {
        from: [{ network: INTERNET, prefixes: forward.sources.length === 0 ? null : forward.sources }],
        to: [{ network: networkOfSegment(segment), prefixes: [to] }],
        services: [{ protocol: forward.protocol, ports: [ports] }],
        action: "accept",
        wall: null,
        exception: null,
        why: `the forward ${forward.name} lets it in`,
      },
    ];
  });
}

/** Why an exception lets something pass, and who answers for it. */
export const exceptionWhy = ({ name, reason, owner }: Exception): string =>
  `exception ${name}${reason === "" ? "" : `: ${reason}`}${owner === "" ? "" : ` (${owner})`}`;

/** What the exceptions that hold now let pass. */
const ofExceptions = (index: PlanIndex): WallRule[] =>
  exceptionRules(index).map(({ exception, rule: passes }) => ({
    ...passes,
    action: "accept",
    wall: null,
    exception,
    why: exceptionWhy(exception),
  }));

/** Where those who ask are answered: the system ports below are for services (RFC 6335 section 6). */
const ASKERS_PORTS: readonly (readonly [number, number])[] = [[1024, 65_535]];

const answeredAt = ({ protocol }: FilterService): FilterService =>
  protocol === "tcp" || protocol === "udp" ? { protocol, ports: ASKERS_PORTS } : { protocol, ports: null };

/**
 * The rule by which answers come back through a filter that remembers nothing; null where the device itself
 * answers, which its list does not see. It can't tell an answer from a question to those ports.
 */
export function answersTo(asked: FilterRule): FilterRule | null {
  const to = asked.to.filter(({ network }) => network !== "router");
  return to.length === 0 || asked.action !== "accept"
    ? null
    : { from: to, to: asked.from, services: asked.services.map(answeredAt), action: "accept" };
}

/** What a device lets pass by no wall: what it answers itself, inside zones, forwards, exceptions. */
function besideWalls(index: PlanIndex, device: Device): WallRule[] {
  const inside = [...index.plan.zone.values()]
    .filter((zone) => zone.insideOpen)
    .map((zone) =>
      rule(zone.id, zone.id, EVERYTHING, {
        wall: null,
        why: `the segments of ${zone.name} may talk to one another`,
      }),
    );
  return [...ofItself(index, device), ...inside, ...ofForwards(index), ...ofExceptions(index)];
}

/** By device that filters; the same while only walls are turned, as one does by the hundred to try them. */
const BESIDE_WALLS: Derived<ReadonlyMap<string, readonly WallRule[]>> = {
  reads: ["zone", "segment", "scope", "interface", "forward", "host", "exception", "device"],
  make: (index) =>
    new Map(
      [...index.plan.device.values()]
        .filter(isFilter)
        .map((device) => [device.id, besideWalls(index, device)] as const),
    ),
};

/**
 * The ordered list of rules that the walls come to at a device: doors, and at the end everything is closed.
 * Answers pass first, or by rules of their own where the device remembers nothing.
 */
function rulesOf(index: PlanIndex, device: Device): WallRules {
  const walls = [...index.plan.wall.values()].sort((a, b) => byNaturalText(a.id, b.id)).flatMap(ofWall);
  const rules = [...(index.derived(BESIDE_WALLS).get(device.id) ?? besideWalls(index, device)), ...walls];
  const remembers = keepsState(device);
  return {
    rules: remembers ? rules : [...rules, ...rules.flatMap(backRule)],
    established: remembers,
    forwardDefault: "drop",
    inputDefault: "drop",
  };
}

/** The rule that lets the answers to another one back. */
function backRule(asked: WallRule): WallRule[] {
  const answer = answersTo(asked);
  return answer === null ? [] : [{ ...asked, ...answer, answers: true }];
}

/** The rules that each filtering device needs for the walls, by the device's id. */
export const WALL_RULES: Derived<ReadonlyMap<string, WallRules>> = {
  reads: ["wall", "zone", "segment", "scope", "interface", "forward", "host", "exception", "device"],
  make: (index) =>
    new Map(
      [...index.plan.device.values()]
        .filter(isFilter)
        .map((device) => [device.id, rulesOf(index, device)] as const),
    ),
};

/** The rules that a device's filter needs for the walls. */
export const wallRulesAt = (index: PlanIndex, device: Device): WallRules =>
  index.derived(WALL_RULES).get(device.id) ?? rulesOf(index, device);
