import { z } from "zod";
import { err, ok, type Result } from "../kernel";
import {
  COLLECTION_KINDS,
  idField,
  issueSentence,
  lineField,
  planBefore,
  valueAt,
  type Change,
  type ChangeBatch,
  type Plan,
} from "../plan";
import type { Breath } from "./breath";
import { batchEnvelopeSchema, changeSchema, encodeChangesSliced } from "./change-codec";
import { upgradedChanges } from "./older";
import { MOST_BATCHES, type FileFault } from "./plan-file";

// A site's whole history goes with a plan file under `history`: every change that made the plan, oldest first,
// with who made it and when.

/** The end of the name of such a file. */
export const HISTORY_FILE = "plan-with-history.json";

/** A batch of the change log as it goes with a plan file. */
export interface LoggedBatch {
  readonly revision: number;
  /** The name of who made it. */
  readonly by: string;
  /** When: an ISO 8601 instant in UTC, with milliseconds. */
  readonly at: string;
  readonly undoes: string | null;
  readonly redoes: string | null;
  readonly batch: ChangeBatch;
}
export interface PlanHistory {
  /** Oldest first, each the next revision; never empty. */
  readonly batches: readonly LoggedBatch[];
  /** The plan before the first of them. */
  readonly before: Plan;
}

const REVISIONS = 1_000_000_000;
const loggedSchema = z.strictObject({
  ...batchEnvelopeSchema.shape,
  revision: z.int().min(1).max(REVISIONS),
  by: lineField(80).min(1),
  at: z.iso
    .datetime({ precision: 3 })
    .refine((at) => at >= "1970", "A change was made in 1970 or later; write its date as YYYY-MM-DD"),
  undoes: idField.nullable(),
  redoes: idField.nullable(),
});

/** A batch of the log as JSON text; `breath` is asked between its changes. */
export async function loggedText(logged: LoggedBatch, breath: Breath): Promise<string> {
  const { batch, ...rest } = logged;
  const { changes, ...envelope } = batch;
  const head = JSON.stringify({ ...rest, ...envelope, args: envelope.args ?? null });
  return `${head.slice(0, -1)},"changes":${await encodeChangesSliced(changes, breath)}}`;
}

type Faults = readonly FileFault[];
const fault = (place: string, says: string): Result<never, Faults> =>
  err([{ place, sentence: `${place}: ${says}` }]);

function misfit(at: number, error: z.ZodError, value: unknown, within: readonly PropertyKey[] = []) {
  const [issue] = error.issues;
  const path = [...within, ...(issue?.path ?? [])].map(String).join(".");
  const place = `history[${at}]${path === "" ? "" : `.${path}`}`;
  return fault(
    place,
    issue === undefined ? "It can't be read." : issueSentence(issue, valueAt(value, issue.path)),
  );
}

async function readBatch(value: unknown, at: number, breath: Breath): Promise<Result<LoggedBatch, Faults>> {
  const read = loggedSchema.safeParse(value);
  if (!read.success) return misfit(at, read.error, value);
  const { revision, by, at: made, undoes, redoes, changes: written, ...envelope } = read.data;
  const changes: Change[] = [];
  for (const [n, part] of (upgradedChanges(written) as unknown[]).entries()) {
    const change = changeSchema.safeParse(part);
    if (!change.success) return misfit(at, change.error, part, ["changes", n]);
    changes.push(change.data as unknown as Change);
    await breath();
  }
  return ok({ revision, by, at: made, undoes, redoes, batch: { ...envelope, changes } as ChangeBatch });
}

/** Whether the revisions and ids of a list follow one another; null where they do. */
function outOfOrder(batches: readonly LoggedBatch[]): ReturnType<typeof fault> | null {
  const ids = new Set<string>();
  for (const [at, { revision, batch }] of batches.entries()) {
    const before = batches[at - 1];
    if (before !== undefined && revision !== before.revision + 1)
      return fault(
        `history[${at}].revision`,
        `After revision ${before.revision} comes ${before.revision + 1}, not ${revision}; ` +
          "a history has every change, oldest first.",
      );
    if (ids.has(batch.id))
      return fault(`history[${at}].id`, "This change is there twice; take one of them out.");
    ids.add(batch.id);
  }
  return null;
}

const isEmpty = (plan: Plan): boolean => COLLECTION_KINDS.every((kind) => plan[kind].size === 0);

/** Takes the changes back from the plan, newest first: a history that does not lead to it is refused. */
async function walkedBack(
  plan: Plan,
  batches: readonly LoggedBatch[],
  breath: Breath,
): Promise<Result<Plan, Faults>> {
  let then = plan;
  for (const [at, { revision, batch }] of [...batches.entries()].toReversed()) {
    const earlier = planBefore(then, [batch.changes]);
    if (earlier === null)
      return fault(
        `history[${at}]`,
        `Revision ${revision} "${batch.summary}" does not lead to what follows it; the history is not this ` +
          "plan's, or something was taken out of it. Save the plan file with its history anew, or without it.",
      );
    then = earlier;
    await breath();
  }
  if (batches[0]?.revision === 1 && !isEmpty(then))
    return fault("history[0]", "Revision 1 begins with an empty plan; what was there before it is not told.");
  return ok(then);
}

/**
 * The history in a plan file that is already parsed and whose plan is `plan`; null where it has none. It is
 * whole and leads to that plan, or the first place that does not fit is named. `breath` is asked between
 * changes.
 */
export async function historyOfFile(
  file: unknown,
  plan: Plan,
  breath: Breath,
): Promise<Result<PlanHistory | null, Faults>> {
  const list = (file as { history?: unknown } | null)?.history;
  if (list === undefined) return ok(null);
  if (!Array.isArray(list)) return fault("history", "A list belongs here.");
  if (list.length > MOST_BATCHES) return fault("history", `At most ${MOST_BATCHES} changes go with a plan.`);
  if (list.length === 0) return ok(null);
  const batches: LoggedBatch[] = [];
  for (const [at, part] of list.entries()) {
    const read = await readBatch(part, at, breath);
    if (!read.ok) return read;
    batches.push(read.value);
  }
  const wrong = outOfOrder(batches);
  if (wrong !== null) return wrong;
  const before = await walkedBack(plan, batches, breath);
  return before.ok ? ok({ batches, before: before.value }) : before;
}

/** The same changes for a site of another id. */
export const forSite = (changes: readonly Change[], id: string): readonly Change[] =>
  changes.map((change) =>
    change.kind === "site"
      ? {
          ...change,
          id,
          before: change.before === null ? null : { ...change.before, id },
          after: change.after === null ? null : { ...change.after, id },
        }
      : change,
  );
