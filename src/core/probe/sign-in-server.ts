import { formatAddress, type Ipv4 } from "../address";
import type { Device, Host, PlanIndex, SignIn } from "../plan";
import { adminPort } from "../planners";
import { askAndHear } from "./exchange";
import type { ProbeRun } from "./run";
import { hostAddress } from "./station";
import { asksLike } from "./unguarded";
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

/** What is asked of servers: which, by which protocol and port, and for what. */
interface Asked {
  readonly key: string;
  readonly servers: readonly string[];
  readonly protocol: "udp" | "tcp";
  readonly port: number;
  readonly what: string;
  readonly standard: string;
}

/**
 * Who answered before, by plan, what was asked and the device that did: every port of a switch asks the same;
 * or what the device had in common with others that are answered alike.
 */
const ANSWERED = new WeakMap<PlanIndex, Map<string, Host>>();

function answeredOf(index: PlanIndex): Map<string, Host> {
  const known = ANSWERED.get(index) ?? new Map<string, Host>();
  ANSWERED.set(index, known);
  return known;
}

/**
 * Why no server answered a device before, by what names the things that its repairs would create: a repair
 * that was offered to one is no other's.
 */
const SILENT = new WeakMap<ProbeRun["ids"], WeakMap<PlanIndex, Map<string, Cause>>>();

function silentFor({ ids, index }: ProbeRun): Map<string, Cause> {
  const byPlan = SILENT.get(ids) ?? new WeakMap<PlanIndex, Map<string, Cause>>();
  SILENT.set(ids, byPlan);
  const known = byPlan.get(index) ?? new Map<string, Cause>();
  byPlan.set(index, known);
  return known;
}

/** Why a server is not reached by a device; null where it answers. */
function unreached(run: ProbeRun, device: Device, asked: Asked, server: Host): Cause | null {
  const { protocol, port, what, standard } = asked;
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
  const packet = { family: 4 as const, protocol, src, dst, sport: 49_152, dport: port };
  const service = { name: "sign-in", protocol, ports: [[port, port] as [number, number]] };
  const { arrived, cause } = askAndHear(run, device, packet, service);
  return cause === null
    ? null
    : {
        ...cause,
        sentence:
          `${device.name} ${arrived ? "asks" : "does not reach"} ${server.name} ` +
          `(${formatAddress(dst)}) for ` +
          `${what}${arrived ? `, and the answer (${standard}) does not come back` : ""}: ${cause.sentence}`,
      };
}

/** The server that answers, or why none is reached. */
export type ServerReached = { readonly server: Host } | { readonly cause: Cause };

/** What the devices that a server answers alike share; null where each has to ask. */
function likeKey(run: ProbeRun, device: Device, asked: Asked, server: Host): string | null {
  const dst = hostAddress(run, server, 4);
  const like = dst === null ? null : asksLike(run.index, device, server, dst);
  return like === null ? null : `${asked.key} ${like}`;
}

/** The first of some servers that a device reaches; else why the first one is not, null where none is named. */
function firstReached(run: ProbeRun, device: Device, asked: Asked): ServerReached | null {
  const answered = answeredOf(run.index);
  const key = `${device.id} ${asked.key}`;
  const before = answered.get(key);
  if (before !== undefined) return { server: before };
  const silentBefore = silentFor(run).get(key);
  if (silentBefore !== undefined) return { cause: silentBefore };
  let first: Cause | null = null;
  for (const id of asked.servers) {
    const server = run.index.plan.host.get(id);
    if (server === undefined) continue;
    const like = likeKey(run, device, asked, server);
    const cause = like !== null && answered.has(like) ? null : unreached(run, device, asked, server);
    if (cause === null) {
      answered.set(key, server);
      if (like !== null) answered.set(like, server);
      return { server };
    }
    first ??= cause;
  }
  if (first === null) return null;
  if (run.isSettled) silentFor(run).set(key, first);
  return { cause: first };
}

/**
 * The first authentication server of a profile that a switch reaches; else why the first one is not reached.
 */
export function serverReached(run: ProbeRun, device: Device, profile: SignIn): ServerReached {
  const { id, name, servers, port } = profile;
  const asked: Asked = {
    key: id,
    servers,
    protocol: "udp",
    port,
    what: "sign-in",
    standard: "RFC 2865",
  };
  return (
    firstReached(run, device, asked) ?? {
      cause: {
        sentence: `The sign-in profile ${name} names no server that is in the plan.`,
        subjects: [{ kind: "signIn", id }],
        repairs: [],
      },
    }
  );
}

/** What gear asks of a server for itself. */
export type GearAsks = "names" | "time" | "log";
const GEAR_ASKS: Readonly<Record<GearAsks, Pick<Asked, "port" | "what" | "standard">>> = {
  names: { port: 53, what: "names", standard: "RFC 1035" },
  time: { port: 123, what: "the time", standard: "RFC 5905" },
  log: { port: 514, what: "its log", standard: "RFC 5426" },
};

/** The first of the hosts that a device asks for itself and reaches, or why none is; null without any. */
export function gearServerReached(
  run: ProbeRun,
  device: Device,
  asks: GearAsks,
  servers: readonly string[],
): ServerReached | null {
  const key = `${asks} ${servers.join(" ")}`;
  return firstReached(run, device, { key, servers, protocol: "udp", ...GEAR_ASKS[asks] });
}

/** The same for the servers by which administrators sign in to a device; for one that asks any. */
export function adminServerReached(run: ProbeRun, device: Device): ServerReached {
  const { by, servers } = device.adminSignIn;
  const isRadius = by === "radius";
  const asked: Asked = {
    key: "administrators",
    servers,
    protocol: isRadius ? "udp" : "tcp",
    port: adminPort(device.adminSignIn) ?? 0,
    what: "its administrators",
    standard: isRadius ? "RFC 2865" : "RFC 8907",
  };
  return (
    firstReached(run, device, asked) ?? {
      cause: {
        sentence: `${device.name} asks servers for its administrators, and none is named that is in the plan.`,
        subjects: [{ kind: "device", id: device.id }],
        repairs: [],
      },
    }
  );
}
