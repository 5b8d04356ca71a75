import { prefixOf } from "../address";
import { byNaturalText } from "../kernel";
import type { Derived, PlanIndex, Segment, Service, Wall, WallEnd } from "../plan";
import type { FilterList, FilterRule, Network } from "./filter";

/** Why a rule stands in a list: the wall it follows from, or what has to work for everyone. */
export interface WallRule extends FilterRule {
  readonly wall: Wall | null;
  readonly why: string;
}
export interface WallRules extends FilterList {
  readonly rules: readonly WallRule[];
}

export const INTERNET: Network = "internet";
/**
 * The network a segment counts as at a gateway: its zone. Segments of one zone are told apart by the packet's
 * own rule.
 */
export const networkOfSegment = ({ zone }: Pick<Segment, "zone">): Network => zone;

const networkOfEnd = (end: WallEnd): Network | "router" => {
  if (end.at === "zone") return end.zone;
  if (end.at === "internet") return INTERNET;
  return "router";
};

const rule = (
  from: Network | "any",
  to: Network | "any" | "router",
  protocol: FilterRule["protocol"],
  ports: FilterRule["ports"],
  wall: Wall | null,
  why: string,
  // eslint-disable-next-line max-params -- a row of the rule list, read in columns
): WallRule => ({ from, to, src: null, dst: null, protocol, ports, action: "accept", wall, why });

const ofService = (
  from: Network,
  to: Network | "router",
  { protocol, ports, name }: Service,
  wall: Wall,
): WallRule => rule(from, to, protocol, ports.length === 0 ? null : ports, wall, `a door for ${name}`);

function ofWall(wall: Wall): WallRule[] {
  const [from, to] = [networkOfEnd(wall.from), networkOfEnd(wall.to)];
  if (wall.door === "closed" || from === "router") return [];
  return wall.door === "open"
    ? [rule(from, to, "any", null, wall, "open")]
    : wall.services.map((service) => ofService(from, to, service, wall));
}

/**
 * What a gateway has to answer whatever the walls say: addresses, names and time where it serves them, and
 * the echo by which it is found.
 */
function ofItself(index: PlanIndex): WallRule[] {
  const own = new Set(
    [...index.plan.interface.values()].flatMap((leg) => [...leg.addresses4, ...leg.addresses6].map(String)),
  );
  const zones = (test: (segment: Segment) => boolean) => [
    ...new Set([...index.plan.segment.values()].filter(test).map(networkOfSegment)),
  ];
  const served = zones(
    (segment) =>
      index.scopesOf(segment.id).some((scope) => scope.serverDevice !== null) ||
      index.interfacesIn(segment.id).some((leg) => leg.relayTo !== null),
  );
  return [
    ...served.map((zone) =>
      rule(
        zone,
        "router",
        "udp",
        [
          [67, 68],
          [547, 547],
        ],
        null,
        "DHCP is answered here",
      ),
    ),
    ...zones((segment) => segment.dns.some((address) => own.has(String(address)))).flatMap((zone) => [
      rule(zone, "router", "udp", [[53, 53]], null, "DNS is answered here"),
      rule(zone, "router", "tcp", [[53, 53]], null, "DNS is answered here"),
    ]),
    ...zones((segment) => segment.time.some((address) => own.has(String(address)))).map((zone) =>
      rule(zone, "router", "udp", [[123, 123]], null, "time (NTP) is answered here"),
    ),
    ...zones(() => true).map((zone) =>
      rule(zone, "router", "icmp", null, null, "an echo from inside is answered"),
    ),
  ];
}

/** What a forward lets in: from outside to its host, at the port inside. */
function ofForwards({ plan }: PlanIndex): WallRule[] {
  return [...plan.forward.values()].flatMap((forward): WallRule[] => {
    const host = plan.host.get(forward.host);
    const segment = host?.segment === null || host === undefined ? undefined : plan.segment.get(host.segment);
    const to = host?.ipv4 === null || host === undefined ? null : prefixOf(host.ipv4, 32);
    const ports: [number, number] =
      forward.toPort === null ? forward.ports : [forward.toPort, forward.toPort];
    return segment === undefined || to === null
      ? []
      : [
          {
            from: INTERNET,
            to: networkOfSegment(segment),
            src: null,
            dst: [to],
            protocol: forward.protocol,
            ports: [ports],
            action: "accept",
            wall: null,
            why: `the forward ${forward.name} lets it in`,
          },
        ];
  });
}

/**
 * The ordered list of rules that the walls come to: answers first, doors, and at the end everything is
 * closed.
 */
function rulesOf(index: PlanIndex): WallRules {
  const walls = [...index.plan.wall.values()].sort((a, b) => byNaturalText(a.id, b.id)).flatMap(ofWall);
  const inside = [...index.plan.zone.values()]
    .filter((zone) => zone.insideOpen)
    .map((zone) =>
      rule(zone.id, zone.id, "any", null, null, `the segments of ${zone.name} may talk to one another`),
    );
  return {
    rules: [...ofItself(index), ...inside, ...ofForwards(index), ...walls],
    established: true,
    forwardDefault: "drop",
    inputDefault: "drop",
  };
}

/** The rules of the site's gateways, as its walls want them. */
export const WALL_RULES: Derived<WallRules> = {
  reads: ["wall", "zone", "segment", "scope", "interface", "forward", "host"],
  make: rulesOf,
};
