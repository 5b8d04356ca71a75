import { askedOf, askKey, readable, WALK_MINUTES, type Ask, type Asked, type Suspect } from "../diagnosis";
import { firstLook } from "./copy";
import type { Drill } from "./drill";

/** Readings after which only what is planted is left, and what they take. */
export interface Way {
  readonly asked: readonly Asked[];
  /** With the walks between places, from where it was complained of. */
  readonly minutes: number;
  /** Whether it was shown that no other takes less; the search is cut off where there are too many. */
  readonly isProven: boolean;
  /** So many readings tell something here: out of those it is made. */
  readonly outOf: number;
}

/** A reading with the faults that it rules out. */
interface Cover extends Asked {
  readonly rulesOut: ReadonlySet<number>;
}

/** As many steps the search takes. */
const MOST_STEPS = 400_000;

/** Other faults in the place of one that is planted. */
interface Other {
  readonly at: number;
  readonly suspect: Suspect;
}

/** Everything that fits the complaints beside what is planted. */
const othersOf = ({ copy, strands }: Drill): Other[] =>
  strands.flatMap(({ fitting }, at) =>
    fitting.filter(({ id }) => id !== copy.faults[at]?.id).map((suspect) => ({ at, suspect })),
  );

/** What can be read to find out, each once. */
export function readingsOf({ copy, complaints, strands }: Drill): Ask[] {
  const asks = complaints.map(({ ask }) => ask);
  const suspects = [...copy.faults, ...strands.flatMap(({ fitting }) => fitting)];
  const all = [...asks, ...readable(copy.index, asks, suspects)];
  return [...new Map(all.map((ask) => [askKey(ask), ask])).values()];
}

/** What each reading rules out of the others, by their places; one that rules out none is left out. */
function coversOf(drill: Drill, others: readonly Other[]): Cover[] {
  const { copy } = drill;
  const sets = readingsOf(drill).map((ask) => ({ ask, rulesOut: new Set<number>() }));
  // Fault by fault, so that each site is compiled once.
  others.forEach(({ at, suspect }, number) => {
    for (const { ask, rulesOut } of sets) if (!copy.fits(at, suspect, firstLook(ask))) rulesOut.add(number);
  });
  return sets.flatMap(({ ask, rulesOut }): Cover[] =>
    rulesOut.size === 0 ? [] : [{ ...askedOf(copy.index, ask), rulesOut }],
  );
}

/** The cheapest set of readings that rules out everything else, by branching on what is hardest to rule out. */
class Search {
  /** By what is to be ruled out, the readings that do, the cheapest first. */
  readonly #by: readonly (readonly Cover[])[];
  readonly #start: string;
  #steps = 0;
  #best: readonly Cover[] | null = null;
  #minutes = Infinity;

  constructor(covers: readonly Cover[], count: number, start: string) {
    this.#start = start;
    const cheapest = [...covers].sort((a, b) => a.minutes - b.minutes);
    this.#by = Array.from({ length: count }, (_, at) => cheapest.filter(({ rulesOut }) => rulesOut.has(at)));
  }

  /** What no reading rules out is left out. */
  run(): { readonly chosen: readonly Cover[]; readonly minutes: number; readonly isProven: boolean } {
    this.#step(
      [...this.#by.keys()].filter((at) => (this.#by[at] ?? []).length > 0),
      [],
    );
    return {
      chosen: this.#best ?? [],
      minutes: this.#best === null ? 0 : this.#minutes,
      isProven: this.#steps < MOST_STEPS,
    };
  }

  #step(left: readonly number[], chosen: readonly Cover[]): void {
    this.#steps += 1;
    const minutes = minutesOf(chosen, this.#start);
    if (minutes >= this.#minutes || this.#steps >= MOST_STEPS) return;
    if (left.length === 0) {
      this.#best = chosen;
      this.#minutes = minutes;
      return;
    }
    for (const cover of this.#hardest(left))
      this.#step(
        left.filter((at) => !cover.rulesOut.has(at)),
        [...chosen, cover],
      );
  }

  /** The readings that rule out what the fewest do: one of them is in every way. */
  #hardest(left: readonly number[]): readonly Cover[] {
    const open = left.map((at) => this.#by[at] ?? []);
    return open.reduce((fewest, cover) => (cover.length < fewest.length ? cover : fewest), open[0] ?? []);
  }
}

/** What some readings take from a place on: each other place is walked to once. */
export function minutesOf(chosen: readonly Pick<Asked, "minutes" | "place">[], start: string): number {
  const places = new Set(chosen.map(({ place }) => place));
  places.delete(start);
  return chosen.reduce((sum, { minutes }) => sum + minutes, 0) + WALK_MINUTES * places.size;
}

/** By place, the one first where it was complained of. */
const inOrder = (chosen: readonly Cover[], start: string): Cover[] =>
  [...chosen].sort(
    (a, b) => Number(b.place === start) - Number(a.place === start) || (a.place < b.place ? -1 : 1),
  );

/** The readings that take least and leave nothing but what is planted, or what none of them parts from it. */
export function shortestWay(drill: Drill): Way {
  const [first] = drill.complaints;
  const start = first === undefined ? "" : askedOf(drill.copy.index, first.ask).place;
  const others = othersOf(drill);
  const covers = coversOf(drill, others);
  const { chosen, minutes, isProven } = new Search(covers, others.length, start).run();
  const asked = inOrder(chosen, start).map(({ ask, place, at, does, minutes: own }) => ({
    ask,
    place,
    at,
    does,
    minutes: own,
  }));
  return { asked, minutes, isProven, outOf: covers.length };
}
