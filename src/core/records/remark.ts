import { z } from "zod";
import { dateField, idField, KINDS, lineField, longText, type Kind } from "../plan";

// What somebody wrote down about the site or one thing of it, what is still open, and which labels were
// printed: entries of the record, which outlive the thing that they are about.

/** Whose a remark is: only what is the customer's leaves the office. */
export const REMARK_FOR = ["us", "customer"] as const;
export type RemarkFor = (typeof REMARK_FOR)[number];
/** As many photos go with a remark. */
const MOST_PHOTOS = 4;
/** More labels than the largest site has. */
export const MOST_LABELS = 60_000;

export const remarkFields = {
  do: z.literal("remark"),
  about: z.strictObject({ kind: z.enum(KINDS), id: idField, name: lineField(400) }).nullable(),
  for: z.enum(REMARK_FOR),
  text: longText,
  isOpen: z.boolean(),
  due: dateField.nullable(),
  photos: z.array(idField).max(MOST_PHOTOS, `At most ${MOST_PHOTOS} photos go with a remark`),
};
/** Whose the photos of a step or a reading are: the last one that says so counts, ours before any does. */
export const photosForFields = { do: z.literal("photosFor"), entry: idField, for: z.enum(REMARK_FOR) };
export const closeFields = { do: z.literal("close"), remark: idField, note: longText };
export const labelsFields = {
  do: z.literal("labels"),
  printed: z.array(z.tuple([lineField(60), z.string().regex(/^[\da-z]{1,16}$/)])).max(MOST_LABELS),
};

/** What somebody wrote down about the site, or about one thing of it. */
export interface Remark {
  readonly id: string;
  readonly at: string;
  readonly do: "remark";
  /** Null for the site as a whole. The name is what it was called then: it may be gone since. */
  readonly about: { readonly kind: Kind; readonly id: string; readonly name: string } | null;
  readonly for: RemarkFor;
  readonly text: string;
  /** A point that somebody has to see to. */
  readonly isOpen: boolean;
  /** The day until which it is seen to, as YYYY-MM-DD; null where nobody said. */
  readonly due: string | null;
  readonly photos: readonly string[];
}
/** The photos of a step or a reading are the customer's from now on, or the office's own again. */
export interface PhotosFor {
  readonly id: string;
  readonly at: string;
  readonly do: "photosFor";
  /** The tick or the reading that they were taken of. */
  readonly entry: string;
  readonly for: RemarkFor;
}
/** An open point was seen to. */
export interface Close {
  readonly id: string;
  readonly at: string;
  readonly do: "close";
  readonly remark: string;
  readonly note: string;
}
/** Labels that were printed: each by what it is for, with a mark of what stands on it. */
export interface LabelsPrinted {
  readonly id: string;
  readonly at: string;
  readonly do: "labels";
  readonly printed: readonly (readonly [label: string, mark: string])[];
}
