import { containsAddress, familyOf, formatAddress, isLinkLocal, type Address } from "../address";
import { type Device, type Interface, isFilter, segmentHolding } from "../plan";
import { partyOfLeg, type Party } from "../places";
import { answerTo, forwardHolds, type Packet, type WallSide } from "../policy";
import { facingAddresses, forwardsPackets, linesOf, translatesAt, type RouteChoice } from "../routing";
import { routeOf, routeWhy } from "./choose-route";
import { goesRound, MOST_HOPS, noGateway, noLine6, noRoute, notARouter } from "./no-way";
import { passFilter } from "./pass-filter";
import { resolve, subjectOf, type Sender } from "./resolve";
import type { ProbeRun } from "./run";
import { hostAddress, type Station } from "./station";
import { packetWords, PROTOCOL_WORDS, type AtLeg, type Delivery, type Flow, type Trip } from "./trip";
import { beyond, segmentName } from "./whose-traffic";

/** Sends a packet from an end device until it arrives; null after a stop. */
export function travel(trip: Trip, from: Station, packet: Packet): Delivery | null {
  const { run } = trip;
  const outside = from.segment === null || from.segment.tunnel === null ? null : farEnd(trip, from);
  if (outside !== null) return comeIn(trip, outside, packet);
  const isNear =
    from.own.some((prefix) => containsAddress(prefix, packet.dst)) ||
    (familyOf(packet.dst) === 6 && isLinkLocal(packet.dst));
  const next = isNear ? packet.dst : from.gateway;
  if (next === null && from.gatewayLeg === null) {
    noGateway(run, from);
    return null;
  }
  const known = isNear || from.gatewayLeg === null ? null : partyOfLeg(run.index, from.gatewayLeg);
  return hop(trip, from, packet, { next: next ?? packet.dst, known, count: 0 });
}

/** Where what somebody at the far end of a tunnel sends comes in; null for one of the site. */
function farEnd({ run }: Trip, { gatewayLeg }: Station): AtLeg | null {
  const device = gatewayLeg === null ? undefined : run.index.plan.device.get(gatewayLeg.device);
  return gatewayLeg === null || device === undefined ? null : { device, leg: gatewayLeg };
}

/** Sends a packet that a device itself makes: its answer, or what it asks of others. */
export function travelFromDevice(trip: Trip, device: Device, packet: Packet): Delivery | null {
  const asked = trip.answers?.find((flow) => flow.device === device.id) ?? null;
  const route = routeOf(trip, device, packet, asked);
  if (route === null) {
    noRoute(trip.run, device, packet);
    return null;
  }
  return leave(trip, { device, route, count: 0 }, { came: packet, packet, flow: null, leg: null });
}

/** A packet that comes in at a device by one of its legs: from a line, or from the wire. */
export const comeIn = (trip: Trip, at: AtLeg, packet: Packet): Delivery | null =>
  arriveAtDevice(trip, at, packet, 1);

/** To whom a packet is handed: by address, or to somebody who is known; `count` routers are behind it. */
interface NextHop {
  readonly next: Address;
  readonly known: Party | null;
  readonly count: number;
}

function hop(trip: Trip, from: Sender, packet: Packet, { next, known, count }: NextHop): Delivery | null {
  const { run } = trip;
  const isAnswer = trip.answers !== null;
  const found = resolve(run, from, next, { known, shows: trip.shows });
  if (found === null) return null;
  const { party, hearing } = found;
  run.say({
    what: packetWords(packet, isAnswer),
    from: from.party.mac,
    to: party.mac,
    flood: run.flood(from.party.place),
    reached: hearing,
    content: { kind: "packet", packet, isAnswer, ttl: 64 - count },
  });
  if (party.leg === null && next === packet.dst) return { at: "host", party, packet };
  const device = party.leg === null ? undefined : run.index.plan.device.get(party.leg.device);
  if (party.leg === null || device === undefined) {
    notARouter(run, { name: party.name, subjects: subjectOf(party) }, packet);
    return null;
  }
  return arriveAtDevice(trip, { device, leg: party.leg }, packet, count + 1);
}

function arriveAtDevice(trip: Trip, at: AtLeg, came: Packet, count: number): Delivery | null {
  const { run } = trip;
  const { device, leg } = at;
  if (count > MOST_HOPS) {
    goesRound(run, device);
    return null;
  }
  const flow = trip.answers?.find((flow) => flow.device === device.id && isAnswerTo(came, flow.left)) ?? null;
  // The answer to something translated is for who asked in truth; what comes to a forwarded port is for a
  // host inside.
  const packet = flow !== null ? answerTo(flow.came) : forwardedIn(trip, at, came);
  const isOwn = run.index
    .interfacesOf(device.id)
    .some((leg) => facingAddresses(run.index, leg, came.family).includes(packet.dst));
  if (!isOwn) return sendOn(trip, at, { came, packet, flow, leg }, count);
  if (isFilter(device) && !passFilter(trip, { device, leg, packet, isAnswer: flow !== null }, "gateway"))
    return null;
  if (trip.answers === null) trip.flows.push({ device: device.id, leg, came, left: packet });
  return { at: "device", device, leg, packet };
}

/** A packet at a router: as it came, and as it is now that forwards and translation of answers are undone. */
interface AtRouter {
  readonly came: Packet;
  readonly packet: Packet;
  /** What the router remembers of the question that it answers; null for a question. */
  readonly flow: Flow | null;
  /** The leg it came in by; null for one that the device itself sends. */
  readonly leg: Interface | null;
}

/** What a router does with a packet for somebody else. */
function sendOn(trip: Trip, { device, leg }: AtLeg, at: AtRouter, count: number): Delivery | null {
  const { run } = trip;
  const { packet, flow } = at;
  if (!forwardsPackets(device)) {
    const self = { name: device.name, subjects: [{ kind: "device" as const, id: device.id }] };
    notARouter(run, self, packet);
    return null;
  }
  const route = routeOf(trip, device, packet, flow);
  if (route === null) {
    noRoute(run, device, packet);
    return null;
  }
  if (trip.shows) showRoute(trip, device, route, packet);
  if (isFilter(device)) {
    const to: WallSide | null =
      route.line !== null
        ? "internet"
        : (segmentHolding(run.index.plan, packet.dst) ?? beyond(run, device, route.leg));
    if (to !== null && !passFilter(trip, { device, leg, packet, isAnswer: flow !== null }, to)) return null;
  }
  return leave(trip, { device, route, count }, at);
}

function showRoute({ run }: Trip, device: Device, route: RouteChoice, packet: Packet): void {
  const where = route.line !== null ? `out by ${route.line.name}` : `on into ${segmentName(run, route.leg)}`;
  run.journey.pass({
    title: device.name,
    place: "route",
    says: `${PROTOCOL_WORDS[packet.protocol]} for ${formatAddress(packet.dst)}: ${where}`,
    why: routeWhy(run, device, route, packet),
    subjects: [{ kind: "interface", id: route.leg.id }],
    device: device.id,
  });
}

const isAnswerTo = (packet: Packet, sent: Packet): boolean =>
  packet.protocol === sent.protocol &&
  packet.src === sent.dst &&
  packet.dst === sent.src &&
  packet.sport === sent.dport &&
  packet.dport === sent.sport;

/**
 * What comes to a line's outside address at a forwarded port goes on to a host inside; from inside only with
 * hairpin.
 */
function forwardedIn({ run, shows }: Trip, { device, leg }: AtLeg, packet: Packet): Packet {
  const { index, journey } = run;
  const outside = linesOf(index, device.id).find((ownLine) =>
    facingAddresses(index, ownLine.leg, packet.family).includes(packet.dst),
  );
  const port = packet.dport;
  if (outside === undefined || port === null) return packet;
  const forward = [...index.plan.forward.values()].find(
    (forward) =>
      forward.line === outside.line.id &&
      forwardHolds(index, forward) &&
      forward.protocol === packet.protocol &&
      forward.ports[0] <= port &&
      port <= forward.ports[1] &&
      (leg.line !== null || forward.hairpin),
  );
  const host = forward === undefined ? undefined : index.plan.host.get(forward.host);
  const to = host === undefined ? null : hostAddress(run, host, packet.family);
  if (forward === undefined || host === undefined || to === null) return packet;
  const inside: Packet = { ...packet, dst: to, dport: forward.toPort ?? port };
  if (shows)
    journey.pass({
      title: device.name,
      place: `forward ${forward.name}`,
      says: `port ${port} goes to ${host.name}, ${formatAddress(to)} port ${inside.dport}`,
      why:
        leg.line === null
          ? "It holds for those inside, too."
          : "What comes in on the line at this port is sent on.",
      subjects: [{ kind: "forward", id: forward.id }],
      device: device.id,
    });
  return inside;
}

/** Where a packet leaves a device, after how many routers. */
interface WayOut {
  readonly device: Device;
  readonly route: RouteChoice;
  readonly count: number;
}

/** A packet that carries the outside address from here on (RFC 3022): IPv4 only, and where there is one. */
const translated = (packet: Packet, outside: Address | undefined): Packet =>
  packet.family === 4 && outside !== undefined ? { ...packet, src: outside } : packet;

const leadsIntoTunnel = ({ index }: ProbeRun, { segment }: Interface): boolean =>
  (index.plan.segment.get(segment ?? "")?.tunnel ?? null) !== null;

/** Sends a packet out of a device's leg. */
function leave(trip: Trip, { device, route, count }: WayOut, at: AtRouter): Delivery | null {
  const { run } = trip;
  const { came, packet, flow, leg } = at;
  const outside = facingAddresses(run.index, route.leg, packet.family)[0];
  const translates = leg !== null && flow === null && translatesAt(route.leg);
  const left = translates ? translated(packet, outside) : packet;
  if (leg !== null && trip.answers === null) trip.flows.push({ device: device.id, leg, came, left });
  if (route.line !== null && packet.family === 6 && outside === undefined) {
    noLine6(run, device, route.line);
    return null;
  }
  if (route.line !== null) return { at: "internet", device, line: route.line, packet: left };
  if (leadsIntoTunnel(run, route.leg)) return { at: "tunnel", device, leg: route.leg, packet: left };
  const party = partyOfLeg(run.index, route.leg);
  if (party === null) {
    noRoute(run, device, packet);
    return null;
  }
  const from: Sender = { party, address: outside ?? packet.src, leased: false };
  return hop(trip, from, left, { next: route.via ?? left.dst, known: null, count });
}
