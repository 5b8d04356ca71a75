import type { Address, Family } from "../address";

/** A packet as a filter sees it. Ports are null for what has none (ICMP). */
export interface Packet {
  readonly family: Family;
  readonly protocol: "tcp" | "udp" | "icmp";
  readonly src: Address;
  readonly dst: Address;
  readonly sport: number | null;
  readonly dport: number | null;
}

/** The packet that answers: addresses and ports the other way round. */
export const answerTo = ({ family, protocol, src, dst, sport, dport }: Packet): Packet => ({
  family,
  protocol,
  src: dst,
  dst: src,
  sport: dport,
  dport: sport,
});
