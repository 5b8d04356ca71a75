/** How long an answer is kept for a client that asks again (RFC 5080 section 2.2.2: 5 to 30 s). */
const KEPT_MS = 10_000;
/** The most answers that are kept at once: one address has 256 identifiers at each of its ports. */
const MOST = 4096;

interface Kept {
  readonly authenticator: string;
  readonly at: number;
  readonly answer: Promise<Buffer | null>;
}

/**
 * Answers that were given, so that a request that comes again gets the same one and is not looked at again
 * (RFC 5080 section 2.2.2): the same address and port, identifier and authenticator.
 */
export class Repeats {
  readonly #kept = new Map<string, Kept>();
  readonly #now: () => number;

  constructor(now: () => number = Date.now) {
    this.#now = now;
  }

  /** The answer of before, else what `answer` makes; one with another authenticator is a new request. */
  once(from: string, authenticator: string, answer: () => Promise<Buffer | null>): Promise<Buffer | null> {
    const now = this.#now();
    const known = this.#kept.get(from);
    if (known !== undefined && known.authenticator === authenticator && now - known.at < KEPT_MS)
      return known.answer;
    this.#forgetOld(now);
    const made = answer();
    this.#kept.delete(from);
    const kept = { authenticator, at: now, answer: made };
    this.#kept.set(from, kept);
    // What was dropped without a word keeps nobody's place: a forged packet would shut the genuine one out.
    void made.then((answer) => {
      if (answer === null && this.#kept.get(from) === kept) this.#kept.delete(from);
    });
    return made;
  }

  /** What is kept is in the order in which it came. */
  #forgetOld(now: number): void {
    for (const [from, { at }] of this.#kept) {
      if (now - at < KEPT_MS && this.#kept.size < MOST) return;
      this.#kept.delete(from);
    }
  }
}
