import { kbpsOf, linkSpeed } from "../cabling";
import { cableWay, JOINS } from "../forwarding";
import { placeOfHost } from "../places";
import { spotOf } from "../failure";
import { FABRIC } from "../fabric";
import { TREE } from "../spanning-tree";
import type { PlanIndex } from "../plan";

/** What passes a cable between bridges, as the trees of now have it. */
export interface TreeLoad {
  readonly link: string;
  /** The sum of the typical bandwidths of those whose way to their gateway leads over it. */
  readonly kbps: number;
  readonly mbps: number;
}

/** Everybody's bandwidth, put together by where they are, in which VLAN, and which device is their gateway. */
function flows(index: PlanIndex): { from: string; to: string; vid: number; kbps: number }[] {
  const fabric = index.derived(FABRIC);
  const state = { index, fabric, tree: index.derived(TREE), nodes: index.derived(JOINS).nodes };
  const byWay = new Map<string, { from: string; to: string; vid: number; kbps: number }>();
  for (const host of index.plan.host.values()) {
    const spot = spotOf(state, placeOfHost(index, host));
    const segment = index.plan.segment.get(host.segment ?? "");
    const gateway = segment === undefined ? undefined : index.gatewayOf(segment);
    const from = spot === null || spot.device < 0 ? undefined : fabric.devices[spot.device]?.id;
    if (spot === null || from === undefined || gateway === undefined) continue;
    const key = `${from} ${gateway.device} ${spot.vid}`;
    const known = byWay.get(key) ?? { from, to: gateway.device, vid: spot.vid, kbps: 0 };
    known.kbps += kbpsOf(index, host);
    byWay.set(key, known);
  }
  return [...byWay.values()];
}

/** The ports that take part in some tree: the common one, a region's, or a VLAN's. */
export const portsInTrees = (index: PlanIndex): ReadonlySet<string> =>
  new Set(index.derived(TREE).named.flatMap(({ tree }) => [...tree.ports.keys()]));

/** The load of every cable between bridges by the trees as they are; cables that carry nothing have 0. */
export function treeLoads(index: PlanIndex): TreeLoad[] {
  const { plan } = index;
  const taking = portsInTrees(index);
  const loads = new Map<string, { link: string; kbps: number; mbps: number }>();
  for (const link of plan.link.values()) {
    const [a, b] = [plan.port.get(link.a), plan.port.get(link.b)];
    if (a === undefined || b === undefined || !taking.has(a.id) || !taking.has(b.id)) continue;
    loads.set(link.id, { link: link.id, kbps: 0, mbps: linkSpeed(a, b) });
  }
  for (const { from, to, vid, kbps } of flows(index))
    for (const { near } of cableWay(index, from, to, vid) ?? []) {
      const load = loads.get(index.linkAt(near.id)?.id ?? "");
      if (load !== undefined) load.kbps += kbps;
    }
  return [...loads.values()];
}

/** How full the fullest of some cables is, as a part of what it carries. */
export const fullest = (loads: readonly TreeLoad[]): number =>
  Math.max(0, ...loads.map(({ kbps, mbps }) => (mbps === 0 ? 0 : kbps / 1000 / mbps)));
