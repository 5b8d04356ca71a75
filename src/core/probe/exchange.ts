import { familyOf, formatAddress, type Address, type Family } from "../address";
import type { Device, Host, Service } from "../plan";
import { answerTo, type Packet } from "../policy";
import { OUTSIDE } from "../routing";
import type { ProbeRun } from "./run";
import { passesBefore, stopLimited } from "./limited";
import type { Cause } from "./step";
import { stationOf, type Station } from "./station";
import { comeIn, travel, travelFromDevice } from "./travel";
import { tripBack, tripOf, type Delivery, type Trip } from "./trip";

/** The port that what is plugged in asks from. */
const EPHEMERAL = 49_200;

/**
 * A packet for each end of each range of a service: all of them have to get through. Without a service an
 * echo.
 */
function packetsFor(family: Family, src: Address, dst: Address, service: Service | null): Packet[] {
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
  run: ProbeRun,
  station: Station,
  {
    to,
    service,
    target,
  }: { readonly to: Address; readonly service: Service | null; readonly target: Host | null },
): void {
  const family = familyOf(to);
  for (const [i, packet] of packetsFor(family, station.address, to, service).entries()) {
    const shows = i === 0;
    if (station.limited !== undefined && !passesBefore(station.limited.only, packet))
      return stopLimited(run, station.limited, service?.name ?? "an echo");
    const trip = tripOf(run, service, shows);
    const arrived = travel(trip, station, packet);
    if (arrived === null) return;
    if (arrived.at === "internet" && target !== null && to !== OUTSIDE[family])
      return leavesByLine(run, arrived, target);
    run.journey.delivered = true;
    run.journey.takenBy = arrived.at === "device" ? arrived.device.id : null;
    if (shows) tellArrival(run, arrived, target);
    if (!comesBack(trip, station, packet, arrived)) return;
  }
}

function tellArrival(run: ProbeRun, arrived: Delivery, target: Host | null): void {
  const { journey } = run;
  switch (arrived.at) {
    case "internet":
      return journey.pass({
        title: arrived.line.name,
        place: "line",
        says: "out to the internet",
        why: outWhy(arrived),
        subjects: [{ kind: "line", id: arrived.line.id }],
        device: arrived.device.id,
      });
    case "tunnel":
      return journey.pass({
        title: arrived.device.name,
        place: arrived.leg.name,
        says: "sends it into the tunnel to its far end",
        subjects: [{ kind: "interface", id: arrived.leg.id }],
        device: arrived.device.id,
      });
    case "device":
      return journey.pass({
        title: arrived.device.name,
        place: formatAddress(arrived.packet.dst),
        says: "answers",
        why: "The address is its own.",
        subjects: [{ kind: "interface", id: arrived.leg.id }],
        device: arrived.device.id,
      });
    case "host": {
      const host = arrived.party.host ?? target;
      return journey.pass({
        title: arrived.party.name,
        place: host?.place || formatAddress(arrived.packet.dst),
        says: "hears it",
        tag: arrived.party.place.at === "cable" ? arrived.party.place.tag : null,
        subjects: host === null ? [] : [{ kind: "host", id: host.id }],
      });
    }
  }
}

/** What is meant for a host inside went out by the line: no router on the way knows its segment. */
function leavesByLine(
  { index, journey }: ProbeRun,
  { device, line, packet }: Extract<Delivery, { at: "internet" }>,
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
      subjects,
      device: device.id,
    },
    {
      sentence:
        `${device.name} knows no way to ${segment?.name ?? target.name} and sends what is ` +
        `for ${formatAddress(packet.dst)} out by ${line.name}, where nobody has that address.`,
      subjects,
      repairs: [],
    },
  );
}

function outWhy({ line, device, packet }: Extract<Delivery, { at: "internet" }>): string {
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

/** Whether who was asked has not signed in, and its answer does not pass until then; that is a stop. */
function answerIsLimited(run: ProbeRun, sent: Packet, arrived: Delivery): boolean {
  const host = arrived.at === "host" ? arrived.party.host : null;
  const limited = host === null ? null : run.limitOf(host);
  if (limited === null || passesBefore(limited.only, { ...sent, dport: sent.sport })) return false;
  stopLimited(run, limited, "its answer");
  return true;
}

/** The answer's way home, and that it is taken for one. False after a stop. */
function comesBack(trip: Trip, station: Station, sent: Packet, arrived: Delivery): boolean {
  if (answerIsLimited(trip.run, sent, arrived)) return false;
  const back = answerFrom(tripBack(trip), arrived);
  const { journey } = trip.run;
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
      },
      {
        sentence:
          `The answer comes straight from ${formatAddress(back.packet.src)} ` +
          `and not from ${formatAddress(sent.dst)}, which was asked: both ` +
          "are in one segment, so the router does not see it.",
        subjects: [],
        repairs: [],
      },
    );
    return false;
  }
  if (trip.shows)
    journey.pass({
      title: station.party.name,
      place: "way back",
      says: "the answer returns",
      why: "What was let through may be answered.",
    });
  return true;
}

/** Sends the answer of whoever a packet came to; null after a stop. */
export function answerFrom(trip: Trip, arrived: Delivery): { readonly packet: Packet } | null {
  const answer = answerTo(arrived.packet);
  switch (arrived.at) {
    case "internet":
      return returnByLine(trip, arrived, answer);
    case "tunnel":
      return comeIn(trip, arrived, answer);
    case "device":
      return travelFromDevice(trip, arrived.device, answer);
    case "host":
      return travel(trip, stationOf(trip.run, arrived.party, answer.src), answer);
  }
}

/**
 * A question that a device asks by itself (a relay, a switch that has to know whether to let someone in), and
 * its answer, unseen.
 */
export function askAndHear(
  run: ProbeRun,
  device: Device,
  packet: Packet,
  service: Service | null,
): { readonly arrived: boolean; readonly cause: Cause | null } {
  const trip = tripOf(run.aside(), service, false);
  const { journey } = trip.run;
  const arrived = travelFromDevice(trip, device, packet);
  if (arrived === null) return { arrived: false, cause: journey.cause };
  const back = answerFrom(tripBack(trip), arrived);
  return { arrived: true, cause: back === null ? journey.cause : null };
}

function returnByLine(
  trip: Trip,
  { device, line }: Extract<Delivery, { at: "internet" }>,
  answer: Packet,
): { packet: Packet } | null {
  const leg = trip.run.index.interfacesOf(device.id).find((leg) => leg.line === line.id);
  return leg === undefined ? null : comeIn(trip, { device, leg }, answer);
}
