import { ascending, putInto } from "../kernel";
import type { Side } from "../policy";
import type { Taken } from "./classes";
import type { Met } from "./groups";

interface SideList {
  readonly taken: ReadonlyMap<string, Taken>;
  readonly rules: number[];
}

/** Some rules that meet a network, and which of its addresses. */
interface Part {
  readonly list: number;
  readonly rules: readonly number[];
  readonly spans: Taken;
}

const metOf = (parts: readonly Part[]): readonly Met[] =>
  parts
    .flatMap(({ rules, spans }) => rules.map((rule): Met => ({ rule, spans })))
    .sort((a, b) => ascending(a.rule, b.rule));

/**
 * Which rules meet each network at one end. Rules that name the same zones share their lists of sides, which
 * are read once; networks that the same lists take in whole share what meets them.
 */
export class MetAt {
  readonly #taken: (sides: readonly Side[]) => ReadonlyMap<string, Taken>;
  readonly #lists = new Map<readonly Side[], SideList>();

  constructor(taken: (sides: readonly Side[]) => ReadonlyMap<string, Taken>) {
    this.#taken = taken;
  }

  /** Rules are put in their order. */
  put(sides: readonly Side[], rule: number): void {
    const known = this.#lists.get(sides);
    if (known === undefined) this.#lists.set(sides, { taken: this.#taken(sides), rules: [rule] });
    else known.rules.push(rule);
  }

  /** What meets each network, ascending; a network that nothing meets is not in it. */
  byNetwork(): ReadonlyMap<string, readonly Met[]> {
    const parts = new Map<string, Part[]>();
    [...this.#lists.values()].forEach(({ taken, rules }, list) => {
      for (const [name, spans] of taken) putInto(parts, name, { list, rules, spans });
    });
    const shared = new Map<string, readonly Met[]>();
    const met = (own: readonly Part[]): readonly Met[] => {
      if (own.some(({ spans }) => spans !== null)) return metOf(own);
      const key = own.map(({ list }) => list).join();
      const known = shared.get(key) ?? metOf(own);
      shared.set(key, known);
      return known;
    };
    return new Map([...parts].map(([name, own]) => [name, met(own)]));
  }
}
