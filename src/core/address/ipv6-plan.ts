import { ipv6 } from "./address";
import { asPrefix6, prefixOf, prefixesOverlap, type Prefix, type Prefix6 } from "./prefix";
import { nextFreeSubnet } from "./allocate";

/**
 * The unique-local /48 of a global ID (RFC 4193 section 3.1: fd00::/8, then 40 bits). The five bytes have to
 * come from a random source of the caller (section 3.2): a chosen number would meet the next person's chosen
 * number. Null for other than five bytes.
 */
export function uniqueLocalPrefix(globalId: Uint8Array): Prefix6 | null {
  if (globalId.length !== 5) return null;
  const id = globalId.reduce((value, byte) => value * 256n + BigInt(byte), 0n);
  const network = ipv6(0xfdn * 2n ** 120n + id * 2n ** 80n);
  return network === null ? null : asPrefix6(prefixOf(network, 48));
}

/**
 * The /64 of a VLAN inside a delegated or unique-local prefix: the VLAN ID's decimal digits as the subnet's
 * hexadecimal ones, so that VLAN 20 reads as …:20::/64, where there is room for them and nothing of `taken`
 * is met; else the next free /64; null when there is none.
 */
export function subPrefix6(block: Prefix6, vid: number | null, taken: readonly Prefix[]): Prefix6 | null {
  if (block.length > 64) return null;
  const subnets = 2n ** BigInt(64 - block.length);
  const digits = vid === null ? null : BigInt(`0x${vid}`);
  if (digits !== null && digits < subnets) {
    const network = ipv6(block.network + digits * 2n ** 64n);
    const wanted = network === null ? null : asPrefix6(prefixOf(network, 64));
    if (wanted !== null && !taken.some((other) => prefixesOverlap(other, wanted))) return wanted;
  }
  return asPrefix6(nextFreeSubnet(block, 64, taken));
}
