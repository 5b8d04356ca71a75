import { askedOf, nextReadings, SUSPECT_KINDS, type Asked, type Diagnosed } from "../diagnosis";
import { firstLook, type Look } from "./copy";
import { solve, isNamed, type Drill } from "./drill";
import { looksIn, type Act } from "./play";
import { narrowed, type Strand } from "./possible";
import { minutesOf, readingsOf, shortestWay, type Way } from "./shortest";

/** What one look of the learner told. */
export interface Lookback extends Asked {
  /** How many faults fitted before it, and after. */
  readonly before: number;
  readonly after: number;
  /** What would have told more for its time; null where nothing would. */
  readonly better: (Asked & { readonly left: number }) | null;
}

/** What is told when a drill is over. */
export interface Debrief {
  readonly faults: readonly { readonly words: string; readonly mend: string; readonly kind: string }[];
  readonly shortest: Way;
  /** The readings that diagnosis asks for who does not know; and whether it names the fault by them. */
  readonly suggested: {
    readonly asked: readonly Asked[];
    readonly minutes: number;
    readonly isNamed: boolean;
  };
  readonly looks: readonly Lookback[];
}

const countOf = (strands: readonly Strand[]): number =>
  strands.reduce((sum, { fitting }) => sum + fitting.length, 0);

/** What is left to tell apart, as diagnosis has it: of two faults the one of which more is possible. */
function undecided({ copy }: Drill, strands: readonly Strand[], looks: readonly Look[]): Diagnosed {
  const [most = 0] = [...strands.keys()].sort(
    (a, b) => (strands[b]?.fitting.length ?? 0) - (strands[a]?.fitting.length ?? 0),
  );
  const fitting = strands[most]?.fitting ?? [];
  return {
    readings: looks.map(({ ask }) => ({ id: "", ask, seen: { is: "planned" } })),
    isAsPlanned: [],
    tried: fitting.length,
    candidates: fitting.map((suspect) => ({
      suspect: copy.withOther(most, suspect),
      explains: [],
      count: 0,
      weight: SUSPECT_KINDS[suspect.kind].weight,
      share: 0,
    })),
  };
}

/** The reading that would have told most for its time, and how many faults it would have left. */
function bestAt(drill: Drill, strands: readonly Strand[], looks: readonly Look[]): Lookback["better"] {
  const diagnosed = undecided(drill, strands, looks);
  const [best] = nextReadings(drill.copy.study, diagnosed, readingsOf(drill));
  if (best === undefined) return null;
  const { ask, place, at, does, minutes } = best;
  const left = countOf(
    narrowed(drill.copy, strands, { ...firstLook(ask), mended: looks.at(-1)?.mended ?? [] }),
  );
  return { ask, place, at, does, minutes, left };
}

function lookbacks(drill: Drill, acts: readonly Act[]): Lookback[] {
  const looks = looksIn(drill, acts);
  let strands = drill.strands;
  return looks.map((look, i) => {
    const before = countOf(strands);
    const better = bestAt(drill, strands, looks.slice(0, i));
    strands = narrowed(drill.copy, strands, look);
    const after = countOf(strands);
    return {
      ...askedOf(drill.copy.index, look.ask),
      before,
      after,
      better: better === null || better.left >= after ? null : better,
    };
  });
}

/** What the faults were, how they are found fastest, and what each look of the learner told. */
export function debrief(drill: Drill, acts: readonly Act[]): Debrief {
  const followed = solve(drill);
  const { index, faults } = drill.copy;
  const asked = followed.readings.slice(drill.complaints.length).map(({ ask }) => askedOf(index, ask));
  const [first] = drill.complaints;
  const start = first === undefined ? "" : askedOf(index, first.ask).place;
  return {
    faults: faults.map(({ words, mend, kind }) => ({ words, mend, kind: SUSPECT_KINDS[kind].words })),
    shortest: shortestWay(drill),
    suggested: { asked, minutes: minutesOf(asked, start), isNamed: isNamed(drill.copy, followed) },
    looks: lookbacks(drill, acts),
  };
}
