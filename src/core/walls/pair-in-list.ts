import type { PlanIndex, WallEnd } from "../plan";
import { INTERNET } from "../policy";
import {
  allowedBetween,
  closedList,
  listSpace,
  without,
  type Allowed,
  type ListSpace,
  type NetworkGroup,
  type RuleList,
  type ServiceSpan,
} from "../rules";
import type { IntentAt } from "./wishes";

/** What a list does between two ends of a wall, beside what is intended. */
export interface PairInList {
  readonly wanted: readonly ServiceSpan[];
  readonly allowed: Allowed;
  /** What at least some may use and nobody should. */
  readonly tooMuch: readonly ServiceSpan[];
  /** What everybody should be able to use and some can't. */
  readonly missing: readonly ServiceSpan[];
}

/** The networks of an end at a device. */
function groupOf({ plan }: PlanIndex, { universe }: IntentAt, end: WallEnd): NetworkGroup {
  if (end.at === "internet") return { name: INTERNET, networks: [INTERNET] };
  if (end.at === "gateway") return { name: "router", networks: ["router"] };
  const networks = [...universe.members.keys()].filter(
    (network) => plan.segment.get(network)?.zone === end.zone,
  );
  return { name: end.zone, networks };
}

/** Lays a list beside the intent for one pair; null where no packet of it comes by the device. */
export function pairInList(
  index: PlanIndex,
  intent: IntentAt,
  list: RuleList,
  { from, to }: { readonly from: WallEnd; readonly to: WallEnd },
): PairInList | null {
  const [source, target] = [groupOf(index, intent, from), groupOf(index, intent, to)];
  const ask = (space: ListSpace) => allowedBetween(space, source, target);
  const intended = closedList(intent.wishes.map((wish) => ({ ...wish, action: "accept" as const })));
  const meant = ask(listSpace(intent.universe, intended));
  const allowed = ask(listSpace(intent.universe, list));
  if (meant === null || allowed === null) return null;
  return {
    wanted: meant.always,
    allowed,
    tooMuch: without(allowed.sometimes, meant.sometimes),
    missing: without(meant.always, allowed.always),
  };
}
