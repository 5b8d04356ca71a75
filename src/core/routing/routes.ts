import { containsAddress, familyOf, PrefixTable, type Address, type Family, type Prefix } from "../address";
import { ascending } from "../kernel";
import { allLinesOf, lineFor, works, type Asks } from "./lines";
import {
  type Derived,
  type Device,
  type Interface,
  isGateway,
  type Line,
  type PlanIndex,
  type Route,
  type Segment,
} from "../plan";

/** Where a device sends what is for an address. */
export interface RouteChoice {
  readonly leg: Interface;
  /** The next router's address; null when the address lies in the leg's own segment, or behind the line. */
  readonly via: Address | null;
  /** The line it leaves by; null inside. */
  readonly line: Line | null;
  readonly how: "connected" | "entered" | "default";
  /** The route entered by hand that says so; null where none does. */
  readonly route: Route | null;
}

export const addressesOf = (leg: Interface, family: Family): readonly Address[] =>
  family === 4 ? leg.addresses4 : leg.addresses6;
/**
 * Stands for the outside address of a line that gets its own by DHCP or a login, when nobody has noted it
 * (RFC 5737).
 */
const GIVEN_OUTSIDE = 0xc00002c8 as Address;

/** The addresses of a leg, with the one that its line gives it where that is not known. */
export function facingAddresses(index: PlanIndex, leg: Interface, family: Family): readonly Address[] {
  const own = addressesOf(leg, family);
  const line = leg.line === null ? undefined : index.plan.line.get(leg.line);
  return own.length > 0 || line === undefined || line.addressing === "fixed" || family === 6
    ? own
    : [GIVEN_OUTSIDE];
}

/** Whether a device sends on what is not for itself. */
export const forwardsPackets = (device: Device): boolean =>
  isGateway(device) || device.kind === "providerBox" || device.abilities.routes;

/**
 * Whether what is for a subnet of its segment goes out by a leg: it has an address in it. A tunnel leads to its
 * far end whether or not the device has an address there.
 */
const isConnected = (leg: Interface, { tunnel }: Segment, prefix: Prefix): boolean =>
  tunnel !== null || addressesOf(leg, prefix.family).some((own) => containsAddress(prefix, own));

/** The order of the legs that could lead out: the one it asks from, one that translates, any, management. */
function rankOf(device: Device, leg: Interface, { management }: Segment): number {
  if (leg.id === device.asksFrom && !forwardsPackets(device)) return -1;
  if (leg.translates === "yes") return 0;
  return management ? 2 : 1;
}

/**
 * The way out when nothing else fits: by a line, else by the gateway that one of its segments has; what does
 * not route takes the one of the leg it asks from.
 */
function defaultRoute(
  index: PlanIndex,
  device: Device,
  family: Family,
  asks: Asks | null,
): RouteChoice | null {
  const lines = allLinesOf(index, device.id);
  if (lines.some(({ leg }) => works(index, leg))) {
    const out = lineFor(index, lines, asks, ({ leg }) => works(index, leg));
    return out === null ? null : { leg: out.leg, via: null, line: out.line, how: "default", route: null };
  }
  if (device.defaultRoute === "none") return null;
  const ways = index
    .interfacesOf(device.id)
    .filter((leg) => works(index, leg))
    .flatMap((leg) => {
      const segment = leg.segment === null ? undefined : index.plan.segment.get(leg.segment);
      const gateway = segment === undefined ? undefined : index.gatewayOf(segment);
      const via = gateway === undefined ? undefined : addressesOf(gateway, family)[0];
      return segment === undefined ||
        gateway === undefined ||
        gateway.device === device.id ||
        via === undefined
        ? []
        : [
            {
              leg,
              via,
              rank: rankOf(device, leg, segment),
            },
          ];
    })
    .sort((a, b) => a.rank - b.rank);
  const way = ways[0];
  return way === undefined ? null : { leg: way.leg, via: way.via, line: null, how: "default", route: null };
}

/** The routes entered by hand that hold an address, the one that is taken first at the front. */
const enteredFor = ({ routes }: Device, to: Address): readonly Route[] => {
  const held = routes.filter(({ prefix }) => containsAddress(prefix, to));
  return held.length < 2
    ? held
    : held.sort(
        (a, b) => b.prefix.length - a.prefix.length || a.metric - b.metric || ascending(a.via, b.via),
      );
};

/** A leg, and the length of its subnet. */
interface Connected {
  readonly leg: Interface;
  readonly length: number;
}

/** By device, the subnets that its legs have an address in, or whose tunnel they lead into. */
const CONNECTED: Derived<ReadonlyMap<string, PrefixTable<Connected>>> = {
  reads: ["interface", "segment"],
  make: ({ plan }) => {
    const tables = new Map<string, PrefixTable<Connected>>();
    for (const leg of plan.interface.values()) {
      const segment = leg.segment === null ? undefined : plan.segment.get(leg.segment);
      if (segment === undefined) continue;
      const table = tables.get(leg.device) ?? new PrefixTable<Connected>();
      tables.set(leg.device, table);
      for (const prefix of [...segment.prefixes4, ...segment.prefixes6])
        if (isConnected(leg, segment, prefix)) table.add(prefix, { leg, length: prefix.length });
    }
    return tables;
  },
};

/** The working leg in the longest own subnet that holds an address; undefined for none. */
const connectedTo = (index: PlanIndex, device: Device, to: Address): Connected | undefined =>
  index
    .derived(CONNECTED)
    .get(device.id)
    ?.holding(to)
    .find(({ leg }) => works(index, leg));

/**
 * The longest prefix that holds the address decides (RFC 1812 section 5.2.4.3): own segments, routes entered
 * by hand, then the default; null when nothing fits. Of routes for one subnet the lowest metric is taken whose
 * next hop the device has a working leg to. `asks` says whose traffic it is: of several lines the one that
 * carries it is chosen.
 */
export function routeFrom(
  index: PlanIndex,
  device: Device,
  to: Address,
  asks: Asks | null = null,
): RouteChoice | null {
  const own = connectedTo(index, device, to);
  for (const route of enteredFor(device, to)) {
    if (own !== undefined && route.prefix.length <= own.length) break;
    const leg = connectedTo(index, device, route.via)?.leg;
    if (leg !== undefined) return { leg, via: route.via, line: null, how: "entered", route };
  }
  if (own !== undefined) return { leg: own.leg, via: null, line: null, how: "connected", route: null };
  return defaultRoute(index, device, familyOf(to), asks);
}

/** Whether what leaves at a leg gets the leg's own address (NAT): IPv4 only. */
export const translatesAt = (leg: Interface): boolean =>
  leg.translates === "yes" || (leg.translates === "asUsual" && leg.line !== null);

/** Addresses that stand for the internet (RFC 5737, RFC 3849). */
export const OUTSIDE: Readonly<Record<Family, Address>> = {
  4: 0xc6336414 as Address,
  6: (0x20010db8n * 2n ** 96n + 0x64n) as Address,
};
