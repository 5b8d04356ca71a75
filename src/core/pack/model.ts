import type { Finding } from "../checks";
import type { ComparedGroup } from "../comparison";
import type { PlanIndex } from "../plan";
import type { IssuedSheet, Recorded } from "../records";
import type { Tape } from "../sheets";
import type { Accepted } from "../checks";

/** Whom a pack is for. */
export const READERS = ["installer", "customer", "electrician"] as const;
export type Reader = (typeof READERS)[number];
export const READER_WORDS: Readonly<Record<Reader, string>> = {
  installer: "for the next installer",
  customer: "for the customer",
  electrician: "for the electrician",
};

/** What stands in a table's cell: text, or tapes with text beside them. */
export type Cell = string | { readonly tapes: readonly Tape[]; readonly text: string };

/** A cabinet as it is drawn: its height units, and what fills them, counted from the floor. */
export interface DrawnCabinet {
  readonly place: string;
  readonly units: number;
  readonly racked: readonly { readonly name: string; readonly from: number; readonly to: number }[];
}

/** One thing after another, as it stands on paper. */
export type Block =
  | { readonly is: "text"; readonly text: string; readonly tone: "plain" | "quiet" | "caution" }
  | { readonly is: "heading"; readonly text: string }
  /** A heading under a heading. */
  | { readonly is: "subheading"; readonly text: string }
  | { readonly is: "facts"; readonly rows: readonly (readonly [name: string, value: string])[] }
  | {
      readonly is: "table";
      readonly heads: readonly string[];
      readonly rows: readonly (readonly Cell[])[];
    }
  | { readonly is: "cabinets"; readonly cabinets: readonly DrawnCabinet[] }
  /** The drawing, which whoever sets the pack has laid out. */
  | { readonly is: "drawing" }
  /** A photo by its id. */
  | { readonly is: "photo"; readonly photo: string; readonly caption: string };

export interface Part {
  /** What its file is called: small letters and hyphens. */
  readonly key: string;
  readonly title: string;
  readonly blocks: readonly Block[];
}

/** What stands in the title block of every page. */
export interface TitleBlock {
  readonly site: string;
  readonly reader: string;
  /** The first line of who plans and builds; empty where nobody has said. */
  readonly firm: string;
  /** "C As built, first stage"; says so where it was not issued. */
  readonly sheet: string;
  readonly revision: string;
  readonly drawn: string;
  readonly checked: string;
  readonly accepted: string;
  /** The check value as it stands on paper; empty for a state that was not issued. */
  readonly check: string;
}

export interface Pack {
  readonly reader: Reader;
  readonly block: TitleBlock;
  readonly parts: readonly Part[];
}

/** All that a pack is made of. */
export interface PackStudy {
  /** The state that the pack is of. */
  readonly index: PlanIndex;
  readonly revision: number;
  readonly record: readonly Recorded[];
  /** The sheet that it was issued as; null for the plan as it is. */
  readonly sheet: IssuedSheet | null;
  /** All sheets of the site. */
  readonly sheets: readonly IssuedSheet[];
  readonly open: readonly Finding[];
  readonly accepted: readonly Accepted[];
  /** What is otherwise than in the sheet before; null where there is none, or it can't be had. */
  readonly since: { readonly name: string; readonly groups: readonly ComparedGroup[] } | null;
  /** When the pack is made: an ISO 8601 instant in UTC. */
  readonly made: string;
}
