import { must } from "../kernel";
import type { Address } from "./address";
import { containsAddress, parsePrefix } from "./prefix";

const row = (cidr: string, use: SpecialUse, source: string) => ({
  prefix: must(parsePrefix(cidr), `${cidr} is a prefix`),
  use,
  source,
});

export type SpecialUse =
  | "unspecified"
  | "this-network"
  | "private"
  | "shared"
  | "loopback"
  | "link-local"
  | "documentation"
  | "multicast"
  | "reserved"
  | "unique-local"
  | "benchmarking";

/** Special-purpose blocks; each row cites its document. */
export const SPECIAL_BLOCKS = [
  row("0.0.0.0/32", "unspecified", "RFC 1122"),
  row("0.0.0.0/8", "this-network", "RFC 791"),
  row("10.0.0.0/8", "private", "RFC 1918"),
  row("100.64.0.0/10", "shared", "RFC 6598"),
  row("127.0.0.0/8", "loopback", "RFC 1122"),
  row("169.254.0.0/16", "link-local", "RFC 3927"),
  row("172.16.0.0/12", "private", "RFC 1918"),
  row("192.0.2.0/24", "documentation", "RFC 5737"),
  row("192.168.0.0/16", "private", "RFC 1918"),
  row("198.18.0.0/15", "benchmarking", "RFC 2544"),
  row("198.51.100.0/24", "documentation", "RFC 5737"),
  row("203.0.113.0/24", "documentation", "RFC 5737"),
  row("224.0.0.0/4", "multicast", "RFC 1112"),
  row("240.0.0.0/4", "reserved", "RFC 1112"),
  row("::/128", "unspecified", "RFC 4291"),
  row("::1/128", "loopback", "RFC 4291"),
  row("2001:db8::/32", "documentation", "RFC 3849"),
  row("fc00::/7", "unique-local", "RFC 4193"),
  row("fe80::/10", "link-local", "RFC 4291"),
  row("ff00::/8", "multicast", "RFC 4291"),
] as const;

/** Every special use that covers `address`; empty for an ordinary public address. */
export const usesOf = (address: Address): SpecialUse[] =>
  SPECIAL_BLOCKS.filter((block) => containsAddress(block.prefix, address)).map((block) => block.use);

/** Whether it is a link-local IPv6 address, fe80::/10 (RFC 4291 section 2.5.6): known on one link only. */
export const isLinkLocal = (address: Address): boolean =>
  typeof address === "bigint" && address >= 0xfe80n * 2n ** 112n && address < 0xfec0n * 2n ** 112n;

/** Whether it is an IPv4 address that a station gives itself, 169.254.0.0/16: no server answered (RFC 3927). */
export const isSelfGiven = (address: Address): boolean =>
  typeof address === "number" && Math.floor(address / 65_536) === 169 * 256 + 254;
