import { equal } from "../kernel";
import type { Change } from "./change";

/** Fields of words beside what is planned: what somebody on site may add to. */
const isNote = (kind: string, field: string): boolean =>
  field === "notes" || (kind === "port" && field === "note");

type Fields = Readonly<Record<string, unknown>>;

function isNotesOnly({ kind, before, after }: Change): boolean {
  if (before === null || after === null) return false;
  const [was, is] = [before, after] as unknown as [Fields, Fields];
  return [...new Set([...Object.keys(was), ...Object.keys(is)])].every(
    (field) => isNote(kind, field) || equal(was[field], is[field]),
  );
}

/** Whether changes touch notes and nothing else of what is there: they plan nothing. */
export const notesOnly = (changes: readonly Change[]): boolean => changes.every(isNotesOnly);
