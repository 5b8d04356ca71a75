import { formatAddress, formatPrefix, prefixOf, type Ipv4 } from "../address";
import { leaseAt, type Laptop } from "../probe";
import { firstAddressOf, type FirstAddress } from "../plan";
import { isFirstLeg } from "./found";
import type { Stand } from "./order";
import type { State } from "./states";

/** Where the laptop is plugged in for a step, what is entered on it, and what it opens. */
export interface Card {
  readonly port: string;
  readonly laptop: Laptop;
  readonly opens: Ipv4;
  /** Whether what it opens is the device's first address, which its leaflet tells. */
  readonly isLeaflet: boolean;
  /** Whether the device itself gives the laptop an address there, as it is then. */
  readonly isGiven: boolean;
  /** That address, where somebody has read it or found it; null otherwise, and where it is another. */
  readonly first: FirstAddress | null;
}

/** Where the laptop is, in a state; null where only a console cable goes on. */
export function cardOf(state: State, stand: Stand): Card | null {
  if (stand === null) return null;
  const { port, way } = stand;
  const leg = [...state.index.holdersOf(way.to)].find((holder) => "device" in holder);
  const isLeaflet = leg !== undefined && "device" in leg && isFirstLeg(leg);
  const device = isLeaflet ? state.index.plan.device.get(leg.device) : undefined;
  const first = device === undefined ? null : firstAddressOf(state.index, device);
  const given = device === undefined || first?.gives !== true ? null : leaseAt(state.index, port);
  const isGiven = isLeaflet && given?.segment === leg.segment && given.server === device?.name;
  return { port, laptop: way.laptop, opens: way.to, isLeaflet, isGiven, first };
}

/** What the laptop has beside a first address. */
function besideFirst({ address, length }: FirstAddress): string {
  const prefix = length === null ? null : prefixOf(address, length);
  return prefix === null
    ? `a free one beside ${formatAddress(address)}`
    : `a free one in ${formatPrefix(prefix)}`;
}

/** The address that is entered on the laptop, with its prefix length; beside what its leaflet tells. */
export function laptopText({ laptop, isLeaflet, isGiven, first }: Card): string {
  if (!isLeaflet) return `${formatAddress(laptop.address)}/${laptop.length}`;
  if (first === null) return "a free one beside the device's first address";
  return isGiven ? `one by DHCP from the device, or ${besideFirst(first)}` : besideFirst(first);
}

/** The address that the laptop opens. */
export function opensText({ opens, isLeaflet, first }: Card): string {
  if (!isLeaflet) return formatAddress(opens);
  return first === null
    ? "its first address, as its leaflet says"
    : `${formatAddress(first.address)}, its first address`;
}
