import { formatAddress, type Ipv4 } from "../address";
import type { Laptop } from "../probe";
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
}

/** Where the laptop is, in a state; null where only a console cable goes on. */
export function cardOf(state: State, stand: Stand): Card | null {
  if (stand === null) return null;
  const { port, way } = stand;
  const leg = [...state.index.holdersOf(way.to)].find((holder) => "device" in holder);
  const isLeaflet = leg !== undefined && "device" in leg && isFirstLeg(leg);
  return { port, laptop: way.laptop, opens: way.to, isLeaflet };
}

/** The address that is entered on the laptop, with its prefix length; beside what its leaflet tells. */
export const laptopText = ({ laptop, isLeaflet }: Card): string =>
  isLeaflet
    ? "a free one beside the device's first address"
    : `${formatAddress(laptop.address)}/${laptop.length}`;

/** The address that the laptop opens. */
export const opensText = ({ opens, isLeaflet }: Card): string =>
  isLeaflet ? "its first address, as its leaflet says" : formatAddress(opens);
