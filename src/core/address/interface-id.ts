import { must } from "../kernel";
import { ipv6, type Ipv6 } from "./address";
import type { Mac } from "./mac";
import type { Prefix6 } from "./prefix";

/**
 * A MAC address for something whose own is not known: locally administered, always the same for the same id
 * (FNV-1a, two lanes).
 */
export function madeMac(id: string): Mac {
  const lane = (seed: number): number => {
    let hash = 2_166_136_261 + seed;
    for (const char of id) hash = Math.imul(hash, 16_777_619) + (char.codePointAt(0) ?? 0) * 31;
    return hash >= 0 ? hash % 4_294_967_296 : (hash % 4_294_967_296) + 4_294_967_296;
  };
  const digits = `${lane(1).toString(16).padStart(8, "0")}${lane(2).toString(16).padStart(8, "0")}`.slice(
    0,
    10,
  );
  return `02:${(digits.match(/../g) ?? []).join(":")}` as Mac;
}

/**
 * The interface identifier of a MAC address (RFC 4291 appendix A): the universal bit turned round, ff:fe in
 * the middle.
 */
function interfaceId(mac: Mac): bigint {
  const bytes = mac.split(":").map((pair) => Number.parseInt(pair, 16));
  const [first = 0, ...rest] = bytes;
  const turned = first % 4 >= 2 ? first - 2 : first + 2;
  return [turned, rest[0] ?? 0, rest[1] ?? 0, 0xff, 0xfe, rest[2] ?? 0, rest[3] ?? 0, rest[4] ?? 0].reduce(
    (value, byte) => value * 256n + BigInt(byte),
    0n,
  );
}

const made = (value: bigint): Ipv6 => must(ipv6(value), "An interface identifier has 64 bits");

/** The link-local address that a device gives itself (RFC 4862 section 5.3). */
export const linkLocal = (mac: Mac): Ipv6 => made(0xfe80n * 2n ** 112n + interfaceId(mac));
/**
 * The address that a device makes in an advertised prefix (RFC 4862 section 5.5.3); null when the prefix is
 * not a /64. Many devices use a random identifier instead (RFC 8981).
 */
export const selfMadeAddress = (prefix: Prefix6, mac: Mac): Ipv6 | null =>
  prefix.length === 64 ? made(prefix.network + interfaceId(mac)) : null;
