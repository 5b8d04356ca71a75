import type { Address } from "../address";
import { TYPE } from "./link";
import type { Octets } from "./octets";

/** What a packet of IPv4 or IPv6 carries. */
export interface Carried {
  readonly protocol: number;
  readonly src: () => Address;
  readonly dst: () => Address;
  readonly payload: Octets;
}

export interface Udp {
  readonly from: number;
  readonly to: number;
  readonly payload: Octets;
}

export const PROTOCOL = { icmp: 1, udp: 17, icmp6: 58 } as const;

/** RFC 791 section 3.1; null for what is none, and for later fragments, which have no head of their own. */
function carriedBy4(packet: Octets): Carried | null {
  const head = (packet.u8(0) % 16) * 4;
  const isFirst = packet.u16(6) % 0x2000 === 0;
  if (Math.floor(packet.u8(0) / 16) !== 4 || head < 20 || !packet.has(0, head) || !isFirst) return null;
  return {
    protocol: packet.u8(9),
    src: () => packet.address4(12),
    dst: () => packet.address4(16),
    // The frame may be longer: it is filled up to 60 octets.
    payload: packet.from(head, packet.u16(2) - head),
  };
}

const HEAD_6 = 40;
/** Headers between that of IPv6 and what it carries (RFC 8200 section 4): options, routing; fragments apart. */
const EXTENSIONS: ReadonlySet<number> = new Set([0, 43, 60]);
const FRAGMENT = 44;
const MOST_EXTENSIONS = 8;

/** RFC 8200 section 3; null as above. */
function carriedBy6(packet: Octets): Carried | null {
  if (Math.floor(packet.u8(0) / 16) !== 6 || !packet.has(0, HEAD_6)) return null;
  const end = HEAD_6 + packet.u16(4);
  let [protocol, at] = [packet.u8(6), HEAD_6];
  for (let i = 0; i < MOST_EXTENSIONS && (EXTENSIONS.has(protocol) || protocol === FRAGMENT); i += 1) {
    if (!packet.has(at, 8)) return null;
    if (protocol === FRAGMENT && packet.u16(at + 2) >= 8) return null;
    const length = protocol === FRAGMENT ? 8 : 8 + packet.u8(at + 1) * 8;
    protocol = packet.u8(at);
    at += length;
  }
  return {
    protocol,
    src: () => packet.address6(8),
    dst: () => packet.address6(24),
    payload: packet.from(at, end - at),
  };
}

/** What a packet carries, by its EtherType; null where it cannot be read. */
export function carriedIn(type: number, packet: Octets): Carried | null {
  if (type === TYPE.ip4) return carriedBy4(packet);
  return type === TYPE.ip6 ? carriedBy6(packet) : null;
}

/** RFC 768; null for what is none. */
export const udpIn = ({ protocol, payload }: Carried): Udp | null =>
  protocol === PROTOCOL.udp && payload.has(0, 8)
    ? { from: payload.u16(0), to: payload.u16(2), payload: payload.from(8, payload.u16(4) - 8) }
    : null;
