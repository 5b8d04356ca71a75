import { must } from "../kernel";
import { nameOf } from "../plan";
import {
  askedOf,
  isAboutPlan,
  outcomeText,
  WALK_MINUTES,
  type Ask,
  type Asked,
  type Predicted,
  type Suspect,
} from "../diagnosis";
import { firstLook, isPortInUse, type CableMove, type Copy, type Look } from "./copy";
import type { Drill } from "./drill";
import { narrowed, type Strand } from "./possible";
import { readingsOf } from "./shortest";

/** One thing that the learner does. */
export type Act =
  | { readonly act: "read"; readonly ask: Ask }
  | ({ readonly act: "move" } & CableMove)
  | { readonly act: "putBack" }
  | { readonly act: "name"; readonly fault: string }
  | { readonly act: "mend"; readonly fault: string }
  | { readonly act: "giveUp" };

/** One line of what was looked at and done. */
export interface PlayedRow {
  /** When it was begun, in minutes since the call. */
  readonly minute: number;
  readonly place: string;
  readonly did: string;
  readonly saw: string;
  readonly told: string;
  /** Whether it is as planned, or right; null where there is nothing to be right. */
  readonly isSound: boolean | null;
}

/** What came of what was done so far. */
export interface Played {
  readonly rows: readonly PlayedRow[];
  readonly used: number;
  /** Where the learner stands. */
  readonly place: string;
  /** Whether a cable is not where it was found. */
  readonly isMoved: boolean;
  /** By fault, how many of how many still fit everything that was seen. */
  readonly possible: readonly { readonly left: number; readonly tried: number }[];
  /** By fault, whether it was named, and mended. */
  readonly named: readonly boolean[];
  readonly mended: readonly boolean[];
  readonly end: "open" | "solved" | "time is up" | "given up";
}

/** So long it takes to move a cable, to be wrong about a fault, and to mend one. */
export const MOVE_MINUTES = 8;
export const WRONG_MINUTES = 5;
const MEND_MINUTES = 4;

/** How far it is played. */
interface Now {
  readonly rows: readonly PlayedRow[];
  readonly looks: readonly Look[];
  /** By look, the minute at which it was begun. */
  readonly minutes: readonly number[];
  readonly used: number;
  readonly place: string;
  readonly moves: readonly CableMove[];
  readonly strands: readonly Strand[];
  readonly named: readonly boolean[];
  readonly mended: readonly boolean[];
  readonly gaveUp: boolean;
}

const startOf = ({ copy, complaints, strands }: Drill): Now => ({
  rows: [],
  looks: [],
  minutes: [],
  used: 0,
  place: complaints[0] === undefined ? "" : askedOf(copy.index, complaints[0].ask).place,
  moves: [],
  strands,
  named: copy.faults.map(() => false),
  mended: copy.faults.map(() => false),
  gaveUp: false,
});

/** A walk from one place to another; none where a place has no name. */
const walkTo = (place: string, from: string): number => (place === "" || place === from ? 0 : WALK_MINUTES);

/** How long a look takes for whoever stands at a place: the walk there, and the look itself. */
export function lookMinutes(
  { place, minutes }: Pick<Asked, "place" | "minutes">,
  from: string,
): { readonly walk: number; readonly look: number } {
  return { walk: walkTo(place, from), look: minutes };
}

/** Takes so long at a place: a walk there costs, too. */
function spend(now: Now, place: string, minutes: number, row: Omit<PlayedRow, "minute" | "place">): Now {
  return {
    ...now,
    rows: [...now.rows, { minute: now.used, place, ...row }],
    used: now.used + walkTo(place, now.place) + minutes,
    place: place === "" ? now.place : place,
  };
}

/** What was seen, and what that is beside the plan. */
function sawAt(
  { index }: Copy,
  planned: Predicted,
  seen: Predicted,
): Pick<PlayedRow, "saw" | "told" | "isSound"> {
  const isSound = seen.key === planned.key;
  const saw = outcomeText(index, planned.expected, seen.expected);
  if (isSound) return { saw, told: "as planned", isSound };
  const before =
    planned.expected.is === "shown" ? "" : outcomeText(index, planned.expected, planned.expected);
  return { saw, told: before === "" ? "not as planned" : `planned: ${before}`, isSound };
}

function read(drill: Drill, now: Now, ask: Ask): Now {
  const { copy } = drill;
  if (!isAboutPlan(copy.index, ask)) return now;
  const look: Look = { ask, moves: now.moves, mended: now.mended };
  const asked = askedOf(copy.index, ask);
  const seen = sawAt(copy, copy.planned(look), copy.seen(look));
  const next = spend(now, asked.place, asked.minutes, { did: didText(asked), ...seen });
  return {
    ...next,
    looks: [...now.looks, look],
    minutes: [...now.minutes, now.used],
    strands: narrowed(copy, now.strands, look),
  };
}

/**
 * "Upper switch port 9: see on a laptop which address it gets"; how that is written down does not matter
 * here.
 */
export function didText({ at, does }: Pick<Asked, "at" | "does">): string {
  const [first = ""] = does.replace(/\.$/, "").split(": ");
  return `${at}: ${first.charAt(0).toLowerCase()}${first.slice(1)}`;
}

function move({ copy }: Drill, now: Now, { from, to }: CableMove): Now {
  const state = { moves: now.moves, mended: now.mended };
  const name = (port: string) => nameOf(copy.index, "port", port);
  const place = copy.index.plan.device.get(copy.index.plan.port.get(from)?.device ?? "")?.place ?? "";
  const did = `Moved the cable from ${name(from)} to ${name(to)}`;
  const not = (saw: string) => spend(now, place, MOVE_MINUTES, { did, saw, told: "not done", isSound: null });
  if (!isPortInUse(copy, from, state)) return not(`there is no cable in ${name(from)}`);
  if (isPortInUse(copy, to, state)) return not(`there is a cable in ${name(to)} already`);
  const row = { did, saw: "done", told: "read again what was wrong", isSound: null };
  return { ...spend(now, place, MOVE_MINUTES, row), moves: [...now.moves, { from, to }] };
}

function putBack(now: Now): Now {
  if (now.moves.length === 0) return now;
  const row = { did: "Put every cable back", saw: "done", told: "as it was found", isSound: null };
  return { ...spend(now, "", 2, row), moves: [] };
}

/** Whether nothing that can be read parts a fault from one that is planted. */
const isTheSame = (drill: Drill, at: number, id: string): boolean =>
  drill.copy.faults[at]?.id === id ||
  (drill.strands[at]?.fitting ?? []).some(
    (suspect) =>
      suspect.id === id && readingsOf(drill).every((ask) => drill.copy.fits(at, suspect, firstLook(ask))),
  );

/** Which of the faults that are still open somebody means; -1 for none of them. */
const meant = (drill: Drill, isOpen: (at: number) => boolean, id: string): number =>
  drill.copy.faults.findIndex((_, at) => isOpen(at) && isTheSame(drill, at, id));

/** Why it is not that: the first look that would have come out otherwise. */
function speaksAgainst(drill: Drill, now: Now, id: string): string {
  const { copy } = drill;
  const suspect = faultsIn(drill, now.looks).find((suspect) => suspect.id === id);
  if (suspect === undefined) return "No such fault is possible here.";
  for (const [i, look] of now.looks.entries()) {
    const open = copy.faults.flatMap((_, at) => (now.named[at] === true ? [] : [at]));
    if (open.some((at) => copy.fits(at, suspect, look))) continue;
    const [at = 0] = open;
    const other = copy.seenIf(at, suspect, look);
    if (other === null) continue;
    const would = outcomeText(copy.index, copy.planned(look).expected, other.expected);
    return `With that, minute ${now.minutes[i] ?? 0} would have shown: ${would}.`;
  }
  return "Everything that you saw fits that, and other faults, too: look at what parts them.";
}

/** What could be named: every single fault of the site, and what the questions so far bring in. */
export function faultsIn({ copy, complaints }: Drill, looks: readonly Look[]): Suspect[] {
  const asks = [...complaints, ...looks].map(({ ask }) => ask);
  return copy.study.everything(asks.flatMap((ask) => (ask.what === "try" ? [ask.question] : [])));
}

const wordsOf = (drill: Drill, now: Now, id: string): string =>
  faultsIn(drill, now.looks).find((suspect) => suspect.id === id)?.words ?? "A fault that is none here";

function name(drill: Drill, now: Now, id: string): Now {
  const at = meant(drill, (number) => now.named[number] !== true, id);
  const did = `Named: ${wordsOf(drill, now, id)}`;
  if (at < 0) {
    const row = { did, saw: "no", told: speaksAgainst(drill, now, id), isSound: false };
    return spend(now, "", WRONG_MINUTES, row);
  }
  const row = { did, saw: "yes", told: "that is it: now mend it", isSound: true };
  return { ...spend(now, "", 0, row), named: now.named.map((known, number) => known || number === at) };
}

/** Mends what was named, or something that was well. */
function mend(drill: Drill, now: Now, id: string): Now {
  const isOpen = (at: number) => now.named[at] === true && now.mended[at] !== true;
  const at = meant(drill, isOpen, id);
  const fault = faultsIn(drill, now.looks).find((suspect) => suspect.id === id);
  const did = fault?.mend.replace(/\.$/, "") ?? "Mended what is none here";
  if (at < 0) {
    const row = { did, saw: "it was so already", told: "nothing changed", isSound: false };
    return spend(now, "", MEND_MINUTES, row);
  }
  const mended = now.mended.map((known, number) => known || number === at);
  const complaint = must(drill.complaints[at], "each fault has its complaint");
  const look: Look = { ask: complaint.ask, moves: [], mended };
  const again = sawAt(drill.copy, drill.copy.planned(look), drill.copy.seen(look));
  const row = { did, saw: `then: ${again.saw}`, told: again.told, isSound: again.isSound };
  return { ...spend(now, "", MEND_MINUTES, row), mended };
}

function step(drill: Drill, now: Now, act: Act): Now {
  if (endOf(drill, now) !== "open") return now;
  switch (act.act) {
    case "read":
      return read(drill, now, act.ask);
    case "move":
      return move(drill, now, act);
    case "putBack":
      return putBack(now);
    case "name":
      return name(drill, now, act.fault);
    case "mend":
      return mend(drill, now, act.fault);
    case "giveUp":
      return { ...now, gaveUp: true };
  }
}

function endOf({ minutes }: Drill, now: Now): Played["end"] {
  if (now.mended.every(Boolean)) return "solved";
  if (now.gaveUp) return "given up";
  return now.used >= minutes ? "time is up" : "open";
}

const nowAfter = (drill: Drill, acts: readonly Act[]): Now =>
  acts.reduce((now, act) => step(drill, now, act), startOf(drill));

/** What was looked at by some acts: each look with what was moved and mended by then. */
export const looksIn = (drill: Drill, acts: readonly Act[]): readonly Look[] => nowAfter(drill, acts).looks;

/** What comes of everything that the learner did, one after the other. */
export function play(drill: Drill, acts: readonly Act[]): Played {
  const now = nowAfter(drill, acts);
  return {
    rows: now.rows,
    used: now.used,
    place: now.place,
    isMoved: now.moves.length > 0,
    possible: now.strands.map(({ tried, fitting }) => ({ left: fitting.length, tried })),
    named: now.named,
    mended: now.mended,
    end: endOf(drill, now),
  };
}
