import type { Family } from "../address";
import { ascending } from "../kernel";
import { merged, type Span } from "./spans";

/**
 * Every service as a number, so that a set of services is a list of spans: TCP ports, UDP ports, ICMP (ICMPv6
 * in IPv6), then the other IP protocols by their number.
 */
const TCP = 0;
const UDP = 65_536;
const ICMP = 131_072;
const OTHER = 131_073;
const LAST = OTHER + 255;

export type ServiceSpan = Span<number>;
export type Protocol = "tcp" | "udp" | "icmp";

/** One service: a port of TCP or UDP, ICMP, or another IP protocol by its number. */
export type ServicePoint =
  | { readonly protocol: "tcp" | "udp"; readonly port: number }
  | { readonly protocol: "icmp"; readonly port: null }
  | { readonly protocol: number; readonly port: null };

const NUMBER = { tcp: 6, udp: 17 } as const;
/** The number of ICMP in a family (RFC 792, RFC 4443). */
const icmpNumber = (family: Family): number => (family === 4 ? 1 : 58);

/** Every service there is in a family: TCP and UDP with ports 0 to 65535, and IP protocols 0 to 255. */
export function everyService(family: Family): ServiceSpan[] {
  const taken = [icmpNumber(family), NUMBER.tcp, NUMBER.udp].sort(ascending);
  const others: ServiceSpan[] = [];
  let at = 0;
  for (const number of [...taken, 256]) {
    if (at < number) others.push({ first: OTHER + at, last: OTHER + number - 1 });
    at = number + 1;
  }
  return merged([{ first: TCP, last: ICMP }, ...others]);
}

/** The services of a protocol, at these ports or at all of them (null); "any" is every IP protocol. */
export function spansOf(
  protocol: Protocol | "any",
  ports: readonly (readonly [low: number, high: number])[] | null,
): ServiceSpan[] {
  if (protocol === "any") return [{ first: TCP, last: LAST }];
  if (protocol === "icmp") return [{ first: ICMP, last: ICMP }];
  const base = protocol === "tcp" ? TCP : UDP;
  return ports === null
    ? [{ first: base, last: base + 65_535 }]
    : merged(ports.map(([low, high]) => ({ first: base + low, last: base + high })));
}

/** What a number of the service space stands for. */
export function serviceAt(number: number): ServicePoint {
  if (number < UDP) return { protocol: "tcp", port: number };
  if (number < ICMP) return { protocol: "udp", port: number - UDP };
  return number === ICMP ? { protocol: "icmp", port: null } : { protocol: number - OTHER, port: null };
}

/** A set of services by protocol, in the order TCP, UDP, ICMP, others by number; port ranges ascending. */
export interface ServiceGroup {
  readonly protocol: Protocol | number;
  /** null for what has no ports. */
  readonly ports: (readonly [low: number, high: number])[] | null;
}

/**
 * The groups that a set of services is written as; each span of the others is taken apart into its protocols.
 */
export function groupsOf(spans: readonly ServiceSpan[]): ServiceGroup[] {
  const ported = (protocol: "tcp" | "udp", base: number): ServiceGroup[] => {
    const ports = spans
      .filter(({ first, last }) => first <= base + 65_535 && last >= base)
      .map(({ first, last }) => [Math.max(first - base, 0), Math.min(last - base, 65_535)] as const);
    return ports.length === 0 ? [] : [{ protocol, ports }];
  };
  const single = (number: number) => spans.some(({ first, last }) => first <= number && number <= last);
  const others = Array.from({ length: 256 }, (_, number) => number)
    .filter((number) => single(OTHER + number))
    .map((protocol): ServiceGroup => ({ protocol, ports: null }));
  return [
    ...ported("tcp", TCP),
    ...ported("udp", UDP),
    ...(single(ICMP) ? [{ protocol: "icmp", ports: null } as const] : []),
    ...others,
  ];
}
