import { afterEdits, PlanEdits, type PlanIndex } from "../plan";
import { editsOf, type Operation } from "./operations";
import { wayFrom, type Way } from "./reach";

/** How many states are kept with what was asked of them. */
const MOST_KEPT = 400;

/** A site with some operations done. */
export interface State {
  /** Which are done, as text: the same for the same set, in whatever order they were done. */
  readonly key: string;
  readonly done: ReadonlySet<string>;
  readonly index: PlanIndex;
}

interface Known {
  readonly state: State;
  readonly ways: Map<string, Way | null>;
}

/** The states of a site on the way from what is found to the plan, and who reaches what in them. */
export class States {
  readonly operations: readonly Operation[];
  readonly #number: ReadonlyMap<string, number>;
  readonly #kept = new Map<string, Known>();
  /** How many questions were put to the simulation. */
  asked = 0;

  constructor(operations: readonly Operation[]) {
    this.operations = operations;
    this.#number = new Map(operations.map(({ id }, at) => [id, at]));
  }

  first(index: PlanIndex): State {
    return this.#keep({ key: this.#keyOf(new Set()), done: new Set(), index });
  }

  #keyOf(done: ReadonlySet<string>): string {
    const bits = new Uint8Array(this.operations.length);
    for (const id of done) bits[this.#number.get(id) ?? 0] = 1;
    return bits.join("");
  }

  #keep(state: State): State {
    const known = this.#kept.get(state.key);
    if (known !== undefined) return known.state;
    this.#kept.set(state.key, { state, ways: new Map() });
    for (const oldest of this.#kept.keys()) {
      if (this.#kept.size <= MOST_KEPT) break;
      this.#kept.delete(oldest);
    }
    return state;
  }

  /** The state after one more operation; null where something that it names is not there yet. */
  after(state: State, operation: Operation): State | null {
    const done = new Set([...state.done, operation.id]);
    const key = this.#keyOf(done);
    const known = this.#kept.get(key);
    if (known !== undefined) return known.state;
    const index = afterEdits(state.index, editsOf(new PlanEdits(state.index.plan), operation));
    return index === null ? null : this.#keep({ key, done, index });
  }

  /** The state in which everything is done; null where something refers to what is nowhere. */
  last(start: State): State | null {
    const edits = new PlanEdits(start.index.plan);
    for (const operation of this.operations) editsOf(edits, operation);
    const index = afterEdits(start.index, edits);
    const done = new Set(this.operations.map(({ id }) => id));
    return index === null ? null : this.#keep({ key: this.#keyOf(done), done, index });
  }

  /** The operations that may be done next: what they build on is done. */
  next({ done }: State): Operation[] {
    return this.operations.filter(({ id, after }) => !done.has(id) && after.every((one) => done.has(one)));
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
