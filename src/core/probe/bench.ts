import { containsAddress, familyOf, type Address, type Mac, type Prefix } from "../address";
import { leaseholder } from "../dhcp";
import type { Interface, PlanIndex, Segment } from "../plan";
import { prefixesOf } from "../routing";
import { FABRIC, flood, type Fabric, type Flood } from "../switching";
import type { Message } from "./message";
import { hears, partyOfHost, partyOfLeg, sourceOf, type Hearing, type Party, type Place } from "./place";
import { Journey } from "./step";

/** Somebody who is plugged in for a probe, with what it knows of its network. */
export interface Guest { readonly party: Party; readonly own: readonly Prefix[]; readonly gateway: Address | null; readonly gatewayLeg: Interface | null; readonly segment: Segment | null; readonly leased: boolean }

/** What one probe works with: the plan, the floods it has made, the steps so far, and what was said on the wires. */
export class ProbeBench {
  readonly index: PlanIndex;
  readonly fabric: Fabric;
  /** Names what a repair would create. */
  readonly ids: () => string;
  readonly exchange: Message[];
  readonly #floods: Map<string, Flood>;
  readonly #guests: Map<Address, Guest>;
  /** Ways that the steps have shown already. */
  readonly #shown = new Set<string>();
  /** Neighbours that are known by now: nobody asks for them twice. */
  readonly #known = new Set<string>();
  #journey: Journey;

  constructor(index: PlanIndex, ids: () => string, floods = new Map<string, Flood>(), exchange: Message[] = [], guests = new Map<Address, Guest>()) {
    this.index = index;
    this.fabric = index.derived(FABRIC);
    this.ids = ids;
    this.#floods = floods;
    this.exchange = exchange;
    this.#guests = guests;
    this.#journey = new Journey();
  }

  get journey(): Journey {
    return this.#journey;
  }

  /** Another bench on the same plan whose steps and messages nobody sees: for a question inside the question. */
  aside(): ProbeBench {
    return new ProbeBench(this.index, this.ids, this.#floods, [], this.#guests);
  }

  flood(place: Place): Flood {
    const key = place.at === "inside" ? `${place.device} ${place.vid} ${place.port ?? ""}` : `${place.at} ${place.port} ${place.tag ?? ""} ${place.at === "cable" ? (place.host ?? "") : ""}`;
    const known = this.#floods.get(key);
    if (known !== undefined) return known;
    const made = flood(this.index, sourceOf(place));
    this.#floods.set(key, made);
    return made;
  }

  /** Whether what is sent at one place to all comes to another, and how. */
  hears(from: Place, to: Place): Hearing | null {
    return hears(this.fabric, this.flood(from), to);
  }

  /** Someone who is in no register has this address now. */
  welcome(address: Address, guest: Guest): void {
    this.#guests.set(address, guest);
  }

  /** What servers have given to those who are plugged in for this probe, by MAC address. */
  guestLeases(): Map<Mac, Address> {
    return new Map([...this.#guests].map(([address, { party }]) => [party.mac, address]));
  }

  /** What somebody who is in no register knows of its network, by its address. */
  guest(address: Address): Guest | undefined {
    return this.#guests.get(address);
  }

  /** Everybody who has an address: by the register, by a lease, or plugged in for this probe. */
  holders(address: Address): Party[] {
    const { index } = this;
    const guest = this.#guests.get(address)?.party;
    const entered = index.holdersOf(address).flatMap((holder) => ("device" in holder ? partyOfLeg(index, holder) : partyOfHost(index, holder)) ?? []);
    if (entered.length > 0 || guest !== undefined) return [...entered, ...[guest ?? []].flat()];
    const family = familyOf(address);
    const segment = [...index.plan.segment.values()].find((one) => prefixesOf(one, family).some((prefix) => containsAddress(prefix, address)));
    for (const scope of segment === undefined ? [] : index.scopesOf(segment.id)) {
      const host = scope.family === family ? leaseholder(index, scope, address) : undefined;
      if (host !== undefined) return [partyOfHost(index, host) ?? []].flat();
    }
    return [];
  }

  /** Whether someone asks for an address for the first time; from now on it is known to them. */
  asksFirst(by: Party, address: Address): boolean {
    const key = `${by.mac} ${String(address)}`;
    const isNew = !this.#known.has(key);
    this.#known.add(key);
    return isNew;
  }

  /** Whether a way is new to the steps; from now on it is not. */
  showsFirst(flood: Flood, { arrival, emission }: Hearing): boolean {
    const [first] = flood.arrivals;
    const key = `${first?.device ?? ""} ${first?.port ?? ""} ${first?.vid ?? ""} ${arrival} ${emission}`;
    const isNew = !this.#shown.has(key);
    this.#shown.add(key);
    return isNew;
  }

  say(message: Message): void {
    this.exchange.push(message);
  }
}
