import { must } from "../kernel";
import type { PlanIndex } from "../plan";
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
/** How many questions to the simulation it may put until then, for each operation. */
const ASKED_EACH = 200;

interface Site {
  readonly states: States;
  readonly spots: Spots;
  /** By device, those that a cable joins it with. */
  readonly neighbours: ReadonlyMap<string, ReadonlySet<string>>;
  /** Devices that nothing reaches before the work or after it: no order spares them a console cable. */
  readonly excused: ReadonlySet<string>;
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
  /** Whether the device is out of reach afterwards, or reached only in place of a cable. */
  readonly isLossy: boolean;
}

function candidateOf(site: Site, node: Node, operation: Operation): Candidate | null {
  const state = site.states.after(node.state, operation);
  if (state === null) return null;
  const { device } = operation;
  const before = isByHand(operation) ? "by hand" : bestStand(site, node.state, device, node.at);
  const at = placeAfter(node.at, before);
  const after = bestStand(site, state, device, at);
  const cost = node.cost + stepCost(site, node.at, before);
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
    isLossy: after === null || isCabled(site.spots, after.port),
  };
}

/** The same operation with its device out of reach until another one, on a neighbour, brings it back. */
function broughtBack(site: Site, { node: { from, state, taken } }: Candidate): Candidate | null {
  if (from === null || taken === null) return null;
  const { operation, before } = taken;
  const at = placeAfter(from.at, before);
  const cost = from.cost + stepCost(site, from.at, before) + BLIND;
  const half: Node = {
    state,
    at,
    cost,
    from,
    taken: { operation, before, after: "next", regains: null, state },
  };
  const neighbours = site.neighbours.get(operation.device);
  for (const next of site.states.next(state)) {
    if (neighbours?.has(next.device) !== true || isByHand(next)) continue;
    const back = bestBack(site, half, next);
    if (back !== null) return { node: back, lost: 1, isElsewhere: true, isLossy: false };
  }
  return null;
}

/** What one operation on another device comes to after a cut, each time from where the laptop is best. */
function bestBack(site: Site, half: Node, operation: Operation): Node | null {
  const lost = half.taken?.operation.device ?? "";
  const state = site.states.after(half.state, operation);
  const before = state === null ? null : bestStand(site, half.state, operation.device, half.at);
  if (state === null || before === null) return null;
  const after = bestStand(site, state, operation.device, before.port);
  const stand = after === null ? null : bestStand(site, state, lost, after.port);
  if (after === null || stand === null) return null;
  const cost =
    half.cost +
    stepCost(site, half.at, before) +
    stepCost(site, before.port, after) +
    stepCost(site, after.port, stand);
  const taken: Taken = { operation, before, after, regains: { device: lost, stand }, state };
  return cost - half.cost >= PULLED ? null : { state, at: stand.port, cost, from: half, taken };
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
  others.sort(byPromise);
  yield* others.filter(({ isLossy }) => !isLossy);
  const lossy = others.filter(({ isLossy }) => isLossy);
  for (const candidate of lossy) {
    const back = broughtBack(site, candidate);
    if (back !== null) yield back;
  }
  yield* lossy;
}

const pageOf = ({ node }: Candidate): number =>
  PAGES.indexOf(must(node.taken, "a candidate does something").operation.page);

/** How far a search may go on larger sites. */
class Budget {
  #looks: number;
  #asked: number;
  readonly #states: States;

  constructor(states: States) {
    this.#states = states;
    this.#looks = states.operations.length * LOOKS_EACH;
    this.#asked = 2000 + states.operations.length * ASKED_EACH;
  }

  spend(): void {
    this.#looks -= 1;
  }

  get isSpent(): boolean {
    return this.#looks < 0 || this.#states.asked > this.#asked;
  }
}

/** Whether a candidate takes a console cable that another order could spare. */
const isAvoidable = ({ excused }: Site, parent: Node, { node }: Candidate): boolean =>
  Math.floor(node.cost / CONSOLE) > Math.floor(parent.cost / CONSOLE) &&
  !excused.has(node.taken?.operation.device ?? "");

/**
 * An order found step by step: what costs no move and loses nobody comes first; where only a console cable goes
 * on, it goes back and tries another one, with memory of the states that led nowhere, as long as it may look.
 */
function stepByStep(site: Site, start: State, tell: (done: number, all: number) => void): Order | null {
  const all = site.states.operations.length;
  const dead = new Set<string>();
  const budget = new Budget(site.states);
  let isConsoleTaken = false;
  let looked = 0;
  const begin = () => {
    const node: Node = { state: start, at: null, cost: 0, from: null, taken: null };
    return [{ node, left: candidates(site, node) }];
  };
  let path = begin();
  for (;;) {
    const top = path.at(-1);
    if (top === undefined) {
      if (isConsoleTaken) return null;
      // Every way without a console cable is closed: with it, from the start.
      isConsoleTaken = true;
      dead.clear();
      path = begin();
      continue;
    }
    if (top.node.state.done.size === all)
      return asOrder(start, top.node, { isExhaustive: all === 0, looked });
    const tried = top.left.next();
    if (tried.done === true) {
      dead.add(top.node.state.key);
      path.pop();
      budget.spend();
      isConsoleTaken ||= budget.isSpent;
      continue;
    }
    const { node } = tried.value;
    if (dead.has(node.state.key) || (!isConsoleTaken && isAvoidable(site, top.node, tried.value))) continue;
    looked += 1;
    tell(node.state.done.size, all);
    path.push({ node, left: candidates(site, node) });
  }
}

/** By device, the devices at the other ends of its cables. */
function neighboursIn(index: PlanIndex): Map<string, Set<string>> {
  const found = new Map<string, Set<string>>();
  for (const { a, b } of index.plan.link.values()) {
    const [from, to] = [a, b].map((port) => index.plan.port.get(port)?.device ?? "");
    for (const [one, other] of [
      [from, to],
      [to, from],
    ]) {
      const known = found.get(one ?? "") ?? new Set();
      found.set(one ?? "", known.add(other ?? ""));
    }
  }
  return found;
}

/** The state in which everything is done; null where something refers to what is nowhere. */
function lastOf(states: States, start: State): State | null {
  let state: State | null = start;
  while (state !== null && state.done.size < states.operations.length) {
    const now: State = state;
    state = states.next(now).reduce<State | null>((done, one) => done ?? states.after(now, one), null);
  }
  return state;
}

/** Devices that nothing reaches in the first state, where they are powered, or in the last. */
function excusedIn(states: States, spots: Spots, start: State, last: State): Set<string> {
  const waiting = new Set(
    states.operations.flatMap(({ device, page }) => (page === "power" ? [device] : [])),
  );
  const site: Site = { states, spots, neighbours: new Map(), excused: new Set() };
  const isLost = (state: State, device: string) => bestStand(site, state, device, null) === null;
  return new Set(
    [...new Set(states.operations.map(({ device }) => device))].filter(
      (device) => (!waiting.has(device) && isLost(start, device)) || isLost(last, device),
    ),
  );
}

/** An order of work; null where what is planned refers to what is nowhere, so that no order does it all. */
export function orderOf(
  states: States,
  start: State,
  spots: Spots,
  tell: (done: number, all: number) => void = () => undefined,
): Order | null {
  const last = lastOf(states, start);
  if (last === null) return null;
  const site: Site = {
    states,
    spots,
    neighbours: neighboursIn(start.index),
    excused: excusedIn(states, spots, start, last),
  };
  return states.operations.length <= MOST_EXACT ? cheapest(site, start) : stepByStep(site, start, tell);
}
