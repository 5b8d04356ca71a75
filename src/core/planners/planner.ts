import { PlanEdits, entityFault, type ChangeBatch, type PlanIndex } from "../plan";

/** Where new ids come from: the caller's, so that the same arguments can give the same batch. */
export type IdSource = () => string;

/** What an edit needs: what it writes into, look-ups over the plan as it was, and new ids. */
export interface EditContext {
  readonly edits: PlanEdits;
  readonly index: PlanIndex;
  readonly ids: IdSource;
}

/** A sentence that says what is wrong and what to do; null when the edit was written. */
export type Refusal = string | null;

/**
 * Runs an edit and gives its batch, or the sentence why not: the edit's own, or the schema's about what it
 * wrote.
 */
export function plan(
  index: PlanIndex,
  ids: IdSource,
  meant: { readonly planner: string; readonly summary: string; readonly args: unknown },
  edit: (context: EditContext) => Refusal | void,
):
  | { readonly batch: ChangeBatch; readonly refusal: null }
  | { readonly batch: null; readonly refusal: string } {
  const edits = new PlanEdits(index.plan);
  const refusal = edit({ edits, index, ids }) ?? null;
  if (refusal !== null) return { batch: null, refusal };
  const changes = edits.changes();
  for (const { kind, after } of changes) {
    const fault = after === null ? null : entityFault(kind, after);
    if (fault !== null) return { batch: null, refusal: fault };
  }
  return { batch: { id: ids(), ...meant, summary: meant.summary.slice(0, 120), changes }, refusal: null };
}
