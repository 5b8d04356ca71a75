import { containsAddress, type Address, type Prefix } from "../address";
import { judge, type DecidedBy, type FilterList, type Network } from "./filter";
import { answerTo, type Packet } from "./packet";

/**
 * What comes in at the outside address is sent on to an inside one (NAT, RFC 3022 section 2.2 turned round).
 */
export interface PortForward {
  readonly protocol: "tcp" | "udp";
  readonly ports: readonly [low: number, high: number];
  readonly toAddress: Address;
  /** null keeps the port. */ readonly toPort: number | null;
}

/** A router between networks, with its filter and its address translation. */
export interface FilteringRouter {
  readonly networks: readonly {
    readonly name: Network;
    readonly prefixes: readonly Prefix[];
    readonly addresses: readonly Address[];
  }[];
  /** Where everything else lies; null without a line. */
  readonly uplink: { readonly name: Network; readonly addresses: readonly Address[] } | null;
  readonly filter: FilterList;
  /** Networks whose source becomes the uplink's address on the way out. */
  readonly translates: readonly Network[];
  readonly forwards: readonly PortForward[];
  /** Whether the forwards hold for packets from inside, too. */
  readonly hairpin: boolean;
}

/** What became of a packet. `to` and `arrived` are where it came out and how; both null when it did not. */
export interface Outcome {
  readonly from: Network;
  readonly to: Network | "router" | null;
  /** As it came in. */
  readonly sent: Packet;
  /** As it left: addresses translated. */
  readonly arrived: Packet | null;
  readonly by: DecidedBy | "no-route";
  readonly rejected: boolean;
  readonly forward: PortForward | null;
}

const networkOf = (router: FilteringRouter, address: Address): Network | null =>
  router.networks.find(({ prefixes }) => prefixes.some((prefix) => containsAddress(prefix, address)))?.name ??
  router.uplink?.name ??
  null;

const isOwn = (router: FilteringRouter, address: Address): boolean =>
  (router.uplink?.addresses.includes(address) ?? false) ||
  router.networks.some(({ addresses }) => addresses.includes(address));

const BROADCAST = 0xffff_ffff;

/** The packet after the forwards, which come before the filter: its rules see the inside address and port. */
function forwarded(
  router: FilteringRouter,
  from: Network,
  packet: Packet,
): { packet: Packet; forward: PortForward | null } {
  const outside = router.uplink?.addresses.includes(packet.dst) ?? false;
  if (!outside || (from !== router.uplink?.name && !router.hairpin)) return { packet, forward: null };
  const { dport } = packet;
  const forward =
    dport === null
      ? undefined
      : router.forwards.find(
          ({ protocol, ports: [low, high] }) => protocol === packet.protocol && low <= dport && dport <= high,
        );
  return forward === undefined
    ? { packet, forward: null }
    : { packet: { ...packet, dst: forward.toAddress, dport: forward.toPort ?? dport }, forward };
}

/** The source as the far side sees it: translation comes after the filter. */
function translated(router: FilteringRouter, from: Network, to: Network, packet: Packet): Packet {
  const outside = router.uplink?.addresses[0];
  return to !== router.uplink?.name || outside === undefined || !router.translates.includes(from)
    ? packet
    : { ...packet, src: outside };
}

/** Sends a first packet through the router. */
export function send(router: FilteringRouter, from: Network, sent: Packet): Outcome {
  const { packet, forward } = forwarded(router, from, sent);
  const own = packet.dst === BROADCAST || isOwn(router, packet.dst);
  const to = own ? "router" : networkOf(router, packet.dst);
  if (to === null) return { from, to, sent, arrived: null, by: "no-route", rejected: false, forward };
  const { action, by } = judge(router.filter, { from, to, packet });
  if (action !== "accept")
    return { from, to: null, sent, arrived: null, by, rejected: action === "reject", forward };
  return {
    from,
    to,
    sent,
    arrived: own ? packet : translated(router, from, to, packet),
    by,
    rejected: false,
    forward,
  };
}

/**
 * The answer's way back through the same router; `by` is null where nothing filters it: what the router
 * itself says.
 */
export interface ReturnOutcome {
  readonly returns: boolean;
  readonly by: DecidedBy | null;
  /** The source as the first sender sees it. */ readonly seen: Packet | null;
}

/**
 * Sends the answer to what `passage` delivered: as a packet of its kind, or as the error "port unreachable".
 */
export function sendBack(
  router: FilteringRouter,
  passage: Outcome,
  kind: "answer" | "error" = "answer",
): ReturnOutcome {
  const { to, from, arrived, sent } = passage;
  if (to === null || arrived === null) return { returns: false, by: null, seen: null };
  const seen = answerTo(sent);
  if (to === "router") return { returns: true, by: null, seen };
  // Translated back first: the filter sees who it is really for. An error has no ports of its own.
  const inside = answerTo({ ...arrived, src: sent.src, sport: sent.sport });
  const packet: Packet =
    kind === "error" ? { ...inside, protocol: "icmp", sport: null, dport: null } : inside;
  const { action, by } = judge(router.filter, { from: to, to: from, packet, answers: true });
  return { returns: action === "accept", by, seen };
}
