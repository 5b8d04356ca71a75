import { must } from "../kernel";
import { PAGES, type Operation } from "./operations";
import {
  asOrder,
  bestStand,
  BLIND,
  CONSOLE,
  isByHand,
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
  const neighbours = site.spots.neighbours.get(operation.device);
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
  // On large sites those next to it are asked: who lies behind them is cut off with them.
  const near =
    site.states.operations.length > MOST_ASKED_ALL ? site.spots.neighbours.get(operation.device) : null;
  const waiting = new Set(
    site.states.operations.flatMap(({ id, device, page }) =>
      state.done.has(id) || page === "power" || near?.has(device) === false ? [] : [device],
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
export function stepByStep(site: Site, start: State, tell: Tell): Order | null {
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
    path.push({ node, left: candidates(site, node) });
    tell(node.state.done.size, all, path[1]?.node.taken ?? null);
  }
}
