import { ascending } from "../kernel";
import {
  familyOf,
  formatAddress,
  formatIpv4,
  formatIpv6,
  parseAddress,
  parseIpv4,
  step,
  type Address,
  type Family,
  type Ipv4,
  type Ipv6,
} from "./address";
import { inverse4, inverse6, last4, last6, mask4, mask6, network4, network6, powerOfTwo } from "./bits";

export interface Prefix4 {
  readonly family: 4;
  readonly network: Ipv4;
  readonly length: number;
}
export interface Prefix6 {
  readonly family: 6;
  readonly network: Ipv6;
  readonly length: number;
}
/** A network address and its length; host bits of `network` are always zero. */
export type Prefix = Prefix4 | Prefix6;

export const widthOf = (family: Family): number => (family === 4 ? 32 : 128);

/** The prefix of `length` that `address` lies in; null when the length does not exist in its family. */
export function prefixOf(address: Address, length: number): Prefix | null {
  if (!Number.isInteger(length) || length < 0 || length > widthOf(familyOf(address))) return null;
  return typeof address === "number"
    ? { family: 4, network: network4(address, length) as Ipv4, length }
    : { family: 6, network: network6(address, length) as Ipv6, length };
}

/**
 * "address/length", also with a dotted mask or wildcard mask after the slash (RFC 4632 lengths), host bits
 * allowed.
 */
export function parseInterfaceAddress(text: string): { address: Address; prefix: Prefix } | null {
  const [head, tail, extra] = text.split("/");
  if (head === undefined || tail === undefined || extra !== undefined) return null;
  const address = parseAddress(head);
  if (address === null) return null;
  const mask = familyOf(address) === 4 ? lengthOfMask(tail) : null;
  const length = /^(0|[1-9]\d{0,2})$/.test(tail) ? Number(tail) : mask;
  const prefix = length === null ? null : prefixOf(address, length);
  return prefix === null ? null : { address, prefix };
}

function lengthOfMask(text: string): number | null {
  const mask = parseIpv4(text);
  if (mask === null) return null;
  const lengths = Array.from({ length: 33 }, (_, length) => length);
  // 255.255.255.255 and 0.0.0.0 are both; as masks they are meant oftener than as wildcards.
  const found =
    lengths.find((length) => mask4(length) === mask) ??
    lengths.find((length) => inverse4(mask4(length)) === mask);
  return found ?? null;
}

/** "network/length" as a plan writes it: decimal length, no host bits set. Null for anything else. */
export function parsePrefix(text: string): Prefix | null {
  if (!/\/(0|[1-9]\d{0,2})$/.test(text)) return null;
  const read = parseInterfaceAddress(text);
  return read !== null && read.address === read.prefix.network ? read.prefix : null;
}

// Octets of a mask have their ones in front: 255, 254, 252, 248, 240, 224, 192, 128 or none.
const MASK_BEHIND =
  // eslint-disable-next-line max-len -- one pattern, so that it is tried whole against what would slow it down
  /(\d{1,3}(?:\.\d{1,3}){3})\s+(?:(?:net)?mask\s+)?((?:25[542]|24[08]|224|192|128|0)(?:\.\d{1,3}){3})(?![\d.])/gi;

/**
 * A dotted mask after a blank, with or without the word, as the part behind a slash: "10.24.0.0 255.255.0.0"
 * and "10.24.0.0 mask 255.255.0.0".
 */
export const masksAsSlashes = (text: string): string => text.replace(MASK_BEHIND, "$1/$2");

/**
 * A subnet as people write it: "10.24.20.0/24", or with a dotted mask behind a slash or a blank; no host bits
 * set. Null for anything else.
 */
export function readPrefix(text: string): Prefix | null {
  const read = parseInterfaceAddress(masksAsSlashes(text.trim()));
  return read !== null && read.address === read.prefix.network ? read.prefix : null;
}

export const formatPrefix = (prefix: Prefix): string => `${formatAddress(prefix.network)}/${prefix.length}`;

/** The same as people write it: a single address without its length. */
export const shortPrefix = (prefix: Prefix): string =>
  prefix.length === widthOf(prefix.family) ? formatAddress(prefix.network) : formatPrefix(prefix);

/** The last address: for IPv4 up to /30 the broadcast address. */
export const lastOf = (prefix: Prefix): Address =>
  prefix.family === 4
    ? (last4(prefix.network, prefix.length) as Ipv4)
    : (last6(prefix.network, prefix.length) as Ipv6);

export const netmaskText = (prefix: Prefix): string =>
  prefix.family === 4 ? formatIpv4(mask4(prefix.length) as Ipv4) : formatIpv6(mask6(prefix.length) as Ipv6);

export const wildcardText = (prefix: Prefix): string =>
  prefix.family === 4
    ? formatIpv4(inverse4(mask4(prefix.length)) as Ipv4)
    : formatIpv6(inverse6(mask6(prefix.length)) as Ipv6);

export const addressCount = (prefix: Prefix): bigint => powerOfTwo(widthOf(prefix.family) - prefix.length);

/** How many addresses `usableRange` holds in an IPv4 subnet of this length. */
export const usableIn = (length: number): number => 2 ** (32 - length) - (length >= 31 ? 0 : 2);

export const containsAddress = (prefix: Prefix, address: Address): boolean =>
  familyOf(address) === prefix.family && address >= prefix.network && address <= lastOf(prefix);

export const containsPrefix = (outer: Prefix, inner: Prefix): boolean =>
  outer.family === inner.family && outer.length <= inner.length && containsAddress(outer, inner.network);

export const prefixesOverlap = (a: Prefix, b: Prefix): boolean =>
  containsPrefix(a, b) || containsPrefix(b, a);

/** By family, then network, then the wider first. */
export const byPrefix = (a: Prefix, b: Prefix): number =>
  a.family - b.family || ascending(a.network, b.network) || a.length - b.length;

/** The `offset`-th address of the prefix (0 is the network address), or null past its end. */
export function addressAt(prefix: Prefix, offset: number): Address | null {
  const address = step<Address>(prefix.network, offset);
  return address !== null && containsAddress(prefix, address) ? address : null;
}

/** How far `address` lies behind the network address; only for prefixes of up to 2^53 addresses. */
export const offsetIn = (prefix: Prefix, address: Address): number =>
  Number(BigInt(address) - BigInt(prefix.network));

/** The prefix as IPv4, or null: narrows without a cast. */
export const asPrefix4 = (prefix: Prefix | null): Prefix4 | null => (prefix?.family === 4 ? prefix : null);
export const asPrefix6 = (prefix: Prefix | null): Prefix6 | null => (prefix?.family === 6 ? prefix : null);

/** The smallest IPv4 length whose usable addresses number at least `hosts` plus one for the gateway. */
export function lengthForHosts(hosts: number): number {
  for (let length = 30; length > 0; length -= 1) if (usableIn(length) >= hosts + 1) return length;
  return 0;
}

/** A prefix length as people write it: "/25", "25" or, for IPv4, "255.255.255.128". Null for anything else. */
export function prefixLengthOf(text: string, family: Family): number | null {
  const wanted = text.trim().replace(/^\//, "");
  if (/^\d{1,3}$/.test(wanted)) return Number(wanted) <= widthOf(family) ? Number(wanted) : null;
  return family === 4 ? lengthOfMask(wanted) : null;
}
