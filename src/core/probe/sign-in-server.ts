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

/** Why a server is not reached by a switch; null where it answers. */
function unreached(run: ProbeRun, device: Device, { port }: SignIn, server: Host): Cause | null {
  const party = run.partyOf(server);
  const dst = hostAddress(run, server, 4);
  if (party === null || dst === null)
    return silent(server, party === null ? "is not there" : "has no address");
  const src = asksFrom(run.index, device);
  if (src === undefined)
    return {
      sentence: `${device.name} has no address of its own to ask ${server.name} from.`,
      subjects: [{ kind: "device", id: device.id }],
      repairs: [],
    };
  const packet = { family: 4 as const, protocol: "udp" as const, src, dst, sport: 49_152, dport: port };
  const radius = { name: "radius", protocol: "udp" as const, ports: [[port, port] as [number, number]] };
  const { arrived, cause } = askAndHear(run, device, packet, radius);
  return cause === null
    ? null
    : {
        ...cause,
        sentence:
          `${device.name} ${arrived ? "asks" : "does not reach"} ${server.name} ` +
          `(${formatAddress(dst)}) for ` +
          `sign-in${arrived ? ", and the answer (RFC 2865) does not come back" : ""}: ${cause.sentence}`,
      };
}

/**
 * The first authentication server of a profile that a switch reaches; else why the first one is not reached.
 */
export function serverReached(
  run: ProbeRun,
  device: Device,
  profile: SignIn,
): { readonly server: Host } | { readonly cause: Cause } {
  const answered = answeredOf(run.index);
  const key = `${device.id} ${profile.id}`;
  const before = answered.get(key);
  if (before !== undefined) return { server: before };
  let first: Cause | null = null;
  for (const id of profile.servers) {
    const server = run.index.plan.host.get(id);
    if (server === undefined) continue;
    const cause = unreached(run, device, profile, server);
    if (cause === null) {
      answered.set(key, server);
      return { server };
    }
    first ??= cause;
  }
  return {
    cause: first ?? {
      sentence: `The sign-in profile ${profile.name} names no server that is in the plan.`,
      subjects: [{ kind: "signIn", id: profile.id }],
      repairs: [],
    },
  };
}
