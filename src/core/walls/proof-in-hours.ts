import type { PlanIndex } from "../plan";
import { inHours, moments } from "../policy";
import { closedList } from "../rules";
import { PLANNED_LISTS, type PlannedList } from "./planned-list";
import { proveList, type Proof } from "./proof";

/**
 * The list that a device needs, with what is switched on in some hours, laid beside the intent: outside all
 * hours first, then once for every set of exceptions that hold together at some time of the week.
 */
export function provePlanned(index: PlanIndex, planned: PlannedList): Proof[] {
  const outside = proveList(index, planned, closedList(planned.rules));
  return [
    outside,
    ...moments(index).flatMap((minute) => {
      const then = index.atMinute(minute);
      const intent = then.derived(PLANNED_LISTS).get(planned.device.id);
      const on = planned.inHours.filter(({ hours }) => inHours(hours, minute));
      return intent === undefined
        ? []
        : [proveList(then, intent, closedList([...planned.rules, ...on.flatMap(({ rules }) => rules)]))];
    }),
  ];
}

/** Several proofs as one: a pair holds where it holds in all of them; the first that differs is kept. */
export function joinedProof(proofs: readonly Proof[]): Proof | null {
  const [first, ...rest] = proofs;
  if (first === undefined) return null;
  return {
    packets: first.packets,
    pairs: first.pairs.map((pair, at) => ({
      ...pair,
      difference:
        pair.difference ??
        rest.map((proof) => proof.pairs[at]?.difference ?? null).find((difference) => difference !== null) ??
        null,
    })),
  };
}
