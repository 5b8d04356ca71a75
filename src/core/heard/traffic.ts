import type { Mac } from "../address";
import type { CapturedFrame } from "./container";
import type { Heading } from "./link";
import { macOf, type MacNumber, type Octets } from "./octets";
import { Rows, tagKey, taggedOf, type Budget, type Tagged } from "./rows";

/** Frames from one station to another. */
export interface UnicastFact extends Tagged {
  readonly src: Mac;
  readonly dst: Mac;
  readonly frames: number;
}
/** The same frame, octet by octet, again and again: what a loop makes. */
export interface AgainFact extends Tagged {
  readonly src: Mac;
  readonly dst: Mac | null;
  readonly copies: number;
  readonly mostWithinOneSecond: number;
  /** From the first to the last. */
  readonly overSeconds: number;
}

export interface TrafficFacts {
  readonly unicast: readonly UnicastFact[];
  readonly sameFrameAgain: readonly AgainFact[];
  readonly sameFrameAgainCount: number;
  readonly peakFramesPerSecond: number;
  readonly peakBroadcastMulticastPerSecond: number;
}

/** So often within a second a frame is the same before it counts, and so many of them are told. */
const LEAST_AGAIN = 5;
const MOST_TOLD = 20;
/** As many different frames are remembered at once, and as many instants of each. */
const MOST_FRAMES = 20_000;
/** As many that were seen once are remembered, by one number each. */
const MOST_ONCE = 100_000;
const MOST_INSTANTS = 100_000;
/** A capture of a day has as many seconds. */
const MOST_SECONDS = 100_000;

interface Copies {
  readonly heading: Pick<Heading, "tags" | "from" | "to">;
  copies: number;
  readonly first: number;
  last: number;
  /** Instants of the last second, those in front of `begin` done with. */
  instants: number[];
  begin: number;
  most: number;
}

/**
 * Frames as one number each, by multiplying and adding (Fowler, Noll, Vo) on two sums side by side, so that
 * two different frames of a capture have the same one only by a chance of one in 10^15.
 */
function fingerprint({ bytes, start, end }: Octets): number {
  let [a, b] = [0x811c9dc5, 0x2545f491];
  for (let at = start; at < end; at += 1) {
    const octet = bytes[at] ?? 0;
    a = Math.imul(a ^ octet, 0x01000193);
    b = Math.imul(b + octet, 0x5bd1e995) ^ (b >>> 15);
  }
  return (a >>> 0) * 2 ** 21 + ((b >>> 0) % 2 ** 21);
}

/** Adds an instant, and how many there were within the second that ends with it. */
function addInstant(copies: Copies, at: number): void {
  copies.copies += 1;
  copies.last = at;
  copies.instants.push(at);
  while ((copies.instants[copies.begin] ?? at) < at - 1) copies.begin += 1;
  if (copies.begin > MOST_INSTANTS) {
    copies.instants = copies.instants.slice(copies.begin);
    copies.begin = 0;
  }
  if (copies.instants.length - copies.begin > MOST_INSTANTS) copies.begin += 1;
  copies.most = Math.max(copies.most, copies.instants.length - copies.begin);
}

/** So much stays of what is remembered when room is made. */
const KEPT_SHARE = 0.5;

/** Lets the oldest go until no more are left than that. */
function shrink(map: Map<number, unknown>, most: number): void {
  for (const key of map.keys()) {
    if (map.size <= most) return;
    map.delete(key);
  }
}

/** How much is heard, from whom to whom, and whether it goes round. */
export class TrafficHeard {
  readonly #unicast: Rows<{ tagged: Tagged; src: MacNumber; dst: MacNumber; frames: number }>;
  readonly #once = new Map<number, number>();
  readonly #copies = new Map<number, Copies>();
  readonly #seconds = new Map<number, { frames: number; toGroups: number }>();

  constructor(budget: Budget) {
    this.#unicast = new Rows(budget);
  }

  add(frame: CapturedFrame, heading: Heading): void {
    if (!heading.isGroup && heading.to !== null) this.#addUnicast(heading, heading.to);
    if (frame.at === null) return;
    this.#addSecond(Math.floor(frame.at), heading.isGroup);
    this.#addCopy(frame.octets, heading, frame.at);
  }

  #addUnicast({ tags, from }: Heading, to: MacNumber): void {
    // Two numbers of 48 bits do not fit in one; text for each of millions of frames is slow, but it is short.
    const tag = tags.length === 0 ? "" : tagKey(taggedOf(tags));
    const row = this.#unicast.at(`${from} ${to} ${tag}`, () => ({
      tagged: taggedOf(tags),
      src: from,
      dst: to,
      frames: 0,
    }));
    if (row !== null) row.frames += 1;
  }

  #addSecond(second: number, isGroup: boolean): void {
    const known = this.#seconds.get(second);
    if (known === undefined && this.#seconds.size >= MOST_SECONDS) return;
    const count = known ?? { frames: 0, toGroups: 0 };
    count.frames += 1;
    if (isGroup) count.toGroups += 1;
    if (known === undefined) this.#seconds.set(second, count);
  }

  #addCopy(octets: Octets, { tags, from, to }: Heading, at: number): void {
    const key = fingerprint(octets);
    const known = this.#copies.get(key);
    const first = this.#once.get(key);
    if (known !== undefined) addInstant(known, at);
    else if (first === undefined) this.#addOnce(key, at);
    else {
      this.#once.delete(key);
      if (this.#copies.size >= MOST_FRAMES) this.#forget(at);
      const heading = { tags, from, to };
      const made = { heading, copies: 1, first, last: first, instants: [first], begin: 0, most: 1 };
      this.#copies.set(key, made);
      addInstant(made, at);
    }
  }

  #addOnce(key: number, at: number): void {
    this.#once.set(key, at);
    if (this.#once.size > MOST_ONCE) shrink(this.#once, MOST_ONCE * KEPT_SHARE);
  }

  /** What did not come back within a second and did not go round before makes room. */
  #forget(at: number): void {
    for (const [key, { most, last }] of this.#copies)
      if (most < LEAST_AGAIN && Math.abs(at - last) > 1) this.#copies.delete(key);
    shrink(this.#copies, MOST_FRAMES * KEPT_SHARE);
  }

  facts(): TrafficFacts {
    const again = [...this.#copies.values()].filter(({ most }) => most >= LEAST_AGAIN);
    const seconds = [...this.#seconds.values()];
    const peak = (count: (second: { frames: number; toGroups: number }) => number): number =>
      seconds.reduce((most, second) => Math.max(most, count(second)), 0);
    return {
      unicast: this.#unicast.all().map(({ tagged, src, dst, frames }) => ({
        ...tagged,
        src: macOf(src),
        dst: macOf(dst),
        frames,
      })),
      sameFrameAgain: again
        .sort((a, b) => b.copies - a.copies)
        .slice(0, MOST_TOLD)
        .map(({ heading, copies, most, first, last }) => ({
          ...taggedOf(heading.tags),
          src: macOf(heading.from),
          dst: heading.to === null ? null : macOf(heading.to),
          copies,
          mostWithinOneSecond: most,
          overSeconds: last - first,
        })),
      sameFrameAgainCount: again.length,
      peakFramesPerSecond: peak(({ frames }) => frames),
      peakBroadcastMulticastPerSecond: peak(({ toGroups }) => toGroups),
    };
  }
}
