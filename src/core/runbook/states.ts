import { grouped, must } from "../kernel";
import { afterEdits, PlanEdits, type PlanIndex } from "../plan";
import { editsOf, type Operation } from "./operations";
import { connected } from "./interrupts";
import { wayFrom, type Way } from "./reach";

/** How many states are kept with what was asked of them. */
const MOST_KEPT = 400;
/**
 * As many ports are held at once in the indexes of all states: those of a large site would not all find room.
 * What was let go is made anew from the state that it came of.
 */
const MOST_PORTS = 400_000;
/** Those of the last few steps are held, however large the site is. */
const FEWEST_HELD = 12;

/** A site with some operations done. */
export interface State {
  /** Which are done, as text: the same for the same set, in whatever order they were done. */
  readonly key: string;
  /** How many are done. */
  readonly count: number;
  readonly isDone: (operation: string) => boolean;
  readonly index: PlanIndex;
  /** Who gets to the gateway of their segment. */
  readonly joined: ReadonlySet<string>;
  /** Works that out while the index is at hand: later it would have to be made anew for it. */
  readonly look: () => void;
}

interface Known {
  readonly state: State;
  readonly ways: Map<string, Way | null>;
}

/** How a state came to be; null for one whose index is always at hand. */
type Origin = { readonly state: Made; readonly operation: Operation } | null;

class Made implements State {
  readonly key: string;
  readonly count: number;
  readonly origin: Origin;
  readonly #states: States;
  #joined: ReadonlySet<string> | null = null;

  constructor(states: States, key: string, { count, origin }: Pick<Made, "count" | "origin">) {
    this.#states = states;
    this.key = key;
    this.count = count;
    this.origin = origin;
  }

  isDone(operation: string): boolean {
    return this.#states.isIn(this.key, operation);
  }

  get index(): PlanIndex {
    return this.#states.indexOf(this);
  }

  look(): void {
    this.#joined ??= connected(this.index);
  }

  get joined(): ReadonlySet<string> {
    return (this.#joined ??= connected(this.index));
  }
}

/** The states of a site on the way from what is found to the plan, and who reaches what in them. */
export class States {
  readonly operations: readonly Operation[];
  readonly #byDevice: ReadonlyMap<string, readonly Operation[]>;
  readonly #number: ReadonlyMap<string, number>;
  /** By an operation's number, the numbers of those that it builds on. */
  readonly #after: readonly (readonly number[])[];
  readonly #kept = new Map<string, Known>();
  readonly #pinned = new Map<State, PlanIndex>();
  /** The indexes that are at hand, the one used last at the end. */
  readonly #held = new Map<State, PlanIndex>();
  readonly #mostHeld: number;
  /** How many questions were put to the simulation. */
  asked = 0;

  constructor(operations: readonly Operation[], ports: number) {
    this.operations = operations;
    this.#byDevice = grouped(operations, ({ device }) => device);
    const number = new Map(operations.map(({ id }, at) => [id, at]));
    this.#number = number;
    this.#after = operations.map(({ after }) => after.map((step) => number.get(step) ?? -1));
    this.#mostHeld = Math.max(FEWEST_HELD, Math.min(MOST_KEPT, Math.floor(MOST_PORTS / Math.max(1, ports))));
  }

  first(index: PlanIndex): State {
    return this.#pin("0".repeat(this.operations.length), 0, index);
  }

  /** Devices on which something is to be done. */
  get devices(): string[] {
    return [...this.#byDevice.keys()];
  }

  /** All that is to be done on a device. */
  on(device: string): readonly Operation[] {
    return this.#byDevice.get(device) ?? [];
  }

  /** Whether an operation is done, by a state's key. */
  isIn(key: string, operation: string): boolean {
    return key[this.#number.get(operation) ?? -1] === "1";
  }

  /** A state's index: the one at hand, or made anew from the nearest state before it that has one. */
  indexOf(state: Made): PlanIndex {
    const behind: Operation[] = [];
    let at = state;
    let index = this.#at(at);
    while (index === undefined) {
      const { operation, state: before } = must(at.origin, "a state without origin is pinned");
      behind.push(operation);
      at = before;
      index = this.#at(at);
    }
    for (const operation of behind.reverse())
      index = must(afterOperation(index, operation), "what was done once can be done again");
    this.#hold(state, index);
    return index;
  }

  #at(state: State): PlanIndex | undefined {
    return this.#pinned.get(state) ?? this.#held.get(state);
  }

  #hold(state: State, index: PlanIndex): void {
    this.#held.delete(state);
    this.#held.set(state, index);
    letGo(this.#held, this.#mostHeld);
  }

  #keep(state: State): State {
    this.#kept.set(state.key, { state, ways: new Map() });
    letGo(this.#kept, MOST_KEPT);
    return state;
  }

  #pin(key: string, count: number, index: PlanIndex): State {
    const known = this.#kept.get(key);
    if (known !== undefined) return known.state;
    const state = new Made(this, key, { count, origin: null });
    this.#pinned.set(state, index);
    return this.#keep(state);
  }

  /** The state after one more operation; null where something that it names is not there yet. */
  after(state: State, operation: Operation): State | null {
    const at = this.#number.get(operation.id) ?? 0;
    const key = `${state.key.slice(0, at)}1${state.key.slice(at + 1)}`;
    const known = this.#kept.get(key);
    if (known !== undefined) return known.state;
    const index = afterOperation(state.index, operation);
    if (index === null || !(state instanceof Made)) return null;
    const next = new Made(this, key, { count: state.count + 1, origin: { state, operation } });
    this.#hold(next, index);
    return this.#keep(next);
  }

  /** The state in which everything is done; null where something refers to what is nowhere. */
  last(start: State): State | null {
    const edits = new PlanEdits(start.index.plan);
    for (const operation of this.operations) editsOf(edits, operation);
    const index = afterEdits(start.index, edits);
    return index === null
      ? null
      : this.#pin("1".repeat(this.operations.length), this.operations.length, index);
  }

  /** The operations that may be done next: what they build on is done. */
  next({ key }: State): Operation[] {
    return this.operations.filter(
      (_, at) => key[at] === "0" && (this.#after[at] ?? []).every((earlier) => key[earlier] === "1"),
    );
  }

  /** How a laptop at a port gets to a device in a state; null where it does not. */
  way(state: State, port: string, device: string): Way | null {
    const ways = this.#kept.get(state.key)?.ways;
    const key = `${port} ${device}`;
    const known = ways?.get(key);
    if (known !== undefined) return known;
    this.asked += 1;
    const way = wayFrom(state.index, port, device);
    ways?.set(key, way);
    return way;
  }
}

const afterOperation = (index: PlanIndex, operation: Operation): PlanIndex | null =>
  afterEdits(index, editsOf(new PlanEdits(index.plan), operation));

/** Lets the oldest of a map go until it has at most so many. */
function letGo(map: Map<unknown, unknown>, most: number): void {
  for (const oldest of map.keys()) {
    if (map.size <= most) return;
    map.delete(oldest);
  }
}
