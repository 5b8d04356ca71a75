import { Lately } from "../kernel";
import type { PlanIndex, ProbeGoal } from "../plan";
import { asClient, pluggedIn, type Outcome } from "../probe";
import type { Start } from "./tests";

/** Asks on one site, from where somebody starts. */
export type Asking = (start: Start, goal: ProbeGoal) => Outcome;

/** As many laptops stay plugged in for what they are asked next. */
const MOST_PLUGGED = 128;
const nobody = (): string => "";

/** Asks on a site; a laptop that asked lately is not plugged in anew. */
export function askingOn(index: PlanIndex): Asking {
  const plugged = new Lately<string, (goal: ProbeGoal) => Outcome>(MOST_PLUGGED);
  return ({ spot, as }, goal) =>
    plugged.get(JSON.stringify([spot.key, as]), () =>
      pluggedIn(index, { ...asClient(spot.from, goal), as }, nobody),
    )(goal);
}
