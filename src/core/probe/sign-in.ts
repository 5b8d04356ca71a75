import type { Repair } from "../repairs";
import {
  answeredVid,
  nameOf,
  profileOf,
  type Device,
  type Host,
  type PlanIndex,
  type Port,
  type SignIn,
  type Vid,
} from "../plan";
import { CATALOGUE } from "../catalogue";
import { macOf } from "../places";
import { hostsOnWire } from "./mac-limit";
import type { ProbeRun } from "./run";
import { serverReached } from "./sign-in-server";
import type { Closed, PortState } from "./port-state";
import type { Cause } from "./step";

/** Who asks to be let in. */
export interface Asking {
  /** Null for something that is in no register. */
  readonly host: Host | null;
  /** Whether it speaks 802.1X although the register knows nothing of it. */
  readonly speaksItself: boolean;
  /** The tag that it sends with. */
  readonly tag: number | null;
}

/** Whether a kind of end device signs in by itself. */
export const speaksSignIn = (host: Host | null): boolean =>
  host !== null && CATALOGUE.some((kind) => kind.base === host.kind && kind.speaksSignIn);

function withoutServer({ serverDown, serverDownVoice }: SignIn, cause: Cause, { tag }: Asking): PortState {
  if (tag !== null && tag === serverDownVoice)
    return {
      state: "server down",
      vid: null,
      says: `no server answers: goes on in VLAN ${serverDownVoice}`,
      why: `${cause.sentence} Phones go on in their VLAN for that case.`,
    };
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
): Closed {
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

const isPhone = ({ kind, tag }: Host): boolean => kind === "phone" || tag !== null;

/**
 * Who of those on a port's wire the profile has no room for (IEEE 802.1X leaves it to the port how many it
 * admits): behind one device nobody, behind a phone one more. Null where it has.
 */
function noRoom(run: ProbeRun, port: Port, profile: SignIn, host: Host | null): Closed | null {
  if (host === null || profile.hosts === "several" || profile.hosts === "many") return null;
  const all = hostsOnWire(run, port);
  const alike = profile.hosts === "one" ? all : all.filter((other) => isPhone(other) === isPhone(host));
  const [first] = alike;
  if (first === undefined || first.id === host.id || !alike.some(({ id }) => id === host.id)) return null;
  const takes = profile.hosts === "one" ? "one device" : "a phone and one device";
  return {
    state: "closed",
    vid: null,
    says: `lets in ${takes} only`,
    why: `${first.name} is there already.`,
    cause: {
      sentence:
        `${nameOf(run.index, "port", port.id)} lets in ${takes}, ` +
        `and ${first.name} is there before ${host.name}.`,
      subjects: [
        { kind: "port", id: port.id },
        { kind: "host", id: host.id },
      ],
      repairs: [
        {
          label: `Let several in at the ports of ${profile.name}, each by itself`,
          planner: "edit-sign-in",
          args: { profile: profile.id, hosts: "several" },
          edit: (edits) => edits.patch("signIn", profile.id, { hosts: "several" }),
        },
      ],
    },
  };
}

/** One that is not let in itself, at a port that any number may use once one is in; null where none is. */
function withAnother(run: ProbeRun, port: Port, profile: SignIn, { host }: Asking): PortState | null {
  if (host === null || profile.hosts !== "many") return null;
  const other = hostsOnWire(run, port).find(
    (other) => other.id !== host.id && (speaksSignIn(other) || (profile.byMac && other.mac !== null)),
  );
  return other === undefined
    ? null
    : {
        state: "with another",
        vid: null,
        says: `passes: ${other.name} is let in`,
        why: "Once one is let in at this port, any number is.",
      };
}

/** What the stage of a profile makes of somebody who is not let in. */
function staged(profile: SignIn, port: Port, state: PortState): PortState {
  const isIn =
    state.state === "signed in" || state.state === "by MAC address" || state.state === "with another";
  if (profile.stage === "closed" || isIn) return state;
  if (profile.stage === "watch")
    return {
      state: "watched",
      vid: null,
      says: `would not get in (${state.says}), and is recorded`,
      why: `${state.why} At the stage watch everybody passes.`,
    };
  if (state.state !== "closed") return state;
  const names = [...new Set(profile.before.map(({ name }) => name))].join(", ");
  return {
    ...state,
    state: "limited",
    port: port.id,
    only: profile.before,
    says: `is not let in; ${names === "" ? "nothing" : names} passes`,
  };
}

/** Where somebody who is let in goes: by the server's answer into the VLAN of its own segment (RFC 3580). */
function answered(index: PlanIndex, port: Port, profile: SignIn, { host, tag }: Asking): Vid | null {
  const vid = host === null ? null : answeredVid(index, host);
  return !profile.byAnswer || tag !== null || vid === port.pvid ? null : vid;
}

/** What a profile says of somebody once a server has been asked. */
function judged(
  run: ProbeRun,
  port: Port,
  profile: SignIn,
  { asking, by }: { readonly asking: Asking; readonly by: string },
): PortState {
  const { index } = run;
  const { host, speaksItself } = asking;
  const vid = answered(index, port, profile, asking);
  const into = vid === null ? "" : `, VLAN ${vid}`;
  if (speaksSignIn(host) || speaksItself)
    return {
      state: "signed in",
      vid,
      says: `signs in, ${by} agrees${into}`,
      why: `${host?.name ?? "It"} speaks 802.1X; ${
        vid === null ? "the port opens in its own VLAN." : `${by} answers with the VLAN of its segment.`
      }`,
    };
  const taken = byAddress(profile, host, by);
  if (taken?.state === "by MAC address") return { ...taken, vid, says: `${taken.says}${into}` };
  return withAnother(run, port, profile, asking) ?? taken ?? staysClosed(index, port, profile, { host, by });
}

/** What becomes of a host, or of something that is in no register (null), at a port with sign-in. */
export function portStateFor(run: ProbeRun, device: Device, port: Port, asking: Asking): PortState {
  const profile = profileOf(run.index, port);
  if (profile === undefined)
    return {
      state: "not described",
      vid: null,
      says: "sign-in is asked for",
      why: "The plan does not say by which servers, so it is taken as done.",
    };
  const full = noRoom(run, port, profile, asking.host);
  if (full !== null) return staged(profile, port, full);
  const reached = serverReached(run, device, profile);
  const state =
    "cause" in reached
      ? withoutServer(profile, reached.cause, asking)
      : judged(run, port, profile, { asking, by: reached.server.name });
  return staged(profile, port, state);
}
