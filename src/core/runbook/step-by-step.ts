import { grouped, must } from "../kernel";
import { PAGES, type Operation } from "./operations";
import {
  asOrder,
  bestStand,
  BLIND,
  CONSOLE,
  freeStand,
  isByHand,
  moveCost,
  placeAfter,
  PULLED,
  stepCost,
  type Node,
  type Order,
  type Site,
  type Taken,
  type Tell,
} from "./order";
import { isCabled } from "./reach";
import type { State, States } from "./states";

/** How many states the search looks at on larger sites before it takes what it has, for each operation. */
const LOOKS_EACH = 12;
/** Up to so many operations everybody with work left is asked whether an operation cuts it off. */
const MOST_ASKED_ALL = 300;
/** How many questions to the simulation it may put until then, for each operation. */
const ASKED_EACH = 200;

/** One operation as it would be taken next, and what speaks against it. */
interface Candidate {
  readonly node: Node;
  /** Gear that is powered, has work left, and is reached from none of its own ports or the laptop's. */
  readonly lost: number;
  readonly isElsewhere: boolean;
  readonly isEarly: boolean;
  /** Whether the device is out of reach afterwards, or reached only in place of a cable. */
  readonly isLossy: boolean;
}

/**
 * An operation as it would be taken next; with `freeStand` it is lossy where only a pulled cable leads on, and
 * which one that would be is asked for when nothing better is left.
 */
function candidateOf(
  site: Site,
  node: Node,
  operation: Operation,
  seenFrom: typeof bestStand,
): Candidate | null {
  const state = site.states.after(node.state, operation);
  if (state === null) return null;
  const { device } = operation;
  const before = isByHand(operation) ? "by hand" : bestStand(site, node.state, device, node.at);
  const at = placeAfter(node.at, before);
  const after = seenFrom(site, state, device, at);
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
    isEarly: closesEarly(site, node, operation),
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
  const neighbours = site.spots.neighbours.get(operation.device);
  for (const next of site.states.next(state)) {
    if (neighbours?.has(next.device) !== true || isByHand(next)) continue;
    const back = bestBack(site, half, next);
    if (back !== null) return { node: back, lost: 1, isElsewhere: true, isEarly: false, isLossy: false };
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
  // On large sites those next to it are asked: who lies behind them is cut off with them.
  const { states } = site;
  const asked =
    states.operations.length > MOST_ASKED_ALL
      ? (site.spots.neighbours.get(operation.device) ?? [])
      : states.devices;
  let lost = 0;
  for (const device of asked) {
    if (device === operation.device || before.at === null) continue;
    if (!states.on(device).some(({ id, page }) => page !== "power" && !state.isDone(id))) continue;
    const reached = site.states.way(before.state, before.at, device) !== null;
    if (reached && (at === null || site.states.way(state, at, device) === null)) lost += 1;
  }
  return lost;
}

const byPromise = (a: Candidate, b: Candidate): number =>
  Number(a.isEarly) - Number(b.isEarly) ||
  a.node.cost - b.node.cost ||
  a.lost - b.lost ||
  Number(a.isElsewhere) - Number(b.isElsewhere) ||
  pageOf(a) - pageOf(b);

/**
 * Whether an operation switches ports off, and nothing else, while the device's address or other ports are yet
 * to be set: until then the laptop finds at them what was there before.
 */
function closesEarly({ states }: Site, { state }: Node, { id, device, page, ports }: Operation): boolean {
  if (page !== "ports" || ports.some(({ enabled }) => enabled)) return false;
  return states
    .on(device)
    .some(
      (other) =>
        other.id !== id && (other.page === "address" || other.page === "ports") && !state.isDone(other.id),
    );
}

/**
 * What may be done next in the order in which it is looked at: on the same device, then on others at work, and
 * only then what brings one more device in.
 */
function inTurn(site: Site, node: Node): Operation[][] {
  const last = node.taken?.operation.device ?? null;
  const all = grouped<number, Operation>(site.states.next(node.state), (operation) => {
    if (operation.device === last) return 0;
    return isByHand(operation) ? 2 : 1;
  });
  return [0, 1, 2].flatMap((turn) => {
    const operations = all.get(turn);
    return operations === undefined ? [] : [operations];
  });
}

/**
 * Operations that were no good when they were looked at last. As long as nothing has changed on the device or
 * next to it, they are looked at again only where nothing else is left.
 */
class Stuck {
  readonly #site: Site;
  readonly #then = new Map<string, number>();
  /** When each was looked at last: those that waited longest come first. */
  readonly #looked = new Map<string, number>();
  #clock = 0;

  constructor(site: Site) {
    this.#site = site;
  }

  /** How much is done on a device and next to it. */
  #doneAround(state: State, device: string): number {
    let done = 0;
    const { states, spots } = this.#site;
    for (const near of [device, ...(spots.neighbours.get(device) ?? [])])
      for (const { id } of states.on(near)) if (state.isDone(id)) done += 1;
    return done;
  }

  isStill(state: State, { id, device }: Operation): boolean {
    return this.#then.get(id) === this.#doneAround(state, device);
  }

  add(state: State, { id, device }: Operation): void {
    this.#then.set(id, this.#doneAround(state, device));
    this.#clock += 1;
    this.#looked.set(id, this.#clock);
  }

  longestFirst(operations: Operation[]): Operation[] {
    const looked = ({ id }: Operation) => this.#looked.get(id) ?? 0;
    return operations.sort((a, b) => looked(a) - looked(b));
  }
}

/** Whether a candidate is on a device that no order spares a console cable. */
const isExcused = ({ excused }: Site, { node }: Candidate): boolean =>
  excused.has(node.taken?.operation.device ?? "");

/** Looks at what may come next from a node. */
class Look {
  readonly #site: Site;
  readonly #node: Node;
  readonly #stuck: Stuck;
  readonly #others: Candidate[] = [];
  readonly #told = new Set<Candidate>();
  readonly #unreached: Operation[] = [];

  constructor(site: Site, node: Node, stuck: Stuck) {
    this.#site = site;
    this.#node = node;
    this.#stuck = stuck;
  }

  #candidate(operation: Operation): Candidate | null {
    if (!isUnreached(this.#site, this.#node, operation))
      return candidateOf(this.#site, this.#node, operation, freeStand);
    this.#unreached.push(operation);
    this.#stuck.add(this.#node.state, operation);
    return null;
  }

  /** A candidate with what it comes to where only a pulled cable leads on. */
  #whole(candidate: Candidate): Candidate {
    const { taken } = candidate.node;
    if (!candidate.isLossy || taken === null) return candidate;
    return candidateOf(this.#site, this.#node, taken.operation, bestStand) ?? candidate;
  }

  /** Whether nothing better has to be looked for; `isAgain` where all else was looked at. */
  #isEnough(candidate: Candidate, operation: Operation, isAgain: boolean): boolean {
    if (isFree(this.#node, candidate)) return true;
    // What nothing reaches in the end is lost by one of its operations, whichever order they come in.
    if (isAgain && candidate.isLossy && isExcused(this.#site, candidate)) return true;
    return (isAgain || isByHand(operation)) && isGood(this.#node, candidate);
  }

  /** What is good among some operations: what is enough at once, then by promise. */
  *good(operations: readonly Operation[], isAgain: boolean): Generator<Candidate> {
    for (const operation of operations) {
      const candidate = this.#candidate(operation);
      if (candidate === null) continue;
      if (this.#isEnough(candidate, operation, isAgain)) yield this.#whole(candidate);
      else this.#others.push(candidate);
      if (!isGood(this.#node, candidate)) this.#stuck.add(this.#node.state, operation);
    }
    for (const candidate of this.#others.sort(byPromise)) {
      if (this.#told.has(candidate) || !isGood(this.#node, candidate)) continue;
      this.#told.add(candidate);
      yield candidate;
    }
  }

  /** All others, what only a console cable gets to last. */
  *rest(): Generator<Candidate> {
    const late = this.#unreached.flatMap(
      (operation) => candidateOf(this.#site, this.#node, operation, bestStand) ?? [],
    );
    const whole = this.#others
      .filter((candidate) => !this.#told.has(candidate))
      .map((candidate) => this.#whole(candidate));
    const others = [...whole, ...late].sort(byPromise);
    yield* others.filter(({ isLossy }) => !isLossy);
    const lossy = others.filter(({ isLossy }) => isLossy);
    for (const candidate of lossy) {
      const back = isExcused(this.#site, candidate) ? null : broughtBack(this.#site, candidate);
      if (back !== null) yield back;
    }
    yield* lossy;
  }
}

/** What may come next from a node, the most promising first; nothing is looked at before it has to be. */
function* candidates(site: Site, node: Node, stuck: Stuck): Generator<Candidate> {
  const look = new Look(site, node, stuck);
  const again: Operation[] = [];
  for (const operations of inTurn(site, node)) {
    const still = new Set(operations.filter((operation) => stuck.isStill(node.state, operation)));
    again.push(...still);
    yield* look.good(
      operations.filter((operation) => !still.has(operation)),
      false,
    );
  }
  yield* look.good(stuck.longestFirst(again), true);
  yield* look.rest();
}

/** Whether nothing reaches the device of an operation before it. */
const isUnreached = (site: Site, { state, at }: Node, operation: Operation): boolean =>
  !isByHand(operation) && bestStand(site, state, operation.device, at) === null;

/** Whether a candidate costs nothing, and loses nobody. */
const isFree = ({ cost }: Node, { node, lost, isEarly }: Candidate): boolean =>
  node.cost === cost && lost === 0 && !isEarly;
/** Whether a candidate costs no more than to go there and to look at it from another port, and loses nobody. */
const isGood = ({ cost }: Node, { node, lost, isEarly, isLossy }: Candidate): boolean =>
  !isLossy && !isEarly && lost === 0 && node.cost <= cost + 2 * moveCost(false);

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
const isAvoidable = (site: Site, parent: Node, candidate: Candidate): boolean =>
  Math.floor(candidate.node.cost / CONSOLE) > Math.floor(parent.cost / CONSOLE) &&
  !isExcused(site, candidate);

/**
 * An order found step by step: what costs no move and loses nobody comes first; where only a console cable goes
 * on, it goes back and tries another one, with memory of the states that led nowhere, as long as it may look.
 */
export function stepByStep(site: Site, start: State, tell: Tell): Order | null {
  const all = site.states.operations.length;
  const dead = new Set<string>();
  const budget = new Budget(site.states);
  const stuck = new Stuck(site);
  let isConsoleTaken = false;
  let looked = 0;
  const begin = () => {
    const node: Node = { state: start, at: null, cost: 0, from: null, taken: null };
    return [{ node, left: candidates(site, node, stuck) }];
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
    if (top.node.state.count === all) return asOrder(start, top.node, { isExhaustive: all === 0, looked });
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
    node.state.look();
    path.push({ node, left: candidates(site, node, stuck) });
    tell(node.state.count, all, path[1]?.node.taken ?? null);
  }
}
