import type { Interface, PlanIndex, Scope } from "../plan";
import { FABRIC } from "../fabric";
import type { Flood } from "../forwarding";
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

/** Every scope that answers a broadcast, in the order in which it reaches their servers. */
export function whoAnswers(index: PlanIndex, result: Flood): Answer[] {
  const fabric = index.derived(FABRIC);
  const answers: Answer[] = [];
  for (const [arrival, { device, vid, emission }] of result.arrivals.entries()) {
    const id = fabric.devices[device]?.id;
    if (id === undefined) continue;
    for (const leg of index.interfacesOf(id)) {
      const segment = leg.segment === null ? undefined : index.plan.segment.get(leg.segment);
      if (segment === undefined || leg.port !== null || index.vidOf(segment) !== vid) continue;
      answers.push(
        ...scopesAt(index, id, segment.id, leg.relayTo).map((found) => ({ ...found, arrival, emission })),
      );
    }
  }
  for (const { port, tag, emission } of result.routed) {
    const id = fabric.ports[port]?.id;
    for (const leg of id === undefined || tag !== null
      ? []
      : (index.groups("interfacesByPort").get(id) ?? [])) {
      if (leg.segment !== null)
        answers.push(
          ...scopesAt(index, leg.device, leg.segment, leg.relayTo).map((found) => ({
            ...found,
            arrival: -1,
            emission,
          })),
        );
    }
  }
  for (const { host, tag, emission } of result.heard) {
    if (host.segment === null || tag !== host.tag) continue;
    for (const scope of index.scopesOf(host.segment)) {
      if (scope.serverHost === host.id) answers.push({ scope, arrival: -1, emission, relayedBy: null });
    }
  }
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
