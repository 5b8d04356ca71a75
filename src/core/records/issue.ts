import { z } from "zod";
import { dateField, idField, lineField, longText, shortText } from "../plan";

// A state of the plan that was given to somebody, and who put their name to it. Both are entries of the record:
// what was issued stays issued, whatever becomes of the plan.

/** What somebody puts their name to: that it was looked through, or that it is what was agreed. */
export const SIGNED_AS = ["checked", "accepted"] as const;
export type SignedAs = (typeof SIGNED_AS)[number];

/** The digits of a check value (FIPS 180-4, SHA-256). */
const checkField = z.string().regex(/^[\da-f]{64}$/, "A check value has 64 hexadecimal digits");
/** As many sentences say how it stood when it was issued. */
const MOST_SENTENCES = 20;

export const issueFields = {
  do: z.literal("issue"),
  sheet: z.strictObject({
    name: shortText.refine((name) => name.trim() !== "", "A sheet has a name"),
    recipient: shortText,
    revision: z.int().min(1),
    form: z.int().min(1),
    check: checkField,
    stood: z.array(lineField(400)).max(MOST_SENTENCES),
  }),
  note: longText,
};
export const signFields = {
  do: z.literal("sign"),
  issue: idField,
  as: z.enum(SIGNED_AS),
  name: shortText.refine((name) => name.trim() !== "", "Say who signs"),
  day: dateField,
  note: longText,
};

/** A state of the plan that was issued. */
export interface Issue {
  readonly id: string;
  readonly at: string;
  readonly do: "issue";
  readonly sheet: {
    readonly name: string;
    /** Whom it is for; empty where nobody said. */
    readonly recipient: string;
    readonly revision: number;
    /** The form of plan files in which the check value was taken: in another the same plan is another text. */
    readonly form: number;
    /** SHA-256 of the state, in hexadecimal digits: ties paper to it. */
    readonly check: string;
    /** How it stood then, in sentences: findings, tests. */
    readonly stood: readonly string[];
  };
  readonly note: string;
}

/** Somebody put their name to an issued state: of the office, or the customer. */
export interface Sign {
  readonly id: string;
  readonly at: string;
  readonly do: "sign";
  readonly issue: string;
  readonly as: SignedAs;
  readonly name: string;
  /** The day on which it was signed, as YYYY-MM-DD. */
  readonly day: string;
  readonly note: string;
}
