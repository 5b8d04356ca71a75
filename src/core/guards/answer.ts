import type { Mac } from "../address";
import {
  answeredVid,
  profileOf,
  wirelessProfile,
  type Host,
  type PlanIndex,
  type SignIn,
  type Vid,
} from "../plan";
import { portOfHost } from "../places";
import { asLabel } from "../planners";
import { speaksSignIn } from "../probe";

/** What an authentication server answers: let in, with the VLAN that it names, or not, and why. */
export type ServerAnswer =
  | {
      readonly letsIn: true;
      readonly host: Host;
      readonly profile: SignIn;
      /** The VLAN that the answer names; null where it names none. */
      readonly vid: Vid | null;
      /** Whether the device is to send its frames tagged with it (RFC 4675). */
      readonly isTagged: boolean;
    }
  | { readonly letsIn: false; readonly why: string };

/** Who asks: by its name and a password, or by its MAC address alone. */
export type SigningIn =
  { readonly by: "name"; readonly name: string } | { readonly by: "mac"; readonly mac: Mac };

/** The profile by which a device signs in where it is planned to be; undefined where it signs in nowhere. */
function profileFor(index: PlanIndex, host: Host): SignIn | undefined {
  const { attachment } = host;
  if (attachment.at === "ssid") {
    const ssid = index.plan.ssid.get(attachment.ssid);
    return ssid === undefined ? undefined : wirelessProfile(index, ssid);
  }
  const port = index.plan.port.get(portOfHost(index, host) ?? "");
  return port?.guards.signIn === true ? profileOf(index, port) : undefined;
}

/** The device that somebody says it is; undefined when the register knows none. */
function known(index: PlanIndex, asking: SigningIn): Host | undefined {
  const hosts = [...index.plan.host.values()];
  return asking.by === "mac"
    ? hosts.find(({ mac }) => mac === asking.mac)
    : hosts.find(({ name }) =>
        [name, asLabel(name)].some((spelling) => spelling.toLowerCase() === asking.name.toLowerCase()),
      );
}

/**
 * What an authentication server that goes by the register answers to somebody who signs in by name, its
 * password being right, or by MAC address.
 */
export function serverAnswer(index: PlanIndex, asking: SigningIn): ServerAnswer {
  const host = known(index, asking);
  if (host === undefined)
    return { letsIn: false, why: `${asking.by === "mac" ? asking.mac : asking.name} is not in the register` };
  const profile = profileFor(index, host);
  if (profile === undefined)
    return { letsIn: false, why: `${host.name} is at no port that asks for a sign-in` };
  if (asking.by === "mac" && !profile.byMac)
    return { letsIn: false, why: `${profile.name} lets nobody in by MAC address` };
  if (asking.by === "name" && !speaksSignIn(host))
    return { letsIn: false, why: `${host.name} is not taken to sign in by name` };
  const isTagged = host.tag !== null;
  return {
    letsIn: true,
    host,
    profile,
    vid: profile.byAnswer ? answeredVid(index, host) : null,
    isTagged,
  };
}
