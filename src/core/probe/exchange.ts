import { familyOf, formatAddress, type Address, type Family } from "../address";
import type { Device, Host, Service } from "../plan";
import { answerTo, type Packet } from "../policy";
import { OUTSIDE } from "../routing";
import type { ProbeBench } from "./bench";
import type { Cause } from "./step";
import {
  comeIn,
  stationOf,
  travel,
  travelFromDevice,
  type Arrived,
  type Conversation,
  type Station,
  type Topic,
} from "./travel";

/** The port that what is plugged in asks from. */
const EPHEMERAL = 49_200;

/** A packet for each end of each range of a service: all of them have to get through. Without a service an echo. */
export function packetsFor(family: Family, src: Address, dst: Address, service: Service | null): Packet[] {
  const of = (protocol: Packet["protocol"], dport: number | null): Packet => ({
    family,
    protocol,
    src,
    dst,
    sport: dport === null ? null : EPHEMERAL,
    dport,
  });
  if (service === null || service.protocol === "icmp") return [of("icmp", null)];
  if (service.ports.length === 0) return [of(service.protocol, 1)];
  return service.ports.flatMap(([low, high]) =>
    (low === high ? [low] : [low, high]).map((port) => of(service.protocol, port)),
  );
}

/** All packets of a service there and back; the first shows its way, the others only when they fail. */
export function exchangeWith(
  bench: ProbeBench,
  station: Station,
  to: Address,
  service: Service | null,
  target: Host | null,
): void {
  const family = familyOf(to);
  for (const [i, packet] of packetsFor(family, station.address, to, service).entries()) {
    const shows = i === 0;
    const conversation: Conversation = [];
    const topic: Topic = { service, shows, answers: null };
    const arrived = travel(bench, station, packet, topic, conversation);
    if (arrived === null) return;
    if (arrived.at === "internet" && target !== null && to !== OUTSIDE[family])
      return leavesByLine(bench, arrived, target);
    bench.journey.delivered = true;
    if (shows) tellArrival(bench, arrived, target);
    if (!comesBack(bench, station, packet, arrived, { ...topic, answers: conversation })) return;
  }
}

function tellArrival(bench: ProbeBench, arrived: Arrived, target: Host | null): void {
  const { journey } = bench;
  switch (arrived.at) {
    case "internet":
      return journey.pass({
        title: arrived.line.name,
        place: "line",
        says: "out to the internet",
        why: outWhy(arrived),
        tag: undefined,
        subjects: [{ kind: "line", id: arrived.line.id }],
        device: arrived.device.id,
        ports: [],
      });
    case "device":
      return journey.pass({
        title: arrived.device.name,
        place: formatAddress(arrived.packet.dst),
        says: "answers",
        why: "The address is its own.",
        tag: undefined,
        subjects: [{ kind: "interface", id: arrived.leg.id }],
        device: arrived.device.id,
        ports: [],
      });
    case "host": {
      const host = arrived.party.host ?? target;
      return journey.pass({
        title: arrived.party.name,
        place: host?.place || formatAddress(arrived.packet.dst),
        says: "hears it",
        why: "",
        tag: arrived.party.place.at === "cable" ? arrived.party.place.tag : null,
        subjects: host === null ? [] : [{ kind: "host", id: host.id }],
        device: null,
        ports: [],
      });
    }
  }
}

/** What is meant for a host inside went out by the line: no router on the way knows its segment. */
function leavesByLine(
  { index, journey }: ProbeBench,
  { device, line, packet }: Extract<Arrived, { at: "internet" }>,
  target: Host,
): void {
  const segment = target.segment === null ? undefined : index.plan.segment.get(target.segment);
  const subjects =
    segment === undefined
      ? [{ kind: "host" as const, id: target.id }]
      : [
          { kind: "segment" as const, id: segment.id },
          { kind: "host" as const, id: target.id },
        ];
  journey.stop(
    {
      title: device.name,
      place: "route",
      says: `sends it out by ${line.name}`,
      why: "It knows no way to that subnet inside.",
      tag: undefined,
      subjects,
      device: device.id,
      ports: [],
    },
    {
      sentence: `${device.name} knows no way to ${segment?.name ?? target.name} and sends what is for ${formatAddress(packet.dst)} out by ${line.name}, where nobody has that address.`,
      subjects,
      repairs: [],
    },
  );
}

function outWhy({ line, device, packet }: Extract<Arrived, { at: "internet" }>): string {
  const translated =
    packet.family === 4
      ? `${device.name} puts its own outside address in place of the inside one (NAT).`
      : "With IPv6 nothing is translated.";
  const box =
    line.providerBox === "routes" || line.providerBox === "cannotBridge"
      ? " The provider's box translates once more (double NAT)."
      : "";
  const carrier =
    line.carrierNat === "yes"
      ? " It is behind the provider's carrier-grade NAT: answers come back, but nobody can start from outside."
      : "";
  return `${translated}${box}${carrier}`;
}

/** The answer's way home, and that it is taken for one. False after a stop. */
function comesBack(
  bench: ProbeBench,
  station: Station,
  sent: Packet,
  arrived: Arrived,
  topic: Topic,
): boolean {
  const answer = answerTo(arrived.packet);
  const back = answerFrom(bench, arrived, answer, { ...topic, shows: false });
  const { journey } = bench;
  if (back === null) {
    const { cause } = journey;
    const last = journey.steps.pop();
    if (cause !== null && last !== undefined)
      journey.stop(
        { ...last, place: `way back: ${last.place}` },
        { ...cause, sentence: `The question arrives, but its answer does not come back: ${cause.sentence}` },
      );
    return false;
  }
  if (back.packet.src !== sent.dst) {
    journey.stop(
      {
        title: station.party.name,
        place: "way back",
        says: "does not take the answer for one",
        why: `It asked ${formatAddress(sent.dst)}, and ${formatAddress(back.packet.src)} answers.`,
        tag: undefined,
        subjects: [],
        device: null,
        ports: [],
      },
      {
        sentence: `The answer comes straight from ${formatAddress(back.packet.src)} and not from ${formatAddress(sent.dst)}, which was asked: both are in one segment, so the router does not see it.`,
        subjects: [],
        repairs: [],
      },
    );
    return false;
  }
  if (topic.shows)
    journey.pass({
      title: station.party.name,
      place: "way back",
      says: "the answer returns",
      why: "What was let through may be answered.",
      tag: undefined,
      subjects: [],
      device: null,
      ports: [],
    });
  return true;
}

function answerFrom(
  bench: ProbeBench,
  arrived: Arrived,
  answer: Packet,
  topic: Topic,
): { packet: Packet } | null {
  switch (arrived.at) {
    case "internet":
      return returnByLine(bench, arrived, answer, topic);
    case "device":
      return travelFromDevice(bench, arrived.device, answer, topic, []);
    case "host":
      return travel(bench, stationOf(bench, arrived.party, answer.src), answer, topic, []);
  }
}

/** A question that a device asks by itself (a relay, a switch that has to know whether to let someone in), and its answer, unseen. */
export function askAndHear(
  bench: ProbeBench,
  device: Device,
  packet: Packet,
  service: Service | null,
): { readonly arrived: boolean; readonly cause: Cause | null } {
  const aside = bench.aside();
  const conversation: Conversation = [];
  const arrived = travelFromDevice(
    aside,
    device,
    packet,
    { service, shows: false, answers: null },
    conversation,
  );
  if (arrived === null) return { arrived: false, cause: aside.journey.cause };
  const back = answerFrom(aside, arrived, answerTo(arrived.packet), {
    service,
    shows: false,
    answers: conversation,
  });
  return { arrived: true, cause: back === null ? aside.journey.cause : null };
}

function returnByLine(
  bench: ProbeBench,
  { device, line }: Extract<Arrived, { at: "internet" }>,
  answer: Packet,
  topic: Topic,
): { packet: Packet } | null {
  const leg = bench.index.interfacesOf(device.id).find((one) => one.line === line.id);
  return leg === undefined ? null : comeIn(bench, device, leg, answer, topic, []);
}
