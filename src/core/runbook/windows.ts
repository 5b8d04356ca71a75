import { byText, putInto } from "../kernel";
import type { Host, PlanIndex, Window } from "../plan";
import { backMinutesOf, minutesText } from "./minutes";
import type { Step } from "./step";

// Steps that stop somebody who else keeps working belong into windows. What is stopped by one step and goes on
// after a later one is one piece of work: it is not left half done when a window ends. Steps that stop nobody
// can be done before, at any time.

/** Steps of an order that are done without a break, and when. */
export interface Slot {
  /** Numbers of its first and last step, from 0. */
  readonly from: number;
  readonly to: number;
  readonly minutes: number;
  /** Whom it stops meanwhile; empty for steps that can be done at any time. */
  readonly stops: readonly Host[];
  /** The window that it falls into; null for what needs none, and for what fits into none. */
  readonly window: Window | null;
  /** Minutes after the window's begin; 0 without one. */
  readonly after: number;
  /**
   * The last step of it from which taking all of it back still ends within the window: what comes behind is
   * beyond the point of no return. Null where even its first step can't be taken back in time; its last step
   * where all can.
   */
  readonly lastBack: number | null;
  /** Why no window takes it; empty otherwise. */
  readonly refused: string;
}

/** A piece of work before it has its time. */
interface Piece {
  readonly from: number;
  readonly to: number;
  readonly stops: readonly Host[];
}

/** Where each host that is cut gets through again; hosts that never do are down for their own step only. */
function backAt(steps: readonly Step[]): Map<string, number[]> {
  const found = new Map<string, number[]>();
  steps.forEach(({ mends }, at) => {
    for (const { id } of mends) putInto(found, id, at);
  });
  return found;
}

const isStopping = ({ cuts, stops }: Step): boolean => cuts.length > 0 || stops.length > 0;

/** The piece from a step that stops somebody to where the last one it cuts gets through again. */
function stoppingFrom(steps: readonly Step[], from: number, back: ReadonlyMap<string, number[]>): Piece {
  const stopped = new Map<string, Host>();
  let to = from;
  for (let here = from; here <= to; here += 1) {
    const { cuts = [], stops = [] } = steps[here] ?? {};
    for (const host of [...cuts, ...stops]) stopped.set(host.id, host);
    const mended = cuts.map(({ id }) => back.get(id)?.find((at) => at > here) ?? here);
    to = Math.max(to, ...mended);
  }
  return { from, to, stops: [...stopped.values()] };
}

/** The order in pieces: each either stops nobody, or has all steps from the first cut to the last mending. */
function piecesOf(steps: readonly Step[]): Piece[] {
  const back = backAt(steps);
  const pieces: Piece[] = [];
  for (let at = 0; at < steps.length;) {
    const stopping = steps.findIndex((step, number) => number >= at && isStopping(step));
    const free = stopping < 0 ? steps.length : stopping;
    if (free > at) pieces.push({ from: at, to: free - 1, stops: [] });
    const piece = stopping < 0 ? null : stoppingFrom(steps, stopping, back);
    if (piece !== null) pieces.push(piece);
    at = (piece?.to ?? free) + 1;
  }
  return pieces;
}

/** The time on the clock at the site some minutes after a window's begin, as if that clock were UTC's. */
const timeAfter = ({ starts }: Window, minutes: number): Date =>
  new Date(Date.parse(`${starts}:00Z`) + minutes * 60_000);

/**
 * Minutes of a window that are gone at a time on the clock at the site ("2026-12-05T18:20"; null: not known
 * which); negative before it begins.
 */
const goneOf = ({ starts }: Window, now: string | null): number =>
  now === null ? -Infinity : (Date.parse(`${now}:00Z`) - Date.parse(`${starts}:00Z`)) / 60_000;

/** Windows in the order in which they come. */
export const windowsInOrder = ({ plan }: Pick<PlanIndex, "plan">): Window[] =>
  [...plan.window.values()].sort((a, b) => byText(a.starts, b.starts) || byText(a.id, b.id));

/** Whether a window may stop all of them. */
const mayStop = ({ segments }: Window, hosts: readonly Host[]): boolean =>
  segments.length === 0 || hosts.every(({ segment }) => segment !== null && segments.includes(segment));

const sum = (numbers: readonly number[]): number => numbers.reduce((all, minutes) => all + minutes, 0);

/** Deals windows out to the pieces of an order, each after those before it. */
class Dealer {
  readonly #steps: readonly Step[];
  readonly #now: string | null;
  readonly #windows: readonly Window[];
  #at = 0;
  #used = 0;
  /** Minutes of free steps since the last piece in a window: within it where the next one is, too. */
  #between = 0;

  constructor(index: PlanIndex, steps: readonly Step[], now: string | null) {
    this.#steps = steps;
    this.#now = now;
    this.#windows = windowsInOrder(index).filter((window) => goneOf(window, now) < window.minutes);
  }

  /** Minutes of a window that are left from now on. */
  #left(window: Window): number {
    return window.minutes - Math.max(0, goneOf(window, this.#now));
  }

  #minutes({ from, to }: Piece): number[] {
    return this.#steps.slice(from, to + 1).map(({ minutes }) => minutes);
  }

  #lastBack(piece: Piece, left: number): number | null {
    let spent = 0;
    let back = 0;
    let last: number | null = null;
    for (const [at, minutes] of this.#minutes(piece).entries()) {
      const step = this.#steps[piece.from + at];
      const own = step === undefined ? 0 : backMinutesOf(step);
      if (own === null) return last;
      spent += minutes;
      back += own;
      if (spent + back > left) return last;
      last = piece.from + at;
    }
    return last;
  }

  #why(piece: Piece, minutes: number): string {
    if (this.#windows.length === 0) return "There is no window to come.";
    const fit = this.#windows.filter((window) => mayStop(window, piece.stops));
    if (fit.length === 0) return "No window may stop all of them.";
    const longest = Math.max(...fit.map((window) => this.#left(window)));
    return longest < minutes
      ? `It takes ${minutesText(minutes)} in one go, and the longest window that may stop them has ` +
          `${minutesText(longest)} left.`
      : "What comes before it fills the windows that may stop them.";
  }

  slot(piece: Piece): Slot {
    const minutes = sum(this.#minutes(piece));
    const bare = { ...piece, minutes, window: null, after: 0, lastBack: piece.to, refused: "" };
    if (piece.stops.length === 0) {
      this.#between += minutes;
      return bare;
    }
    const used = this.#used === 0 ? 0 : this.#used + this.#between;
    for (let at = this.#at; at < this.#windows.length; at += 1) {
      const window = this.#windows[at];
      if (window === undefined || !mayStop(window, piece.stops)) continue;
      const after = Math.max(window.minutes - this.#left(window), at === this.#at ? used : 0);
      if (after + minutes > window.minutes) continue;
      this.#at = at;
      this.#used = after + minutes;
      this.#between = 0;
      return { ...bare, window, after, lastBack: this.#lastBack(piece, window.minutes - after) };
    }
    return { ...bare, lastBack: null, refused: this.#why(piece, minutes) };
  }
}

/**
 * When the steps of an order are done: those that stop nobody at any time, the others in windows. `now` is the
 * time on the clock at the site ("2026-12-05T18:20"): what of a window is gone is not dealt out; null where it
 * is not known.
 */
export function slotsOf(index: PlanIndex, steps: readonly Step[], now: string | null): Slot[] {
  const dealer = new Dealer(index, steps, now);
  return piecesOf(steps).map((piece) => dealer.slot(piece));
}

const CLOCK = new Intl.DateTimeFormat("en-GB", {
  timeZone: "UTC",
  weekday: "short",
  day: "numeric",
  month: "short",
  year: "numeric",
  hour: "2-digit",
  minute: "2-digit",
});
/** "Sat 5 Dec 2026, 18:20": a window's time after some minutes, on the clock at the site. */
export const timeText = (window: Window, after: number): string =>
  CLOCK.format(timeAfter(window, after)).replace(/^(\w+), /, "$1 ");
