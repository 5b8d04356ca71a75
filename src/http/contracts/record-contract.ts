import { z } from "zod";
import type { Breath } from "@/core/formats";
import { entryOf, recordEntrySchema, type RecordEntry } from "@/core/records";
import { MOST_PLAN_BYTES } from "@/core/records";
import { nothing, siteParams, type Contract, type Misfit } from "./contract";
import { misfitOf, readChanges } from "./read-changes";

// Entries as they are made on site; a whole day without a connection comes in several requests. One that begins
// a visit with a plan file is as large as what that says of the devices.

const envelope = z.strictObject({ entries: z.array(z.unknown()).min(1).max(100) });

export interface RecordBody {
  readonly entries: readonly RecordEntry[];
}

/** Each entry without its changes first, then these one by one. */
async function readEntries(value: unknown, breath: Breath): Promise<{ readonly value: RecordBody } | Misfit> {
  const read = envelope.safeParse(value);
  if (!read.success) return misfitOf(read.error, []);
  const entries: RecordEntry[] = [];
  for (const [at, part] of read.data.entries.entries()) {
    const entry = await readEntry(part, ["entries", at], breath);
    if (!("entry" in entry)) return entry;
    entries.push(entry.entry);
  }
  return { value: { entries } };
}

async function readEntry(
  value: unknown,
  place: readonly PropertyKey[],
  breath: Breath,
): Promise<{ readonly entry: RecordEntry } | Misfit> {
  const isFields = typeof value === "object" && value !== null;
  const own = isFields && "changes" in value && Array.isArray(value.changes) ? value.changes : null;
  const bare = recordEntrySchema.safeParse(own === null || !isFields ? value : { ...value, changes: [] });
  if (!bare.success) return misfitOf(bare.error, place);
  const entry = entryOf(bare.data);
  if (own === null) return { entry };
  const found = await readChanges(own, [...place, "changes"], breath);
  return "changes" in found ? { entry: { ...entry, ...found } as RecordEntry } : found;
}

export const addToRecordContract: Contract<
  z.output<typeof siteParams>,
  z.output<typeof nothing>,
  RecordBody
> = { params: siteParams, query: nothing, body: { read: readEntries }, maxBytes: MOST_PLAN_BYTES };
