import { containsAddress, type Address, type Mac } from "../address";
import type { PlanIndex, Service } from "../plan";
import { getLease, type Lease } from "./lease";
import { passWall, reachGateway, reachHost, reachInternet } from "./reach";
import { start, type ProbeFrom } from "./start";
import { Journey, type Cause, type Step } from "./step";

export type ProbeGoal =
  | { readonly to: "address" }
  | { readonly to: "internet"; readonly service: Service | null }
  | { readonly to: "host"; readonly host: string; readonly service: Service | null };

export interface Question { readonly from: ProbeFrom; readonly goal: ProbeGoal; readonly mac: Mac | null }

export interface Outcome {
  readonly steps: readonly Step[];
  /** The number of the step at which it stops, counted from 1; null when everything passes. */
  readonly stopsAt: number | null;
  readonly cause: Cause | null;
  readonly lease: Lease | null;
  /** Where an address should have come from when none came. */
  readonly expected: { readonly segment: string; readonly scope: string | null } | null;
}

/**
 * Plugs a client in and follows it: classification, every hop with its tag, the server that answers, the address; then the
 * gateway, the wall, the far side and the way back. `ids` names what a repair would create.
 */
export function probe(index: PlanIndex, question: Question, ids: () => string): Outcome {
  const journey = new Journey();
  const started = start(index, journey, question.from);
  const lease = started === null ? null : getLease(index, journey, started, question.mac);
  if (started !== null && lease !== null) goOn(index, journey, question, started, lease, ids);
  const segment = started?.segment.id ?? null;
  return {
    steps: journey.steps,
    stopsAt: journey.cause === null ? null : journey.steps.length,
    cause: journey.cause,
    lease,
    expected: segment === null ? null : { segment, scope: index.scopesOf(segment)[0]?.id ?? null },
  };
}

function goOn(index: PlanIndex, journey: Journey, { goal }: Question, started: NonNullable<ReturnType<typeof start>>, lease: Lease, ids: () => string): void {
  const from = index.plan.segment.get(lease.segment) ?? started.segment;
  if (goal.to === "address") return;
  if (goal.to === "internet") {
    if (reachGateway(index, journey, started, lease) && passWall(index, journey, from, "internet", goal.service, ids)) reachInternet(index, journey, lease);
    return;
  }
  const target = index.plan.host.get(goal.host);
  if (target === undefined) return;
  const home = target.segment === null ? undefined : index.plan.segment.get(target.segment);
  const sameSegment = home?.id === from.id;
  if (!sameSegment) {
    if (!reachGateway(index, journey, started, lease)) return;
    if (home !== undefined && !passWall(index, journey, from, home, goal.service, ids)) return;
  }
  reachHost(index, journey, started, lease, target);
}

/** The segment an address belongs to, or undefined: for asking where a typed address leads. */
export const segmentOfAddress = (index: PlanIndex, address: Address) =>
  [...index.plan.segment.values()].find((s) => [...s.prefixes4, ...s.prefixes6].some((p) => containsAddress(p, address)));
