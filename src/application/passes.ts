import { err, ok, type Result } from "@/core/kernel";
import type { Reader } from "@/core/pack";
import type { Deed, Noted, PeopleStore } from "./account-stores";
import { BAD_END, NO_SUCH_PLACE, PASSES_FULL, type AppError } from "./errors";
import { highest, reaches, type Role, type Scope } from "./roles";
import type { Person } from "./stores";

// Passes let in without an account: a link to one issued sheet for one reader, or a token with which a machine
// fetches exports. A pass counts until its end, unless it is withdrawn, and as long as whoever made it may make
// it.

/** What a pass opens. */
export type PassFor =
  | { readonly kind: "sheet"; readonly site: string; readonly issue: string; readonly reader: Reader }
  | { readonly kind: "machine"; readonly on: Scope };

export interface Visit {
  readonly beganAt: string;
  readonly lastAt: string;
  /** The address; empty where that is not known. */
  readonly cameFrom: string;
  /** How often something was asked for. */
  readonly asked: number;
}

export interface Pass {
  readonly id: string;
  /** Whom or what it is for, in words. */
  readonly title: string;
  readonly opens: PassFor;
  readonly madeBy: Person;
  readonly madeAt: string;
  readonly endsAt: string;
  readonly isWithdrawn: boolean;
  readonly isOver: boolean;
  /** How often it was visited in all. */
  readonly visits: number;
}
/** With its newest visits. */
export interface SeenPass extends Pass {
  readonly seen: readonly Visit[];
}

interface NewPass {
  readonly id: string;
  readonly keyHash: string;
  readonly title: string;
  readonly opens: PassFor;
  /** The last day of it, as YYYY-MM-DD: it ends when that is over in UTC. */
  readonly lastDay: string;
}

export interface PassStore {
  /** False where there are `most` that have not ended. */
  readonly add: (pass: NewPass, most: number, noted: Noted) => Promise<boolean>;
  /** Whatever has that key, ended or not; null for nothing. */
  readonly passOf: (keyHash: string) => Promise<Pass | null>;
  /** Those of a kind that still open, then others, each with its newest visits; `site` keeps to one site. */
  readonly passes: (kind: PassFor["kind"], site: string | null) => Promise<SeenPass[]>;
  readonly withdraw: (id: string, noted: Noted) => Promise<void>;
  /** Counts what was asked for; true where that begins a visit. */
  readonly visit: (id: string, cameFrom: string) => Promise<boolean>;
}

/** Hash functions and randomness, as accounts have them. */
interface PassTools {
  readonly hash: (text: string) => string;
  readonly newToken: () => string;
  readonly newId: () => string;
}
/** What passes stand on. */
export interface PassDoor {
  readonly passes: PassStore;
  readonly people: PeopleStore;
  readonly tools: PassTools;
}

const MOST_PASSES = 500;
const MOST_DAYS = 366;
const DAY_MS = 86_400_000;

/** Who may make which pass, and for as long as they may, it counts. */
const MAKER: Readonly<Record<PassFor["kind"], Role>> = { sheet: "editor", machine: "owner" };

/** Whether a last day is today or later, and not too far away; `now` in milliseconds. */
function isGoodEnd(lastDay: string, now: number): boolean {
  const end = Date.parse(`${lastDay}T00:00:00Z`) + DAY_MS;
  return end > now && end <= now + MOST_DAYS * DAY_MS;
}

/** What is asked for when a pass is made. */
export interface PassAsked {
  readonly title: string;
  readonly opens: PassFor;
  readonly lastDay: string;
}

/** Makes a pass and answers its key, which is kept nowhere. Whoever calls has asked whether that may be. */
export async function makePass(
  { passes, tools }: PassDoor,
  by: Person,
  asked: PassAsked & { readonly deed: Deed; readonly now: number },
): Promise<Result<{ readonly key: string }, AppError>> {
  const { title, opens, lastDay, deed, now } = asked;
  if (!isGoodEnd(lastDay, now)) return err(BAD_END);
  const key = tools.newToken();
  const pass = { id: tools.newId(), keyHash: tools.hash(key), title, opens, lastDay };
  return (await passes.add(pass, MOST_PASSES, { by, deed })) ? ok({ key }) : err(PASSES_FULL);
}

/** What is put into the log when a pass ends before its day. */
export const withdrawn = ({ title, opens }: Pass): Deed => ({
  what: opens.kind === "sheet" ? "link-withdrawn" : "token-withdrawn",
  about: title,
  ...placeOf(opens),
});
const placeOf = (opens: PassFor): Partial<Deed> => {
  if (opens.kind === "sheet") return { site: opens.site };
  return opens.on.kind === "all" ? {} : { [opens.on.kind]: opens.on.id };
};

/** The site's pass of that id ends now. */
export async function withdrawLink(
  { passes }: PassDoor,
  by: Person,
  { site, id }: { readonly site: string; readonly id: string },
): Promise<Result<null, AppError>> {
  const found = (await passes.passes("sheet", site)).find((pass) => pass.id === id);
  if (found === undefined) return err(NO_SUCH_PLACE);
  await passes.withdraw(id, { by, deed: withdrawn(found) });
  return ok(null);
}

/** Why a pass does not open a site; null where it does. */
export type Closed = "unknown" | "withdrawn" | "over" | "maker";

/** The pass of a key as far as it opens a site, its visit not yet counted. */
export async function passFor(
  { passes, people, tools }: PassDoor,
  key: string,
  /** The site that is asked for; null for that of the pass itself. */
  asked: string | null,
): Promise<{ readonly pass: Pass; readonly site: string } | { readonly closed: Closed }> {
  const pass = await passes.passOf(tools.hash(key));
  const site = asked ?? (pass?.opens.kind === "sheet" ? pass.opens.site : null);
  if (pass === null || site === null) return { closed: "unknown" };
  if (pass.isWithdrawn) return { closed: "withdrawn" };
  if (pass.isOver) return { closed: "over" };
  if (!(await reachesSite(people, pass, site))) return { closed: "unknown" };
  const role = highest(await people.rolesOnSite(pass.madeBy.id, site));
  return reaches(role, MAKER[pass.opens.kind]) ? { pass, site } : { closed: "maker" };
}

/** Whether a site lies within what a pass opens. */
async function reachesSite(people: PeopleStore, { opens }: Pass, site: string): Promise<boolean> {
  if (opens.kind === "sheet") return opens.site === site;
  if (opens.on.kind !== "customer") return opens.on.kind === "all" || opens.on.id === site;
  const { id } = opens.on;
  return (await people.sites()).some((place) => place.id === site && place.customer === id);
}
