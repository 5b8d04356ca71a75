import { addMinutes, format, parse } from "date-fns";
import { byText } from "../kernel";
import type { Host, PlanIndex, Window } from "../plan";
import { backMinutesOf } from "./minutes";
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
    for (const { id } of mends) found.set(id, [...(found.get(id) ?? []), at]);
  });
  return found;
}

/** The order in pieces: each either stops nobody, or has all steps from the first cut to the last mending. */
function piecesOf(steps: readonly Step[]): Piece[] {
  const back = backAt(steps);
  const pieces: Piece[] = [];
  let at = 0;
  let free = 0;
  const closeFree = (before: number) => {
    if (free < before) pieces.push({ from: free, to: before - 1, stops: [] });
  };
  while (at < steps.length) {
    const first = steps[at];
    if (first === undefined || (first.cuts.length === 0 && first.stops.length === 0)) {
      at += 1;
      continue;
    }
    closeFree(at);
    const stopped = new Map<string, Host>();
    let end = at;
    for (let here = at; here <= end; here += 1) {
      const step = steps[here];
      for (const host of [...(step?.cuts ?? []), ...(step?.stops ?? [])]) stopped.set(host.id, host);
      for (const { id } of step?.cuts ?? [])
        end = Math.max(end, back.get(id)?.find((mended) => mended > here) ?? here);
    }
    pieces.push({ from: at, to: end, stops: [...stopped.values()] });
    at = end + 1;
    free = at;
  }
  closeFree(steps.length);
  return pieces;
}

/** Windows in the order in which they come. */
export const windowsInOrder = ({ plan }: Pick<PlanIndex, "plan">): Window[] =>
  [...plan.window.values()].sort((a, b) => byText(a.starts, b.starts) || byText(a.id, b.id));

/** Whether a window may stop all of them. */
const mayStop = ({ segments }: Window, hosts: readonly Host[]): boolean =>
  segments.length === 0 || hosts.every(({ segment }) => segment !== null && segments.includes(segment));

const sum = (numbers: readonly number[]): number => numbers.reduce((all, one) => all + one, 0);

/** Deals windows out to the pieces of an order, each after those before it. */
class Dealer {
  readonly #index: PlanIndex;
  readonly #steps: readonly Step[];
  readonly #windows: readonly Window[];
  #at = 0;
  #used = 0;
  /** Minutes of free steps since the last piece in a window: done within it where the next piece is in it, too. */
  #between = 0;

  constructor(index: PlanIndex, steps: readonly Step[]) {
    this.#index = index;
    this.#steps = steps;
    this.#windows = windowsInOrder(index);
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
    if (this.#windows.length === 0) return "There is no window yet.";
    const fit = this.#windows.filter((window) => mayStop(window, piece.stops));
    if (fit.length === 0) return "No window may stop all of them.";
    const longest = Math.max(...fit.map((window) => window.minutes));
    return longest < minutes
      ? `It takes ${minutes} min in one go, and the longest window that may stop them has ${longest}.`
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
      const after = at === this.#at ? used : 0;
      if (window === undefined || !mayStop(window, piece.stops) || after + minutes > window.minutes) continue;
      this.#at = at;
      this.#used = after + minutes;
      this.#between = 0;
      return { ...bare, window, after, lastBack: this.#lastBack(piece, window.minutes - after) };
    }
    return { ...bare, lastBack: null, refused: this.#why(piece, minutes) };
  }
}

/** When the steps of an order are done: those that stop nobody at any time, the others in windows. */
export function slotsOf(index: PlanIndex, steps: readonly Step[]): Slot[] {
  const dealer = new Dealer(index, steps);
  return piecesOf(steps).map((piece) => dealer.slot(piece));
}

const LOCAL = "yyyy-MM-dd'T'HH:mm";
/** "Sat 5 Dec 2026, 18:20": a window's time after some minutes, on the clock at the site. */
export const timeText = ({ starts }: Window, after: number): string =>
  format(addMinutes(parse(starts, LOCAL, new Date(0)), after), "EEE d MMM yyyy, HH:mm");
