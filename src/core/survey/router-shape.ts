import type { PlanIndex } from "../plan";
import { byGroup, groupKey, type Group } from "./groups";
import { INTENTS } from "./purposes";

/**
 * How separate routers stand to one another. "one": a single network needs none. "chain": what others open
 * and what opens nothing itself lies in front, the other behind a router of its own. "Y": nobody's devices
 * lie in front; each network is behind a router of its own, and the front one only leads out.
 */
export type RouterShape =
  { readonly shape: "one" | "chain"; readonly front: Group } | { readonly shape: "Y" };

const opens = (from: Group, to: Group): boolean =>
  INTENTS.some((intent) => intent.from === from.purpose && intent.to === to.purpose);
const opensAllOutside = (group: Group): boolean =>
  INTENTS.some(
    (intent) => intent.from === group.purpose && intent.to === "internet" && intent.services === "open",
  );

/**
 * The network in front as the plan has it already, so that drafting again adds to what stands; null where
 * there is none yet.
 */
function standingFront({ plan }: PlanIndex): Group | null {
  const withLine = new Set(
    [...plan.interface.values()].flatMap((leg) => (leg.line === null ? [] : [leg.device])),
  );
  const segment = [...plan.segment.values()].find((segment) =>
    withLine.has(plan.interface.get(segment.gatewayInterface ?? "")?.device ?? ""),
  );
  return segment === undefined ? null : { purpose: segment.purpose, name: segment.group };
}

/**
 * The shape that fits groups of devices: two of which one opens the other and not the other way round make a
 * chain, since who is behind reaches what is in front and is not reached from there; any others a Y, since
 * what lies between two networks sees all that either sends.
 */
export function shapeOf(index: PlanIndex, groups: readonly Group[]): RouterShape {
  const ordered = [...groups].filter(({ purpose }) => purpose !== "management").sort(byGroup);
  const [a, b, c] = ordered;
  const standing = standingFront(index);
  const stands =
    standing === null ? undefined : ordered.find((group) => groupKey(group) === groupKey(standing));
  if (stands !== undefined) return { shape: ordered.length > 1 ? "chain" : "one", front: stands };
  if (a !== undefined && b === undefined) return { shape: "one", front: a };
  if (a === undefined || b === undefined || c !== undefined || standing !== null) return { shape: "Y" };
  const [aOpens, bOpens] = [opens(a, b), opens(b, a)];
  const first = aOpens ? b : a;
  const front = aOpens === bOpens ? null : first;
  return front === null || !opensAllOutside(front) ? { shape: "Y" } : { shape: "chain", front };
}
