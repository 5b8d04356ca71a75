import { z } from "zod";
import { batchEnvelopeSchema, changeSchema, type Breath } from "@/core/formats";
import type { ChangeBatch } from "@/core/plan";
import { MOST_PLAN_BYTES, nothing, siteParams, type Contract, type Misfit } from "./contract";

const envelope = z.strictObject({ revision: z.int().min(0), batch: batchEnvelopeSchema });

export interface CommitBody {
  readonly revision: number;
  readonly batch: ChangeBatch;
}

/** The envelope first, then the changes one by one up to the first that does not fit. */
async function readCommit(value: unknown, breath: Breath): Promise<{ readonly value: CommitBody } | Misfit> {
  const read = envelope.safeParse(value);
  if (!read.success) return misfitOf(read.error, []);
  const changes: unknown[] = [];
  for (const [i, change] of read.data.batch.changes.entries()) {
    const one = changeSchema.safeParse(change);
    if (!one.success) return misfitOf(one.error, ["batch", "changes", i]);
    changes.push(one.data);
    await breath();
  }
  return { value: { revision: read.data.revision, batch: { ...read.data.batch, changes } as ChangeBatch } };
}

function misfitOf(error: z.ZodError, before: readonly PropertyKey[]): Misfit {
  const [issue] = error.issues;
  if (issue === undefined) throw new Error("A schema refused a value and said nothing of it");
  return { issue, path: [...before, ...issue.path] };
}

export const commitContract: Contract<z.output<typeof siteParams>, z.output<typeof nothing>, CommitBody> = {
  params: siteParams,
  query: nothing,
  body: { read: readCommit },
  maxBytes: MOST_PLAN_BYTES,
};
