import type { Address } from "../address";
import type { Message } from "../probe";
import { segmentHolding, type Host, type PlanIndex } from "../plan";
import { portOfHost } from "../places";
import { CLASS_FACTS, type Marks, type Packet } from "../policy";

/** What a device marks its own packets with: phones say that they are voice, others nothing. */
const ownMarks = ({ kind }: Host): Marks => CLASS_FACTS[kind === "phone" ? "voice" : "bestEffort"];

/** Whether a cable ends at a port: that port's own, or that of its peer. */
const isCableOf = (index: PlanIndex, port: string, seenAt: string): boolean =>
  port === seenAt || index.peerOf(port)?.id === seenAt;

/** Who sends from an address in an exchange: the device with the MAC address that its first packet bears. */
export type Senders = ReadonlyMap<Address, Host>;
export function sendersIn(index: PlanIndex, exchange: readonly Message[]): Senders {
  const senders = new Map<Address, Host>();
  for (const { from, content } of exchange) {
    const [host] = content.kind === "packet" ? (index.groups("hostsByMac").get(from) ?? []) : [];
    if (content.kind === "packet" && host !== undefined) senders.set(content.packet.src, host);
  }
  return senders;
}

/**
 * The marks that a packet bears on the cable of a port. On its sender's own cable they are the sender's; behind
 * it they are kept where that port keeps marks, and are those of the segment's class where it does not.
 */
export function marksAt(
  index: PlanIndex,
  { src, dst }: Pick<Packet, "src" | "dst">,
  senders: Senders,
  seenAt: string,
): Marks {
  const sender = senders.get(src);
  const port = sender === undefined ? null : portOfHost(index, sender);
  if (sender !== undefined && port !== null) {
    const isKept = index.plan.port.get(port)?.guards.trustsMarks === true;
    if (isKept || isCableOf(index, port, seenAt)) return ownMarks(sender);
  }
  const segment = segmentHolding(index.plan, src) ?? segmentHolding(index.plan, dst);
  return CLASS_FACTS[segment?.trafficClass ?? "bestEffort"];
}
