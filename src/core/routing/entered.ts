import { familyOf, prefixOf, type Address, type Prefix, type Family } from "../address";
import { type Host, type Interface, type PlanIndex, prefixesOf, type Segment } from "../plan";
import { addressesOf } from "./routes";

/** What somebody with an address takes for its network. */
export interface Entered {
  /** What it asks for itself (ARP, neighbour discovery); anything else goes to the gateway. */
  readonly own: readonly Prefix[];
  readonly gateway: Address | null;
  /**
   * The segment's leg, whose link-local address router advertisements give; null for IPv4, and where another
   * gateway is entered.
   */
  readonly gatewayLeg: Interface | null;
}

const ownOf = ({ length4, gateway4, length6, gateway6 }: Host, family: Family) =>
  family === 4 ? ([length4, gateway4] as const) : ([length6, gateway6] as const);

/**
 * The network as a host with that address has it: what its segment says, but for the mask and the gateway
 * that are entered on a static one. Null for the host: a stranger in that segment.
 */
export function enteredOn(
  index: PlanIndex,
  host: Host | null,
  segment: Segment | null,
  address: Address,
): Entered {
  const family = familyOf(address);
  const typed = host?.manner === "typed" ? host : null;
  const [length, gateway] = typed === null ? [null, null] : ownOf(typed, family);
  const prefix = length === null ? null : prefixOf(address, length);
  const leg = segment === null ? undefined : index.gatewayOf(segment);
  const usual = leg === undefined ? undefined : addressesOf(leg, family)[0];
  const home = segment === null ? [] : prefixesOf(segment, family);
  return {
    own: prefix === null ? home : [prefix],
    gateway: gateway ?? usual ?? null,
    gatewayLeg: family === 6 && gateway === null ? (leg ?? null) : null,
  };
}
