import { containsAddress, familyOf, formatAddress, formatPrefix, type Address, type Family } from "../address";
import type { Repair } from "../checks/check";
import { hostOutsideSubnet } from "../checks/pools";
import { nameOf, type Device, type Host, type PlanIndex, type ProbeAs, type ProbeGoal, type ProbeQuestion, type Segment, type Service } from "../plan";
import type { Packet } from "../policy";
import { answerTo } from "../policy";
import { addressesOf, prefixesOf } from "../routing";
import { ProbeBench } from "./bench";
import { askForLease, ownLease, typedLease, type Lease } from "./lease";
import { takeAdvertised } from "./advertised";
import { actAsServer, actAsSpoofer, type Attack } from "./attacks";
import { fromOutside } from "./outside";
import type { Message } from "./message";
import { misplaced } from "./misplaced";
import { partyOfHost } from "./place";
import { start, voiceOf, type Started } from "./start";
import type { Cause, Step } from "./step";
import { comeIn, hostAddress, stationOf, travel, travelFromDevice, type Arrived, type Conversation, type Station, type Topic } from "./travel";

export interface Outcome {
  readonly question: ProbeQuestion;
  readonly steps: readonly Step[];
  /** The number of the step at which it stops, counted from 1; null when everything passes. */
  readonly stopsAt: number | null;
  readonly cause: Cause | null;
  readonly lease: Lease | null;
  /** Where an address should have come from when none came. */
  readonly expected: { readonly segment: string; readonly scope: string | null } | null;
  /** The phone in front of a PC, asked for its own address. */
  readonly phone: Outcome | null;
  /** What a false server or a false sender comes to. */
  readonly attack: Attack | null;
  /** What would keep it out when it gets through and should not. */
  readonly guards: readonly Repair[];
  /** What was said on the wires, in order. */
  readonly exchange: readonly Message[];
}

/** A question with nothing unusual: a client that asks for its address. */
export const asClient = (from: ProbeQuestion["from"], goal: ProbeGoal, mac: ProbeQuestion["mac"] = null): ProbeQuestion => ({ from, as: { as: "client" }, mac, family: 4, goal });

/**
 * Plugs something in and follows it: classification, sign-in, every hop with its tag, the server that answers, the address; then the
 * routers, the walls, the far side and the way back. `ids` names what a repair would create.
 */
export function probe(index: PlanIndex, question: ProbeQuestion, ids: () => string): Outcome {
  const bench = new ProbeBench(index, ids);
  return ask(bench, question);
}

function ask(bench: ProbeBench, question: ProbeQuestion): Outcome {
  const { index, journey } = bench;
  const { from, as, goal, family } = question;
  if (from.at === "internet") {
    fromOutside(bench, from.line, goal, family);
    return outcomeOf(bench, question, null, null, null);
  }
  const started = start(bench, from, question.mac, { behindPhone: as.as === "behindPhone", asks: as.as === "client" || as.as === "behindPhone" });
  if (started === null) return outcomeOf(bench, question, null, null, null);
  if (as.as === "falseServer") return outcomeOf(bench, question, started, null, actAsServer(bench, started));
  if (as.as === "spoofer") return outcomeOf(bench, question, started, null, actAsSpoofer(bench, started, as.address));
  const lease = addressFor(bench, started, as, family);
  if (lease !== null) {
    if (started.host === null || family === 6) bench.welcome(lease.address, started.party);
    reach(bench, started, lease, goal);
  }
  // One that is in the wrong VLAN may fail anywhere further on; that it is there comes first.
  const wrong = journey.cause === null ? null : misplaced(bench, started);
  if (wrong !== null) journey.cause = wrong;
  const port = from.at === "port" ? index.plan.port.get(from.port) : undefined;
  const voice = as.as === "behindPhone" && port !== undefined ? voiceOf(port) : null;
  const phone = voice === null || from.at !== "port" ? null : probe(index, asClient({ at: "port", port: from.port, tag: voice as never }, { to: "address" }), bench.ids);
  if (phone?.cause !== null && phone !== null && journey.cause === null) journey.stop({ title: "Phone", place: `tag ${voice ?? ""}`, says: "gets no address", why: phone.cause.sentence, tag: voice, subjects: phone.cause.subjects, device: null, ports: from.at === "port" ? [from.port] : [] }, phone.cause);
  return { ...outcomeOf(bench, question, started, lease, null), phone };
}

function outcomeOf({ index, journey, exchange }: ProbeBench, question: ProbeQuestion, started: Started | null, lease: Lease | null, attack: Attack | null): Outcome {
  const segment = started?.host?.segment ?? started?.segment?.id ?? null;
  return {
    question, steps: journey.steps, stopsAt: journey.cause === null ? null : journey.steps.length, cause: journey.cause, lease,
    expected: segment === null ? null : { segment, scope: index.scopesOf(segment).find((scope) => scope.family === question.family)?.id ?? null },
    phone: null, attack, guards: journey.guards, exchange,
  };
}

/** The address it has: typed in, asked for, or made from what is advertised; null after a stop. */
function addressFor(bench: ProbeBench, started: Started, as: ProbeAs, family: Family): Lease | null {
  const { index, journey } = bench;
  const { host, segment } = started;
  if (as.as === "typed") {
    journey.pass({ title: started.party.name, place: `${formatAddress(as.address)}/${as.length}`, says: "has its address typed in and asks nobody", why: as.gateway === null ? "It has no gateway." : `Its gateway is ${formatAddress(as.gateway)}.`, tag: undefined, subjects: [], device: null, ports: [] });
    return ownLease(index, as.address, as.length, as.gateway);
  }
  const typed = host?.manner === "typed" ? (family === 4 ? host.ipv4 : host.ipv6) : null;
  const home = host?.segment === null || host === null ? segment : (index.plan.segment.get(host.segment) ?? null);
  if (typed !== null && home !== null) {
    journey.pass({ title: host?.name ?? "", place: "typed in", says: "has its address typed in and asks nobody", why: "", tag: undefined, subjects: [{ kind: "host", id: host?.id ?? "" }], device: null, ports: [] });
    const outside = outsideItsSubnet(index, host, home, typed);
    if (outside !== null) {
      journey.stop({ title: host?.name ?? "", place: formatAddress(typed), says: "has an address of another subnet", why: "", tag: undefined, subjects: outside.subjects, device: null, ports: [] }, outside);
      return null;
    }
    return typedLease(index, home, typed);
  }
  return family === 4 ? askForLease(bench, started) : takeAdvertised(bench, started);
}

/** A typed-in address that does not lie in the host's own segment: nobody there takes it for a neighbour. Null when it does. */
function outsideItsSubnet(index: PlanIndex, host: Host | null, segment: Segment, address: Address): Cause | null {
  const prefixes = prefixesOf(segment, familyOf(address));
  if (host === null || prefixes.length === 0 || prefixes.some((prefix) => containsAddress(prefix, address))) return null;
  const [finding] = hostOutsideSubnet.run(index).filter((one) => one.subjects.some((subject) => subject.id === host.id));
  return { sentence: `${formatAddress(address)} is typed into ${host.name} and lies outside ${segment.name} (${prefixes.map(formatPrefix).join(", ")}).`, subjects: [{ kind: "host", id: host.id }], repairs: finding === undefined ? [] : hostOutsideSubnet.repairs(finding, index) };
}

const EPHEMERAL = 49_200;

/** A packet for each end of each range of a service: all of them have to get through. Without a service an echo. */
export function packetsFor(family: Family, src: Address, dst: Address, service: Service | null): Packet[] {
  const of = (protocol: Packet["protocol"], dport: number | null): Packet => ({ family, protocol, src, dst, sport: dport === null ? null : EPHEMERAL, dport });
  if (service === null || service.protocol === "icmp") return [of("icmp", null)];
  if (service.ports.length === 0) return [of(service.protocol, 1)];
  return service.ports.flatMap(([low, high]) => (low === high ? [low] : [low, high]).map((port) => of(service.protocol, port)));
}

/** Sends what is asked for and waits for the answer. */
function reach(bench: ProbeBench, started: Started, lease: Lease, goal: ProbeGoal): void {
  const { index } = bench;
  const { party } = started;
  const segment = lease.segment === null ? null : (index.plan.segment.get(lease.segment) ?? null);
  const station: Station = { party, address: lease.address, leased: lease.leased, own: lease.own, gateway: lease.gateway, gatewayLeg: lease.gatewayLeg, segment };
  const family = familyOf(lease.address);
  switch (goal.to) {
    case "address": if (lease.server === "typed in" && lease.gateway !== null) askGateway(bench, station, lease.gateway); return;
    case "internet": return exchangeWith(bench, station, OUTSIDE[family], goal.service ?? doorTo(bench, station, "internet"), null);
    case "gateway": {
      const address = family === 4 ? lease.gateway : (lease.gatewayLeg === null ? lease.gateway : (addressesOf(lease.gatewayLeg, 6)[0] ?? lease.gateway));
      if (address === null) return exchangeWith(bench, station, OUTSIDE[family], goal.service, null);
      return exchangeWith(bench, station, address, goal.service, null);
    }
    case "device": {
      const device = index.plan.device.get(goal.device);
      const address = device === undefined ? undefined : managementAddress(index, device, family);
      if (device === undefined) return;
      if (address === undefined) return missing(bench, device.name, { kind: "device", id: device.id }, "has no address of its own");
      return exchangeWith(bench, station, address, goal.service, null);
    }
    case "host": {
      const host = index.plan.host.get(goal.host);
      if (host !== undefined) toHost(bench, station, host, goal.service);
      return;
    }
    case "forward": {
      const forward = index.plan.forward.get(goal.forward);
      const leg = forward === undefined ? undefined : [...index.plan.interface.values()].find((one) => one.line === forward.line);
      const address = leg === undefined ? undefined : addressesOf(leg, family)[0];
      if (forward === undefined) return;
      if (address === undefined) return missing(bench, nameOf(index, "line", forward.line), { kind: "line", id: forward.line }, "has no outside address in the plan");
      exchangeWith(bench, station, address, { name: forward.name.toLowerCase().replace(/[^a-z0-9 .-]/g, "-").slice(0, 24), protocol: forward.protocol, ports: [forward.ports] }, index.plan.host.get(forward.host) ?? null);
    }
  }
}

/** Addresses out there that stand for the internet (RFC 5737, RFC 3849). */
const OUTSIDE: Readonly<Record<Family, Address>> = { 4: 0xc6336414 as Address, 6: (0x20010db8n * 2n ** 96n + 0x64n) as Address };

/** The management address of a device: of its leg in a management segment, else its first. */
export function managementAddress(index: PlanIndex, device: Device, family: Family): Address | undefined {
  const legs = [...index.interfacesOf(device.id)].filter((leg) => leg.line === null && addressesOf(leg, family).length > 0);
  const managed = legs.find((leg) => leg.segment !== null && index.plan.segment.get(leg.segment)?.management === true) ?? legs[0];
  return managed === undefined ? undefined : addressesOf(managed, family)[0];
}

/** "Anything at all": the first service a door is open for stands for it, or an echo. */
function doorTo(bench: ProbeBench, { segment }: Station, to: "internet" | string): Service | null {
  const wall = segment === null ? undefined : [...bench.index.plan.wall.values()].find((one) => one.from.at === "zone" && one.from.zone === segment.zone && (to === "internet" ? one.to.at === "internet" : one.to.at === "zone" && one.to.zone === to));
  return wall?.door === "services" ? (wall.services[0] ?? null) : null;
}

function toHost(bench: ProbeBench, station: Station, host: Host, service: Service | null): void {
  const { index } = bench;
  const party = partyOfHost(index, host);
  const segment = host.segment === null ? undefined : index.plan.segment.get(host.segment);
  if (segment === undefined) return missing(bench, host.name, { kind: "host", id: host.id }, "is in no segment, so there is no way to it");
  const address = hostAddress(index, host, familyOf(station.address));
  const outside = address === null ? null : outsideItsSubnet(index, host, segment, address);
  if (outside !== null) {
    bench.journey.stop({ title: host.name, place: segment.name, says: "has an address of another subnet", why: "", tag: undefined, subjects: outside.subjects, device: null, ports: [] }, outside);
    return;
  }
  if (address === null && host.manner !== "typed") return withoutAddress(bench, host, familyOf(station.address));
  if (address === null) return missing(bench, host.name, { kind: "host", id: host.id }, `has no ${familyOf(station.address) === 4 ? "IPv4" : "IPv6"} address that the plan knows`);
  if (party === null) return missing(bench, host.name, { kind: "host", id: host.id }, "is not plugged in anywhere");
  const isolated = station.party.place.at === "inside" && party.place.at === "inside" && station.party.place.ssid !== null && station.party.place.ssid === party.place.ssid ? index.plan.ssid.get(station.party.place.ssid) : undefined;
  if (isolated?.isolation === true) {
    bench.journey.stop({ title: isolated.name, place: "wireless", says: "keeps its stations apart", why: "Isolation is on for this name.", tag: undefined, subjects: [{ kind: "ssid", id: isolated.id }], device: null, ports: [] },
      { sentence: `${isolated.name} keeps its stations apart: ${host.name} is on the same name.`, subjects: [{ kind: "ssid", id: isolated.id }], repairs: [{ label: `Let stations of ${isolated.name} reach one another`, planner: "edit-ssid", args: { ssid: isolated.id }, edit: (draft) => draft.patch("ssid", isolated.id, { isolation: false }) }] });
    return;
  }
  exchangeWith(bench, station, address, service ?? doorTo(bench, station, segment.zone), host);
}

/** The far host waits for an address itself: what keeps it from one is the first cause. */
function withoutAddress(bench: ProbeBench, host: Host, family: Family): void {
  const { cause } = probe(bench.index, { ...asClient({ at: "host", host: host.id }, { to: "address" }), family }, bench.ids);
  bench.journey.stop({ title: host.name, place: "", says: "has no address", why: cause?.sentence ?? "", tag: undefined, subjects: [{ kind: "host", id: host.id }], device: null, ports: [] },
    cause === null ? { sentence: `${host.name} has no address that the plan knows.`, subjects: [{ kind: "host", id: host.id }], repairs: [] } : { ...cause, sentence: `${host.name} has no address: ${cause.sentence}` });
}

function missing(bench: ProbeBench, name: string, subject: Cause["subjects"][number], what: string): void {
  bench.journey.stop({ title: name, place: "", says: what, why: "", tag: undefined, subjects: [subject], device: null, ports: [] }, { sentence: `${name} ${what}.`, subjects: [subject], repairs: [] });
}

/** Only whether the gateway answers: what somebody with a typed-in address tries first. */
function askGateway(bench: ProbeBench, station: Station, gateway: Address): void {
  exchangeWith(bench, station, gateway, null, null);
}

/** All packets of a service there and back; the first shows its way, the others only when they fail. */
function exchangeWith(bench: ProbeBench, station: Station, to: Address, service: Service | null, target: Host | null): void {
  const family = familyOf(to);
  for (const [i, packet] of packetsFor(family, station.address, to, service).entries()) {
    const shows = i === 0;
    const conversation: Conversation = [];
    const topic: Topic = { service, shows, answers: null };
    const arrived = travel(bench, station, packet, topic, conversation);
    if (arrived === null) return;
    if (arrived.at === "internet" && target !== null && to !== OUTSIDE[family]) return leavesByLine(bench, arrived, target);
    if (shows) tellArrival(bench, arrived, target);
    if (!comesBack(bench, station, packet, arrived, { ...topic, answers: conversation })) return;
  }
}

/** What is meant for a host inside went out by the line: no router on the way knows its segment. */
function leavesByLine({ index, journey }: ProbeBench, { device, line, packet }: Extract<Arrived, { at: "internet" }>, target: Host): void {
  const segment = target.segment === null ? undefined : index.plan.segment.get(target.segment);
  const subjects = segment === undefined ? [{ kind: "host" as const, id: target.id }] : [{ kind: "segment" as const, id: segment.id }, { kind: "host" as const, id: target.id }];
  journey.stop({ title: device.name, place: "route", says: `sends it out by ${line.name}`, why: "It knows no way to that subnet inside.", tag: undefined, subjects, device: device.id, ports: [] },
    { sentence: `${device.name} knows no way to ${segment?.name ?? target.name} and sends what is for ${formatAddress(packet.dst)} out by ${line.name}, where nobody has that address.`, subjects, repairs: [] });
}

function tellArrival(bench: ProbeBench, arrived: Arrived, target: Host | null): void {
  const { journey } = bench;
  switch (arrived.at) {
    case "internet": return journey.pass({ title: arrived.line.name, place: "line", says: "out to the internet", why: outWhy(arrived), tag: undefined, subjects: [{ kind: "line", id: arrived.line.id }], device: arrived.device.id, ports: [] });
    case "device": return journey.pass({ title: arrived.device.name, place: formatAddress(arrived.packet.dst), says: "answers", why: "The address is its own.", tag: undefined, subjects: [{ kind: "interface", id: arrived.leg.id }], device: arrived.device.id, ports: [] });
    case "host": {
      const host = arrived.party.host ?? target;
      return journey.pass({ title: arrived.party.name, place: host?.place || formatAddress(arrived.packet.dst), says: "hears it", why: "", tag: arrived.party.place.at === "cable" ? arrived.party.place.tag : null, subjects: host === null ? [] : [{ kind: "host", id: host.id }], device: null, ports: [] });
    }
  }
}

function outWhy({ line, device, packet }: Extract<Arrived, { at: "internet" }>): string {
  const translated = packet.family === 4 ? `${device.name} puts its own outside address in place of the inside one (NAT).` : "With IPv6 nothing is translated.";
  const box = line.providerBox === "routes" || line.providerBox === "cannotBridge" ? " The provider's box translates once more (double NAT)." : "";
  const carrier = line.carrierNat === "yes" ? " It is behind the provider's carrier-grade NAT: answers come back, but nobody can start from outside." : "";
  return `${translated}${box}${carrier}`;
}

/** The answer's way home, and that it is taken for one. False after a stop. */
function comesBack(bench: ProbeBench, station: Station, sent: Packet, arrived: Arrived, topic: Topic): boolean {
  const answer = answerTo(arrived.packet);
  const back = answerFrom(bench, arrived, answer, { ...topic, shows: false });
  const { journey } = bench;
  if (back === null) {
    const { cause } = journey;
    const last = journey.steps.pop();
    if (cause !== null && last !== undefined) journey.stop({ ...last, place: `way back: ${last.place}` }, { ...cause, sentence: `The question arrives, but its answer does not come back: ${cause.sentence}` });
    return false;
  }
  if (back.packet.src !== sent.dst) {
    journey.stop({ title: station.party.name, place: "way back", says: "does not take the answer for one", why: `It asked ${formatAddress(sent.dst)}, and ${formatAddress(back.packet.src)} answers.`, tag: undefined, subjects: [], device: null, ports: [] },
      { sentence: `The answer comes straight from ${formatAddress(back.packet.src)} and not from ${formatAddress(sent.dst)}, which was asked: both are in one segment, so the router does not see it.`, subjects: [], repairs: [] });
    return false;
  }
  if (topic.shows) journey.pass({ title: station.party.name, place: "way back", says: "the answer returns", why: "What was let through may be answered.", tag: undefined, subjects: [], device: null, ports: [] });
  return true;
}

function answerFrom(bench: ProbeBench, arrived: Arrived, answer: Packet, topic: Topic): { packet: Packet } | null {
  switch (arrived.at) {
    case "internet": return returnByLine(bench, arrived, answer, topic);
    case "device": return travelFromDevice(bench, arrived.device, answer, topic, []);
    case "host": return travel(bench, stationOf(bench, arrived.party, answer.src), answer, topic, []);
  }
}

function returnByLine(bench: ProbeBench, { device, line }: Extract<Arrived, { at: "internet" }>, answer: Packet, topic: Topic): { packet: Packet } | null {
  const leg = bench.index.interfacesOf(device.id).find((one) => one.line === line.id);
  return leg === undefined ? null : comeIn(bench, device, leg, answer, topic, []);
}

