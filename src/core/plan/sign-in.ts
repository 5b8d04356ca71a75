import type { Derived, PlanIndex } from "./plan-index";
import type { Vid } from "./schema/fields";
import type { Device, Host, Port } from "./schema/hardware";
import type { SignIn } from "./schema/protection";
import type { Ssid } from "./schema/separation";

/**
 * The sign-in profile (IEEE 802.1X) that a port uses: its own, else the only one of the site; undefined where
 * neither says.
 */
export function profileOf(index: PlanIndex, port: Port): SignIn | undefined {
  if (port.guards.profile !== null) return index.plan.signIn.get(port.guards.profile);
  return onlyProfile(index);
}

function onlyProfile({ plan }: PlanIndex): SignIn | undefined {
  const [first, ...others] = plan.signIn.values();
  return others.length === 0 ? first : undefined;
}

/**
 * The profile that a wireless name asks by, where it asks any servers: its own, else the only one of the
 * site.
 */
export function wirelessProfile(index: PlanIndex, { profile }: Ssid): SignIn | undefined {
  return profile === null ? onlyProfile(index) : index.plan.signIn.get(profile);
}

/** The VLAN of a device's segment: what a server that answers with one names (RFC 3580 section 3.31). */
export function answeredVid({ plan }: PlanIndex, { segment }: Pick<Host, "segment">): Vid | null {
  const own = plan.segment.get(segment ?? "");
  return plan.vlan.get(own?.vlan ?? "")?.vid ?? null;
}

/**
 * The VLANs into which the sign-in at a port may put somebody, beside the port's own: visitors, failed, without
 * a server, and by the server's answer those of the hosts planned there. None where the port asks for none.
 */
export function signInVids(index: PlanIndex, port: Port): Vid[] {
  const profile = port.guards.signIn ? profileOf(index, port) : undefined;
  if (profile === undefined) return [];
  const { visitors, failed, serverDown, serverDownVoice, byAnswer } = profile;
  const answered = !byAnswer
    ? []
    : index.hostsAt(port.id).map((host) => (host.tag === null ? answeredVid(index, host) : null));
  const all = [visitors, failed, serverDown, serverDownVoice, ...answered];
  return [...new Set(all.filter((vid) => vid !== null))];
}

/** A port that asks for a sign-in, and by which profile; null where neither the port nor the site says. */
export interface SignInPort {
  readonly device: Device;
  readonly port: Port;
  readonly profile: SignIn | null;
}

/** A port with its profile where it asks for a sign-in: on, of gear that knows VLANs. Null for any other. */
export function signInPort(index: PlanIndex, port: Port): SignInPort | null {
  const device = port.guards.signIn && port.enabled ? index.plan.device.get(port.device) : undefined;
  return device?.bridging === "vlan" ? { device, port, profile: profileOf(index, port) ?? null } : null;
}

const SIGN_IN_PORTS: Derived<readonly SignInPort[]> = {
  reads: ["port", "device", "signIn"],
  make: (index) =>
    [...index.plan.port.values()]
      .filter(({ guards }) => guards.signIn)
      .flatMap((port) => signInPort(index, port) ?? []),
};
/** The ports that ask for a sign-in, in the order of their ids. */
export const signInPorts = (index: PlanIndex): readonly SignInPort[] => index.derived(SIGN_IN_PORTS);
