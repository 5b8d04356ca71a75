const [QUOTE, BACKSLASH, COMMA, OPEN_LIST, CLOSE_LIST, OPEN_OBJECT, CLOSE_OBJECT] = [
  0x22, 0x5c, 0x2c, 0x5b, 0x5d, 0x7b, 0x7d,
];

/** Deeper than anything a contract takes, shallow enough for whatever walks it. */
export const MOST_DEPTH = 24;
/** More values than the largest plan has: what they cost once they are parsed is bounded before they are. */
const MOST_VALUES = 12_000_000;

/**
 * Looks at the bytes of a JSON text as they come: how deep it nests and how many values it separates, before
 * anything is made of it.
 */
export class BodyScan {
  #depth = 0;
  #values = 0;
  #inText = false;
  #escaped = false;

  /** Takes the next bytes; what is wrong with them so far, or null. */
  take(bytes: Uint8Array): "too-deep" | "too-many" | null {
    for (const byte of bytes) {
      if (this.#inText) {
        if (this.#escaped) this.#escaped = false;
        else if (byte === BACKSLASH) this.#escaped = true;
        else if (byte === QUOTE) this.#inText = false;
      } else if (byte === QUOTE) this.#inText = true;
      else if (byte === COMMA) this.#values += 1;
      else if (byte === OPEN_LIST || byte === OPEN_OBJECT) this.#depth += 1;
      else if (byte === CLOSE_LIST || byte === CLOSE_OBJECT) this.#depth -= 1;
      if (this.#depth > MOST_DEPTH) return "too-deep";
    }
    return this.#values > MOST_VALUES ? "too-many" : null;
  }
}
