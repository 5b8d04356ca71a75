import type { Device, Host, PlanIndex, Port } from "../plan";
import { addressFor } from "./address-for";
import { ProbeRun, type Reality } from "./run";
import type { Lease } from "./lease";
import { macLimitStops } from "./mac-limit";
import { partyOfHost, portOfHost, type Party } from "../places";
import type { Limited } from "./port-state";
import { portStateFor } from "./sign-in";
import { start } from "./start";

/**
 * What was found out of a plan's hosts; a look-up that is under way answers null: what waits for itself never
 * comes up.
 */
interface Known {
  /** How many look-ups are under way: what is found meanwhile may be otherwise once they are done. */
  underWay: number;
  readonly parties: Map<string, Party | null>;
  readonly leases: Map<string, Lease | null>;
}
const KNOWN = new WeakMap<PlanIndex, Known>();

function knownOf(index: PlanIndex): Known {
  const known = KNOWN.get(index) ?? { underWay: 0, parties: new Map(), leases: new Map() };
  KNOWN.set(index, known);
  return known;
}

function once<T>(known: Known, map: Map<string, T | null>, id: string, find: () => T | null): T | null {
  const before = map.get(id);
  if (before !== undefined) return before;
  map.set(id, null);
  known.underWay += 1;
  try {
    const found = find();
    map.set(id, found);
    return found;
  } finally {
    known.underWay -= 1;
  }
}

/**
 * Where a host is once its port has let it in; null when it is not plugged in, or its port stays closed to
 * it, both ways (IEEE 802.1X section 6.4).
 */
function admitted(run: ProbeRun, host: Host): Party | null {
  const party = partyOfHost(run.index, host);
  if (party === null || party.place.at !== "cable") return party;
  const { port, device } = portOf(run, party.place.port);
  if (port === undefined || device === undefined || macLimitStops(run, port, host) !== null) return null;
  if (!port.guards.signIn || device.bridging !== "vlan") return party;
  const { state, vid } = portStateFor(run, device, port, { host, speaksItself: false, tag: host.tag });
  if (state === "closed" || (vid !== null && host.tag !== null)) return null;
  return vid === null
    ? party
    : { ...party, place: { at: "inside", device: device.id, vid, port: port.id, ssid: null } };
}

function portOf({ index }: ProbeRun, id: string): { port?: Port | undefined; device?: Device | undefined } {
  const port = index.plan.port.get(id);
  return port === undefined ? {} : { port, device: index.plan.device.get(port.device) };
}

/** What a host's port lets pass until it has signed in; only the stage limited has such ports. */
function limitOf(run: ProbeRun, host: Host): Limited | null {
  if (![...run.index.plan.signIn.values()].some(({ stage }) => stage === "limited")) return null;
  const at = portOfHost(run.index, host);
  const { port, device } = at === null ? {} : portOf(run, at);
  if (port === undefined || device?.bridging !== "vlan" || !port.guards.signIn) return null;
  const state = portStateFor(run, device, port, { host, speaksItself: false, tag: host.tag });
  return state.state === "limited" ? state : null;
}

/**
 * The IPv4 address that a host really has: entered on it, or got where it is plugged in (RFC 2131 section
 * 4.3.1); null without one.
 */
function leased(run: ProbeRun, host: Host): Lease | null {
  const aside = run.aside();
  const started = start(aside, { at: "host", host: host.id }, null, { behindPhone: false, asks: 4 });
  return started === null ? null : addressFor(aside, started, { as: "client" }, 4);
}

const REALITY: Reality = {
  partyOf: (run, host) => {
    const known = knownOf(run.index);
    return once(known, known.parties, host.id, () => admitted(run, host));
  },
  limitOf,
  leaseOf: (run, host) => {
    const known = knownOf(run.index);
    return once(known, known.leases, host.id, () => leased(run, host));
  },
  isSettled: ({ index }) => knownOf(index).underWay === 0,
};

/** A run to ask on: where everybody is, and with which address, as it really comes to be. */
export const runOn = (index: PlanIndex, ids: () => string): ProbeRun => new ProbeRun(index, ids, REALITY);
