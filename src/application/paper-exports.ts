import { encodePlan } from "@/core/formats";
import { READER_WORDS, READERS, type Reader } from "@/core/pack";
import type { Plan } from "@/core/plan";
import { photosToFile, recordsToFile, type Photo, type Recorded } from "@/core/records";
import type { ExportLine } from "./export-list";

// Papers and the drawing of a plan as it is, set by a program of its own so that nobody waits behind it.

/** What is set: the papers for a reader, the job report, or the drawing alone. */
export type PaperKind = Reader | "report" | "drawing";
/** All that is needed to set it, as JSON values. */
export interface PaperJob {
  readonly kind: PaperKind;
  readonly plan: unknown;
  readonly revision: number;
  readonly records: readonly unknown[];
  readonly photos: readonly unknown[];
  /** The day, as YYYY-MM-DD, and the instant in ISO 8601. */
  readonly today: string;
  readonly made: string;
}
export interface PaperMaker {
  /** The file; null where too many wait, or it could not be made in time. */
  readonly make: (job: PaperJob) => Promise<Uint8Array<ArrayBuffer> | null>;
}

export const PAPERS: readonly (ExportLine & { readonly kind: PaperKind })[] = [
  ...READERS.map((reader) => ({
    kind: reader,
    file: `papers-${reader}.pdf`,
    type: "application/pdf",
    what: `Papers ${READER_WORDS[reader]}`,
    about: "The plan as it is now, on A4, with the drawing and the photos that this reader gets.",
  })),
  {
    kind: "report",
    file: "job-report.pdf",
    type: "application/pdf",
    what: "Job report",
    about: "What was done and tested, by whom and when, on A4.",
  },
  {
    kind: "drawing",
    file: "drawing.svg",
    type: "image/svg+xml",
    what: "Drawing",
    about: "The gear and its cables.",
  },
];

/** What is wanted of a site as it is now, for whoever sets it. */
export const paperJob = (
  kind: PaperKind,
  of: {
    readonly plan: Plan;
    readonly revision: number;
    readonly record: readonly Recorded[];
    readonly photos: readonly Photo[];
  },
  now: { readonly today: string; readonly made: string },
): PaperJob => ({
  ...{ kind, revision: of.revision, ...now },
  plan: encodePlan(of.plan),
  records: recordsToFile(of.record),
  photos: photosToFile(of.photos),
});
