import { nameOf, type Device, type Port } from "../plan";
import type { ProbeRun } from "./run";
import { trustRepair, type SwitchHop } from "./inspection";
import type { Cause } from "./step";

/** Guards of IPv6 with the port flag that lets in what they drop elsewhere. */
const GUARDS = {
  routerGuard: {
    trust: "raTrust",
    guards: "guards router advertisements",
    what: "router advertisements",
  },
  dhcp6Guard: { trust: "dhcpTrust", guards: "guards DHCPv6", what: "DHCP servers" },
} as const;
export type Ipv6Guard = keyof typeof GUARDS;

/** Where a guard of IPv6 drops what comes in: the switch, the port and the VLAN; null where it passes. */
export function guardedAt(
  passings: readonly SwitchHop[],
  guard: Ipv6Guard,
): { readonly device: Device; readonly port: Port; readonly vid: number } | null {
  for (const { device, inPort, vid } of passings)
    if (
      inPort !== undefined &&
      (device.protections[guard] as readonly number[]).includes(vid) &&
      !inPort.guards[GUARDS[guard].trust]
    )
      return { device, port: inPort, vid };
  return null;
}

/**
 * Where router advertisement guard (RFC 6105) or DHCPv6 shield (RFC 7610) keeps a router's or a server's word
 * from a client, told from the router on; null where it passes.
 */
export function guardStops(run: ProbeRun, passings: readonly SwitchHop[], guard: Ipv6Guard): Cause | null {
  const at = guardedAt(passings, guard);
  if (at === null) return null;
  const { guards, trust, what } = GUARDS[guard];
  return {
    sentence:
      `${at.device.name} ${guards} in VLAN ${at.vid} and does not trust ` +
      `${nameOf(run.index, "port", at.port.id)}: they are dropped there.`,
    subjects: [
      { kind: "port", id: at.port.id },
      { kind: "device", id: at.device.id },
    ],
    repairs: [trustRepair(run.index, at.port, trust, what)],
  };
}
