import { ipv6, linkLocal, type Address, type Mac } from "../address";
import { must } from "../kernel";
import type { Content } from "../probe";
import { addressBytes, big, macBytes } from "./bytes";
import { icmp6 } from "./internet";

const group = (value: bigint): Address => must(ipv6(value), "a group's address");
const ALL_NODES = group(0xff02n * 2n ** 112n + 1n);
const ALL_ROUTERS = group(0xff02n * 2n ** 112n + 2n);
const LINK_LAYER = { source: 1, target: 2 } as const;

/** The group that somebody with an address listens to (RFC 4291 section 2.7.1). */
const solicitedNode = (address: Address): Address =>
  group(0xff02n * 2n ** 112n + 0x1_ff00_0000n + (BigInt(address) % 0x100_0000n));
/** The Ethernet address of an IPv6 group (RFC 2464 section 7). */
const groupMac = (address: Address): number[] => [0x33, 0x33, ...addressBytes(address).slice(12)];

/** A message of neighbour discovery (RFC 4861 section 4) as its packet, and the Ethernet address it goes to. */
export interface Discovery {
  readonly packet: readonly number[];
  readonly to: readonly number[];
}

export function neighbourPacket(
  { asks, src, dst, target, mac }: Extract<Content, { readonly kind: "neighbour" }>,
  to: Mac | null,
): Discovery {
  if (asks) {
    const all = solicitedNode(target);
    return {
      to: groupMac(all),
      packet: icmp6(src, all, [
        135,
        0,
        0,
        0,
        0,
        0,
        0,
        0,
        ...addressBytes(target),
        LINK_LAYER.source,
        1,
        ...macBytes(mac),
      ]),
    };
  }
  return {
    to: to === null ? groupMac(ALL_NODES) : macBytes(to),
    packet: icmp6(src, dst, [
      136,
      0,
      0,
      0,
      0x60,
      0,
      0,
      0,
      ...addressBytes(target),
      LINK_LAYER.target,
      1,
      ...macBytes(mac),
    ]),
  };
}

const zeros = (count: number): number[] => new Array<number>(count).fill(0);

/** Who routes here? (RFC 4861 section 4.1) */
const solicitation = (mac: Mac): Discovery => ({
  to: groupMac(ALL_ROUTERS),
  packet: icmp6(linkLocal(mac), ALL_ROUTERS, [133].concat(zeros(7), [LINK_LAYER.source, 1], macBytes(mac))),
});

export function advertisementPacket({
  asks,
  src,
  mac,
  prefix,
  length,
  managed,
  selfMade,
}: Extract<Content, { readonly kind: "advertisement" }>): Discovery {
  if (asks) return solicitation(mac);
  // Option 3, prefix information (RFC 4861 section 4.6.2): flags, valid and preferred lifetimes.
  const information =
    prefix === null
      ? []
      : [3, 4, length, selfMade ? 0xc0 : 0x80].concat(
          big(86_400, 4),
          big(14_400, 4),
          zeros(4),
          addressBytes(prefix),
        );
  return {
    to: groupMac(ALL_NODES),
    packet: icmp6(
      src,
      ALL_NODES,
      [134, 0, 0, 0, 64, managed ? 0x80 : 0].concat(
        big(1800, 2),
        zeros(8),
        [LINK_LAYER.source, 1],
        macBytes(mac),
        information,
      ),
    ),
  };
}
