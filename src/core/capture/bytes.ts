import { familyOf, type Address, type Mac } from "../address";

/** Bytes as plain numbers while a frame is put together. */
export type Bytes = readonly number[];

/** A whole number in network byte order. */
export function big(value: number | bigint, width: number): number[] {
  let rest = BigInt(value);
  const bytes: number[] = [];
  for (let i = 0; i < width; i += 1) {
    bytes.unshift(Number(rest % 256n));
    rest /= 256n;
  }
  return bytes;
}

/** A whole number in the order in which the capture file keeps its own. */
export const little = (value: number | bigint, width: number): number[] => big(value, width).reverse();

export const macBytes = (mac: Mac): number[] => mac.split(":").map((pair) => Number.parseInt(pair, 16));
export const addressBytes = (address: Address): number[] => big(address, familyOf(address) === 4 ? 4 : 16);

/** Text as UTF-8 (RFC 3629). */
export function utf8(text: string): number[] {
  return [...text].flatMap((char): number[] => {
    const code = char.codePointAt(0) ?? 0;
    const more = (shift: number) => 0x80 + (Math.floor(code / 64 ** shift) % 64);
    if (code < 0x80) return [code];
    if (code < 0x800) return [0xc0 + Math.floor(code / 64), more(0)];
    if (code < 0x1_0000) return [0xe0 + Math.floor(code / 4096), more(1), more(0)];
    return [0xf0 + Math.floor(code / 262_144), more(2), more(1), more(0)];
  });
}

/** The Internet checksum (RFC 1071): the ones' complement of the ones' complement sum of 16-bit words. */
export function checksum(bytes: Bytes): number {
  let sum = 0;
  for (let i = 0; i < bytes.length; i += 2) sum += (bytes[i] ?? 0) * 256 + (bytes[i + 1] ?? 0);
  while (sum > 0xffff) sum = (sum % 0x1_0000) + Math.floor(sum / 0x1_0000);
  return 0xffff - sum;
}
