import { formatAddress } from "../address";
import { grouped } from "../kernel";
import {
  nameOf,
  pointsOf,
  type Host,
  type PlanIndex,
  type Port,
  type ProbePlace,
  type ProbeAs,
  type ProbeGoal,
  type ProbeQuestion,
} from "../plan";
import { asClient, managementAddress, probe, settingsFor, type Outcome } from "../probe";
import { crossingsOf } from "./crossings";
import { addressFact, rolesOf, scopeFact, vlanFact, wayInFact, wirelessFact, type Role } from "./facts";
import { leaseExpected, scopeOfLease } from "./leases";
import type { Asking } from "./asking";
import type { Asked, Asker, SiteTest, Spot, Start } from "./tests";

const nobody = (): string => "";
/** The VLANs at ports between gear that a journey proves by crossing them. */
const crossed = (index: PlanIndex, { steps }: Outcome): string[] =>
  crossingsOf(index, steps).map(({ port, vid }) => vlanFact(port, vid));

/** What an address proves that somebody got: the way to the server, and the scope that answered. */
function shownBy(index: PlanIndex, outcome: Outcome): string[] {
  const scope = scopeOfLease(index, outcome);
  return [...crossed(index, outcome), ...(scope === null ? [] : [scopeFact(scope.id)])];
}

/** Whether something is at a port that is off. */
export function isDark(index: PlanIndex, from: ProbePlace): boolean {
  if (from.at === "port") return index.plan.port.get(from.port)?.enabled === false;
  const host = from.at === "host" ? index.plan.host.get(from.host) : undefined;
  return host?.attachment.at === "port" && index.plan.port.get(host.attachment.port)?.enabled === false;
}

/** What a laptop is given at a spot. That it gets nothing proves nothing, but where its port is off. */
function asked(index: PlanIndex, spot: Spot, does: string): Asked {
  const question = asClient(spot.from, { to: "address" });
  const outcome = probe(index, question, nobody);
  const test: SiteTest = {
    id: `lease ${spot.key}`,
    place: spot.place,
    at: spot.at,
    does,
    question,
    pulled: null,
    expected: isDark(index, spot.from) ? { is: "no link" } : leaseExpected(index, outcome, null),
    proves: [
      ...(outcome.cause === null || isDark(index, spot.from) ? [spot.fact] : []),
      ...(outcome.cause === null ? shownBy(index, outcome) : []),
    ],
  };
  const { cause, lease, steps } = outcome;
  return { test, spot, outcome: { cause, lease, steps } };
}

/** Where one plugs in to see what a role of ports gives: at a free port, else in place of something. */
export const portOfRole = (index: PlanIndex, { ports }: Role): Port | undefined =>
  ports.find(({ id }) => index.hostsAt(id).length === 0) ?? ports[0];

const askedAtPorts = (index: PlanIndex): Asked[] =>
  rolesOf(index).flatMap((role) => {
    const port = portOfRole(index, role);
    if (port === undefined) return [];
    const [host] = index.hostsAt(port.id);
    const spot: Spot = {
      fact: role.id,
      key: `port ${port.id}`,
      from: { at: "port", port: port.id, tag: null },
      place: role.device.place,
      at: nameOf(index, "port", port.id),
    };
    const does =
      host === undefined
        ? "Plug in a laptop that asks for its address."
        : `Plug in a laptop in place of ${host.name}; it asks for its address.`;
    return [asked(index, spot, does)];
  });

const askedOnAir = (index: PlanIndex): Asked[] =>
  [...index.plan.ssid.values()].flatMap((ssid) =>
    pointsOf(index, ssid).map((point) =>
      asked(
        index,
        {
          fact: wirelessFact(ssid.id, point.id),
          key: `ssid ${ssid.id} ${point.id}`,
          from: { at: "ssid", ssid: ssid.id, device: point.id },
          place: point.place,
          at: `${ssid.name} at ${point.name}`,
        },
        `Join ${ssid.name} beside ${point.name}; the laptop asks for its address.`,
      ),
    ),
  );

/** Everywhere that a laptop can ask for an address. */
export const laptopsAsking = (index: PlanIndex): Asked[] => [...askedAtPorts(index), ...askedOnAir(index)];

/** The role of the port that a host is plugged into, by port. */
const roleByPort = (index: PlanIndex): ReadonlyMap<string, string> =>
  new Map(rolesOf(index).flatMap(({ id, ports }) => ports.map((port) => [port.id, id] as const)));

/** Devices that ask DHCP, each looked at where it stands. */
export function devicesAsking(index: PlanIndex): SiteTest[] {
  const roles = roleByPort(index);
  return [...index.plan.host.values()].flatMap((host): SiteTest[] => {
    if (host.attachment.at === "unplaced" || host.manner === "typed") return [];
    const question = asClient({ at: "host", host: host.id }, { to: "address" });
    const outcome = probe(index, question, nobody);
    if (outcome.cause !== null || outcome.lease === null) return [];
    const expected = leaseExpected(index, outcome, host);
    const isKept = expected.is === "lease" && expected.address === host.ipv4 && host.ipv4 !== null;
    const role = host.attachment.at === "port" ? roles.get(host.attachment.port) : undefined;
    return [
      {
        id: `lease host ${host.id}`,
        place: host.place,
        at: host.name,
        does: `Look on ${host.name} which address it has.`,
        question,
        pulled: null,
        expected,
        proves: [
          ...(host.manner === "reserved" && isKept ? [addressFact(host.id)] : []),
          ...(role === undefined || outcome.signIn !== null ? [] : [role]),
          ...shownBy(index, outcome),
        ],
      },
    ];
  });
}

/**
 * Who can ask from those spots: with the address that it is given there, or, where nobody gives one, with one
 * that is entered on it.
 */
export const askersOf = (index: PlanIndex, laptops: readonly Asked[]): Asker[] =>
  laptops.flatMap(({ spot, outcome }): Asker[] => {
    if (outcome.cause === null && outcome.lease !== null)
      return [{ spot, entered: "", as: { as: "client" }, segment: outcome.lease.segment }];
    if (spot.from.at !== "port" || outcome.lease !== null) return [];
    const entered = settingsFor(index, spot.from);
    const as: ProbeAs = { as: "typed", ...entered };
    const isTaken = (["hostsByAddress", "interfacesByAddress"] as const).some((by) =>
      index.groups(by).has(entered.address),
    );
    if (isTaken) return [];
    const { cause, lease } = probe(index, { ...asClient(spot.from, { to: "address" }), as }, nobody);
    const isOwn = cause === null && lease !== null && lease.segment !== null;
    const [own, gateway] = [entered.address, entered.gateway].map(formatAddress);
    const words = `, with ${own}/${entered.length} and gateway ${gateway} entered on the laptop`;
    return isOwn ? [{ spot, entered: words, as, segment: lease.segment }] : [];
  });

/**
 * What an answer proves on the way. An address that is entered on the laptop is good for the VLAN of its port
 * only, so that port is right, too; where the answer came from a port of the same device, both could be wrong.
 */
function shownByAnswer(index: PlanIndex, { spot, as }: Start, outcome: Outcome): string[] {
  const ways = crossed(index, outcome);
  return as.as === "typed" && ways.length > 0 ? [...ways, spot.fact] : ways;
}

/** A site, and who is asked about it. */
export interface OnSite {
  readonly index: PlanIndex;
  readonly asks: Asking;
}

/** A laptop at a spot asks for something; `does` is the sentence without its full stop. */
export function reachTest(
  { index, asks }: OnSite,
  start: Start,
  { goal, id, does, proves }: Pick<SiteTest, "id" | "does" | "proves"> & { readonly goal: ProbeGoal },
): SiteTest {
  const { spot, entered, as } = start;
  const question: ProbeQuestion = { ...asClient(spot.from, goal), as };
  const outcome = asks(start, goal);
  const { cause } = outcome;
  return {
    id,
    place: spot.place,
    at: spot.at,
    does: `${does}${entered}.`,
    question,
    pulled: null,
    expected: cause === null ? { is: "answer" } : { is: "silence", why: cause.sentence },
    proves: cause === null ? [...proves, ...shownByAnswer(index, start, outcome)] : proves,
  };
}

/** The first test of some that has an answer; null for none. */
function firstAnswered(tests: Iterable<SiteTest>): SiteTest | null {
  for (const test of tests) if (test.expected.is === "answer") return test;
  return null;
}

/** Devices with an address that was entered on them: asked from beside them, where no wall stands. */
export function staticDevices(site: OnSite, askers: readonly Asker[]): SiteTest[] {
  const inOrder = askersFor(askers);
  return [...site.index.plan.host.values()].flatMap((host: Host): SiteTest[] => {
    const { manner, ipv4, attachment } = host;
    if (manner !== "typed" || ipv4 === null || attachment.at === "unplaced") return [];
    const does = `Ask ${host.name} at ${formatAddress(ipv4)} for an echo or its page`;
    function* tests(): Generator<SiteTest> {
      for (const asker of inOrder(host.segment))
        yield reachTest(site, asker, {
          id: `ask host ${host.id} ${asker.spot.key}`,
          does,
          goal: { to: "host", host: host.id, service: null },
          proves: [addressFact(host.id)],
        });
    }
    const test = firstAnswered(tests());
    return test === null ? [] : [test];
  });
}

/** Who is asked about something in a segment: first who is in it, too. */
function askersFor(askers: readonly Asker[]): (segment: string | null) => Asker[] {
  const bySegment = grouped(askers, ({ segment }) => segment);
  return (own) => {
    const beside = (bySegment.get(own) ?? []).slice(0, MOST_TRIED);
    const others: Asker[] = [];
    for (const asker of askers) {
      if (beside.length + others.length === MOST_TRIED) break;
      if (asker.segment !== own) others.push(asker);
    }
    return [...beside, ...others];
  };
}

/** From as many places it is tried at most whether something answers. */
export const MOST_TRIED = 12;

/** The pages of each device, from where they open. */
export function waysIn(site: OnSite, askers: readonly Asker[]): SiteTest[] {
  const { plan } = site.index;
  const isManaging = ({ segment }: Asker) => plan.segment.get(segment ?? "")?.management === true;
  const sorted = [...askers.filter(isManaging), ...askers.filter((asker) => !isManaging(asker))];
  return [...plan.device.values()].flatMap((device): SiteTest[] => {
    const address = managementAddress(site.index, device, 4);
    if (address === undefined) return [];
    const does = `Open the pages of ${device.name} at ${formatAddress(address)}`;
    function* tests(): Generator<SiteTest> {
      for (const asker of sorted.slice(0, MOST_TRIED))
        yield reachTest(site, asker, {
          id: `pages ${device.id} ${asker.spot.key}`,
          does,
          goal: { to: "device", device: device.id, service: null },
          proves: [wayInFact(device.id)],
        });
    }
    const test = firstAnswered(tests());
    return test === null ? [] : [test];
  });
}
