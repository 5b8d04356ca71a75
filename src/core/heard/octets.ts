import { formatAddress, ipv4, ipv6, parseMac, type Address, type Ipv4, type Mac } from "../address";
import { must } from "../kernel";

/** A MAC address as one number: a frame's are compared long before anybody reads them. */
export type MacNumber = number;

/** A MAC number as text. */
export const macOf = (number: MacNumber): Mac =>
  must(parseMac(number.toString(16).padStart(12, "0")), "twelve digits");

/** Bit `at` of a byte or word, counted from the lowest. */
export const bitOf = (value: number, at: number): boolean => Math.floor(value / 2 ** at) % 2 === 1;

/** What stands for an octet, or a row of them, that is no text. */
const UNREADABLE = "\ufffd";

/** How many octets follow the first of a character in UTF-8, and what of it counts (RFC 3629 section 3). */
function leadOf(octet: number): { readonly more: number; readonly value: number } | null {
  if (octet < 0x80) return { more: 0, value: octet };
  if (octet >= 0xc2 && octet < 0xe0) return { more: 1, value: octet - 0xc0 };
  if (octet >= 0xe0 && octet < 0xf0) return { more: 2, value: octet - 0xe0 };
  return octet >= 0xf0 && octet < 0xf5 ? { more: 3, value: octet - 0xf0 } : null;
}

/** Controls would move the cursor of whoever prints them; halves of pairs are no characters. */
const isShown = (code: number): boolean =>
  code >= 0x20 && (code < 0x7f || code >= 0xa0) && (code < 0xd800 || code > 0xdfff) && code < 0x11_0000;

/** A run of octets, read at places. Beyond its end stands 0: who needs to know what is there asks `has`. */
export class Octets {
  readonly bytes: Uint8Array;
  readonly start: number;
  readonly end: number;

  constructor(bytes: Uint8Array, start: number, end: number) {
    this.bytes = bytes;
    this.start = start;
    this.end = Math.max(start, Math.min(end, bytes.length));
  }

  get length(): number {
    return this.end - this.start;
  }

  has(at: number, count = 1): boolean {
    return at >= 0 && this.start + at + count <= this.end;
  }

  u8(at: number): number {
    const place = this.start + at;
    return place < this.end ? (this.bytes[place] ?? 0) : 0;
  }

  /** Network byte order (RFC 1700), as all numbers below. */
  u16(at: number): number {
    return this.u8(at) * 256 + this.u8(at + 1);
  }

  u32(at: number): number {
    return this.u16(at) * 65_536 + this.u16(at + 2);
  }

  u48(at: number): number {
    return this.u32(at) * 65_536 + this.u16(at + 4);
  }

  u128(at: number): bigint {
    const parts = [0, 4, 8, 12].map((by) => BigInt(this.u32(at + by)));
    return parts.reduce((sum, part) => sum * 2n ** 32n + part, 0n);
  }

  address4(at: number): Ipv4 {
    return must(ipv4(this.u32(at)), "32 bits");
  }

  address6(at: number): Address {
    return must(ipv6(this.u128(at)), "128 bits");
  }

  /** Every whole IPv4 address from a place on. */
  addresses4(): string[] {
    const count = Math.floor(this.length / 4);
    return Array.from({ length: count }, (_, at) => formatAddress(this.address4(at * 4)));
  }

  addresses6(at: number): string[] {
    const count = Math.max(0, Math.floor((this.length - at) / 16));
    return Array.from({ length: count }, (_, i) => formatAddress(this.address6(at + i * 16)));
  }

  /** What stands from a place on, `length` octets of it at most, as far as it is there. */
  from(at: number, length: number = this.length): Octets {
    const start = Math.min(this.end, this.start + Math.max(0, at));
    return new Octets(this.bytes, start, Math.min(this.end, start + Math.max(0, length)));
  }

  /** Pairs of digits joined by colons. */
  hex(): string {
    return Array.from({ length: this.length }, (_, at) => this.u8(at).toString(16).padStart(2, "0")).join(
      ":",
    );
  }

  /** As UTF-8, up to the first zero; what is no text is marked as such. */
  text(): string {
    let [text, at] = ["", 0];
    while (at < this.length && this.u8(at) !== 0) {
      const [character, count] = this.#character(at);
      text += character;
      at += count;
    }
    return text;
  }

  /** The character at a place, and how many octets it takes. */
  #character(at: number): readonly [character: string, count: number] {
    const lead = leadOf(this.u8(at));
    if (lead === null || !this.has(at, lead.more + 1)) return [UNREADABLE, 1];
    let code = lead.value;
    for (let i = 1; i <= lead.more; i += 1) {
      const next = this.u8(at + i);
      if (next < 0x80 || next > 0xbf) return [UNREADABLE, 1];
      code = code * 64 + next - 0x80;
    }
    return [isShown(code) ? String.fromCodePoint(code) : UNREADABLE, lead.more + 1];
  }
}
