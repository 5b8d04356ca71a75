import { addressAt, addressCount, type Address, type Family } from "../address";
import { prefixesOf, type Interface, type Segment, type Service } from "../plan";
import { addressesOf } from "./routes";

/** The service by which a tunnel is asked for at the gateway's own address. */
export const tunnelService = ({ protocol, port }: NonNullable<Segment["tunnel"]>): Service => ({
  name: "vpn",
  protocol,
  ports: [[port, port]],
});

/** The address that somebody has at a tunnel's far end: one near the end of the tunnel's own subnet. */
export function farAddress(segment: Segment, family: Family): Address | null {
  const [prefix] = prefixesOf(segment, family);
  if (prefix === undefined) return null;
  const count = addressCount(prefix);
  return addressAt(prefix, count > 65_536n ? 65_534 : Math.max(0, Number(count) - 2));
}

/**
 * An address that stands for a segment: its router's leg's own, at the end of a tunnel in which the router has
 * none one of the far end. Null without an address of the family.
 */
export const addressIn = (segment: Segment, leg: Interface, family: Family): Address | null =>
  addressesOf(leg, family)[0] ?? (segment.tunnel === null ? null : farAddress(segment, family));
