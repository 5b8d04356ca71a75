import type { Brand } from "../kernel";
import { fromGroups6, groups6, octets4 } from "./bits";

/** An IPv4 address as an unsigned 32-bit number. */
export type Ipv4 = number & Brand<"Ipv4">;
/** An IPv6 address as a 128-bit number. */
export type Ipv6 = bigint & Brand<"Ipv6">;
export type Address = Ipv4 | Ipv6;
export type Family = 4 | 6;

export const familyOf = (address: Address): Family => (typeof address === "number" ? 4 : 6);

/** `n` as an IPv4 address, or null outside 0 … 2^32 - 1. */
export const ipv4 = (n: number): Ipv4 | null =>
  Number.isInteger(n) && n >= 0 && n <= 0xffffffff ? (n as Ipv4) : null;
/** `n` as an IPv6 address, or null outside 0 … 2^128 - 1. */
export const ipv6 = (n: bigint): Ipv6 | null => (n >= 0n && n < 2n ** 128n ? (n as Ipv6) : null);

// "010.0.0.1" is 10.0.0.1 to some readers and 8.0.0.1 to others, so leading zeros are refused.
const IPV4 = /^(0|[1-9]\d{0,2})\.(0|[1-9]\d{0,2})\.(0|[1-9]\d{0,2})\.(0|[1-9]\d{0,2})$/;

/**
 * Four decimal octets without leading zeros; null for anything else, shortened and hexadecimal forms
 * included.
 */
export function parseIpv4(text: string): Ipv4 | null {
  const match = IPV4.exec(text);
  if (match === null) return null;
  let value = 0;
  for (let i = 1; i <= 4; i += 1) {
    const octet = Number(match[i]);
    if (octet > 255) return null;
    value = value * 256 + octet;
  }
  return value as Ipv4;
}

export const formatIpv4 = (address: Ipv4): string => octets4(address).join(".");

const GROUP = /^[0-9a-f]{1,4}$/i;

function parseGroups(text: string): number[] | null {
  if (text === "") return [];
  const groups: number[] = [];
  const parts = text.split(":");
  for (const [i, part] of parts.entries()) {
    if (i === parts.length - 1 && part.includes(".")) {
      const embedded = parseIpv4(part);
      if (embedded === null) return null;
      const [a, b, c, d] = octets4(embedded);
      groups.push(a * 256 + b, c * 256 + d);
    } else {
      if (!GROUP.test(part)) return null;
      groups.push(Number.parseInt(part, 16));
    }
  }
  return groups;
}

/** RFC 4291 section 2.2 text, all three forms; null for zone identifiers and anything else. */
export function parseIpv6(text: string): Ipv6 | null {
  const halves = text.split("::");
  if (halves.length > 2 || (halves.length === 2 && (halves[0] ?? "").includes("."))) return null;
  const head = parseGroups(halves[0] ?? "");
  const tail = halves.length === 2 ? parseGroups(halves[1] ?? "") : [];
  if (head === null || tail === null) return null;
  const missing = 8 - head.length - tail.length;
  if (halves.length === 2 ? missing < 1 : missing !== 0) return null;
  return fromGroups6([...head, ...Array<number>(missing).fill(0), ...tail]) as Ipv6;
}

/**
 * RFC 5952 section 4: lower case, no leading zeros, the longest run of two or more zero groups (the first of
 * equals) as "::".
 */
export function formatIpv6(address: Ipv6): string {
  const groups = groups6(address);
  let best = { start: -1, length: 1 };
  for (let start = 0; start < 8; start += 1) {
    let length = 0;
    while (start + length < 8 && groups[start + length] === 0) length += 1;
    if (length > best.length) best = { start, length };
  }
  const hex = groups.map((group) => group.toString(16));
  if (best.start < 0) return hex.join(":");
  return `${hex.slice(0, best.start).join(":")}::${hex.slice(best.start + best.length).join(":")}`;
}

/** All eight groups with four digits each. */
export const explodeIpv6 = (address: Ipv6): string =>
  groups6(address)
    .map((group) => group.toString(16).padStart(4, "0"))
    .join(":");

/** Either family; null when it is neither. */
export const parseAddress = (text: string): Address | null =>
  text.includes(":") ? parseIpv6(text) : parseIpv4(text);

export const formatAddress = (address: Address): string =>
  typeof address === "number" ? formatIpv4(address) : formatIpv6(address);

/** The address `by` steps further (or back), or null past either end of its family's space. */
export function step<A extends Address>(address: A, by: number): A | null {
  const plain: Address = address;
  return (typeof plain === "number" ? ipv4(plain + by) : ipv6(plain + BigInt(by))) as A | null;
}
