import { putInto } from "../kernel";
import type { Derived, Interface, PlanIndex, Scope, Segment } from "../plan";
import { FABRIC } from "../fabric";
import { legsHearing, type Flood } from "../forwarding";
import { byLeg } from "./hears-scope";

/**
 * A scope whose server hears the client; `arrival` is where in the flood, or -1 for a server that is an end
 * device.
 */
export interface Answer {
  readonly scope: Scope;
  readonly arrival: number;
  readonly emission: number;
  readonly relayedBy: string | null;
}

interface Known {
  readonly index: PlanIndex;
  readonly answers: readonly Answer[];
}
/** A broadcast that is kept is asked about with every address that somebody asks for there. */
const KNOWN = new WeakMap<Flood, Known>();

/** Every scope that answers a broadcast, in the order in which it reaches their servers. */
export function whoAnswers(index: PlanIndex, result: Flood): readonly Answer[] {
  const known = KNOWN.get(result);
  if (known?.index === index) return known.answers;
  const answers = [
    ...answersOfDevices(index, result),
    ...answersOfRoutedPorts(index, result),
    ...answersOfPlainGear(index, result),
    ...answersOfHosts(index, result),
  ];
  KNOWN.set(result, { index, answers });
  return answers;
}

/**
 * Scopes of a segment whose server hears by a device's leg there: served by the device itself, or asked by
 * its relay.
 */
function scopesAt(
  index: PlanIndex,
  device: string,
  segment: string,
  relayTo: Interface["relayTo"],
): { scope: Scope; relayedBy: string | null }[] {
  return index.scopesOf(segment).flatMap((scope): { scope: Scope; relayedBy: string | null }[] => {
    const by = byLeg(index, scope, { device, relayTo });
    return by === null ? [] : [{ scope, relayedBy: by === "relay" ? device : null }];
  });
}

/** A leg in a segment. */
interface LegIn {
  readonly leg: Interface;
  readonly segment: Segment;
}

/** By VLAN and then by device, the legs that hang inside it: a router with many is asked at each broadcast. */
const INSIDE: Derived<ReadonlyMap<number, ReadonlyMap<string, readonly LegIn[]>>> = {
  reads: ["interface", "segment", "vlan"],
  make: (index) => {
    const legs = new Map<number, Map<string, LegIn[]>>();
    for (const leg of index.plan.interface.values()) {
      const segment = leg.segment === null ? undefined : index.plan.segment.get(leg.segment);
      const vid = segment === undefined || leg.port !== null ? null : index.vidOf(segment);
      if (segment === undefined || vid === null) continue;
      const own = legs.get(vid) ?? new Map<string, LegIn[]>();
      legs.set(vid, own);
      putInto(own, leg.device, { leg, segment });
    }
    return legs;
  },
};

function answersOfDevices(index: PlanIndex, { arrivals }: Flood): Answer[] {
  const { devices } = index.derived(FABRIC);
  const inside = index.derived(INSIDE);
  const answers: Answer[] = [];
  for (const [arrival, { device, vid, emission }] of arrivals.entries())
    for (const { leg, segment } of inside.get(vid)?.get(devices[device]?.id ?? "") ?? [])
      for (const found of scopesAt(index, leg.device, segment.id, leg.relayTo))
        answers.push({ ...found, arrival, emission });
  return answers;
}

function answersOfRoutedPorts(index: PlanIndex, { routed }: Flood): Answer[] {
  const fabric = index.derived(FABRIC);
  return routed.flatMap(({ port, tag, emission }) => {
    const id = fabric.ports[port]?.id;
    if (id === undefined || tag !== null) return [];
    return (index.groups("interfacesByPort").get(id) ?? []).flatMap((leg) =>
      leg.segment === null
        ? []
        : scopesAt(index, leg.device, leg.segment, leg.relayTo).map((found) => ({
            ...found,
            arrival: -1,
            emission,
          })),
    );
  });
}

/** Scopes of a segment without a VLAN whose server has its leg there at all its ports together. */
function answersOfPlainGear(index: PlanIndex, result: Flood): Answer[] {
  return legsHearing(index.derived(FABRIC), result).flatMap(({ leg: id, emission }) => {
    const leg = index.plan.interface.get(id);
    const segment = index.plan.segment.get(leg?.segment ?? "");
    return leg === undefined || segment === undefined || index.vidOf(segment) !== null
      ? []
      : scopesAt(index, leg.device, segment.id, leg.relayTo).map((found) => ({
          ...found,
          arrival: -1,
          emission,
        }));
  });
}

/** The end devices that serve a scope. */
const SERVERS: Derived<ReadonlySet<string>> = {
  reads: ["scope"],
  make: ({ plan }) => new Set([...plan.scope.values()].flatMap(({ serverHost }) => serverHost ?? [])),
};

function answersOfHosts(index: PlanIndex, flood: Flood): Answer[] {
  const servers = index.derived(SERVERS);
  if (servers.size === 0) return [];
  return flood.heard.flatMap(({ host, tag, emission }) =>
    host.segment === null || tag !== host.tag || !servers.has(host.id)
      ? []
      : index
          .scopesOf(host.segment)
          .filter((scope) => scope.serverHost === host.id)
          .map((scope) => ({ scope, arrival: -1, emission, relayedBy: null })),
  );
}
