// What the routes answer, as the interface reads it: what the use cases give, its changes and plans in their
// text form.
import type { Soundness } from "@/application/soundness";
import type { PersonProgress } from "@/core/drills";
import type { DeedLine, LinkPurpose, OwnSession } from "@/application/account-stores";
import type { LiveState } from "@/application/live";
import type { Folders, Overview } from "@/application/people";
import type { OwnPasskey } from "@/application/passkey-stores";
import type { SeenPass } from "@/application/passes";
import type { Role } from "@/application/roles";
import type { BinnedSite, LogLine, SiteSummary } from "@/application/stores";

export type SiteAnswer = SiteSummary;
/** A deleted site that can still be brought back. */
export type BinnedAnswer = BinnedSite;
export type SoundnessAnswer = Soundness;
export type LogLineAnswer = LogLine;
/** With the changes in their text form. */
export interface LogEntryAnswer extends LogLineAnswer {
  readonly changes: unknown;
}
/** What touched something, newest first, each with what it did to it. */
export type TouchedAnswer = readonly LogEntryAnswer[];
/** As many come at once: fewer are the last. */
export const TOUCHED_AT_ONCE = 40;
export interface StepsAnswer {
  readonly undo: string | null;
  readonly redo: string | null;
  readonly undoIsImport: boolean;
}
/**
 * The plan is the same for everybody; what the asker can undo comes with it in this header, as JSON,
 * percent-encoded.
 */
export const STEPS_HEADER = "x-steps";
export interface NewsAnswer {
  readonly revision: number;
  readonly entries: readonly LogEntryAnswer[];
  readonly steps: StepsAnswer;
}
/**
 * `entries`: what came since the revision that the batch was made on, itself among it; empty when it simply
 * is the next one.
 */
export interface CommitAnswer {
  readonly revision: number;
  readonly entries: readonly LogEntryAnswer[];
}
/** Entries in their text form, with their places in the record. */
export interface RecordAnswer {
  readonly entries: readonly { readonly number: number; readonly by: string; readonly entry: unknown }[];
  readonly isMore: boolean;
  readonly last: number;
}
/** How far everybody has come with the drills; `me` is the asker's name. */
export interface DrillsAnswer {
  readonly me: string;
  readonly people: readonly PersonProgress[];
}
/** The addresses of real devices that may be read. */
export interface ReadableAnswer {
  readonly allowed: readonly string[];
}
/** What a device says of itself: YANG data in JSON. */
export interface ReadAnswer {
  readonly text: string;
}
export interface StepAnswer {
  readonly revision: number;
  readonly summary: string;
  readonly changes: unknown;
}
export interface ClashAnswer {
  readonly kind: string;
  readonly id: string;
  readonly field: string | null;
  readonly mine: unknown;
  readonly theirs: unknown;
}
export interface RefusedAnswer {
  readonly code: string;
  readonly sentence: string;
  readonly revision?: number;
  readonly between?: readonly LogEntryAnswer[];
  readonly clashes?: readonly ClashAnswer[];
  readonly faults?: readonly { readonly place: string; readonly sentence: string }[];
}
/** A one-time link's key, and where another machine opens it; nowhere where it listens on this one only. */
export interface InvitationAnswer {
  readonly key: string;
  readonly urls: readonly string[];
  readonly fingerprint: string | null;
}
/** What a one-time link does, for whom where that is settled, and what an invitation gives. */
export interface LinkAnswer {
  readonly kind: LinkPurpose["kind"];
  readonly name: string | null;
  readonly invitation: {
    readonly by: string;
    readonly role: Role;
    /** The name of the site or customer; null for all sites. */
    readonly place: string | null;
  } | null;
}
export interface AccountAnswer {
  readonly id: string;
  readonly name: string;
  /** False for one who comes in by links alone, as in the demo. */
  readonly hasPassword: boolean;
  readonly hasFactor: boolean;
  readonly codesLeft: number;
  readonly passkeys: readonly OwnPasskey[];
  readonly sessions: readonly OwnSession[];
}
export type PeopleAnswer = Overview;
/** The links of a site to issued sheets. */
export type LinksAnswer = readonly SeenPass[];
export type { KeyAnswer } from "@/application/passkey-stores";
export type { SeenPass } from "@/application/passes";
export type { Handed, NotHanded } from "@/application/handed";
/**
 * What server-sent events tell of a site. `news`: what changed since it was told before; null at first, and
 * where it is much: then it has to be asked for.
 */
export interface LiveAnswer extends LiveState {
  readonly news: { readonly after: number; readonly entries: readonly LogEntryAnswer[] } | null;
}
export type { PeopleOrder } from "@/application/people";
export { reaches, ROLES, type Role, type Scope } from "@/application/roles";
/** Where somebody may begin a site. */
export type FoldersAnswer = Folders;
export type LogAnswer = readonly DeedLine[];
/** As many lines come at once: fewer are the last. */
export const LOG_AT_ONCE = 100;
