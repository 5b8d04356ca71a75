import type { Operation } from "./operations";
import { isCabled, spotsFor, type Spots, type Way } from "./reach";
import type { State, States } from "./states";

/** Where the laptop is for an operation: at a port, with what is entered on it; or on the console cable. */
export type Stand = { readonly port: string; readonly way: Way } | null;

/** One operation in its place: where the laptop is while it is done, and where it looks at it afterwards. */
export interface Taken {
  readonly operation: Operation;
  /** Where the laptop already is, for what is done by hand and not on it. */
  readonly before: Stand | "by hand";
  /** `next`: nothing reaches the device until the next operation, which brings it back. */
  readonly after: Stand | "next";
  /** The device that comes back with it, cut off by the operation before, and where the laptop sees it. */
  readonly regains: { readonly device: string; readonly stand: NonNullable<Stand> } | null;
  readonly state: State;
}

/**
 * Hears how far a search is: how many operations have found their place, of how many, and which stands first
 * just now; null as long as none does.
 */
export type Tell = (done: number, all: number, first: Taken | null) => void;

/** An order of work from what is found to the plan. */
export interface Order {
  readonly start: State;
  readonly taken: readonly Taken[];
  /** How often the laptop is plugged into another port; the first time counts. */
  readonly moves: number;
  /** How often a device is out of reach for one operation, and back by itself. */
  readonly blind: number;
  /** How often a cable has to be pulled for the laptop's. */
  readonly pulled: number;
  /** How often only a console cable gets to a device: none where the order is proven. */
  readonly consoles: number;
  /** Whether every possibility was tried, so that no order has fewer of either. */
  readonly isExhaustive: boolean;
  /** How many states were looked at. */
  readonly looked: number;
}

export interface Site {
  readonly states: States;
  readonly spots: Spots;
  /** Devices that nothing reaches before the work or after it: no order spares them a console cable. */
  readonly excused: ReadonlySet<string>;
}

export const standAt = (port: string, way: Way): Stand => ({ port, way });

/** Every port from which a device is reached, the laptop's own first. */
export function* standsFor(
  { states, spots }: Site,
  state: State,
  device: string,
  at: string | null,
): Generator<Stand> {
  for (const port of spotsFor(spots, device, at)) {
    const way = states.way(state, port, device);
    if (way !== null) yield standAt(port, way);
  }
}

/** Where the laptop is best to get to a device: where it is, else at the device itself, else anywhere. */
export const bestStand = (site: Site, state: State, device: string, at: string | null): Stand =>
  standsFor(site, state, device, at).next().value ?? null;

/** The same where no cable is pulled for it. */
export function freeStand({ states, spots }: Site, state: State, device: string, at: string | null): Stand {
  for (const port of spotsFor(spots, device, at)) {
    if (port !== at && isCabled(spots, port)) continue;
    const way = states.way(state, port, device);
    if (way !== null) return standAt(port, way);
  }
  return null;
}

/** A state with the laptop at a port, and how it came to be. */
export interface Node {
  readonly state: State;
  readonly at: string | null;
  readonly cost: number;
  readonly from: Node | null;
  readonly taken: Taken | null;
}

/**
 * A console cable weighs more than any number of pulled cables, those more than any number of devices that
 * are out of reach for one operation, and those more than any number of moves.
 */
export const CONSOLE = 1e12;
export const PULLED = 1e8;
export const BLIND = 1e4;

/** What it costs to have the laptop at a port that it is not at. */
export const moveCost = (isCabled: boolean): number => (isCabled ? PULLED + 1 : 1);
/** What an order costs, a console cable left out. */
export const costOf = ({ moves, pulled, blind }: Order): number => moves + blind * BLIND + pulled * PULLED;

export function stepCost({ spots }: Site, from: string | null, to: Taken["before"]): number {
  if (to === "by hand") return 0;
  if (to === null) return CONSOLE;
  return to.port === from ? 0 : moveCost(isCabled(spots, to.port));
}

export const placeAfter = (at: string | null, stand: Stand | "by hand"): string | null =>
  stand === "by hand" ? at : (stand?.port ?? at);

/** What is done at the device itself: nothing has to reach it yet. */
export const isByHand = ({ page }: Operation): boolean => page === "power";

function pathTo(node: Node): Taken[] {
  const taken: Taken[] = [];
  for (let at: Node | null = node; at !== null; at = at.from) if (at.taken !== null) taken.unshift(at.taken);
  return taken;
}

export const asOrder = (
  start: State,
  last: Node,
  { isExhaustive, looked }: { readonly isExhaustive: boolean; readonly looked: number },
): Order => ({
  start,
  taken: pathTo(last),
  moves: last.cost % BLIND,
  blind: Math.floor((last.cost % PULLED) / BLIND),
  pulled: Math.floor((last.cost % CONSOLE) / PULLED),
  consoles: Math.floor(last.cost / CONSOLE),
  isExhaustive,
  looked,
});
