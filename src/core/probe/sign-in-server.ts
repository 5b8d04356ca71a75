import { formatAddress, type Ipv4 } from "../address";
import type { Device, Host, PlanIndex, SignIn } from "../plan";
import { askAndHear } from "./exchange";
import type { ProbeRun } from "./run";
import { hostAddress } from "./station";
import type { Cause } from "./step";

/**
 * The address that a device's own questions come from: that of the leg it is told to use, else of the first
 * that has one; undefined without one.
 */
const asksFrom = (index: PlanIndex, device: Device): Ipv4 | undefined =>
  (device.asksFrom === null ? undefined : index.plan.interface.get(device.asksFrom)?.addresses4[0]) ??
  index.interfacesOf(device.id).flatMap((leg) => leg.addresses4)[0];

/** A server that can't answer, wherever it is asked from. */
const silent = (server: Host, why: string): Cause => ({
  sentence: `${server.name} ${why}, and answers nobody who asks for a sign-in.`,
  subjects: [{ kind: "host", id: server.id }],
  repairs: [],
});

/** Who answered a switch before, by plan, switch and profile: every port of a switch asks the same. */
const ANSWERED = new WeakMap<PlanIndex, Map<string, Host>>();

function answeredOf(index: PlanIndex): Map<string, Host> {
  const known = ANSWERED.get(index) ?? new Map<string, Host>();
  ANSWERED.set(index, known);
  return known;
}

/**
 * The first authentication server of a profile that a switch reaches; else why the first one is not reached.
 */
export function serverReached(
  run: ProbeRun,
  device: Device,
  profile: SignIn,
): { readonly server: Host } | { readonly cause: Cause } {
  const { index } = run;
  const answered = answeredOf(index);
  const key = `${device.id} ${profile.id}`;
  const before = answered.get(key);
  if (before !== undefined) return { server: before };
  let first: Cause | null = null;
  for (const id of profile.servers) {
    const server = index.plan.host.get(id);
    const party = server === undefined ? null : run.partyOf(server);
    const address = server === undefined ? null : hostAddress(run, server, 4);
    if (server === undefined) continue;
    if (party === null || address === null) {
      first ??= silent(server, party === null ? "is not there" : "has no address");
      continue;
    }
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
    if (cause === null) {
      answered.set(key, server);
      return { server };
    }
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
