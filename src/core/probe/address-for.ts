import { familyOf, formatAddress, formatPrefix, type Address, type Family } from "../address";
import { freeAddressRepairs } from "../repairs";
import { holdsAddress, type Host, type PlanIndex, prefixesOf, type ProbeAs, type Segment } from "../plan";
import { takeAdvertised } from "./advertised";
import type { Guest, ProbeRun } from "./run";
import { askForLease } from "./ask-for-lease";
import { ownLease, typedLease, type Lease } from "./lease";
import { passesBefore, stopLimited } from "./limited";
import type { Started } from "./start";
import type { Cause } from "./step";

/** Where DHCP servers are asked (RFC 2131 section 4.1). */
const ASKS = { protocol: "udp", dport: 67 } as const;

/** What somebody has entered on the laptop in hand. */
function enteredByHand(
  { index, journey }: ProbeRun,
  started: Started,
  { address, length, gateway }: Extract<ProbeAs, { as: "typed" }>,
): Lease {
  journey.pass({
    title: started.party.name,
    place: `${formatAddress(address)}/${length}`,
    says: "has a static address and asks nobody",
    why: gateway === null ? "It has no gateway." : `Its gateway is ${formatAddress(gateway)}.`,
  });
  return ownLease(index, address, length, gateway);
}

/** The static address of a host in its segment; null when it is one of another subnet, which is a stop. */
function staticOf({ index, journey }: ProbeRun, host: Host, home: Segment, address: Address): Lease | null {
  journey.pass({
    title: host.name,
    place: "static",
    says: "has a static address and asks nobody",
    subjects: [{ kind: "host", id: host.id }],
  });
  const outside = outsideItsSubnet(index, host, home, address);
  if (outside === null) return typedLease(index, home, address, host);
  journey.stop(
    {
      title: host.name,
      place: formatAddress(address),
      says: "has an address of another subnet",
      subjects: outside.subjects,
    },
    outside,
  );
  return null;
}

/** The address it has: typed in, asked for, or made from what is advertised; null after a stop. */
// eslint-disable-next-line complexity -- the ways in which one may have an address already
export function addressFor(run: ProbeRun, started: Started, as: ProbeAs, family: Family): Lease | null {
  const { index } = run;
  const { host, segment } = started;
  if (as.as === "typed") return enteredByHand(run, started, as);
  const entered = family === 4 ? host?.ipv4 : host?.ipv6;
  const typed = host?.manner === "typed" ? (entered ?? null) : null;
  const home =
    host?.segment === null || host === null ? segment : (index.plan.segment.get(host.segment) ?? null);
  if (typed !== null && home !== null && host !== null) return staticOf(run, host, home, typed);
  const { signIn } = started;
  if (family === 4 && signIn?.state === "limited" && !passesBefore(signIn.only, ASKS)) {
    stopLimited(run, signIn, "DHCP");
    return null;
  }
  return family === 4 ? askForLease(run, started) : takeAdvertised(run, started);
}

/**
 * A static address that does not lie in the host's own segment: nobody there takes it for a neighbour. Null
 * when it does.
 */
export function outsideItsSubnet(
  index: PlanIndex,
  host: Host | null,
  segment: Segment,
  address: Address,
): Cause | null {
  const prefixes = prefixesOf(segment, familyOf(address));
  if (host === null || prefixes.length === 0 || holdsAddress(segment, address)) return null;
  return {
    sentence:
      `${formatAddress(address)} is static on ${host.name} and lies ` +
      `outside ${segment.name} (${prefixes.map(formatPrefix).join(", ")}).`,
    subjects: [{ kind: "host", id: host.id }],
    repairs: typeof address === "number" ? freeAddressRepairs(index, host.id, segment.id) : [],
  };
}

/** What somebody plugged in knows of its network, for those who answer it. */
export const guestOf = (index: PlanIndex, { party }: Started, lease: Lease): Guest => ({
  party,
  own: lease.own,
  gateway: lease.gateway,
  gatewayLeg: lease.gatewayLeg,
  segment: lease.segment === null ? null : (index.plan.segment.get(lease.segment) ?? null),
  leased: lease.leased,
});
