import { entityOf, type PlanIndex } from "../plan";
import { SUSPECT_KINDS } from "./kinds";
import type { Reading } from "./predict";
import type { Diagnosed, Study, Tell } from "./study";
import type { Otherwise, Suspect } from "./suspect";

/** As many single faults are taken for the reading that the fewest help with. */
const MOST_HELPERS = 40;
/** As many pairs are tried, the most common first. */
const MOST_PAIRS = 900;

/** One fault after the other; null where the first took away what the second is about. */
function bothSites(a: Suspect, b: Suspect): NonNullable<Otherwise["site"]> {
  const after = (index: PlanIndex | null, { otherwise: { site }, subjects }: Suspect) => {
    if (index === null || site === undefined) return index;
    return subjects.every(({ kind, id }) => entityOf(index.plan, kind, id) !== undefined)
      ? site(index)
      : null;
  };
  return (index) => after(after(index, a), b);
}

const eachOnce = (subjects: Suspect["subjects"]): Suspect["subjects"] => [
  ...new Map(subjects.map((subject) => [`${subject.kind} ${subject.id}`, subject])).values(),
];

/** Two faults at once as one: the first is made before the second. */
export const pairOf = (a: Suspect, b: Suspect): Suspect => ({
  id: `${a.id} + ${b.id}`,
  kind: SUSPECT_KINDS[a.kind].weight <= SUSPECT_KINDS[b.kind].weight ? a.kind : b.kind,
  words: `${a.words}; and ${b.words}`,
  mend: `${a.mend} ${b.mend}`,
  subjects: eachOnce([...a.subjects, ...b.subjects]),
  seenAt: [...a.seenAt, ...b.seenAt],
  triesLike: null,
  isVague: a.isVague || b.isVague,
  otherwise: {
    site: bothSites(a, b),
    asks: (question) => {
      const first = a.otherwise.asks?.(question) ?? question;
      return b.otherwise.asks?.(first) ?? first;
    },
    reads: (question, expected) => {
      const first = a.otherwise.reads?.(question, expected) ?? expected;
      return b.otherwise.reads?.(question, first) ?? first;
    },
  },
});

/** Which readings that are not as planned a fault alone would show, or a part of them. */
interface Helper {
  readonly suspect: Suspect;
  readonly helps: readonly boolean[];
}

/** The readings that the fewest faults help with part the pairs best: one of the two is among those. */
function firstOfPairs(helpers: readonly Helper[], count: number): Helper[] {
  const by = Array.from({ length: count }, (_, at) => helpers.filter(({ helps }) => helps[at] === true));
  return by.sort((a, b) => a.length - b.length)[0] ?? [];
}

const weightOfKind = ({ kind }: Suspect): number => SUSPECT_KINDS[kind].weight;

/** Pairs of which each helps with something, and both together with every reading that is not as planned. */
function pairsToTry(study: Study, wrong: readonly Reading[], suspects: readonly Suspect[]): Suspect[] {
  const helpers = suspects
    .map((suspect): Helper => ({ suspect, helps: wrong.map((reading) => study.helps(suspect, reading)) }))
    .filter(({ helps }) => helps.some(Boolean))
    .sort((a, b) => weightOfKind(b.suspect) - weightOfKind(a.suspect));
  const seen = new Set<string>();
  const pairs = firstOfPairs(helpers, wrong.length)
    .slice(0, MOST_HELPERS)
    .flatMap((a) =>
      helpers.flatMap((b) => {
        const key = [a.suspect.id, b.suspect.id].sort().join(" + ");
        const isWhole = wrong.every((_, at) => a.helps[at] === true || b.helps[at] === true);
        if (a === b || !isWhole || seen.has(key)) return [];
        seen.add(key);
        return [{ a, b, weight: weightOfKind(a.suspect) * weightOfKind(b.suspect) }];
      }),
    );
  return pairs
    .sort((a, b) => b.weight - a.weight)
    .slice(0, MOST_PAIRS)
    .map(({ a, b }) => pairOf(a.suspect, b.suspect));
}

/** What two faults at once explain, the most likely first: asked for where no single one explains all. */
export function diagnosePairs(
  study: Study,
  readings: readonly Reading[],
  tell: Tell = () => undefined,
): Diagnosed {
  const wrong = readings.filter((reading) => !study.isAsPlanned(reading));
  const pairs = pairsToTry(study, wrong, study.suspects(readings));
  return study.among(readings, pairs, tell);
}
