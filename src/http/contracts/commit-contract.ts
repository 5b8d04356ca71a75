import { z } from "zod";
import { batchEnvelopeSchema, type Breath } from "@/core/formats";
import type { ChangeBatch } from "@/core/plan";
import { MOST_PLAN_BYTES } from "@/core/records";
import { nothing, siteParams, type Contract, type Misfit } from "./contract";
import { misfitOf, readChanges } from "./read-changes";

const envelope = z.strictObject({ revision: z.int().min(0), batch: batchEnvelopeSchema });

export interface CommitBody {
  readonly revision: number;
  readonly batch: ChangeBatch;
}

/** The envelope first, then the changes one by one up to the first that does not fit. */
async function readCommit(value: unknown, breath: Breath): Promise<{ readonly value: CommitBody } | Misfit> {
  const read = envelope.safeParse(value);
  if (!read.success) return misfitOf(read.error, []);
  const { revision, batch } = read.data;
  const found = await readChanges(batch.changes, ["batch", "changes"], breath);
  return "changes" in found ? { value: { revision, batch: { ...batch, ...found } as ChangeBatch } } : found;
}

export const commitContract: Contract<z.output<typeof siteParams>, z.output<typeof nothing>, CommitBody> = {
  params: siteParams,
  query: nothing,
  body: { read: readCommit },
  maxBytes: MOST_PLAN_BYTES,
};
