import { afterEdits, PlanEdits, type PlanIndex, type ProbeQuestion } from "../plan";
import type { Expected } from "../commissioning";
import type { Subject } from "../repairs";
import type { SuspectKind } from "./kinds";
import type { Look } from "./asks";

/** How a site with one fault differs from its plan. */
export interface Otherwise {
  /** The site as it is then; null where that is no plan. Left out where the site is as planned. */
  readonly site?: (index: PlanIndex) => PlanIndex | null;
  /** The question that is asked in truth by who believes to ask this one. */
  readonly asks?: (question: ProbeQuestion) => ProbeQuestion;
  /** What is read in truth where the site would show this. */
  readonly reads?: (question: ProbeQuestion, expected: Expected) => Expected;
}

/** One fault that could be: of the plan's own, or beside the plan. */
export interface Suspect {
  readonly id: string;
  readonly kind: SuspectKind;
  /** What is wrong, as a sentence without its full stop. */
  readonly words: string;
  /** What to do about it, as a sentence. */
  readonly mend: string;
  readonly subjects: readonly Subject[];
  readonly otherwise: Otherwise;
  /** Where it is seen by looking there. */
  readonly seenAt: readonly Look[];
  /** Another fault that comes to the same in everything that is tried; null where none is known. */
  readonly triesLike: Suspect | null;
  /** Whether only that something differs is known, not which value stands there. */
  readonly isVague: boolean;
}

/** Edits that make the fault; nothing where it is none here. */
type Edit = (edits: PlanEdits, index: PlanIndex) => void;

const byEdit =
  (edit: Edit): NonNullable<Otherwise["site"]> =>
  (index) => {
    const edits = new PlanEdits(index.plan);
    edit(edits, index);
    return edits.changes().length === 0 ? null : afterEdits(index, edits);
  };

type Told = Pick<Suspect, "id" | "kind" | "words" | "mend" | "subjects" | "seenAt">;

/** A fault that is an edit of the plan. */
export const edited = (told: Told, edit: Edit): Suspect => ({
  ...told,
  otherwise: { site: byEdit(edit) },
  triesLike: null,
  isVague: false,
});

/** The same where nobody knows which value was entered instead. */
export const editedSomehow = (told: Told, edit: Edit): Suspect => ({ ...edited(told, edit), isVague: true });

/** A fault beside the plan. */
export const beside = (told: Omit<Told, "seenAt">, otherwise: Otherwise): Suspect => ({
  ...told,
  seenAt: [],
  otherwise,
  triesLike: null,
  isVague: true,
});
