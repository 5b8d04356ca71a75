import { familyOf, type Address } from "../address";
import type { Packet } from "../policy";
import { addressBytes, big, checksum, utf8, type Bytes } from "./bytes";

const PROTOCOL = { tcp: 6, udp: 17, icmp: 1, icmp6: 58 } as const;

/** An IPv4 packet (RFC 791) around a payload, not to be fragmented. */
export function ipv4Packet(
  src: Address,
  dst: Address,
  {
    protocol,
    ttl,
    payload,
    identification,
    dscp = 0,
  }: {
    readonly protocol: number;
    readonly ttl: number;
    readonly payload: Bytes;
    readonly identification: number;
    readonly dscp?: number;
  },
): number[] {
  const head = [
    0x45,
    // The code point stands in the upper six bits (RFC 2474 section 3).
    dscp * 4,
    ...big(20 + payload.length, 2),
    ...big(identification, 2),
    0x40,
    0,
    ttl,
    protocol,
    0,
    0,
    ...addressBytes(src),
    ...addressBytes(dst),
  ];
  const sum = checksum(head);
  return [...head.slice(0, 10), ...big(sum, 2), ...head.slice(12), ...payload];
}

/** An IPv6 packet (RFC 8200) around a payload. */
const ipv6Packet = (
  src: Address,
  dst: Address,
  {
    next,
    hops,
    payload,
    dscp,
  }: { readonly next: number; readonly hops: number; readonly payload: Bytes; readonly dscp: number },
): number[] => [
  // The traffic class stands across two bytes, between the version and the flow label (RFC 8200 section 3).
  0x60 + Math.floor(dscp / 4),
  (dscp % 4) * 64,
  0,
  0,
  ...big(payload.length, 2),
  next,
  hops,
  ...addressBytes(src),
  ...addressBytes(dst),
  ...payload,
];

/**
 * What stands before a payload in its checksum: both addresses, the length and the protocol (RFC 9293 section
 * 3.1, RFC 8200 section 8.1).
 */
const pseudo = (src: Address, dst: Address, protocol: number, length: number): number[] =>
  familyOf(src) === 4
    ? [...addressBytes(src), ...addressBytes(dst), 0, protocol, ...big(length, 2)]
    : [...addressBytes(src), ...addressBytes(dst), ...big(length, 4), 0, 0, 0, protocol];

/** Puts the checksum into a payload at an offset. */
function sealed(
  src: Address,
  dst: Address,
  {
    protocol,
    payload,
    offset,
  }: { readonly protocol: number; readonly payload: Bytes; readonly offset: number },
): number[] {
  const sum = checksum([...pseudo(src, dst, protocol, payload.length), ...payload]);
  // A UDP checksum of zero would say that there is none (RFC 768).
  return [
    ...payload.slice(0, offset),
    ...big(protocol === PROTOCOL.udp && sum === 0 ? 0xffff : sum, 2),
    ...payload.slice(offset + 2),
  ];
}

export const udp = (
  src: Address,
  dst: Address,
  { sport, dport, data }: { readonly sport: number; readonly dport: number; readonly data: Bytes },
): number[] =>
  sealed(src, dst, {
    protocol: PROTOCOL.udp,
    payload: [...big(sport, 2), ...big(dport, 2), ...big(8 + data.length, 2), 0, 0, ...data],
    offset: 6,
  });

/**
 * The first segment of a connection, or the answer to it (RFC 9293 section 3.1), with the largest segment it
 * takes.
 */
function tcp({ src, dst, sport, dport }: Packet, answers: boolean): number[] {
  const [sequence, acknowledged] = answers ? [2000, 1001] : [1000, 0];
  const flags = answers ? 0x12 : 0x02;
  return sealed(src, dst, {
    protocol: PROTOCOL.tcp,
    payload: [
      ...big(sport ?? 0, 2),
      ...big(dport ?? 0, 2),
      ...big(sequence, 4),
      ...big(acknowledged, 4),
      0x60,
      flags,
      ...big(64_240, 2),
      0,
      0,
      0,
      0,
      2,
      4,
      ...big(familyOf(src) === 4 ? 1460 : 1440, 2),
    ],
    offset: 16,
  });
}

const ECHO_DATA = utf8("what goes out comes back in there");

/** An echo and its answer (RFC 792, RFC 4443 section 4). */
function echo({ src, dst, family }: Packet, answers: boolean): number[] {
  const [request, reply] = family === 4 ? [8, 0] : [128, 129];
  const type = answers ? reply : request;
  const body = [type, 0, 0, 0, ...big(0x2a, 2), ...big(1, 2), ...ECHO_DATA];
  if (family === 6) return sealed(src, dst, { protocol: PROTOCOL.icmp6, payload: body, offset: 2 });
  return [...body.slice(0, 2), ...big(checksum(body), 2), ...body.slice(4)];
}

export const icmp6 = (src: Address, dst: Address, body: Bytes): number[] =>
  ipv6Packet(src, dst, {
    next: PROTOCOL.icmp6,
    hops: 255,
    dscp: 0,
    payload: sealed(src, dst, { protocol: PROTOCOL.icmp6, payload: body, offset: 2 }),
  });

function payloadOf(packet: Packet, answers: boolean): number[] {
  if (packet.protocol === "tcp") return tcp(packet, answers);
  if (packet.protocol === "udp")
    return udp(packet.src, packet.dst, { sport: packet.sport ?? 0, dport: packet.dport ?? 0, data: [] });
  return echo(packet, answers);
}

/** A packet of a conversation as bytes. */
export function packetBytes(
  packet: Packet,
  answers: boolean,
  ttl: number,
  { number, dscp }: { readonly number: number; readonly dscp: number },
): number[] {
  const { family, protocol, src, dst } = packet;
  const payload = payloadOf(packet, answers);
  const next = protocol === "icmp" && family === 6 ? PROTOCOL.icmp6 : PROTOCOL[protocol];
  return family === 4
    ? ipv4Packet(src, dst, { protocol: next, ttl, payload, identification: number, dscp })
    : ipv6Packet(src, dst, { next, hops: ttl, payload, dscp });
}
