import { formatAddress, linkLocal, selfMadeAddress, type Address } from "../address";
import type { Repair } from "../repairs";
import { offerTo, whoAnswers } from "../dhcp";
import { nameOf, type Interface, type Segment } from "../plan";
import type { ProbeRun } from "./run";
import { explain, passTo } from "./deliver";
import { macOf, partyOfLeg, type Hearing, type Party } from "../places";
import { switchHopsOf } from "./inspection";
import { guardStops } from "./ipv6-guards";
import { partyOfServer } from "./judge-answer";
import type { Lease } from "./lease";
import type { Started } from "./start";
import type { Cause } from "./step";

interface Advertiser {
  /** What drops its word on the way; null when it comes. */
  readonly dropped: Cause | null;
  readonly leg: Interface;
  readonly segment: Segment;
  readonly party: Party;
  readonly hearing: Hearing;
}

/** The routers whose advertisements (RFC 4861 section 4.2) come to a client, nearest first. */
function advertisersHeard(run: ProbeRun, started: Started): Advertiser[] {
  const { index } = run;
  return [...index.plan.segment.values()].flatMap((segment): Advertiser[] => {
    const leg = index.gatewayOf(segment);
    const party =
      leg === undefined || segment.advertise === "none" || segment.prefixes6.length === 0
        ? null
        : partyOfLeg(index, leg);
    const hearing = party === null ? null : run.hears(party.place, started.party.place);
    if (leg === undefined || party === null || hearing === null) return [];
    const dropped = guardStops(run, switchHopsOf(run, run.flood(party.place), hearing), "routerGuard");
    return [{ leg, segment, party, hearing, dropped }];
  });
}

type Heard = ReturnType<typeof advertisersHeard>[number];

/** The two messages of it (RFC 4861 sections 4.1 and 4.2). */
function sayAdvertised(run: ProbeRun, party: Party, { segment, leg, party: by }: Heard): void {
  const [prefix] = segment.prefixes6;
  const managed = segment.advertise === "stateful";
  run.say({
    what: "router solicitation",
    from: party.mac,
    to: null,
    flood: run.flood(party.place),
    reached: null,
    content: {
      kind: "advertisement",
      asks: true,
      src: linkLocal(party.mac),
      mac: party.mac,
      prefix: null,
      length: 0,
      managed: false,
      selfMade: false,
    },
  });
  run.say({
    what: "router advertisement",
    from: by.mac,
    to: null,
    flood: run.flood(by.place),
    reached: null,
    content: {
      kind: "advertisement",
      asks: false,
      src: linkLocal(macOf(leg)),
      mac: by.mac,
      prefix: prefix?.network ?? null,
      length: prefix?.length ?? 64,
      managed,
      selfMade: !managed,
    },
  });
}

/** It hears a router and still has no address: nobody gives one, or none can be made in such a prefix. */
function noAddressMade({ journey }: ProbeRun, segment: Segment): void {
  const subjects = [{ kind: "segment" as const, id: segment.id }];
  const isGiven = segment.advertise === "stateful";
  journey.stop(
    {
      title: segment.name,
      place: "IPv6",
      says: isGiven ? "nobody gives it an address" : "no address can be made",
      subjects,
    },
    {
      sentence: isGiven
        ? `${segment.name} tells its clients to ask for an IPv6 address, and no IPv6 scope answers.`
        : `${segment.name} advertises a /${segment.prefixes6[0]?.length ?? 0}; ` +
          "a client makes itself an address in a /64 only.",
      subjects,
      repairs: isGiven ? [advertise(segment, "slaac")] : [],
    },
  );
}

/**
 * Gets an IPv6 address: made from what a router advertises (RFC 4862), or asked for where it says so; null
 * after a stop.
 */
export function takeAdvertised(run: ProbeRun, started: Started): Lease | null {
  const { index, journey } = run;
  const all = advertisersHeard(run, started);
  const [found, other] = all.filter(({ dropped }) => dropped === null);
  const { party } = started;
  if (found === undefined) {
    const [kept] = all;
    if (kept?.dropped === undefined || kept.dropped === null) noAdvertisement(run, started);
    else sayKeptBack(journey, kept.segment, kept.dropped, "no router is heard");
    return null;
  }
  const { segment, leg } = found;
  const [prefix] = segment.prefixes6;
  const router = linkLocal(macOf(leg));
  passTo(run, run.flood(found.party.place), found.hearing);
  sayAdvertised(run, party, found);
  const subjects = [{ kind: "segment" as const, id: segment.id }];
  const also =
    other === undefined ? "" : ` ${nameOf(index, "device", other.leg.device)} advertises here, too.`;
  journey.pass({
    title: nameOf(index, "device", leg.device),
    place: formatAddress(router),
    says: `advertises ${prefix === undefined ? "itself" : `${formatAddress(prefix.network)}/${prefix.length}`}`,
    why: `Clients take its link-local address for their gateway.${also}`,
    subjects,
    device: leg.device,
  });
  const selfMade = prefix === undefined ? null : selfMadeAddress(prefix, party.mac);
  const given = segment.advertise === "stateful" ? givenAddress(run, started, segment) : null;
  if (given !== null && typeof given === "object") {
    sayKeptBack(journey, segment, given, "no address comes");
    return null;
  }
  const address = segment.advertise === "stateful" ? given : selfMade;
  if (address === null) {
    noAddressMade(run, segment);
    return null;
  }
  return {
    address,
    mask: `/${prefix?.length ?? 64}`,
    own: segment.prefixes6,
    gateway: router,
    gatewayLeg: leg,
    dns: segment.dns.filter((address) => typeof address === "bigint"),
    leaseSeconds: null,
    server: nameOf(index, "device", leg.device),
    segment: segment.id,
    free: null,
    leased: segment.advertise === "stateful",
    turnedAt: null,
  };
}

const advertise = (segment: Segment, how: Segment["advertise"]): Repair => ({
  label: `Let clients of ${segment.name} make their own address`,
  planner: "set-advertise",
  args: { segment: segment.id, advertise: how },
  edit: (edits) => edits.patch("segment", segment.id, { advertise: how }),
});

/** The address that a DHCPv6 server gives, or what drops its answer; null where none answers. */
function givenAddress(run: ProbeRun, started: Started, segment: Segment): Address | Cause | null {
  const { index } = run;
  const flood = run.flood(started.party.place);
  const answer = whoAnswers(index, flood).find(
    ({ scope }) => scope.family === 6 && scope.segment === segment.id,
  );
  if (answer === undefined) return null;
  const server = partyOfServer(run, answer);
  const back = server === null ? null : run.hears(server.place, started.party.place);
  const dropped =
    server === null || back === null
      ? null
      : guardStops(run, switchHopsOf(run, run.flood(server.place), back), "dhcp6Guard");
  if (dropped !== null) return dropped;
  return offerTo(index, answer.scope, { mac: started.host?.mac ?? started.party.mac })?.address ?? null;
}

/** A guard on the way keeps a router's or a server's word from the client. */
function sayKeptBack(journey: ProbeRun["journey"], segment: Segment, cause: Cause, says: string): void {
  journey.stop(
    {
      title: segment.name,
      place: "IPv6",
      says,
      why: "A switch on the way drops what does not come in at a trusted port.",
      subjects: [{ kind: "segment", id: segment.id }],
    },
    cause,
  );
}

/** Nobody advertises: only the link-local address is left. */
// eslint-disable-next-line complexity -- every part of an advertisement may be missing, and each is said
function noAdvertisement(run: ProbeRun, started: Started): void {
  const { index, journey } = run;
  const home = started.host?.segment ?? null;
  const segment = (home === null ? undefined : index.plan.segment.get(home)) ?? started.segment;
  const leg = segment === null ? undefined : index.gatewayOf(segment);
  const party = leg === undefined ? null : partyOfLeg(index, leg);
  if (segment !== null && party !== null && segment.advertise !== "none" && segment.prefixes6.length > 0) {
    explain(run, party, started.party);
    return;
  }
  const isPlanned = segment !== null && segment.prefixes6.length > 0;
  const subjects = segment === null ? [] : [{ kind: "segment" as const, id: segment.id }];
  const name = segment?.name ?? `VLAN ${started.vid}`;
  journey.stop(
    {
      title: name,
      place: "IPv6",
      says: "no router advertises",
      why: "Without an advertisement a client has its link-local address and no gateway.",
      subjects,
    },
    {
      sentence:
        segment === null || isPlanned
          ? `Nobody advertises a router in ${name}.`
          : `${name} has no IPv6 subnet, so nothing is advertised there.`,
      subjects,
      repairs: isPlanned ? [advertise(segment, "slaac")] : [],
    },
  );
}
