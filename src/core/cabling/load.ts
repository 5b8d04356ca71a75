import { equal } from "../kernel";
import { isGateway, type Change, type Derived, type Host, type PlanIndex, type Port } from "../plan";
import { CATALOGUE, catalogueOf } from "../catalogue";
import { FABRIC } from "../fabric";
import { linkSpeed } from "./media";

/**
 * What passes a cable towards the gateway when everything behind it is busy, against what the cable carries.
 */
export interface CableLoad {
  readonly link: string;
  /** The sum of the typical bandwidths of what hangs behind it. */
  readonly kbps: number;
  readonly hosts: number;
  /** The speed of the cable; of all of them where it is one of a LAG. */
  readonly mbps: number;
}

/** Typical bandwidths by the survey's word, the site's own words first. */
const BY_WORD: Derived<ReadonlyMap<string, number>> = {
  reads: ["hostKind"],
  make: ({ plan }) => new Map([...catalogueOf(plan)].reverse().map(({ word, kbps }) => [word, kbps])),
};
const BY_BASE = new Map([...CATALOGUE].reverse().map(({ base, kbps }) => [base, kbps]));

/** Typical bandwidth of an end device: by the survey's word for it, else by its kind. */
export function kbpsOf(index: PlanIndex, host: Host): number {
  const known = host.surveyed === null ? undefined : index.derived(BY_WORD).get(host.surveyed.what);
  return known ?? BY_BASE.get(host.kind) ?? 1000;
}

/** The cables that carry what one cable carries: the working members of its LAG, or itself. */
function sharersOf(index: PlanIndex, near: Port): number {
  if (near.lag === null) return 1;
  const members = index.groups("portsByLag").get(near.lag) ?? [];
  return Math.max(1, members.filter((port) => port.enabled && index.linkAt(port.id) !== undefined).length);
}

interface WayUp {
  readonly link: string;
  readonly up: string;
  readonly near: Port;
  readonly far: Port;
}

/** By which cable each device is reached from the gateways, nearest first; gateways are in the order only. */
function waysUp(index: PlanIndex): { order: readonly string[]; reachedBy: ReadonlyMap<string, WayUp> } {
  const order = [...index.plan.device.values()].filter(isGateway).map((device) => device.id);
  const seen = new Set(order);
  const reachedBy = new Map<string, WayUp>();
  for (let i = 0; i < order.length; i += 1) {
    const at = order[i] ?? "";
    for (const near of index.portsOf(at)) {
      const far = near.enabled ? index.peerOf(near.id) : undefined;
      const link = index.linkAt(near.id);
      if (far === undefined || link === undefined || !far.enabled || seen.has(far.device)) continue;
      seen.add(far.device);
      reachedBy.set(far.device, { link: link.id, up: at, near, far });
      order.push(far.device);
    }
  }
  return { order, reachedBy };
}

/**
 * The load of every cable between gear on the shortest ways to the gateway; cables beside those carry nothing
 * as long as all is well.
 */
function loadsOf(index: PlanIndex): readonly CableLoad[] {
  const { plan } = index;
  const own = new Map<string, { kbps: number; hosts: number }>();
  const add = (device: string, kbps: number, hosts: number) => {
    const known = own.get(device);
    if (known === undefined) own.set(device, { kbps, hosts });
    else {
      known.kbps += kbps;
      known.hosts += hosts;
    }
  };
  const hostsByHost = index.groups("hostsByHost");
  for (const host of plan.host.values()) {
    if (host.attachment.at !== "port") continue;
    const port = plan.port.get(host.attachment.port);
    if (port === undefined) continue;
    add(port.device, kbpsOf(index, host), 1);
    for (const behind of hostsByHost.get(host.id) ?? []) add(port.device, kbpsOf(index, behind), 1);
  }
  const { order, reachedBy } = waysUp(index);
  const loads: CableLoad[] = [];
  for (const device of [...order].reverse()) {
    const way = reachedBy.get(device);
    const behind = own.get(device);
    if (way === undefined || behind === undefined) continue;
    loads.push({
      link: way.link,
      kbps: behind.kbps,
      hosts: behind.hosts,
      mbps: linkSpeed(way.near, way.far) * sharersOf(index, way.near),
    });
    add(way.up, behind.kbps, behind.hosts);
  }
  return loads;
}

/** An edit of names, addresses and VLANs moves no load. */
function changesNothing(change: Change): boolean {
  const { before, after } = change;
  if (before === null || after === null) return false;
  if (change.kind === "host") {
    const [was, is] = [before, after] as [Host, Host];
    return was.kind === is.kind && equal(was.attachment, is.attachment) && equal(was.surveyed, is.surveyed);
  }
  if (change.kind === "port") {
    const [was, is] = [before, after] as [Port, Port];
    return (
      was.device === is.device &&
      was.enabled === is.enabled &&
      was.lag === is.lag &&
      was.speedMbps === is.speedMbps &&
      was.optic === is.optic
    );
  }
  return false;
}

export const LOADS: Derived<readonly CableLoad[]> = {
  reads: [...FABRIC.reads, "hostKind"],
  make: loadsOf,
  follow: (previous, _index, changes) =>
    changes.filter((change) => LOADS.reads.includes(change.kind)).every(changesNothing) ? previous : null,
};
