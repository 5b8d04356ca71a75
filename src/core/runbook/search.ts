import { must } from "../kernel";
import { PAGES, type Operation } from "./operations";
import { isCabled, type Spots, type Way } from "./reach";
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

/** Up to so many operations every order is tried, by the states that they lead to. */
const MOST_EXACT = 10;
/** How many states the search looks at on larger sites before it takes what it has, for each operation. */
const LOOKS_EACH = 12;

interface Site {
  readonly states: States;
  readonly spots: Spots;
}

const standAt = (port: string, way: Way): Stand => ({ port, way });

/**
 * Ports at which a device may be reached, each once: where the laptop is, then by what it costs to go there.
 */
const spotsFor = ({ free, own, cabled }: Spots, device: string, at: string | null): Set<string> =>
  new Set([...(at === null ? [] : [at]), ...(own.get(device) ?? []), ...free, ...(cabled.get(device) ?? [])]);

/** Every port from which a device is reached, the laptop's own first. */
function* standsFor(
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
const bestStand = (site: Site, state: State, device: string, at: string | null): Stand =>
  standsFor(site, state, device, at).next().value ?? null;

/** A state with the laptop at a port, and how it came to be. */
interface Node {
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
const CONSOLE = 1e12;
const PULLED = 1e8;
const BLIND = 1e4;

/** What it costs to have the laptop at a port that it is not at. */
export const moveCost = (isCabled: boolean): number => (isCabled ? PULLED + 1 : 1);
/** What it costs to leave a device out of reach until the next operation. */
export const BLIND_COST = BLIND;
/** What an order costs, a console cable left out. */
export const costOf = ({ moves, pulled, blind }: Order): number => moves + blind * BLIND + pulled * PULLED;

/** Nodes by cost, the cheapest first. */
class Queue {
  readonly #byCost = new Map<number, Node[]>();

  add(node: Node): void {
    const same = this.#byCost.get(node.cost);
    if (same === undefined) this.#byCost.set(node.cost, [node]);
    else same.push(node);
  }

  take(): Node | null {
    if (this.#byCost.size === 0) return null;
    const cost = Math.min(...this.#byCost.keys());
    const nodes = must(this.#byCost.get(cost), "nodes of that cost");
    const node = must(nodes.pop(), "no empty list is kept");
    if (nodes.length === 0) this.#byCost.delete(cost);
    return node;
  }
}

function stepCost({ spots }: Site, from: string | null, to: Taken["before"]): number {
  if (to === "by hand") return 0;
  if (to === null) return CONSOLE;
  return to.port === from ? 0 : moveCost(isCabled(spots, to.port));
}

const placeAfter = (at: string | null, stand: Stand | "by hand"): string | null =>
  stand === "by hand" ? at : (stand?.port ?? at);

/** What is done at the device itself: nothing has to reach it yet. */
const isByHand = ({ page }: Operation): boolean => page === "power";

/** What one operation leads to from a node, for each port at which it can be done and looked at. */
function* branches(site: Site, node: Node, operation: Operation): Generator<Node> {
  const state = site.states.after(node.state, operation);
  if (state === null) return;
  const { device } = operation;
  const before = isByHand(operation)
    ? ["by hand" as const]
    : [...standsFor(site, node.state, device, node.at)];
  for (const stand of before.length === 0 ? [null] : before) {
    const at = placeAfter(node.at, stand);
    const stays = at === null ? null : site.states.way(state, at, device);
    const after =
      at !== null && stays !== null ? [standAt(at, stays)] : [...standsFor(site, state, device, at)];
    const cost = node.cost + stepCost(site, node.at, stand);
    for (const seen of after.length === 0 ? [null] : after)
      yield {
        state,
        at: placeAfter(at, seen),
        cost: cost + stepCost(site, at, seen),
        from: node,
        taken: { operation, before: stand, after: seen, regains: null, state },
      };
    if (after.some((seen) => seen !== null && !isCabled(site.spots, seen.port))) continue;
    const taken: Taken = { operation, before: stand, after: "next", regains: null, state };
    yield* regaining(site, { state, at, cost: cost + BLIND, from: node, taken }, device);
  }
}

/** What brings a device back that the operation before has cut off: one operation on another one. */
function* regaining(site: Site, node: Node, lost: string): Generator<Node> {
  for (const operation of site.states.next(node.state)) {
    const { device } = operation;
    const state = device === lost || isByHand(operation) ? null : site.states.after(node.state, operation);
    if (state === null) continue;
    for (const before of standsFor(site, node.state, device, node.at))
      for (const after of standsFor(site, state, device, placeAfter(node.at, before)))
        for (const stand of standsFor(site, state, lost, placeAfter(node.at, after)))
          if (stand !== null)
            yield {
              state,
              at: stand.port,
              cost:
                node.cost +
                stepCost(site, node.at, before) +
                stepCost(site, placeAfter(node.at, before), after) +
                stepCost(site, placeAfter(node.at, after), stand),
              from: node,
              taken: { operation, before, after, regains: { device: lost, stand }, state },
            };
  }
}

function pathTo(node: Node): Taken[] {
  const taken: Taken[] = [];
  for (let at: Node | null = node; at !== null; at = at.from) if (at.taken !== null) taken.unshift(at.taken);
  return taken;
}

const asOrder = (
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

/** The cheapest order of all, every state and port tried once (Dijkstra); null where no order does it all. */
function cheapest(site: Site, start: State): Order | null {
  const queue = new Queue();
  const seen = new Set<string>();
  queue.add({ state: start, at: null, cost: 0, from: null, taken: null });
  for (let node = queue.take(); node !== null; node = queue.take()) {
    const key = `${node.state.key} ${node.at ?? ""}`;
    if (seen.has(key)) continue;
    seen.add(key);
    if (node.state.done.size === site.states.operations.length)
      return asOrder(start, node, { isExhaustive: true, looked: seen.size });
    for (const operation of site.states.next(node.state))
      for (const next of branches(site, node, operation)) queue.add(next);
  }
  return null;
}

/** One operation as it would be taken next, and what speaks against it. */
interface Candidate {
  readonly node: Node;
  /** Gear that is powered, has work left, and is reached from none of its own ports or the laptop's. */
  readonly lost: number;
  readonly isElsewhere: boolean;
}

function candidateOf(site: Site, node: Node, operation: Operation): Candidate | null {
  const state = site.states.after(node.state, operation);
  if (state === null) return null;
  const { device } = operation;
  const before = isByHand(operation) ? "by hand" : bestStand(site, node.state, device, node.at);
  const at = placeAfter(node.at, before);
  const after = bestStand(site, state, device, at);
  const cost = node.cost + stepCost(site, node.at, before);
  const back =
    after === null || isCabled(site.spots, after.port)
      ? cheapestBack(site, { node, cost, at, state }, { operation, before })
      : null;
  if (back !== null) return { node: back, lost: 1, isElsewhere: true };
  return {
    node: {
      state,
      at: placeAfter(at, after),
      cost: cost + stepCost(site, at, after),
      from: node,
      taken: { operation, before, after, regains: null, state },
    },
    lost: lostIn(site, node, operation, { state, at: placeAfter(at, after) }),
    isElsewhere: node.taken !== null && node.taken.operation.device !== device,
  };
}

interface Half {
  readonly node: Node;
  readonly cost: number;
  readonly at: string | null;
  readonly state: State;
}

/** The operation that best brings back what another one cuts off; null where none does. */
function cheapestBack(
  site: Site,
  { node, cost, at, state }: Half,
  { operation, before }: Pick<Taken, "operation" | "before">,
): Node | null {
  const taken: Taken = { operation, before, after: "next", regains: null, state };
  let best: Node | null = null;
  for (const one of regaining(site, { state, at, cost: cost + BLIND, from: node, taken }, operation.device)) {
    if (best === null || one.cost < best.cost) best = one;
    if (best.cost - cost <= BLIND + 1) break;
  }
  return best;
}

/** The neighbours of an operation's device that could lose their way by it: those with work left. */
function lostIn(
  site: Site,
  before: Node,
  operation: Operation,
  { state, at }: { readonly state: State; readonly at: string | null },
): number {
  if (operation.page !== "trunk" && operation.page !== "ports" && operation.page !== "tree") return 0;
  const waiting = new Set(
    site.states.operations.flatMap(({ id, device, page }) =>
      state.done.has(id) || page === "power" ? [] : [device],
    ),
  );
  let lost = 0;
  for (const device of waiting) {
    if (device === operation.device || before.at === null) continue;
    const reached = site.states.way(before.state, before.at, device) !== null;
    if (reached && (at === null || site.states.way(state, at, device) === null)) lost += 1;
  }
  return lost;
}

const byPromise = (a: Candidate, b: Candidate): number =>
  a.node.cost - b.node.cost ||
  a.lost - b.lost ||
  Number(a.isElsewhere) - Number(b.isElsewhere) ||
  pageOf(a) - pageOf(b);

/** What may come next from a node, the most promising first; nothing is looked at before it has to be. */
function* candidates(site: Site, node: Node): Generator<Candidate> {
  const last = node.taken?.operation.device ?? null;
  const next = [...site.states.next(node.state)].sort(
    (a, b) => Number(a.device !== last) - Number(b.device !== last),
  );
  const others: Candidate[] = [];
  for (const operation of next) {
    const candidate = candidateOf(site, node, operation);
    if (candidate === null) continue;
    if (candidate.node.cost === node.cost && candidate.lost === 0) yield candidate;
    else others.push(candidate);
  }
  yield* others.sort(byPromise);
}

const pageOf = ({ node }: Candidate): number =>
  PAGES.indexOf(must(node.taken, "a candidate does something").operation.page);

/**
 * An order found step by step: what costs no move and loses nobody comes first; where only a console cable goes
 * on, it goes back and tries another one, with memory of the states that led nowhere, as long as it may look.
 */
function stepByStep(site: Site, start: State, tell: (done: number, all: number) => void): Order | null {
  const all = site.states.operations.length;
  const dead = new Set<string>();
  let looksLeft = all * LOOKS_EACH;
  let mayUseConsole = false;
  let looked = 0;
  const nextOf = (node: Node): Generator<Candidate> => candidates(site, node);
  const origin: Node = { state: start, at: null, cost: 0, from: null, taken: null };
  const path: { readonly node: Node; readonly left: Generator<Candidate> }[] = [
    { node: origin, left: nextOf(origin) },
  ];
  for (;;) {
    const top = path.at(-1);
    if (top === undefined) {
      if (mayUseConsole) return null;
      // Every way without a console cable is closed: with it, from the start.
      mayUseConsole = true;
      dead.clear();
      path.push({ node: origin, left: nextOf(origin) });
      continue;
    }
    if (top.node.state.done.size === all)
      return asOrder(start, top.node, { isExhaustive: all === 0, looked });
    const tried = top.left.next();
    if (tried.done === true) {
      dead.add(top.node.state.key);
      path.pop();
      looksLeft -= 1;
      if (looksLeft < 0) mayUseConsole = true;
      continue;
    }
    const { node } = tried.value;
    if (dead.has(node.state.key) || (!mayUseConsole && node.cost >= CONSOLE)) continue;
    looked += 1;
    tell(node.state.done.size, all);
    path.push({ node, left: nextOf(node) });
  }
}

/** An order of work; null where what is planned refers to what is nowhere, so that no order does it all. */
export function orderOf(
  states: States,
  start: State,
  spots: Spots,
  tell: (done: number, all: number) => void = () => undefined,
): Order | null {
  const site: Site = { states, spots };
  return states.operations.length <= MOST_EXACT ? cheapest(site, start) : stepByStep(site, start, tell);
}
