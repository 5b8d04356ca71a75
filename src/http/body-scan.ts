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
    // A large body has tens of millions of bytes: what is looked at for each of them is at hand.
    let [depth, values, inText, escaped] = [this.#depth, this.#values, this.#inText, this.#escaped];
    for (let at = 0; at < bytes.length; at += 1) {
      const byte = bytes[at];
      if (inText) {
        if (escaped) escaped = false;
        else if (byte === BACKSLASH) escaped = true;
        else if (byte === QUOTE) inText = false;
      } else if (byte === QUOTE) inText = true;
      else if (byte === COMMA) values += 1;
      else if (byte === OPEN_LIST || byte === OPEN_OBJECT) {
        depth += 1;
        if (depth > MOST_DEPTH) return "too-deep";
      } else if (byte === CLOSE_LIST || byte === CLOSE_OBJECT) depth -= 1;
    }
    [this.#depth, this.#values, this.#inText, this.#escaped] = [depth, values, inText, escaped];
    return values > MOST_VALUES ? "too-many" : null;
  }
}
