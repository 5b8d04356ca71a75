import { formatAddress, type Ipv4 } from "../address";
import type { Repair } from "../repairs";
import { nameOf, type Device, type Host, type PlanIndex, type Port, type SignIn, type Vid } from "../plan";
import { CATALOGUE } from "../catalogue";
import type { ProbeRun } from "./run";
import { askAndHear } from "./exchange";
import { macOf } from "../places";
import type { Cause } from "./step";
import { hostAddress } from "./station";

/**
 * What a port with sign-in (IEEE 802.1X) does with what is plugged in. `vid` is the VLAN it is put into
 * instead of the port's own.
 */
export type PortState =
  | {
      readonly state:
        "signed in" | "by MAC address" | "visitors" | "failed" | "server down" | "not described";
      readonly vid: Vid | null;
      readonly says: string;
      readonly why: string;
    }
  | {
      readonly state: "closed";
      readonly vid: null;
      readonly cause: Cause;
      readonly says: string;
      readonly why: string;
    };

/** Whether a kind of end device signs in by itself. */
const speaks = (host: Host | null): boolean =>
  host !== null && CATALOGUE.some((kind) => kind.base === host.kind && kind.speaksSignIn);

export const profileOf = (index: PlanIndex, port: Port): SignIn | undefined => {
  if (port.guards.profile !== null) return index.plan.signIn.get(port.guards.profile);
  const [first, ...others] = index.plan.signIn.values();
  return others.length === 0 ? first : undefined;
};

/**
 * The address that a device's own questions come from: that of the leg it is told to use, else of the first
 * that has one; undefined without one.
 */
const asksFrom = (index: PlanIndex, device: Device): Ipv4 | undefined =>
  (device.asksFrom === null ? undefined : index.plan.interface.get(device.asksFrom)?.addresses4[0]) ??
  index.interfacesOf(device.id).flatMap((leg) => leg.addresses4)[0];

/**
 * The first authentication server of a profile that a switch reaches; else why the first one is not reached.
 */
export function serverReached(
  run: ProbeRun,
  device: Device,
  profile: SignIn,
): { readonly server: Host } | { readonly cause: Cause } {
  const { index } = run;
  let first: Cause | null = null;
  for (const id of profile.servers) {
    const server = index.plan.host.get(id);
    const party = server === undefined ? null : run.partyOf(server);
    const address = server === undefined ? null : hostAddress(run, server, 4);
    if (server === undefined || party === null || address === null) continue;
    const own = asksFrom(index, device);
    if (own === undefined) {
      return {
        cause: {
          sentence: `${device.name} has no address of its own to ask ${server.name} from.`,
          subjects: [{ kind: "device", id: device.id }],
          repairs: [],
        },
      };
    }
    const packet = {
      family: 4 as const,
      protocol: "udp" as const,
      src: own,
      dst: address,
      sport: 49_152,
      dport: profile.port,
    };
    const radius = {
      name: "radius",
      protocol: "udp" as const,
      ports: [[profile.port, profile.port] as [number, number]],
    };
    const { arrived, cause } = askAndHear(run, device, packet, radius);
    if (cause === null) return { server };
    first ??= {
      ...cause,
      sentence:
        `${device.name} ${arrived ? "asks" : "does not reach"} ${server.name} ` +
        `(${formatAddress(address)}) for ` +
        `sign-in${arrived ? ", and the answer (RFC 2865) does not come back" : ""}: ${cause.sentence}`,
    };
  }
  return {
    cause: first ?? {
      sentence: `The sign-in profile ${profile.name} names no server that is in the plan.`,
      subjects: [{ kind: "signIn", id: profile.id }],
      repairs: [],
    },
  };
}

function withoutServer({ serverDown }: SignIn, cause: Cause): PortState {
  if (serverDown !== null)
    return {
      state: "server down",
      vid: serverDown,
      says: `no server answers: VLAN ${serverDown}`,
      why: cause.sentence,
    };
  return {
    state: "closed",
    vid: null,
    cause,
    says: "no server answers: the port stays closed",
    why: cause.sentence,
  };
}

/** What becomes of a device that does not speak 802.1X, where the profile says something; null where not. */
function byAddress(profile: SignIn, host: Host | null, by: string): PortState | null {
  if (profile.byMac && host?.mac !== null && host !== null)
    return {
      state: "by MAC address",
      vid: null,
      says: `let in by ${macOf(host)}`,
      why: `It does not sign in; ${by} knows its MAC address from the register.`,
    };
  if (profile.byMac && profile.failed !== null)
    return {
      state: "failed",
      vid: profile.failed,
      says: `not known: VLAN ${profile.failed}`,
      why: `${by} does not know its MAC address.`,
    };
  if (!profile.byMac && profile.visitors !== null)
    return {
      state: "visitors",
      vid: profile.visitors,
      says: `does not sign in: VLAN ${profile.visitors}`,
      why: "What does not try to sign in is put among the visitors.",
    };
  return null;
}

function staysClosed(
  index: PlanIndex,
  port: Port,
  profile: SignIn,
  { host, by }: { readonly host: Host | null; readonly by: string },
): PortState {
  const repairs: Repair[] =
    profile.byMac && host === null
      ? []
      : [
          {
            label: `Let devices in by MAC address (${profile.name})`,
            planner: "edit-sign-in",
            args: { profile: profile.id },
            edit: (edits) => edits.patch("signIn", profile.id, { byMac: true }),
          },
        ];
  return {
    state: "closed",
    vid: null,
    says: "the port stays closed",
    why: profile.byMac
      ? `${by} does not know its MAC address.`
      : "It does not sign in, and nothing else is allowed here.",
    cause: {
      sentence:
        `${nameOf(index, "port", port.id)} stays closed: ${host?.name ?? "what is plugged in"} ` +
        `${profile.byMac ? "is not known by its MAC address" : "does not sign in"}.`,
      subjects: [
        { kind: "port", id: port.id },
        ...(host === null ? [] : [{ kind: "host" as const, id: host.id }]),
      ],
      repairs,
    },
  };
}

/** What becomes of a host, or of something that is in no register (null), at a port with sign-in. */
export function portStateFor(
  run: ProbeRun,
  device: Device,
  port: Port,
  { host, speaksItself }: { readonly host: Host | null; readonly speaksItself: boolean },
): PortState {
  const { index } = run;
  const profile = profileOf(index, port);
  if (profile === undefined)
    return {
      state: "not described",
      vid: null,
      says: "sign-in is asked for",
      why: "The plan does not say by which servers, so it is taken as done.",
    };
  const reached = serverReached(run, device, profile);
  if ("cause" in reached) return withoutServer(profile, reached.cause);
  const by = reached.server.name;
  if (speaks(host) || speaksItself)
    return {
      state: "signed in",
      vid: null,
      says: `signs in, ${by} agrees`,
      why: `${host?.name ?? "It"} speaks 802.1X; the port opens in its own VLAN.`,
    };
  const taken = byAddress(profile, host, by);
  if (taken !== null) return taken;
  return staysClosed(index, port, profile, { host, by });
}
