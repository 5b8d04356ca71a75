import { familyOf, madeMac, type Address, type Family } from "../address";
import {
  nameOf,
  type Device,
  type Host,
  type PlanIndex,
  type ProbeGoal,
  type Service,
  type Ssid,
} from "../plan";
import { wallBetween } from "../policy";
import { addressesOf, facingAddresses, OUTSIDE } from "../routing";
import { addressFor, guestOf, outsideItsSubnet } from "./address-for";
import type { ProbeRun } from "./run";
import { exchangeWith } from "./exchange";
import type { Lease } from "./lease";
import { start, type Started } from "./start";
import type { Cause } from "./step";
import { hostAddress, type Station } from "./station";
import type { Place } from "../places";

function toGateway(run: ProbeRun, station: Station, lease: Lease, service: Service | null): void {
  const family = familyOf(lease.address);
  const { gateway, gatewayLeg } = lease;
  const ownSix = family === 4 || gatewayLeg === null ? undefined : addressesOf(gatewayLeg, 6)[0];
  exchangeWith(run, station, { to: ownSix ?? gateway ?? OUTSIDE[family], service, target: null });
}

function toDevice(run: ProbeRun, station: Station, id: string, service: Service | null): void {
  const { index } = run;
  const device = index.plan.device.get(id);
  if (device === undefined) return;
  const address = managementAddress(index, device, familyOf(station.address));
  if (address === undefined) missing(run, device.name, { kind: "device", id }, "has no address of its own");
  else exchangeWith(run, station, { to: address, service: service ?? PAGE, target: null });
}

/** A port forward is asked by the outside address of its line. */
function toForward(run: ProbeRun, station: Station, id: string): void {
  const { index } = run;
  const forward = index.plan.forward.get(id);
  if (forward === undefined) return;
  const leg = [...index.plan.interface.values()].find(({ line }) => line === forward.line);
  const [address] = leg === undefined ? [] : facingAddresses(index, leg, familyOf(station.address));
  if (address === undefined)
    return missing(
      run,
      nameOf(index, "line", forward.line),
      { kind: "line", id: forward.line },
      "has no outside address in the plan",
    );
  const name = forward.name
    .toLowerCase()
    .replace(/[^a-z0-9 .-]/g, "-")
    .slice(0, 24);
  const service = { name, protocol: forward.protocol, ports: [forward.ports] };
  exchangeWith(run, station, { to: address, service, target: index.plan.host.get(forward.host) ?? null });
}

/** What is plugged in, as one that asks others. */
function stationWith({ index }: ProbeRun, { party, signIn }: Started, lease: Lease): Station {
  const segment = lease.segment === null ? null : (index.plan.segment.get(lease.segment) ?? null);
  return {
    party,
    address: lease.address,
    leased: lease.leased,
    own: lease.own,
    gateway: lease.gateway,
    gatewayLeg: lease.gatewayLeg,
    segment,
    ...(signIn?.state === "limited" ? { limited: signIn } : {}),
  };
}

/** Opens a page at an address. */
export function openPage(run: ProbeRun, started: Started, lease: Lease, to: Address): void {
  exchangeWith(run, stationWith(run, started, lease), { to, service: PAGE, target: null });
}

/** Sends what is asked for and waits for the answer. */
export function reachGoal(run: ProbeRun, started: Started, lease: Lease, goal: ProbeGoal): void {
  const { index } = run;
  const station = stationWith(run, started, lease);
  const family = familyOf(lease.address);
  switch (goal.to) {
    case "address":
      if (lease.server === "static" && lease.gateway !== null) askGateway(run, station, lease.gateway);
      return;
    case "internet":
      return exchangeWith(run, station, {
        to: OUTSIDE[family],
        service: goal.service ?? anything(run, station, "internet"),
        target: null,
      });
    case "gateway":
      return toGateway(run, station, lease, goal.service);
    case "device":
      return toDevice(run, station, goal.device, goal.service);
    case "host": {
      const host = index.plan.host.get(goal.host);
      if (host !== undefined) toHost(run, station, host, goal.service);
      return;
    }
    case "port":
      return toLaptop(run, station, goal.port, goal.service);
    case "forward":
      return toForward(run, station, goal.forward);
  }
}

/** The management address of a device: of its leg in a management segment, else its first. */
export function managementAddress(index: PlanIndex, device: Device, family: Family): Address | undefined {
  const legs = [...index.interfacesOf(device.id)].filter(
    (leg) => leg.line === null && addressesOf(leg, family).length > 0,
  );
  const managed =
    legs.find((leg) => leg.segment !== null && index.plan.segment.get(leg.segment)?.management === true) ??
    legs[0];
  return managed === undefined ? undefined : addressesOf(managed, family)[0];
}

const PAGE: Service = { name: "https", protocol: "tcp", ports: [[443, 443]] };
const holds = ({ protocol, ports }: Service, port: number): boolean =>
  protocol === "tcp" && (ports.length === 0 || ports.some(([low, high]) => low <= port && port <= high));
/** Names, time and echoes help with everything and are nothing by themselves. */
const isUse = ({ protocol, ports }: Service): boolean =>
  protocol !== "icmp" && !ports.every(([low, high]) => low === high && (low === 53 || low === 123));

/**
 * "Anything" as a person means it: a page opens; or, where the wall has doors and none for pages, what the
 * first of them is for.
 */
function anything(run: ProbeRun, { segment }: Station, to: "internet" | string): Service {
  const wall =
    segment === null
      ? null
      : wallBetween(
          run.index,
          { at: "zone", zone: segment.zone },
          to === "internet" ? { at: to } : { at: "zone", zone: to },
        );
  if (wall?.door !== "services" || wall.services.some((service) => holds(service, 443))) return PAGE;
  return wall.services.find(isUse) ?? PAGE;
}

/** The wireless name that two places are both on and that keeps its stations apart; null without one. */
function isolatedOn(index: PlanIndex, a: Place, b: Place): Ssid | null {
  if (a.at !== "inside" || b.at !== "inside" || a.ssid === null || a.ssid !== b.ssid) return null;
  const ssid = index.plan.ssid.get(a.ssid);
  return ssid?.isolation === true ? ssid : null;
}

function keptApart({ journey }: ProbeRun, ssid: Ssid, host: Host): void {
  const subjects = [{ kind: "ssid" as const, id: ssid.id }];
  journey.stop(
    {
      title: ssid.name,
      place: "wireless",
      says: "keeps its stations apart",
      why: "Isolation is on for this name.",
      subjects,
    },
    {
      sentence: `${ssid.name} keeps its stations apart: ${host.name} is on the same name.`,
      subjects,
      repairs: [
        {
          label: `Let stations of ${ssid.name} reach one another`,
          planner: "edit-ssid",
          args: { ssid: ssid.id },
          edit: (edits) => edits.patch("ssid", ssid.id, { isolation: false }),
        },
      ],
    },
  );
}

function toHost(run: ProbeRun, station: Station, host: Host, service: Service | null): void {
  const { index } = run;
  const party = run.partyOf(host);
  const segment = host.segment === null ? undefined : index.plan.segment.get(host.segment);
  if (segment === undefined)
    return missing(
      run,
      host.name,
      { kind: "host", id: host.id },
      "is in no segment, so there is no way to it",
    );
  const address = hostAddress(run, host, familyOf(station.address));
  const isStatic = host.manner === "typed";
  const outside = address === null || !isStatic ? null : outsideItsSubnet(index, host, segment, address);
  if (outside !== null) {
    run.journey.stop(
      {
        title: host.name,
        place: segment.name,
        says: "has an address of another subnet",
        subjects: outside.subjects,
      },
      outside,
    );
    return;
  }
  if (address === null && !isStatic) return withoutAddress(run, host, familyOf(station.address));
  if (address === null)
    return missing(
      run,
      host.name,
      { kind: "host", id: host.id },
      `has no ${familyOf(station.address) === 4 ? "IPv4" : "IPv6"} address that the plan knows`,
    );
  if (party === null) return notLetIn(run, host);
  const isolated = isolatedOn(index, station.party.place, party.place);
  if (isolated !== null) return keptApart(run, isolated, host);
  exchangeWith(run, station, {
    to: address,
    service: service ?? anything(run, station, segment.zone),
    target: host,
  });
}

/** Another laptop, plugged in somewhere: it needs its own address before it can answer. */
function toLaptop(run: ProbeRun, station: Station, port: string, service: Service | null): void {
  const { index } = run;
  const aside = run.aside();
  const family = familyOf(station.address);
  const other = start(aside, { at: "port", port, tag: null }, madeMac("another laptop"), {
    behindPhone: false,
    asks: family,
    name: "Another laptop",
  });
  const lease = other === null ? null : addressFor(aside, other, { as: "client" }, family);
  if (other === null || lease === null) {
    const { cause } = aside.journey;
    run.journey.stop(
      {
        title: "Another laptop",
        place: nameOf(index, "port", port),
        says: "gets no address",
        why: cause?.sentence ?? "",
        subjects: [{ kind: "port", id: port }],
        ports: [port],
      },
      cause === null
        ? {
            sentence: "The other laptop gets no address.",
            subjects: [{ kind: "port", id: port }],
            repairs: [],
          }
        : { ...cause, sentence: `The other laptop gets no address: ${cause.sentence}` },
    );
    return;
  }
  run.welcome(lease.address, guestOf(index, other, lease));
  exchangeWith(run, station, {
    to: lease.address,
    service:
      service ??
      (lease.segment === null
        ? PAGE
        : anything(run, station, index.plan.segment.get(lease.segment)?.zone ?? "")),
    target: null,
  });
}

/**
 * The far host is plugged in nowhere, or its own port keeps it apart: what keeps it there is the first cause.
 */
function notLetIn(run: ProbeRun, host: Host): void {
  const aside = run.aside();
  start(aside, { at: "host", host: host.id }, null, { behindPhone: false, asks: null });
  const { cause } = aside.journey;
  if (cause === null)
    return missing(run, host.name, { kind: "host", id: host.id }, "is not plugged in anywhere");
  run.journey.stop(
    {
      title: host.name,
      place: "",
      says: "is not let in",
      why: cause.sentence,
      subjects: [{ kind: "host", id: host.id }],
    },
    { ...cause, sentence: `${host.name} can't be reached: ${cause.sentence}` },
  );
}

/** The far host waits for an address itself: what keeps it from one is the first cause. */
function withoutAddress(run: ProbeRun, host: Host, family: Family): void {
  const aside = run.aside();
  const started = start(aside, { at: "host", host: host.id }, null, { behindPhone: false, asks: family });
  if (started !== null) addressFor(aside, started, { as: "client" }, family);
  const { cause } = aside.journey;
  run.journey.stop(
    {
      title: host.name,
      place: "",
      says: "has no address",
      why: cause?.sentence ?? "",
      subjects: [{ kind: "host", id: host.id }],
    },
    cause === null
      ? {
          sentence: `${host.name} has no address that the plan knows.`,
          subjects: [{ kind: "host", id: host.id }],
          repairs: [],
        }
      : { ...cause, sentence: `${host.name} has no address: ${cause.sentence}` },
  );
}

export function missing(run: ProbeRun, name: string, subject: Cause["subjects"][number], what: string): void {
  run.journey.stop(
    {
      title: name,
      place: "",
      says: what,
      subjects: [subject],
    },
    { sentence: `${name} ${what}.`, subjects: [subject], repairs: [] },
  );
}

/** Only whether the gateway answers: what somebody with a static address tries first. */
function askGateway(run: ProbeRun, station: Station, gateway: Address): void {
  exchangeWith(run, station, { to: gateway, service: null, target: null });
}
