import { diff, type Change, type Kind, type PlanIndex, type ProbeQuestion } from "../plan";
import { askedOf, type Asked } from "./asks";
import { nextReadings, toBeSure, type Branch, type NextReading } from "./next";
import { diagnosePairs } from "./pairs";
import type { Reading } from "./predict";
import type { Candidate, Study, Tell } from "./study";
import type { Suspect } from "./suspect";
import { whyFails, type Why } from "./why";

/** A fault as it is shown: what tries it stays where it was tried. */
export interface ShownCandidate extends Omit<Candidate, "suspect"> {
  readonly suspect: Pick<Suspect, "id" | "kind" | "words" | "mend" | "subjects">;
}
export interface ShownBranch extends Omit<Branch, "left"> {
  /** So many faults are left then. */
  readonly count: number;
  /** The most likely of them, in words. */
  readonly left: readonly string[];
}
export interface ShownNext extends Omit<NextReading, "branches"> {
  readonly branches: readonly ShownBranch[];
}
export interface ShownWhy extends Omit<Why, "candidates"> {
  readonly candidates: readonly string[];
}

/** What readings come to, as it is shown. */
export interface Answer {
  /** By reading, whether it is as planned. */
  readonly isAsPlanned: readonly boolean[];
  /** By reading, where and how it was taken. */
  readonly asked: readonly Asked[];
  readonly candidates: readonly ShownCandidate[];
  /** So many explain all readings; what no reading parts counts one by one. */
  readonly explainAll: number;
  readonly tried: number;
  /** The best readings to take next; the first tells most for its time. */
  readonly next: readonly ShownNext[];
  /** Where only one is left: what it would change and nobody has read yet. */
  readonly sure: ShownNext | null;
  /** The four questions to the first reading that is not as planned; none where there is none. */
  readonly why: readonly ShownWhy[];
}

/** As many faults are shown, as many readings suggested, as many names told of what an outcome leaves. */
const MOST_SHOWN = 40;
const MOST_NEXT = 6;
const MOST_NAMED = 3;

function shownCandidate({ suspect, ...rest }: Candidate): ShownCandidate {
  const { id, kind, words, mend, subjects } = suspect;
  return { ...rest, suspect: { id, kind, words, mend, subjects } };
}
const namesOf = (candidates: readonly Candidate[]): string[] =>
  candidates.slice(0, MOST_NAMED).map(({ suspect }) => suspect.words);
const shownNext = ({ branches, ...rest }: NextReading): ShownNext => ({
  ...rest,
  branches: branches.map(({ left, ...branch }) => ({ ...branch, count: left.length, left: namesOf(left) })),
});

/** The first reading that was tried and is not as planned. */
function failed(readings: readonly Reading[], isAsPlanned: readonly boolean[]): ProbeQuestion | null {
  const wrong = readings.filter((_, at) => isAsPlanned[at] === false);
  return wrong.flatMap(({ ask }) => (ask.what === "try" ? [ask.question] : []))[0] ?? null;
}

/** What readings come to: by one fault, or, asked for, by two at once. */
export function answer(
  study: Study,
  readings: readonly Reading[],
  { byPairs }: { readonly byPairs: boolean },
  tell: Tell = () => undefined,
): Answer {
  const diagnosed = byPairs ? diagnosePairs(study, readings, tell) : study.diagnose(readings, tell);
  const { isAsPlanned, candidates, tried } = diagnosed;
  const question = failed(readings, isAsPlanned);
  const sure = toBeSure(study, diagnosed);
  return {
    isAsPlanned,
    asked: readings.map(({ ask }) => askedOf(study.index, ask)),
    candidates: candidates.slice(0, MOST_SHOWN).map(shownCandidate),
    explainAll: candidates.filter(({ count }) => count === readings.length).length,
    tried,
    next: nextReadings(study, diagnosed).slice(0, MOST_NEXT).map(shownNext),
    sure: sure === null ? null : shownNext(sure),
    why:
      question === null
        ? []
        : whyFails(study.index, question, diagnosed).map((why) => ({
            ...why,
            candidates: namesOf(why.candidates),
          })),
  };
}

/** Kinds whose entities are set on devices: only what is there can be found otherwise on one. */
const ON_DEVICES: ReadonlySet<Kind> = new Set(["device", "port", "interface", "scope", "rule", "radio"]);

/**
 * What of a fault is otherwise on the devices as they are by the record: what the runbook has to mend. Nothing
 * where it is on none of them.
 */
export function changesOnDevices(suspect: Suspect, asIs: PlanIndex): Change[] {
  const { site } = suspect.otherwise;
  const now = site === undefined ? null : site(asIs);
  if (now === null) return [];
  const changes = diff(asIs.plan, now.plan);
  return changes.every(({ kind }) => ON_DEVICES.has(kind)) ? changes : [];
}
