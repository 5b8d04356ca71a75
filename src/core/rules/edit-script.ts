import { putInto } from "../kernel";
/** One step that is done to an ordered list; numbers count from 1, as they are when the step is done. */
export type EditStep =
  | { readonly do: "delete"; readonly at: number }
  | { readonly do: "move"; readonly at: number; readonly to: number }
  /** Puts the item of that place of the wanted list (from 0) in. */
  | { readonly do: "insert"; readonly at: number; readonly wanted: number };

interface Match {
  readonly have: number;
  readonly want: number;
  readonly before: Match | null;
}

/** Where in an ascending row of matches a place of the wanted list belongs. */
function placeIn(row: readonly Match[], want: number): number {
  let [low, high] = [0, row.length];
  while (low < high) {
    const middle = Math.floor((low + high) / 2);
    if ((row[middle]?.want ?? 0) < want) low = middle + 1;
    else high = middle;
  }
  return low;
}

/**
 * The longest list that both hold in the same order, as pairs of places (from 0), by the method of Hunt and
 * Szymanski (1977): of the ways to keep so many the one whose last place is the lowest.
 */
export function longestCommon(
  have: readonly string[],
  want: readonly string[],
): (readonly [have: number, want: number])[] {
  const places = new Map<string, number[]>();
  for (let at = want.length - 1; at >= 0; at -= 1) {
    const known = places.get(want[at] ?? "");
    if (known === undefined) places.set(want[at] ?? "", [at]);
    else known.push(at);
  }
  const row: Match[] = [];
  have.forEach((key, at) => {
    for (const place of places.get(key) ?? []) {
      const rank = placeIn(row, place);
      row[rank] = { have: at, want: place, before: row[rank - 1] ?? null };
    }
  });
  const pairs: [number, number][] = [];
  for (let match = row.at(-1) ?? null; match !== null; match = match.before)
    pairs.push([match.have, match.want]);
  return pairs.reverse();
}

/** Which item of the list that is there becomes which of the wanted; those that are alike in their order. */
function matched(have: readonly string[], want: readonly string[]): (number | null)[] {
  const becomes: (number | null)[] = want.map(() => null);
  const isTaken = have.map(() => false);
  for (const [from, to] of longestCommon(have, want)) {
    becomes[to] = from;
    isTaken[from] = true;
  }
  const free = new Map<string, number[]>();
  have.forEach((key, at) => {
    if (isTaken[at] !== true) putInto(free, key, at);
  });
  want.forEach((key, at) => {
    if (becomes[at] === null) becomes[at] = free.get(key)?.shift() ?? null;
  });
  return becomes;
}

/**
 * The fewest steps that make the wanted list of the one that is there: what goes is deleted from the back on,
 * then what stands elsewhere is moved and what lacks is inserted from the front on.
 */
export function editScript(have: readonly string[], want: readonly string[]): EditStep[] {
  const becomes = matched(have, want);
  const kept = new Map(longestCommon(have, want).map(([from, to]) => [to, from]));
  const stays = new Set(becomes);
  const steps: EditStep[] = [];
  for (let at = have.length - 1; at >= 0; at -= 1)
    if (!stays.has(at)) steps.push({ do: "delete", at: at + 1 });
  // What is there now: items by their place in `have`, new ones by negative numbers.
  const list = have.flatMap((_, at) => (stays.has(at) ? [at] : []));
  let before = -1;
  want.forEach((_, at) => {
    const item = becomes[at] ?? null;
    if (item !== null && kept.get(at) === item) {
      before = list.indexOf(item);
      return;
    }
    const from = item === null ? -1 : list.indexOf(item);
    if (from >= 0) list.splice(from, 1);
    const to = (from >= 0 && from <= before ? before - 1 : before) + 1;
    list.splice(to, 0, item ?? -1 - at);
    before = to;
    steps.push(
      item === null ? { do: "insert", at: to + 1, wanted: at } : { do: "move", at: from + 1, to: to + 1 },
    );
  });
  return steps;
}
