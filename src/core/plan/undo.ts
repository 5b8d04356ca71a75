/** One line of the change log, as far as undo needs it. */
export interface LoggedBatch {
  readonly id: string;
  readonly author: string;
  /** The batch that this one takes back, or brings back after it was taken back. */
  readonly undoes: string | null;
  readonly redoes: string | null;
  /** 0 for a batch that found its work done already: there is nothing to take back in it. */
  readonly changeCount: number;
}

/**
 * The author's next undo and redo by id, null where there is none; `isCertain` when older lines can't change
 * either.
 */
export interface NextSteps {
  readonly undo: string | null;
  readonly redo: string | null;
  readonly isCertain: boolean;
}

/** The edit that a line of the log is about: the one it takes back or makes anew, else itself. */
const aboutOf = (line: LoggedBatch): string => line.undoes ?? line.redoes ?? line.id;

/**
 * What an author can take back and bring back next, read off the author's own lines, newest first: a batch is
 * as its last mention left it. Needs no more of the log than reaches back to the batch in question. A new
 * edit empties the author's redo list.
 */
export function nextSteps(newestFirst: readonly LoggedBatch[]): NextSteps {
  const mentioned = new Set<string>();
  let undo: string | null = null;
  let redo: string | null = null;
  let isEdited = false;
  for (const line of newestFirst) {
    const about = aboutOf(line);
    const isLast = !mentioned.has(about);
    mentioned.add(about);
    if (line.undoes !== null) {
      if (isLast && !isEdited) redo ??= about;
    } else {
      const isEdit = line.redoes === null;
      if (isLast && (!isEdit || line.changeCount > 0)) undo ??= about;
      isEdited ||= isEdit;
    }
    if (undo !== null && (redo !== null || isEdited)) return { undo, redo, isCertain: true };
  }
  return { undo, redo, isCertain: false };
}
