import {
  containsAddress,
  familyOf,
  formatAddress,
  isLinkLocal,
  type Address,
  type Family,
  type Prefix,
} from "../address";
import type { Repair } from "../checks/check";
import {
  isGateway,
  nameOf,
  type Device,
  type Host,
  type Interface,
  type Line,
  type Segment,
  type Service,
} from "../plan";
import { openDoor } from "../planners/set-wall";
import {
  answerTo,
  decide,
  endOf,
  INTERNET,
  judge,
  networkOfSegment,
  WALL_RULES,
  type Network,
  type Packet,
  type Party as WallParty,
} from "../policy";
import {
  enteredOn,
  facingAddresses,
  forwardsPackets,
  linesOf,
  prefixesOf,
  routeFrom,
  translatesAt,
  type RouteChoice,
} from "../routing";
import type { ProbeBench } from "./bench";
import { portOff } from "./gap";
import { partyOfLeg, type Party } from "./place";
import { deviceName, resolve, subjectOf, type Sender } from "./resolve";

/** Who starts or answers: an end device with what it knows of its network. */
export interface Station extends Sender {
  /** What it takes for its own subnet. */
  readonly own: readonly Prefix[];
  readonly gateway: Address | null;
  /** The gateway itself, where an advertisement named it. */
  readonly gatewayLeg: Interface | null;
  readonly segment: Segment | null;
}

/** What a router remembers of a packet it let through: as it came and as it left. */
interface Passed {
  readonly device: string;
  readonly came: Packet;
  readonly left: Packet;
}
export type Conversation = Passed[];

/** Where a packet came out. */
export type Arrived =
  | { readonly at: "host"; readonly party: Party; readonly packet: Packet }
  | { readonly at: "device"; readonly device: Device; readonly leg: Interface; readonly packet: Packet }
  | { readonly at: "internet"; readonly device: Device; readonly line: Line; readonly packet: Packet };

const MOST_HOPS = 16;
const PROTOCOL_WORDS = { tcp: "TCP", udp: "UDP", icmp: "echo" } as const;

/** What a question is about in words, for the reason of a wall. */
export interface Topic {
  readonly service: Service | null;
  /** Whether the steps of the way are shown. */ readonly shows: boolean;
  readonly answers: Conversation | null;
}

/** Sends a packet from an end device, or on from a router, until it arrives; null after a stop. */
export function travel(
  bench: ProbeBench,
  from: Station,
  packet: Packet,
  topic: Topic,
  conversation: Conversation,
): Arrived | null {
  const near =
    from.own.some((prefix) => containsAddress(prefix, packet.dst)) ||
    (familyOf(packet.dst) === 6 && isLinkLocal(packet.dst));
  const next = near ? packet.dst : from.gateway;
  if (next === null && from.gatewayLeg === null) {
    noGateway(bench, from);
    return null;
  }
  const known = near || from.gatewayLeg === null ? null : partyOfLeg(bench.index, from.gatewayLeg);
  return hop(bench, from, packet, next ?? packet.dst, known, topic, conversation, 0);
}

/** Sends a packet that a device itself makes: its answer, or what it asks of others. */
export function travelFromDevice(
  bench: ProbeBench,
  device: Device,
  packet: Packet,
  topic: Topic,
  conversation: Conversation,
): Arrived | null {
  const route = routeFrom(bench.index, device, packet.dst);
  if (route === null) {
    noRoute(bench, device, packet.dst);
    return null;
  }
  return leave(
    bench,
    device,
    route,
    { came: packet, packet, answers: false, own: true },
    topic,
    conversation,
    0,
  );
}

function hop(
  bench: ProbeBench,
  from: Sender,
  packet: Packet,
  next: Address,
  known: Party | null,
  topic: Topic,
  conversation: Conversation,
  count: number,
): Arrived | null {
  const found = resolve(bench, from, next, known, topic.shows);
  if (found === null) return null;
  const { party, hearing } = found;
  bench.say({
    what: packetWords(packet, topic.answers !== null),
    from: from.party.mac,
    to: party.mac,
    flood: bench.flood(from.party.place),
    reached: hearing,
    content: { kind: "packet", packet, answers: topic.answers !== null, ttl: 64 - count },
  });
  if (party.leg === null && next === packet.dst) return { at: "host", party, packet };
  const device = party.leg === null ? undefined : bench.index.plan.device.get(party.leg.device);
  if (party.leg === null || device === undefined) {
    notARouter(bench, party.name, packet, subjectOf(party));
    return null;
  }
  return arriveAtDevice(bench, device, party.leg, packet, topic, conversation, count + 1);
}

function arriveAtDevice(
  bench: ProbeBench,
  device: Device,
  leg: Interface,
  came: Packet,
  topic: Topic,
  conversation: Conversation,
  count: number,
): Arrived | null {
  const { index, journey } = bench;
  if (count > MOST_HOPS) {
    journey.stop(
      {
        title: device.name,
        place: "route",
        says: "sends it round and round",
        why: "Each router on the way takes the next one for nearer.",
        tag: undefined,
        subjects: [{ kind: "device", id: device.id }],
        device: device.id,
        ports: [],
      },
      {
        sentence: `The packet goes round: after ${MOST_HOPS} routers it is at ${device.name} again. A route entered by hand leads back.`,
        subjects: [{ kind: "device", id: device.id }],
        repairs: [],
      },
    );
    return null;
  }
  const known = topic.answers?.find((one) => one.device === device.id && isAnswerTo(came, one.left)) ?? null;
  // The answer to something translated is for who asked in truth; what comes to a forwarded port is for a host inside.
  const packet = known !== null ? answerTo(known.came) : forwardedIn(bench, device, leg, came, topic);
  const own = index
    .interfacesOf(device.id)
    .some((one) => facingAddresses(index, one, came.family).includes(packet.dst));
  if (own) {
    if (isGateway(device) && !enters(bench, device, leg, packet, "gateway", topic, known !== null))
      return null;
    if (topic.answers === null) conversation.push({ device: device.id, came, left: packet });
    return { at: "device", device, leg, packet };
  }
  if (!forwardsPackets(device)) {
    notARouter(bench, device.name, packet, [{ kind: "device", id: device.id }]);
    return null;
  }
  const route = routeFrom(index, device, packet.dst);
  if (route === null) {
    noRoute(bench, device, packet.dst);
    return null;
  }
  if (topic.shows) {
    const where =
      route.line !== null ? `out by ${route.line.name}` : `on into ${segmentName(bench, route.leg)}`;
    journey.pass({
      title: device.name,
      place: "route",
      says: `${PROTOCOL_WORDS[packet.protocol]} for ${formatAddress(packet.dst)}: ${where}`,
      why: routeWhy(route),
      tag: undefined,
      subjects: [{ kind: "interface", id: route.leg.id }],
      device: device.id,
      ports: [],
    });
  }
  if (isGateway(device)) {
    const to: WallParty | null =
      route.line !== null ? "internet" : (segmentOf(bench, packet.dst) ?? beyond(bench, device, route.leg));
    if (to !== null && !enters(bench, device, leg, packet, to, topic, known !== null)) return null;
  }
  return leave(
    bench,
    device,
    route,
    { came, packet, answers: known !== null, own: false },
    topic,
    conversation,
    count,
  );
}

const routeWhy = (route: RouteChoice): string =>
  route.how === "connected"
    ? "The address lies in a segment of its own."
    : route.how === "entered"
      ? "A route entered by hand holds it."
      : route.line === null
        ? "Nothing nearer holds it: by its default."
        : "Nothing inside holds it.";

const isAnswerTo = (packet: Packet, sent: Packet): boolean =>
  packet.protocol === sent.protocol &&
  packet.src === sent.dst &&
  packet.dst === sent.src &&
  packet.sport === sent.dport &&
  packet.dport === sent.sport;

/** What comes to a line's outside address at a forwarded port goes on to a host inside; from inside only with hairpin. */
function forwardedIn(
  bench: ProbeBench,
  device: Device,
  leg: Interface,
  packet: Packet,
  topic: Topic,
): Packet {
  const { index, journey } = bench;
  const outside = linesOf(index, device.id).find((one) =>
    facingAddresses(index, one.leg, packet.family).includes(packet.dst),
  );
  const port = packet.dport;
  if (outside === undefined || port === null) return packet;
  const forward = [...index.plan.forward.values()].find(
    (one) =>
      one.line === outside.line.id &&
      one.protocol === packet.protocol &&
      one.ports[0] <= port &&
      port <= one.ports[1] &&
      (leg.line !== null || one.hairpin),
  );
  const host = forward === undefined ? undefined : index.plan.host.get(forward.host);
  const to = host === undefined ? null : hostAddress(bench, host, packet.family);
  if (forward === undefined || host === undefined || to === null) return packet;
  const inside: Packet = { ...packet, dst: to, dport: forward.toPort ?? port };
  if (topic.shows)
    journey.pass({
      title: device.name,
      place: `forward ${forward.name}`,
      says: `port ${port} goes to ${host.name}, ${formatAddress(to)} port ${inside.dport}`,
      why:
        leg.line === null
          ? "It holds for those inside, too."
          : "What comes in on the line at this port is sent on.",
      tag: undefined,
      subjects: [{ kind: "forward", id: forward.id }],
      device: device.id,
      ports: [],
    });
  return inside;
}

/** A packet at a router: as it came, as it is now that forwards and translation of answers are undone, and whose it is. */
interface AtRouter {
  readonly came: Packet;
  readonly packet: Packet;
  readonly answers: boolean;
  readonly own: boolean;
}

/** Sends a packet out of a device's leg. */
function leave(
  bench: ProbeBench,
  device: Device,
  route: RouteChoice,
  { came, packet, answers, own }: AtRouter,
  topic: Topic,
  conversation: Conversation,
  count: number,
): Arrived | null {
  const { index } = bench;
  const outside = facingAddresses(index, route.leg, packet.family)[0];
  const translates = packet.family === 4 && !own && !answers && translatesAt(route.leg);
  const left: Packet = translates && outside !== undefined ? { ...packet, src: outside } : packet;
  if (!own && topic.answers === null) conversation.push({ device: device.id, came, left });
  if (route.line !== null && packet.family === 6 && outside === undefined) {
    noLine6(bench, device, route.line);
    return null;
  }
  if (route.line !== null) return { at: "internet", device, line: route.line, packet: left };
  const party = partyOfLeg(index, route.leg);
  const address = outside ?? packet.src;
  if (party === null) {
    noRoute(bench, device, packet.dst);
    return null;
  }
  const next = route.via ?? left.dst;
  return hop(bench, { party, address, leased: false }, left, next, null, topic, conversation, count);
}

/** The filter of a gateway; false after a stop. */
function enters(
  bench: ProbeBench,
  device: Device,
  leg: Interface,
  packet: Packet,
  to: WallParty,
  topic: Topic,
  answers: boolean,
): boolean {
  const { index, journey } = bench;
  if (answers) {
    if (topic.shows)
      journey.pass({
        title: "Wall",
        place: device.name,
        says: "the answer passes",
        why: "What was let through may be answered.",
        tag: undefined,
        subjects: [],
        device: device.id,
        ports: [],
      });
    return true;
  }
  const from = fromParty(bench, device, leg, packet);
  if (from === null) {
    const name = segmentName(bench, leg);
    journey.stop(
      {
        title: device.name,
        place: `${formatAddress(packet.src)} at ${name}`,
        says: "does not believe the sender",
        why: "Answers to that address would leave by another leg (RFC 3704).",
        tag: undefined,
        subjects: [{ kind: "interface", id: leg.id }],
        device: device.id,
        ports: [],
      },
      {
        sentence: `${device.name} drops the packet: ${formatAddress(packet.src)} does not belong in ${name}, where it comes in.`,
        subjects: [{ kind: "interface", id: leg.id }],
        repairs: [],
      },
    );
    return false;
  }
  const rules = index.derived(WALL_RULES);
  const network = (party: WallParty): Network | "router" =>
    party === "internet" ? INTERNET : party === "gateway" ? "router" : networkOfSegment(party);
  const same = typeof from !== "string" && typeof to !== "string" && from.id === to.id;
  const { action, by } = same
    ? { action: "accept" as const, by: "default" as const }
    : judge(rules, network(from), network(to), packet);
  const named = (party: WallParty) =>
    party === "internet" ? "the internet" : party === "gateway" ? "the gateway" : party.name;
  const rule = typeof by === "number" ? rules.rules[by] : undefined;
  const subjects = [
    ...(rule?.wall === null || rule === undefined ? [] : [{ kind: "wall" as const, id: rule.wall.id }]),
  ];
  const service = topic.service ?? {
    name: PROTOCOL_WORDS[packet.protocol],
    protocol: packet.protocol,
    ports: packet.dport === null ? [] : [[packet.dport, packet.dport] as [number, number]],
  };
  const reason =
    rule !== undefined && rule.wall === null
      ? `${rule.why[0]?.toUpperCase() ?? ""}${rule.why.slice(1)}.`
      : decide(index, from, to, service).reason;
  if (action === "accept") {
    if (topic.shows)
      journey.pass({
        title: "Wall",
        place: `${named(from)} to ${named(to)}`,
        says: "lets it through",
        why: reason,
        tag: undefined,
        subjects,
        device: null,
        ports: [],
      });
    return true;
  }
  const known = decide(index, from, to, service);
  const wallSubjects =
    known.wall === null
      ? typeof to === "string" || typeof from === "string"
        ? []
        : [{ kind: "zone" as const, id: to.zone }]
      : [{ kind: "wall" as const, id: known.wall.id }];
  journey.stop(
    {
      title: "Wall",
      place: `${named(from)} to ${named(to)}`,
      says: "closed",
      why: reason,
      tag: undefined,
      subjects: wallSubjects,
      device: null,
      ports: [],
    },
    wallCause(bench, device, from, to, topic, service, reason),
  );
  return false;
}

function wallCause(
  bench: ProbeBench,
  device: Device,
  from: WallParty,
  to: WallParty,
  topic: Topic,
  service: Service,
  reason: string,
) {
  const known = decide(bench.index, from, to, service);
  const zones = [from, to].flatMap((party) =>
    typeof party === "string" ? [] : [{ kind: "zone" as const, id: party.zone }],
  );
  const subjects = known.wall === null ? zones : [{ kind: "wall" as const, id: known.wall.id }];
  if (topic.answers !== null)
    return {
      sentence: `The answer comes back through ${device.name}, which did not see the question and takes it for a new one: ${reason}`,
      subjects: [...subjects, { kind: "device" as const, id: device.id }],
      repairs: [],
    };
  const open: Repair[] =
    typeof from === "string"
      ? []
      : [
          {
            label: `Open ${service.name} from ${from.name} to ${to === "internet" ? "the internet" : to === "gateway" ? "the gateway" : to.name}`,
            planner: "open-door",
            args: { service: service.name },
            edit: (draft) => {
              if (typeof to !== "string" && to.zone === from.zone)
                draft.patch("zone", from.zone, { insideOpen: true });
              else
                openDoor(draft, bench.ids, endOf(from), endOf(to), {
                  ...service,
                  name: service.name.toLowerCase(),
                });
            },
          },
        ];
  return { sentence: `${reason} If that is what you want, the wall does its job.`, subjects, repairs: open };
}

/** "TCP to 10.24.60.10 port 443", and its answer: what stands beside a frame. */
function packetWords({ protocol, src, dst, sport, dport }: Packet, answers: boolean): string {
  const at = (address: Address, port: number | null) =>
    `${formatAddress(address)}${port === null ? "" : ` port ${port}`}`;
  return answers
    ? `${PROTOCOL_WORDS[protocol]}, the answer from ${at(src, sport)}`
    : `${PROTOCOL_WORDS[protocol]} to ${at(dst, dport)}`;
}

/** Whose traffic this is: the segment that holds the sender's address, if answers to it leave by the leg it came in at; null when they do not. */
function fromParty(bench: ProbeBench, device: Device, leg: Interface, packet: Packet): WallParty | null {
  const back = routeFrom(bench.index, device, packet.src);
  if (leg.line !== null) return back?.line !== null && back !== null ? "internet" : null;
  if (back?.leg.id !== leg.id) return null;
  return segmentOf(bench, packet.src) ?? beyond(bench, device, leg);
}

/** Whose an address is that no segment has: on a router with a line what lies behind that leg, on one without everything that is not of the plan. */
const beyond = (bench: ProbeBench, device: Device, leg: Interface): WallParty | null =>
  linesOf(bench.index, device.id).length === 0 ? "internet" : segmentOfLeg(bench, leg);

function segmentOf(bench: ProbeBench, address: Address): Segment | null {
  const family = familyOf(address);
  return (
    [...bench.index.plan.segment.values()].find((segment) =>
      prefixesOf(segment, family).some((prefix) => containsAddress(prefix, address)),
    ) ?? null
  );
}

const segmentOfLeg = (bench: ProbeBench, leg: Interface): Segment | null =>
  leg.segment === null ? null : (bench.index.plan.segment.get(leg.segment) ?? null);
const segmentName = (bench: ProbeBench, leg: Interface): string =>
  segmentOfLeg(bench, leg)?.name ?? (leg.line === null ? leg.name : nameOf(bench.index, "line", leg.line));

function noGateway(bench: ProbeBench, { party, segment }: Station): void {
  const name = segment?.name ?? "its segment";
  const subjects = segment === null ? subjectOf(party) : [{ kind: "segment" as const, id: segment.id }];
  bench.journey.stop(
    {
      title: name,
      place: "gateway",
      says: "has no gateway to send to",
      why: "",
      tag: undefined,
      subjects,
      device: null,
      ports: [],
    },
    {
      sentence: `${segment === null ? party.name : name} has no gateway, so nothing leaves the segment.`,
      subjects,
      repairs: segment === null ? [] : gatewayRepairs(bench, segment),
    },
  );
}

/** Names a leg in the segment as its gateway: one of a device that routes. */
function gatewayRepairs(bench: ProbeBench, segment: Segment): Repair[] {
  return bench.index
    .interfacesIn(segment.id)
    .filter((leg) => {
      const device = bench.index.plan.device.get(leg.device);
      return (
        device !== undefined && forwardsPackets(device) && leg.addresses4.length + leg.addresses6.length > 0
      );
    })
    .map((leg) => ({
      label: `Let ${deviceName(bench, leg.device)} be the gateway of ${segment.name}`,
      planner: "set-gateway",
      args: { segment: segment.id, leg: leg.id },
      edit: (draft) => draft.patch("segment", segment.id, { gatewayInterface: leg.id }),
    }));
}

function noRoute(bench: ProbeBench, device: Device, to: Address): void {
  if (isGateway(device) && segmentOf(bench, to) === null) return noLine(bench, device);
  const subjects = [{ kind: "device" as const, id: device.id }];
  const own: Repair[] =
    device.defaultRoute === "none"
      ? [
          {
            label: `Give ${device.name} the gateway of its management segment`,
            planner: "set-default-route",
            args: { device: device.id },
            edit: (draft) => draft.patch("device", device.id, { defaultRoute: "asSegment" }),
          },
        ]
      : [];
  bench.journey.stop(
    {
      title: device.name,
      place: "route",
      says: `has no way to ${formatAddress(to)}`,
      why:
        device.defaultRoute === "none"
          ? "It has no default gateway."
          : "No segment, route or line of it leads there.",
      tag: undefined,
      subjects,
      device: device.id,
      ports: [],
    },
    {
      sentence:
        device.defaultRoute === "none"
          ? `${device.name} has no default gateway: it hears what comes from other segments and cannot answer.`
          : `${device.name} has no route to ${formatAddress(to)}.`,
      subjects,
      repairs: own,
    },
  );
}

function noLine6({ journey }: ProbeBench, device: Device, line: Line): void {
  const subjects = [{ kind: "line" as const, id: line.id }];
  journey.stop(
    {
      title: line.name,
      place: "line",
      says: "has no IPv6",
      why: "",
      tag: undefined,
      subjects,
      device: device.id,
      ports: [],
    },
    {
      sentence: `${device.name} has no IPv6 address on ${line.name}, so nothing leaves by IPv6.`,
      subjects,
      repairs: [],
    },
  );
}

/** A gateway without a working line: its port is off, or there is none. */
function noLine(bench: ProbeBench, device: Device): void {
  const { index, journey } = bench;
  const off = index
    .interfacesOf(device.id)
    .flatMap((leg) => (leg.line === null ? [] : (index.plan.port.get(leg.port ?? "") ?? [])))
    .find((port) => !port.enabled);
  const subjects = [{ kind: "device" as const, id: device.id }];
  journey.stop(
    {
      title: device.name,
      place: "line",
      says: "has no internet line that works",
      why: "",
      tag: undefined,
      subjects,
      device: device.id,
      ports: off === undefined ? [] : [off.id],
    },
    off === undefined
      ? {
          sentence: `${device.name} has no leg on an internet line. Add the line and its interface on Hardware.`,
          subjects,
          repairs: [],
        }
      : portOff(index, off),
  );
}

function notARouter(
  bench: ProbeBench,
  name: string,
  packet: Packet,
  subjects: ReturnType<typeof subjectOf>,
): void {
  bench.journey.stop(
    {
      title: name,
      place: "route",
      says: "does not send it on",
      why: "It is no router.",
      tag: undefined,
      subjects,
      device: null,
      ports: [],
    },
    {
      sentence: `${name} gets a packet for ${formatAddress(packet.dst)} and does not send it on: it is no router.`,
      subjects,
      repairs: [],
    },
  );
}

/** An end device as it stands in the register, with what it knows of its network. */
export function stationOf(bench: ProbeBench, party: Party, address: Address): Station {
  const guest = bench.guest(address);
  if (guest !== undefined) return { ...guest, address };
  const family = familyOf(address);
  const lease =
    party.host === null || party.host.manner === "typed" || family === 6 ? null : bench.leaseOf(party.host);
  if (lease !== null && lease.address === address) {
    return {
      party,
      address,
      leased: true,
      own: lease.own,
      gateway: lease.gateway,
      gatewayLeg: lease.gatewayLeg,
      segment: lease.segment === null ? null : (bench.index.plan.segment.get(lease.segment) ?? null),
    };
  }
  const segment =
    party.host?.segment === null || party.host === null
      ? null
      : (bench.index.plan.segment.get(party.host.segment) ?? null);
  const { own, gateway, gatewayLeg } = enteredOn(bench.index, party.host, segment, address);
  return {
    party,
    address,
    leased: party.host !== null && party.host.manner !== "typed",
    own,
    gateway,
    gatewayLeg,
    segment,
  };
}

/** The address a host has: entered on it, or the one that it really gets; null while it has none. */
export function hostAddress(bench: ProbeBench, host: Host, family: Family): Address | null {
  if (family === 6) return host.ipv6;
  return host.manner === "typed" ? host.ipv4 : (bench.leaseOf(host)?.address ?? null);
}

/** A packet that comes in at a device by one of its legs: from a line, or from the wire. */
export function comeIn(
  bench: ProbeBench,
  device: Device,
  leg: Interface,
  packet: Packet,
  topic: Topic,
  conversation: Conversation,
): Arrived | null {
  return arriveAtDevice(bench, device, leg, packet, topic, conversation, 1);
}
