// MD5 (RFC 1321) protects nothing any more; IEEE 802.1Q still names it for a region's configuration digest.

const SHIFTS = [
  [7, 12, 17, 22],
  [5, 9, 14, 20],
  [4, 11, 16, 23],
  [6, 10, 15, 21],
] as const;
/** RFC 1321 section 3.4: the integer part of 2^32 times the absolute sine of the step's number. */
const SINES = Array.from({ length: 64 }, (_, step) => Math.floor(2 ** 32 * Math.abs(Math.sin(step + 1))));
const BLOCK = 64;

type State = [a: number, b: number, c: number, d: number];

/** The step's function of three words, and which word of the block it takes. */
function roundOf(step: number, [, b, c, d]: State): readonly [mixed: number, word: number] {
  if (step < 16) return [(b & c) | (~b & d), step];
  if (step < 32) return [(d & b) | (~d & c), (5 * step + 1) % 16];
  if (step < 48) return [b ^ c ^ d, (3 * step + 5) % 16];
  return [c ^ (b | ~d), (7 * step) % 16];
}

const turned = (word: number, by: number): number => (word << by) | (word >>> (32 - by));

function mixed(state: State, block: DataView): State {
  let [a, b, c, d] = state;
  for (let step = 0; step < 64; step += 1) {
    const [value, word] = roundOf(step, [a, b, c, d]);
    const sum = (a + value + (SINES[step] ?? 0) + block.getUint32(word * 4, true)) | 0;
    const shift = SHIFTS[Math.floor(step / 16)]?.[step % 4] ?? 0;
    [a, d, c, b] = [d, c, b, (b + turned(sum, shift)) | 0];
  }
  return [(state[0] + a) | 0, (state[1] + b) | 0, (state[2] + c) | 0, (state[3] + d) | 0];
}

/** The message with its padding and its length in bits behind it (RFC 1321 sections 3.1 and 3.2). */
function padded(message: Uint8Array): DataView {
  const whole = new Uint8Array(Math.ceil((message.length + 9) / BLOCK) * BLOCK);
  whole.set(message);
  whole[message.length] = 0x80;
  const view = new DataView(whole.buffer);
  view.setUint32(whole.length - 8, (message.length * 8) >>> 0, true);
  view.setUint32(whole.length - 4, Math.floor((message.length * 8) / 2 ** 32), true);
  return view;
}

/** The 16 octets of a message's digest (RFC 1321). */
export function md5(message: Uint8Array): Uint8Array {
  const view = padded(message);
  let state: State = [0x67452301, 0xefcdab89 | 0, 0x98badcfe | 0, 0x10325476];
  for (let at = 0; at < view.byteLength; at += BLOCK)
    state = mixed(state, new DataView(view.buffer, at, BLOCK));
  const digest = new DataView(new ArrayBuffer(16));
  state.forEach((word, at) => digest.setUint32(at * 4, word, true));
  return new Uint8Array(digest.buffer);
}

const joined = (a: Uint8Array, b: Uint8Array): Uint8Array => {
  const whole = new Uint8Array(a.length + b.length);
  whole.set(a);
  whole.set(b, a.length);
  return whole;
};

/** The 16 octets of HMAC-MD5 (RFC 2104). */
export function hmacMd5(key: Uint8Array, message: Uint8Array): Uint8Array {
  const short = key.length > BLOCK ? md5(key) : key;
  const pad = (octet: number) => Uint8Array.from({ length: BLOCK }, (_, at) => (short[at] ?? 0) ^ octet);
  return md5(joined(pad(0x5c), md5(joined(pad(0x36), message))));
}

/** Octets as hexadecimal digits in capitals. */
export const hexOf = (octets: Uint8Array): string =>
  [...octets].map((octet) => octet.toString(16).padStart(2, "0").toUpperCase()).join("");
