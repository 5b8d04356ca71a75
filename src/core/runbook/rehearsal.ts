import { must } from "../kernel";
import { nameOf, type PlanIndex } from "../plan";
import { cardOf, laptopText, opensText } from "./card";
import { operationsBetween, type Operation } from "./operations";
import { isCabled, spotsAlong, spotsFor, whyNot, type Spots } from "./reach";
import { States, type State } from "./states";
import { operationWords } from "./words";

/** One operation that somebody does by hand, with the laptop at a port. */
export interface Move {
  readonly operation: string;
  readonly port: string;
}

/**
 * What came of it: done and still in reach; not done, since the laptop does not reach the device from there; or
 * done, and the device out of reach from there.
 */
export type Came = "done" | "unreached" | "lockedOut";

export interface Told extends Move {
  readonly device: string;
  readonly title: string;
  readonly came: Came;
  readonly says: string;
}

/** What may be done next, or where the laptop may be: an id and its name. */
export interface Choice {
  readonly id: string;
  readonly name: string;
}

/** How far a rehearsal has come. */
export interface Rehearsed {
  readonly told: readonly Told[];
  readonly next: readonly Choice[];
  readonly isDone: boolean;
  /** So many operations there are in all. */
  readonly count: number;
}

/** The same site, done by hand: any operation next, the laptop at any port, and what would come of it. */
export class Rehearsal {
  readonly #index: PlanIndex;
  readonly #states: States;
  readonly #start: State;
  readonly #spots: Spots;

  private constructor(index: PlanIndex, found: PlanIndex) {
    this.#index = index;
    this.#states = new States(operationsBetween(found, index), index.plan.port.size);
    this.#start = this.#states.first(found);
    this.#spots = spotsAlong(found, index);
  }

  /** From a state of the site, such as what is found; null for none. */
  static of(index: PlanIndex, found: PlanIndex | null): Rehearsal | null {
    return found === null ? null : new Rehearsal(index, found);
  }

  /** Ports that the laptop can be plugged into. */
  ports(): Choice[] {
    const { free, cabled } = this.#spots;
    return [...new Set([...free, ...[...cabled.values()].flat()])].map((id) => ({
      id,
      name: nameOf(this.#index, "port", id) + (isCabled(this.#spots, id) ? ", in place of its cable" : ""),
    }));
  }

  /** An operation that may be done first, by its id; null for none. */
  operation(id: string): Operation | null {
    return this.#states.next(this.#start).find((operation) => operation.id === id) ?? null;
  }

  /** What came of some moves, one after the other; one that can't come next is left out. */
  after(moves: readonly Move[]): Rehearsed {
    let state = this.#start;
    const told: Told[] = [];
    for (const move of moves) {
      const operation = this.#states.next(state).find(({ id }) => id === move.operation);
      const next = operation === undefined ? null : this.#states.after(state, operation);
      if (operation === undefined || next === null) continue;
      const [came, says] = this.#come(state, next, operation, move.port);
      told.push({
        ...move,
        device: operation.device,
        title: operationWords(this.#index, operation).title,
        came,
        says,
      });
      if (came !== "unreached") state = next;
    }
    return {
      told,
      next: this.#states
        .next(state)
        .map((operation) => ({ id: operation.id, name: this.#nameOf(operation) })),
      isDone: state.count === this.#states.operations.length,
      count: this.#states.operations.length,
    };
  }

  #nameOf(operation: Operation): string {
    const device = nameOf(this.#index, "device", operation.device);
    return `${device}: ${operationWords(this.#index, operation).title}`;
  }

  #come(state: State, next: State, { device, page }: Operation, port: string): readonly [Came, string] {
    const [at, name] = [nameOf(this.#index, "port", port), nameOf(this.#index, "device", device)];
    if (page !== "power" && this.#states.way(state, port, device) === null)
      return [
        "unreached",
        `From ${at} the laptop does not open ${name}: ${whyNot(state.index, port, device)}`,
      ];
    const way = this.#states.way(next, port, device);
    if (way !== null) {
      const card = must(cardOf(next, { port, way }), "a way has a card");
      return ["done", `${name} answers at ${opensText(card)}; the laptop has ${laptopText(card)}.`];
    }
    const other = [...spotsFor(this.#spots, device, null)].find(
      (spot) => this.#states.way(next, spot, device) !== null,
    );
    return [
      "lockedOut",
      other === undefined
        ? `${name} answers nowhere now: only its console gets to it, or a restart before it is saved.`
        : `${name} does not answer at ${at} any more; it does at ${nameOf(this.#index, "port", other)}.`,
    ];
  }
}
