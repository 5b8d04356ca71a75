/**
 * Bits of addresses. `<<` takes its count modulo 32 and answers signed: /0 is its own case, and `>>> 0` ends
 * every line.
 */
export const mask4 = (length: number): number => (length === 0 ? 0 : (0xffffffff << (32 - length)) >>> 0);
export const network4 = (value: number, length: number): number => (value & mask4(length)) >>> 0;
export const last4 = (value: number, length: number): number => (value | ~mask4(length)) >>> 0;
export const inverse4 = (value: number): number => ~value >>> 0;

const ALL_ONES_6 = (1n << 128n) - 1n;
export const mask6 = (length: number): bigint => ALL_ONES_6 - ((1n << BigInt(128 - length)) - 1n);
export const network6 = (value: bigint, length: number): bigint => value & mask6(length);
export const last6 = (value: bigint, length: number): bigint => value | (ALL_ONES_6 ^ mask6(length));
export const inverse6 = (value: bigint): bigint => ALL_ONES_6 ^ value;

/**
 * 2 to the power of `bits`: how many addresses that many host bits hold. Not `1 <<`, which a /0 would break.
 */
export const powerOfTwo = (bits: number): bigint => 1n << BigInt(bits);

/** The number of zero bits at the low end of `value`, at most `width`. */
export function trailingZeros(value: bigint, width: number): number {
  let zeros = 0;
  while (zeros < width && ((value >> BigInt(zeros)) & 1n) === 0n) zeros += 1;
  return zeros;
}

/** The largest k with 2^k <= `count`; `count` is at least 1. */
export const floorLog2 = (count: bigint): number => count.toString(2).length - 1;

/** The 16-bit groups of an IPv6 address, first group first. */
export const groups6 = (value: bigint): number[] =>
  Array.from({ length: 8 }, (_, i) => Number((value >> BigInt(112 - 16 * i)) & 0xffffn));

export const fromGroups6 = (groups: readonly number[]): bigint =>
  groups.reduce((value, group) => (value << 16n) | BigInt(group), 0n);

export const octets4 = (value: number): [number, number, number, number] => [
  value >>> 24,
  (value >>> 16) & 255,
  (value >>> 8) & 255,
  value & 255,
];

export const hasBit = (value: number, bit: number): boolean => ((value >>> bit) & 1) === 1;
