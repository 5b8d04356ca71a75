import { familyOf, type Address, type Family, type Prefix } from "../address";
import type { Host, Interface, Segment } from "../plan";
import type { Party } from "../places";
import { enteredOn } from "../routing";
import type { ProbeRun } from "./run";
import type { Sender } from "./resolve";
import type { Limited } from "./port-state";

/** Who starts or answers: an end device with what it knows of its network. */
export interface Station extends Sender {
  /** What it takes for its own subnet. */
  readonly own: readonly Prefix[];
  readonly gateway: Address | null;
  /** The gateway itself, where an advertisement named it. */
  readonly gatewayLeg: Interface | null;
  readonly segment: Segment | null;
  /** Where its port lets some services pass only, until it has signed in. */
  readonly limited?: Limited;
}

/** An end device as it stands in the register, with what it knows of its network. */
export function stationOf(run: ProbeRun, party: Party, address: Address): Station {
  const guest = run.guest(address);
  if (guest !== undefined) return { ...guest, address };
  const family = familyOf(address);
  const lease =
    party.host === null || party.host.manner === "typed" || family === 6 ? null : run.leaseOf(party.host);
  if (lease !== null && lease.address === address) {
    return {
      party,
      address,
      leased: true,
      own: lease.own,
      gateway: lease.gateway,
      gatewayLeg: lease.gatewayLeg,
      segment: lease.segment === null ? null : (run.index.plan.segment.get(lease.segment) ?? null),
    };
  }
  const segment =
    party.host?.segment === null || party.host === null
      ? null
      : (run.index.plan.segment.get(party.host.segment) ?? null);
  const { own, gateway, gatewayLeg } = enteredOn(run.index, party.host, segment, address);
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
export function hostAddress(run: ProbeRun, host: Host, family: Family): Address | null {
  if (family === 6) return host.ipv6;
  return host.manner === "typed" ? host.ipv4 : (run.leaseOf(host)?.address ?? null);
}
