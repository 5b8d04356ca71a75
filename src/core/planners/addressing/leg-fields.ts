import {
  formatAddress,
  formatIpv6,
  parseIpv4,
  parseIpv6,
  parseMac,
  type Ipv4,
  type Ipv6,
} from "../../address";
import type { Interface, PlanEdits } from "../../plan";
import { addressInSegment } from "../segments/segment-cell";
import type { EditContext, Refusal } from "../planner";
import { addLeg } from "./legs";
import { legAddressIn } from "./next-free";

/** What of a device's leg is written as text, beside its first IPv4 address. */
export const LEG_FIELDS = ["more4", "addresses6", "mac", "relayTo"] as const;
export type LegField = (typeof LEG_FIELDS)[number];

const MOST = 16;
const parts = (text: string): string[] => text.split(/[,;\s]+/).filter((part) => part !== "");

/** What a field of a leg says, as it is read. */
export function legFieldText(leg: Interface, field: LegField): string {
  switch (field) {
    case "more4":
      return leg.addresses4.slice(1).map(formatAddress).join(", ");
    case "addresses6":
      return leg.addresses6.map(formatIpv6).join(", ");
    case "mac":
      return leg.mac ?? "";
    case "relayTo":
      return leg.relayTo === null ? "" : formatAddress(leg.relayTo);
  }
}

function readAddresses6(text: string): Ipv6[] | string {
  const all: Ipv6[] = [];
  for (const part of parts(text)) {
    const address = parseIpv6(part.replace(/\/\d+$/, ""));
    if (address === null) return `"${part}" is not an IPv6 address such as 2001:db8:24:20::1.`;
    all.push(address);
  }
  return all.length > MOST ? `A leg has at most ${MOST} addresses; these are ${all.length}.` : all;
}

/** Further addresses of a leg, behind its first. */
function writeMore4(edits: PlanEdits, leg: Interface, text: string): Refusal {
  const [first] = leg.addresses4;
  if (first === undefined)
    return text === "" ? null : "Write its first address first; further ones come behind it.";
  const segment = leg.segment === null ? undefined : edits.get("segment", leg.segment);
  const more: Ipv4[] = [];
  for (const part of parts(text)) {
    const address = segment === undefined ? parseIpv4(part) : addressInSegment(segment, part);
    if (typeof address !== "number") return `"${part}" is not an IPv4 address such as 10.24.10.3.`;
    more.push(address);
  }
  if (more.length >= MOST) return `A leg has at most ${MOST} addresses.`;
  edits.patch("interface", leg.id, { addresses4: [first, ...more] });
  return null;
}

/** Writes a text field of a leg: further IPv4 addresses, its IPv6 ones, its MAC address, whom it relays to. */
export function writeLegField({ edits }: EditContext, id: string, field: LegField, typed: string): Refusal {
  const leg = edits.need("interface", id);
  const text = typed.trim();
  switch (field) {
    case "more4":
      return writeMore4(edits, leg, text);
    case "addresses6": {
      const addresses6 = readAddresses6(text);
      if (typeof addresses6 === "string") return addresses6;
      edits.patch("interface", id, { addresses6 });
      return null;
    }
    case "mac": {
      const mac = text === "" ? null : parseMac(text);
      if (text !== "" && mac === null) return `"${text}" is not a MAC address such as 02:5a:10:3c:00:22.`;
      edits.patch("interface", id, { mac });
      return null;
    }
    case "relayTo": {
      const relayTo = text === "" ? null : parseIpv4(text);
      if (text !== "" && relayTo === null)
        return `"${text}" is not the IPv4 address of a DHCP server such as 10.24.20.5.`;
      edits.patch("interface", id, { relayTo });
      return null;
    }
  }
}

/**
 * Lets a device be a segment's gateway: by the leg that it has there, else by a new one with the gateway's
 * address by convention, or the next free one where somebody has that.
 */
export function chooseGateway(
  { edits, index, ids }: EditContext,
  segmentId: string,
  device: string | null,
): Refusal {
  const segment = edits.need("segment", segmentId);
  if (device === null) {
    edits.patch("segment", segmentId, { gatewayInterface: null });
    return null;
  }
  const legIn = () =>
    edits.all("interface").find((leg) => leg.segment === segmentId && leg.device === device);
  if (legIn() === undefined) {
    const address = legAddressIn(index, segment);
    if (address === null)
      return `${segment.name} has no free IPv4 address for a gateway; give it a subnet first.`;
    const refusal = addLeg({ edits, ids }, device, segmentId, formatAddress(address));
    if (refusal !== null) return refusal;
  }
  edits.patch("segment", segmentId, { gatewayInterface: legIn()?.id ?? null });
  return null;
}
