import {
  netmaskText,
  containsAddress,
  formatAddress,
  parseAddress,
  prefixOf,
  usableRange,
  type Address,
  type Ipv4,
  type Prefix,
} from "../address";
import { gatewayMissing } from "../checks/gateway";
import { noAddressServer } from "../checks/servers";
import { serverNotHeard } from "../checks/unheard";
import type { Repair } from "../checks/check";
import { leasableCount, leasedTo, leasesOf, offerTo, visitorAddress, whoAnswers, type Answer } from "../dhcp";
import { nameOf, type Host, type Interface, type PlanIndex, type Scope, type Segment } from "../plan";
import { enteredOn } from "../routing";
import type { ProbeBench } from "./bench";
import { explain, passTo } from "./deliver";
import { misplaced } from "./misplaced";
import { crossing, stopOnTheWay } from "./hops";
import { passingsOf, snoopingStops, type Passing } from "./inspection";
import { deviceAt, entryOf, partyOfHost, partyOfLeg, type Hearing, type Party } from "./place";
import { wantedVid, type Started } from "./start";
import type { Cause } from "./step";
import { askAndHear } from "./exchange";

/** What the client shows after it got (or typed in, or made) its address. */
export interface Lease {
  readonly address: Address;
  readonly mask: string;
  /** What it takes for its own subnet. */
  readonly own: readonly Prefix[];
  readonly gateway: Address | null;
  /** The gateway itself, where an advertisement named it. */
  readonly gatewayLeg: Interface | null;
  readonly dns: readonly Address[];
  readonly leaseSeconds: number | null;
  readonly server: string;
  /** The segment it is of; null for an address that is none's. */
  readonly segment: string | null;
  readonly free: number | null;
  readonly leased: boolean;
  /** Where a VLAN turned into another on the way to the server; null when it did not. */
  readonly turnedAt: Cause | null;
}

const serverOf = (index: PlanIndex, scope: Scope): string =>
  scope.serverDevice !== null
    ? nameOf(index, "device", scope.serverDevice)
    : scope.serverHost === null
      ? "nobody"
      : nameOf(index, "host", scope.serverHost);

/** An option of the scope (RFC 2132) as addresses, or null when it is not set there. */
function optionAddresses(scope: Scope, code: number): Address[] | null {
  const option = scope.options.find((one) => one.code === code);
  if (option === undefined) return null;
  const found = option.value.split(/[\s,]+/).flatMap((text) => parseAddress(text) ?? []);
  return found.length === 0 ? null : found;
}

/** What is entered on a static host, or what a segment says to whoever has that address in it (null). */
export function typedLease(index: PlanIndex, segment: Segment, address: Address, host: Host | null): Lease {
  const family = typeof address === "number" ? 4 : 6;
  const { own, gateway, gatewayLeg } = enteredOn(index, host, segment, address);
  const prefix = own.find((p) => containsAddress(p, address));
  return {
    address,
    mask: prefix === undefined ? "" : family === 4 ? netmaskText(prefix) : `/${prefix.length}`,
    own: prefix === undefined ? own : [prefix],
    gateway,
    gatewayLeg,
    dns: host !== null && host.dns.length > 0 ? host.dns : segment.dns,
    leaseSeconds: null,
    server: "typed in",
    segment: segment.id,
    free: null,
    leased: false,
    turnedAt: null,
  };
}

/** A typed-in address without a plan: what somebody has on the laptop. */
export function ownLease(index: PlanIndex, address: Address, length: number, gateway: Address | null): Lease {
  const prefix = prefixOf(address, length);
  const home = [...index.plan.segment.values()].find((s) =>
    [...s.prefixes4, ...s.prefixes6].some((p) => containsAddress(p, address)),
  );
  return {
    address,
    mask: prefix === null ? "" : prefix.family === 4 ? netmaskText(prefix) : `/${length}`,
    own: prefix === null ? [] : [prefix],
    gateway,
    gatewayLeg: null,
    dns: [],
    leaseSeconds: null,
    server: "typed in",
    segment: home?.id ?? null,
    free: null,
    leased: false,
    turnedAt: null,
  };
}

function leaseOf(index: PlanIndex, segment: Segment, address: Address, scope: Scope): Lease {
  const prefix = segment.prefixes4.find((p) => containsAddress(p, address));
  return {
    ...typedLease(index, segment, address, null),
    own: prefix === undefined ? [] : [prefix],
    gateway: optionAddresses(scope, 3)?.[0] ?? index.gatewayOf(segment)?.addresses4[0] ?? null,
    dns: optionAddresses(scope, 6) ?? segment.dns,
    leaseSeconds: scope.leaseSeconds,
    server: serverOf(index, scope),
    free: Number(leasableCount(index, scope)),
    leased: true,
  };
}

/** A server's answer that comes through, or why the first of them does not. */
interface Judged {
  readonly answer: Answer;
  readonly party: Party | null;
  readonly cause: Cause | null;
}

function partyOfServer(bench: ProbeBench, { scope, relayedBy }: Answer): Party | null {
  const { index } = bench;
  const device = relayedBy ?? scope.serverDevice;
  if (device !== null) {
    const leg = index.interfacesOf(device).find((one) => one.segment === scope.segment);
    return leg === undefined ? null : partyOfLeg(index, leg);
  }
  const host = scope.serverHost === null ? undefined : index.plan.host.get(scope.serverHost);
  return host === undefined ? null : bench.partyOf(host);
}

const hearingOf = ({ arrival, emission }: Answer): Hearing => ({ arrival, emission });

/** Whether an answer gets from its server to the client: back through snooping, back over the wires, and from behind a relay. */
function judgeAnswer(
  bench: ProbeBench,
  started: Started,
  answer: Answer,
  passings: readonly Passing[],
): Judged {
  const party = partyOfServer(bench, answer);
  const snooped = snoopingStops(bench, passings);
  if (snooped !== null) return { answer, party, cause: snooped };
  const relay = answer.relayedBy === null ? null : relayCause(bench, answer, answer.relayedBy);
  if (relay !== null) return { answer, party, cause: relay };
  if (party !== null && bench.hears(party.place, started.party.place) === null) {
    const aside = bench.aside();
    explain(aside, party, started.party);
    const cause = aside.journey.cause ?? {
      sentence: "",
      subjects: [{ kind: "scope" as const, id: answer.scope.id }],
      repairs: [],
    };
    return {
      answer,
      party,
      cause: {
        ...cause,
        sentence: `${party.name} hears the question, and its offer does not come back. ${cause.sentence}`,
      },
    };
  }
  return { answer, party, cause: null };
}

function relayCause(bench: ProbeBench, { scope }: Answer, relay: string): Cause | null {
  const { index } = bench;
  const device = index.plan.device.get(relay);
  const leg = index.interfacesOf(relay).find((one) => one.segment === scope.segment);
  const to = leg?.relayTo ?? null;
  const from = leg?.addresses4[0];
  if (
    device === undefined ||
    leg === undefined ||
    to === null ||
    from === undefined ||
    index.interfacesOf(relay).some((one) => one.addresses4.includes(to))
  )
    return null;
  const asked = askAndHear(
    bench,
    device,
    { family: 4, protocol: "udp", src: from, dst: to, sport: 67, dport: 67 },
    null,
  );
  if (asked.cause === null) return null;
  const what = asked.arrived ? "whose answer does not come back" : "and it does not arrive";
  return {
    ...asked.cause,
    sentence: `${device.name} relays the question to ${formatAddress(to)}, ${what}: ${asked.cause.sentence}`,
  };
}

/** Gets an IPv4 address by DHCP from whoever hears the client; null after a stop. */
export function askForLease(bench: ProbeBench, started: Started): Lease | null {
  const { index, journey } = bench;
  const flood = bench.flood(started.party.place);
  const answers = whoAnswers(index, flood).filter(({ scope }) => scope.family === 4);
  const judged = answers.map((answer) =>
    judgeAnswer(bench, started, answer, passingsOf(bench, flood, hearingOf(answer))),
  );
  const chosen = judged.find(({ cause }) => cause === null);
  if (chosen === undefined) {
    const [first] = judged;
    if (first?.cause !== null && first !== undefined) stopJudged(bench, started, first, first.cause);
    else stopWithoutServer(bench, started);
    return null;
  }
  passTo(bench, flood, hearingOf(chosen.answer));
  const { scope, relayedBy } = chosen.answer;
  const server = serverOf(index, scope);
  const home = index.plan.segment.get(scope.segment);
  const subjects = [
    { kind: "scope" as const, id: scope.id },
    { kind: "segment" as const, id: scope.segment },
  ];
  const { host, party } = started;
  const held =
    host === null
      ? undefined
      : host.segment === scope.segment
        ? leasedTo(index, scope).get(host.id)
        : visitorAddress(index, scope, host);
  const offer =
    held !== undefined && held !== null
      ? { address: held, reserved: host?.manner === "reserved" && host.segment === scope.segment }
      : host === null || (host.manner === "reserved" && host.segment === scope.segment)
        ? offerTo(
            index,
            scope,
            host?.mac ?? party.mac,
            new Map([...leasesOf(index, scope), ...bench.guestLeases()]),
          )
        : null;
  if (offer === null || home === undefined) {
    const repairs = growPool(index, scope);
    journey.stop(
      {
        title: server,
        place: "scope",
        says: "no address left to give",
        why: "Every address of the pool is given, reserved or excluded.",
        tag: undefined,
        subjects,
        device: scope.serverDevice,
        ports: [],
      },
      { sentence: `The scope of ${home?.name ?? "the segment"} has no address left.`, subjects, repairs },
    );
    return null;
  }
  const others = judged
    .filter((one) => one !== chosen && one.cause === null && one.answer.scope.id !== scope.id)
    .map((one) => serverOf(index, one.answer.scope));
  const relay =
    relayedBy === null ? "" : ` ${nameOf(index, "device", relayedBy)} passes the question on to it.`;
  const also = others.length > 0 ? ` ${others.join(" and ")} would answer too.` : "";
  journey.pass({
    title: server,
    place: "scope",
    says: `hears the question and offers ${offer.reserved ? "its reserved address" : "an address from the pool"}`,
    why: `The scope of ${home.name} is served here.${relay}${also}`,
    tag: undefined,
    subjects,
    device: scope.serverDevice,
    ports: [],
  });
  const lease = leaseOf(index, home, offer.address, scope);
  sayExchange(bench, started, chosen, lease);
  return { ...lease, turnedAt: turned(bench, passingsOf(bench, flood, hearingOf(chosen.answer))) };
}

/** What the scope can give besides: the largest run of addresses that nobody has. Pools and exclusions that are there stay. */
function growPool(index: PlanIndex, scope: Scope): Repair[] {
  const run = freeRun(index, scope);
  if (run === null || scope.pools.length >= MOST_POOLS) return [];
  return [
    {
      label: `Also give out ${formatAddress(run.first)} to ${formatAddress(run.last)}`,
      planner: "edit-pool",
      args: { scope: scope.id },
      edit: (draft) =>
        draft.patch("scope", scope.id, { pools: [...draft.need("scope", scope.id).pools, run] }),
    },
  ];
}
const MOST_POOLS = 32;

/** The largest run of addresses in the scope's subnet that nobody has fixed, that no pool offers and that nobody left out. */
function freeRun(index: PlanIndex, scope: Scope): { first: Ipv4; last: Ipv4 } | null {
  const prefix = index.plan.segment.get(scope.segment)?.prefixes4[0];
  if (prefix === undefined || prefix.length > 30) return null;
  const usable = usableRange(prefix);
  const offered = (index.groups("scopesBySegment").get(scope.segment) ?? [])
    .flatMap(({ pools, exclusions }) => [...pools, ...exclusions])
    .filter(({ first }) => typeof first === "number");
  const fixed = [
    ...index.interfacesIn(scope.segment).flatMap((leg) => leg.addresses4),
    ...index
      .hostsIn(scope.segment)
      .flatMap((host) => (host.ipv4 !== null && host.manner !== "dynamic" ? [host.ipv4] : [])),
  ];
  const taken = [...offered, ...fixed.map((address) => ({ first: address, last: address }))]
    .map(({ first, last }) => [Number(first), Number(last)] as const)
    .sort((x, y) => x[0] - y[0]);
  let best: { first: number; last: number } | null = null;
  let from = Number(usable.first);
  for (const [first, last] of [...taken, [Number(usable.last) + 1, Number(usable.last) + 1] as const]) {
    if (first > from && (best === null || first - from > best.last - best.first + 1))
      best = { first: from, last: first - 1 };
    from = Math.max(from, last + 1);
  }
  return best as { first: Ipv4; last: Ipv4 } | null;
}

function stopJudged(bench: ProbeBench, started: Started, { answer, party }: Judged, cause: Cause): void {
  passTo(bench, bench.flood(started.party.place), hearingOf(answer));
  bench.journey.stop(
    {
      title: party?.name ?? "server",
      place: "scope",
      says: "its answer does not come through",
      why: "",
      tag: undefined,
      subjects: cause.subjects,
      device: null,
      ports: [],
    },
    cause,
  );
}

/** Where on the way a VLAN turned into another; null when it stayed the same. */
function turned({ index }: ProbeBench, passings: readonly Passing[]): Cause | null {
  const at = passings.findIndex(({ vid }, i) => i > 0 && vid !== passings[i - 1]?.vid);
  const [before, after] = [passings[at - 1], passings[at]];
  return before?.outPort === undefined || after?.inPort === undefined
    ? null
    : crossing(index, before.outPort, after.inPort, before.vid, after.vid);
}

/** Why something has the address of another segment than the one it belongs in: its port, its tag, its wireless name, its sign-in, a VLAN that turns into another. Null when it does not. */
export function strayed(bench: ProbeBench, started: Started, lease: Lease): Cause | null {
  const { host } = started;
  if (
    host === null ||
    host.segment === null ||
    lease.segment === host.segment ||
    lease.segment === null ||
    !lease.leased
  )
    return null;
  const wrong = misplaced(bench, started) ?? lease.turnedAt;
  const [got, belongs] = [
    nameOf(bench.index, "segment", lease.segment),
    nameOf(bench.index, "segment", host.segment),
  ];
  return wrong === null
    ? {
        sentence: `${host.name} belongs in ${belongs} and gets an address of ${got}.`,
        subjects: [{ kind: "host", id: host.id }],
        repairs: [],
      }
    : { ...wrong, sentence: `${wrong.sentence} It gets an address of ${got}.` };
}

/** Nobody answered: says how far the question came towards the server that should have. */
function stopWithoutServer(bench: ProbeBench, started: Started): void {
  const { index, journey } = bench;
  const { party, vid, host } = started;
  const meant =
    (host?.segment === null || host === null ? undefined : index.plan.segment.get(host.segment)) ??
    started.segment;
  const port = party.place.at === "inside" ? undefined : index.plan.port.get(party.place.port);
  const wanted = wantedVid(index, host);
  const tag = party.place.at === "inside" ? null : party.place.tag;
  const wrong = misplaced(bench, started);
  if (wrong !== null) {
    journey.stop(
      {
        title: port === undefined ? party.name : nameOf(index, "device", port.device),
        place: port === undefined ? "wireless" : `port ${port.label} in`,
        says: `joins VLAN ${vid}, not ${wanted ?? "its own"}`,
        why: "",
        tag,
        subjects: wrong.subjects,
        device: port?.device ?? null,
        ports: port === undefined ? [] : [port.id],
      },
      wrong,
    );
    return;
  }
  if (meant === null || started.segment === null) {
    journey.stop(
      {
        title: port === undefined ? party.name : nameOf(index, "device", port.device),
        place: port === undefined ? "" : `port ${port.label} in`,
        says: `joins ${vid}, where nothing is`,
        why: "",
        tag,
        subjects: port === undefined ? [] : [{ kind: "port", id: port.id }],
        device: port?.device ?? null,
        ports: port === undefined ? [] : [port.id],
      },
      {
        sentence: `${port === undefined ? "It" : nameOf(index, "port", port.id)} puts the frame into VLAN ${vid}, and no segment is on that VLAN.`,
        subjects: port === undefined ? [] : [{ kind: "port", id: port.id }],
        repairs: [],
      },
    );
    return;
  }
  const subjects = [{ kind: "segment" as const, id: meant.id }];
  const scope = index.scopesOf(meant.id).find((one) => one.family === 4);
  const server =
    scope?.serverHost === null || scope === undefined ? undefined : index.plan.host.get(scope.serverHost);
  const place = server === undefined ? null : (partyOfHost(index, server)?.place ?? null);
  const relays =
    scope === undefined ? [] : index.interfacesIn(meant.id).filter((leg) => leg.relayTo !== null);
  const goal =
    scope?.serverDevice !== null &&
    scope !== undefined &&
    index.interfacesOf(scope.serverDevice).some((leg) => leg.segment === meant.id)
      ? scope.serverDevice
      : (relays[0]?.device ?? (place === null ? null : deviceAt(index, place)));
  const entry = entryOf(index, bench.flood(party.place));
  if (scope !== undefined && goal !== null && entry !== null) {
    const flood = bench.flood(party.place);
    if (
      goal !== entry.device &&
      stopOnTheWay(bench, goal, {
        device: entry.device,
        port: bench.fabric.ports[entry.port],
        tag: flood.emissions[flood.arrivals[0]?.emission ?? -1]?.tag ?? tag,
        vid: entry.vid,
      })
    )
      return;
  }
  // On gear without VLANs that leads to none with them: the cable from there is what is missing.
  if (
    scope !== undefined &&
    goal !== null &&
    entry === null &&
    port !== undefined &&
    vid !== null &&
    stopOnTheWay(bench, goal, { device: port.device, port, tag, vid })
  )
    return;
  const nobody =
    scope === undefined
      ? `${meant.name} has no scope: nobody gives addresses there.`
      : goal !== null && server !== undefined
        ? `${server.name}, the server of ${meant.name}, does not hear the question.`
        : `The server of ${meant.name} has no leg in VLAN ${vid}, so it never hears the question.`;
  journey.stop(
    {
      title: meant.name,
      place: `VLAN ${vid}`,
      says: "nobody answers",
      why: nobody,
      tag,
      subjects,
      device: null,
      ports: [],
    },
    { sentence: nobody, subjects, repairs: serverRepairs(index, meant) },
  );
}

/** Makes somebody serve the segment, as the findings about it would. */
function serverRepairs(index: PlanIndex, segment: Segment): Repair[] {
  return [serverNotHeard, noAddressServer, gatewayMissing].flatMap((check) =>
    check
      .run(index)
      .filter((f) => f.subjects.some((s) => s.id === segment.id))
      .flatMap((f) => check.repairs(f, index)),
  );
}

function sayExchange(bench: ProbeBench, started: Started, { answer, party }: Judged, lease: Lease): void {
  const flood = bench.flood(started.party.place);
  const server = party?.leg?.addresses4[0] ?? party?.host?.ipv4 ?? null;
  const bits = lease.own[0]?.length ?? 24;
  const part = {
    kind: "dhcp" as const,
    client: started.party.mac,
    given: lease.address,
    server,
    relay: answer.relayedBy === null ? null : (party?.leg?.addresses4[0] ?? null),
    maskBits: bits,
    router: lease.gateway,
    dns: lease.dns,
    leaseSeconds: lease.leaseSeconds ?? 0,
    domain: lease.segment === null ? "" : (bench.index.plan.segment.get(lease.segment)?.domainName ?? ""),
  };
  const back = party === null ? null : bench.hears(party.place, started.party.place);
  const backFlood = party === null ? flood : bench.flood(party.place);
  const from = party?.mac ?? started.party.mac;
  bench.say({
    what: "DHCP discover",
    from: started.party.mac,
    to: null,
    flood,
    reached: null,
    content: { ...part, type: "discover" },
  });
  bench.say({
    what: "DHCP offer",
    from,
    to: started.party.mac,
    flood: backFlood,
    reached: back,
    content: { ...part, type: "offer" },
  });
  bench.say({
    what: "DHCP request",
    from: started.party.mac,
    to: null,
    flood,
    reached: null,
    content: { ...part, type: "request" },
  });
  bench.say({
    what: "DHCP acknowledgement",
    from,
    to: started.party.mac,
    flood: backFlood,
    reached: back,
    content: { ...part, type: "ack" },
  });
}
