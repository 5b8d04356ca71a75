import { STATE_FORM, stateText } from "@/core/comparison";
import { packFor, packStudy, sheetBefore, type PackOf, type Pack, type Part, type Reader } from "@/core/pack";
import { entityCount, planBefore, type Plan } from "@/core/plan";
import { issuedSheets, type IssuedSheet, type Recorded } from "@/core/records";
import { passFor, type Closed, type Pass, type PassDoor } from "./passes";
import type { DeedStore } from "./account-stores";
import { wholeRecord } from "./records";
import { MOST_ENTITIES } from "./soundness";
import type { PhotoStore, PlanStore, RecordStore } from "./stores";

// What somebody with a link reads: the papers of one issued sheet for one reader, part by part.

/** What a link to a sheet stands on. */
export interface HandedDoor extends PassDoor {
  readonly plans: PlanStore;
  readonly records: RecordStore;
  readonly photos: PhotoStore;
  readonly deeds: DeedStore;
}

/** Why a link shows no sheet. */
export type NotHanded = Closed | "sheet-withdrawn" | "made-anew" | "too-large";

export interface Handed {
  readonly site: string;
  readonly letter: string;
  readonly reader: Reader;
  readonly endsAt: string;
  /** The letter of the sheet that stands in its place by now; null while it is the last. */
  readonly replacedBy: string | null;
  readonly block: Pack["block"];
  readonly parts: readonly { readonly key: string; readonly title: string }[];
  readonly part: Part;
  /** Photos of the part by their ids, in base64; those that can't be had are left out. */
  readonly photos: Readonly<Record<string, string>>;
}

/** It is laid out by the browser of whoever makes the papers. */
const LEFT_OUT = ["drawing"] as const;

interface Now {
  readonly door: HandedDoor;
  readonly site: string;
  readonly plan: Plan;
  readonly revision: number;
}

/** The state that was issued; null where the site was made anew from a file since. */
async function issuedPlan({ door, site, plan, revision }: Now, sheet: IssuedSheet): Promise<Plan | null> {
  const { revision: issued, form, check } = sheet.issue.sheet;
  if (issued > revision) return null;
  const news = await door.plans.news(site, issued);
  if (news === null) return null;
  // What came since the plan was read is not in it.
  const since = news.entries.filter((entry) => entry.revision <= revision);
  const then = planBefore(
    plan,
    since.map(({ changes }) => changes),
  );
  // In another form of plan files the same state is another text.
  if (then === null || form !== STATE_FORM) return then;
  return door.tools.hash(stateText(then)) === check ? then : null;
}

async function studied(
  now: Now,
  record: readonly Recorded[],
  sheet: IssuedSheet,
  made: string,
): Promise<PackOf | null> {
  const plan = await issuedPlan(now, sheet);
  if (plan === null) return null;
  const before = sheetBefore(issuedSheets(record), sheet);
  const then = before === undefined ? null : await issuedPlan(now, before);
  return {
    plan,
    revision: sheet.issue.sheet.revision,
    today: made.slice(0, 10),
    record,
    sheet: sheet.issue.id,
    before: before === undefined || then === null ? null : { name: nameOf(before), plan: then },
    made,
  };
}
const nameOf = ({ letter, issue }: IssuedSheet): string => `${letter} ${issue.sheet.name}`;

/** Papers that were made, by what they are of: a link is opened part by part. */
const MADE = new Map<string, Pack>();
const MOST_MADE = 16;
function keep(key: string, pack: Pack): Pack {
  MADE.delete(key);
  MADE.set(key, pack);
  for (const old of [...MADE.keys()].slice(0, -MOST_MADE)) MADE.delete(old);
  return pack;
}

/** The papers; null where the state that was issued can't be had any more. */
async function papers(
  now: Now,
  pass: Pass,
  { record, sheet, made }: { record: readonly Recorded[]; sheet: IssuedSheet; made: string },
): Promise<Pack | null> {
  const { reader } = sheetOf(pass);
  const signs = [sheet.signed.checked?.id, sheet.signed.accepted?.id].join(" ");
  const key = [now.site, sheet.issue.id, reader, signs, made.slice(0, 10)].join(" ");
  const known = MADE.get(key);
  if (known !== undefined) return keep(key, known);
  const of = await studied(now, record, sheet, made);
  return of === null ? null : keep(key, packFor(packStudy(of), reader, LEFT_OUT));
}

/** What a link to a sheet opens; a pass of another kind opens no papers. */
function sheetOf({ opens }: Pass): { readonly issue: string; readonly reader: Reader } {
  return opens.kind === "sheet" ? opens : { issue: "", reader: "customer" };
}

const base64 = (bytes: Uint8Array): string => {
  let text = "";
  for (const byte of bytes) text += String.fromCharCode(byte);
  return btoa(text);
};

/** The photos that a part shows. */
async function photosIn(door: HandedDoor, site: string, part: Part): Promise<Record<string, string>> {
  const found: Record<string, string> = {};
  for (const block of part.blocks) {
    const bytes = block.is === "photo" ? await door.photos.read(site, block.photo) : null;
    if (block.is === "photo" && bytes !== null) found[block.photo] = base64(bytes);
  }
  return found;
}

interface Asked {
  readonly key: string;
  /** The key of a part; null for the first. */
  readonly part: string | null;
  readonly cameFrom: string;
  /** When: an ISO 8601 instant in UTC. */
  readonly made: string;
}

/** Opens a link to a sheet: one part of its papers, and the visit is counted. */
export async function openHanded(
  door: HandedDoor,
  { key, part, cameFrom, made }: Asked,
): Promise<Handed | NotHanded> {
  const open = await passFor(door, key, null);
  if ("closed" in open) return open.closed;
  const { pass, site } = open;
  const now = await door.plans.snapshot(site);
  // In the bin there is no site: nothing more is told.
  if (now === null) return "unknown";
  if (entityCount(now.plan) > MOST_ENTITIES) return "too-large";
  const record = await wholeRecord(door.records, site);
  const sheet = issuedSheets(record).find(({ issue }) => issue.id === sheetOf(pass).issue);
  if (sheet === undefined) return "made-anew";
  if (sheet.isWithdrawn) return "sheet-withdrawn";
  const pack = await papers({ door, site, ...now }, pass, { record, sheet, made });
  const shown = pack?.parts.find((own) => part === null || own.key === part) ?? pack?.parts[0];
  if (pack === null || shown === undefined) return "made-anew";
  if (await door.passes.visit(pass.id, cameFrom))
    await door.deeds.add(null, { what: "link-opened", about: pass.title, site });
  return {
    site: now.plan.site.name,
    letter: nameOf(sheet),
    reader: pack.reader,
    endsAt: pass.endsAt,
    replacedBy: sheet.replacedBy,
    block: pack.block,
    parts: pack.parts.map(({ key: name, title }) => ({ key: name, title })),
    part: shown,
    photos: await photosIn(door, site, shown),
  };
}
