import { cheapest } from "./cheapest";
import { bestStand, type Order, type Site, type Tell } from "./order";
import type { Spots } from "./reach";
import type { State, States } from "./states";
import { stepByStep } from "./step-by-step";

/** Up to so many operations every order is tried, by the states that they lead to. */
const MOST_EXACT = 10;

/** On larger sites it is not looked whether the work on others opens a device that nothing reaches at first. */
const MOST_OPENED = 60;

/**
 * Devices that may be had by a console cable: those that nothing reaches in the last state, or, on larger
 * sites, in the first, where they are powered.
 */
export function excusedIn(states: States, spots: Spots, start: State, last: State): Set<string> {
  const waiting = new Set(
    states.operations.flatMap(({ device, page }) => (page === "power" ? [device] : [])),
  );
  const isLarge = states.operations.length > MOST_OPENED;
  const site: Site = { states, spots, excused: new Set() };
  const isLost = (state: State, device: string) => bestStand(site, state, device, null) === null;
  return new Set(
    [...new Set(states.operations.map(({ device }) => device))].filter(
      (device) => (isLarge && !waiting.has(device) && isLost(start, device)) || isLost(last, device),
    ),
  );
}

/** An order of work; null where what is planned refers to what is nowhere, so that no order does it all. */
export function orderOf(
  states: States,
  start: State,
  spots: Spots,
  tell: Tell = () => undefined,
): Order | null {
  const last = states.last(start);
  if (last === null) return null;
  const site: Site = {
    states,
    spots,
    excused: excusedIn(states, spots, start, last),
  };
  return states.operations.length <= MOST_EXACT ? cheapest(site, start) : stepByStep(site, start, tell);
}
