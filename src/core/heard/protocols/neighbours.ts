import { formatAddress, type Address, type Mac } from "../../address";
import { bitOf, macOf, type MacNumber, type Octets } from "../octets";
import { Contents, Rows, Senders, tagKey, type Budget, type Tagged } from "../rows";
import { namesIn } from "./labels";

export interface AdvertisedPrefix {
  readonly prefix: string;
  /** On this link. */
  readonly L: boolean;
  /** Stations make addresses of it themselves. */
  readonly A: boolean;
  readonly valid: number;
  readonly preferred: number;
}
/** What a router says of itself and of the link (RFC 4861 section 4.2). */
export interface RouterSaid extends Tagged {
  readonly mac: Mac;
  readonly address: string;
  /** Addresses, or the rest, by DHCP. */
  readonly M: boolean;
  readonly O: boolean;
  readonly preference: "low" | "medium" | "high" | "reserved";
  /** Seconds; 0 says farewell: no router any more. */
  readonly routerLifetime: number;
  readonly prefixes: readonly AdvertisedPrefix[];
  readonly rdnss: readonly { readonly servers: readonly string[]; readonly lifetime: number }[];
  readonly mtu: number | null;
  readonly searchList: readonly string[];
}
interface AsksWhetherFree extends Tagged {
  readonly mac: Mac;
  readonly address: string;
}
type Times<Content> = Content & { readonly frames: number };

export interface NeighbourFacts {
  readonly ra?: readonly Times<RouterSaid>[];
  readonly dad6?: readonly Times<AsksWhetherFree>[];
  readonly nd?: {
    readonly duplicates: readonly (Tagged & { readonly address: string; readonly macs: readonly string[] })[];
  };
}

const TYPE = { router: 134, asks: 135, answers: 136 } as const;
const OPTION = { prefix: 3, mtu: 5, dns: 25, search: 31 } as const;
/** RFC 4191 section 2.1, by the two bits. */
const PREFERENCES = ["medium", "high", "reserved", "low"] as const;
const MOST_OPTIONS = 64;

interface Told {
  readonly prefixes: AdvertisedPrefix[];
  readonly rdnss: { servers: readonly string[]; lifetime: number }[];
  mtu: number | null;
  searchList: string[];
}

function readOption(option: Octets, told: Told): void {
  const type = option.u8(0);
  if (type === OPTION.prefix && option.has(0, 32))
    told.prefixes.push({
      prefix: `${formatAddress(option.address6(16))}/${option.u8(2)}`,
      L: bitOf(option.u8(3), 7),
      A: bitOf(option.u8(3), 6),
      valid: option.u32(4),
      preferred: option.u32(8),
    });
  if (type === OPTION.mtu && option.has(0, 8)) told.mtu = option.u32(4);
  if (type === OPTION.dns && option.has(0, 24))
    told.rdnss.push({ servers: option.addresses6(8), lifetime: option.u32(4) });
  if (type === OPTION.search && option.has(0, 8)) told.searchList.push(...namesIn(option.from(8)));
}

/** Options with their lengths in eights of octets (RFC 4861 section 4.6). */
function optionsFrom(message: Octets, start: number): Told {
  const told: Told = { prefixes: [], rdnss: [], mtu: null, searchList: [] };
  for (let at = start, i = 0; message.has(at, 2) && i < MOST_OPTIONS; i += 1) {
    const length = message.u8(at + 1) * 8;
    if (length === 0) break;
    readOption(message.from(at, length), told);
    at += length;
  }
  return told;
}

/** Who has an address: those that say so, and those that ask whether they may. */
interface Owners {
  readonly tagged: Tagged;
  readonly address: string;
  readonly says: Senders;
  readonly asks: Senders;
}

/** Neighbour discovery of IPv6. */
export class NeighboursHeard {
  readonly #budget: Budget;
  readonly #routers: Contents<RouterSaid>;
  readonly #asks: Contents<AsksWhetherFree>;
  readonly #owners: Rows<Owners>;

  constructor(budget: Budget) {
    this.#budget = budget;
    this.#routers = new Contents(budget);
    this.#asks = new Contents(budget);
    this.#owners = new Rows(budget);
  }

  add(tagged: Tagged, from: MacNumber, source: Address, message: Octets): void {
    const type = message.u8(0);
    if (type === TYPE.router && message.has(0, 16)) this.#addRouter(tagged, from, source, message);
    if (!message.has(0, 24) || (type !== TYPE.asks && type !== TYPE.answers)) return;
    const address = formatAddress(message.address6(8));
    const [mac, isAsked] = [macOf(from), type === TYPE.asks];
    // Who asks with an address of its own asks for another's; who has none yet wants this one (RFC 4862 5.4).
    if (isAsked && source !== 0n) return;
    if (isAsked) this.#asks.add({ ...tagged, mac, address });
    const owners = this.#owners.at(`${tagKey(tagged)} ${address}`, () => ({
      tagged,
      address,
      says: new Senders(this.#budget),
      asks: new Senders(this.#budget),
    }));
    const side = isAsked ? owners?.asks : owners?.says;
    side?.add(from);
  }

  #addRouter(tagged: Tagged, from: MacNumber, source: Address, message: Octets): void {
    const flags = message.u8(5);
    this.#routers.add({
      ...tagged,
      mac: macOf(from),
      address: formatAddress(source),
      M: bitOf(flags, 7),
      O: bitOf(flags, 6),
      preference: PREFERENCES[Math.floor(flags / 8) % 4] ?? "medium",
      routerLifetime: message.u16(6),
      ...optionsFrom(message, 16),
    });
  }

  facts(): NeighbourFacts {
    const [ra, dad6] = [this.#routers.all(), this.#asks.all()];
    const duplicates = this.#owners.all().flatMap(({ tagged, address, says, asks }) => {
      const macs = new Set([asks, says].flatMap((side) => Object.keys(side.counts())));
      // Two that want an address, with nobody who has it, have not found each other yet: both go without.
      return macs.size > 1 ? [{ ...tagged, address, macs: [...macs] }] : [];
    });
    return {
      ...(ra.length === 0 ? {} : { ra }),
      ...(dad6.length === 0 ? {} : { dad6 }),
      ...(duplicates.length === 0 ? {} : { nd: { duplicates } }),
    };
  }
}
