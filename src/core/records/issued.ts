import { counted } from "../repairs";
import type { Recorded } from "./entry";
import type { Issue, Sign, SignedAs } from "./issue";
import type { Proof } from "./proof";
import { takenBack } from "./visit";

/** An issued sheet, as it stands. */
export interface IssuedSheet {
  /** A, B, …, Z, AA, …: a letter that was given is never given again. */
  readonly letter: string;
  readonly by: string;
  readonly issue: Issue;
  /** Who signed last as what; null where nobody has. */
  readonly signed: Readonly<Record<SignedAs, Sign | null>>;
  readonly isWithdrawn: boolean;
  /** The letter of the next one that stands; null for the last. */
  readonly replacedBy: string | null;
}

const LETTERS = 26;
const CODE_OF_A = 65;

/** The letter of the sheet with a number, counted from 0: after Z comes AA. */
export function sheetLetter(number: number): string {
  const last = String.fromCharCode(CODE_OF_A + (number % LETTERS));
  return number < LETTERS ? last : `${sheetLetter(Math.floor(number / LETTERS) - 1)}${last}`;
}

/** The sheets that were issued, in the order of the record; those that were withdrawn keep their letter. */
export function issuedSheets(record: readonly Recorded[]): IssuedSheet[] {
  const gone = takenBack(record.map(({ entry }) => entry));
  const signs = record.flatMap(({ entry }) => (entry.do === "sign" && !gone.has(entry.id) ? [entry] : []));
  const signedAs = (issue: string, as: SignedAs) =>
    signs.findLast((sign) => sign.issue === issue && sign.as === as) ?? null;
  const issues = record.flatMap(({ by, entry }) => (entry.do === "issue" ? [{ by, issue: entry }] : []));
  const standing = issues.flatMap(({ issue }, at) => (gone.has(issue.id) ? [] : [at]));
  return issues.map(({ by, issue }, at) => {
    const next = standing.find((other) => other > at);
    return {
      letter: sheetLetter(at),
      by,
      issue,
      signed: { checked: signedAs(issue.id, "checked"), accepted: signedAs(issue.id, "accepted") },
      isWithdrawn: gone.has(issue.id),
      replacedBy: next === undefined ? null : sheetLetter(next),
    };
  });
}

/** What is known of a site when a state of it is issued. */
interface HowItStands {
  readonly findings: readonly { readonly severity: "stop" | "warn" | "note" }[];
  readonly accepted: number;
  /** Null where nobody has worked out which readings prove the site. */
  readonly proof: Proof | null;
}

/** How it stands when a state is issued, in sentences without their full stop. */
export function howItStands({ findings, accepted, proof }: HowItStands): string[] {
  const count = (severity: "stop" | "warn" | "note") =>
    findings.filter((finding) => finding.severity === severity).length;
  const open = [
    `${count("stop")} that stop it`,
    counted(count("warn"), "warning", "warnings"),
    counted(count("note"), "note", "notes"),
  ].join(", ");
  const read = proof?.tests.filter(({ state }) => state === "expected").length ?? 0;
  return [
    findings.length === 0 ? "no finding is open" : `findings open: ${open}`,
    ...(accepted === 0 ? [] : [`${accepted} accepted with a reason`]),
    ...(proof === null ? [] : [`${read} of ${proof.tests.length} readings as expected`]),
  ];
}

/** A check value as it stands on paper: its first sixteen digits in fours. */
export const shortCheck = (check: string): string => (check.slice(0, 16).match(/.{4}/g) ?? []).join(" ");

const signText = (sign: Sign | null): string => (sign === null ? "" : `${sign.name}, ${sign.day}`);

/** The sheets as a table, for a spreadsheet. */
export const issuedTable = (sheets: readonly IssuedSheet[]): string[][] => [
  [
    "sheet",
    "name",
    "for",
    "revision",
    "issued",
    "by",
    "checked",
    "accepted",
    "check value",
    "stands",
    "remarks",
  ],
  ...sheets.map(({ letter, by, issue, signed, isWithdrawn, replacedBy }) => {
    const { name, recipient, revision, check } = issue.sheet;
    const replaced = replacedBy === null ? "" : `replaced by ${replacedBy}`;
    return [
      ...[letter, name, recipient, String(revision), issue.at, by],
      ...[signText(signed.checked), signText(signed.accepted), check],
      ...[isWithdrawn ? "withdrawn" : replaced, issue.note],
    ];
  }),
];
