import { z } from "zod";
import { MOST_PHOTOS, type Breath, type FileFault } from "../formats";
import { err, ok, type Result } from "../kernel";
import { issueSentence, lineField, valueAt } from "../plan";
import { decodeEntry, encodeEntry, presentForm, recordEntrySchema, type Recorded } from "./entry";
import { MOST_PHOTO_BYTES } from "./photo";

// What was done on site goes with the plan file under `records`: who did it, and the entry as it was written. A
// person of another machine stays a name.

/** The largest plan file taken: an estate of 48,000 ports has 37 MB. */
export const MOST_PLAN_BYTES = 64_000_000;
/** One with all the photos that a site can have, in base64; a history has its place beside them, too. */
export const MOST_FILE_BYTES = MOST_PLAN_BYTES + MOST_PHOTOS * Math.ceil((MOST_PHOTO_BYTES * 4) / 3 + 100);

const whoSchema = z.strictObject({ by: lineField(80).min(1), entry: z.unknown() });

/** A record as the plan file has it. */
export const recordsToFile = (record: readonly Recorded[]): unknown[] =>
  record.map(({ by, entry }) => ({ by, entry: encodeEntry(entry) }));

function faultAt(at: number, error: z.ZodError, value: unknown): FileFault {
  const [issue] = error.issues;
  const path = issue?.path.map(String).join(".") ?? "";
  const place = `records[${at}]${path === "" ? "" : `.${path}`}`;
  const says = issue === undefined ? "It can't be read." : issueSentence(issue, valueAt(value, issue.path));
  return { place, sentence: `${place}: ${says}` };
}

function readOne(value: unknown, at: number): Result<Recorded, FileFault> {
  const who = whoSchema.safeParse(value);
  if (!who.success) return err(faultAt(at, who.error, value));
  const entry = decodeEntry(who.data.entry);
  if (entry !== null) return ok({ by: who.data.by, entry });
  const read = recordEntrySchema.safeParse(presentForm(who.data.entry));
  return err(
    read.success
      ? { place: `records[${at}]`, sentence: `records[${at}] can't be read.` }
      : faultAt(at, read.error, who.data.entry),
  );
}

/**
 * The record in a plan file that is already parsed, empty where it has none; the first entry that can't be read
 * is named. `breath` is asked between entries.
 */
export async function recordsOfFile(
  file: unknown,
  breath: Breath,
): Promise<Result<readonly Recorded[], readonly FileFault[]>> {
  const list = typeof file === "object" && file !== null && "records" in file ? file.records : [];
  if (!Array.isArray(list)) return err([{ place: "records", sentence: "records: A list belongs here." }]);
  const record: Recorded[] = [];
  const seen = new Set<string>();
  for (const [at, value] of list.entries()) {
    const read = readOne(value, at);
    if (!read.ok) return err([read.error]);
    const { id } = read.value.entry;
    if (seen.has(id))
      return err([
        { place: `records[${at}]`, sentence: `records[${at}] is there twice; every entry stands once.` },
      ]);
    seen.add(id);
    record.push(read.value);
    await breath();
  }
  return ok(record);
}
