/** One line of the change log, as far as undo needs it. */
export interface LoggedBatch {
  readonly id: string;
  readonly author: string;
  /** The batch that this one takes back, or brings back after it was taken back. */
  readonly undoes: string | null;
  readonly redoes: string | null;
}

/** What `author` can take back and bring back, the next one last. A new edit empties the author's redo list. */
export function undoStacks(log: readonly LoggedBatch[], author: string): { readonly undo: string[]; readonly redo: string[] } {
  const undo: string[] = [];
  let redo: string[] = [];
  for (const entry of log) {
    if (entry.author !== author) continue;
    if (entry.undoes !== null) {
      undo.splice(undo.lastIndexOf(entry.undoes), 1);
      redo.push(entry.undoes);
    } else if (entry.redoes !== null) {
      redo.splice(redo.lastIndexOf(entry.redoes), 1);
      undo.push(entry.redoes);
    } else {
      undo.push(entry.id);
      redo = [];
    }
  }
  return { undo, redo };
}
