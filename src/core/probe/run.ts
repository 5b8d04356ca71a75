import { familyOf, type Address, type Mac, type Prefix } from "../address";
import { leaseholder, visitorsWith } from "../dhcp";
import { Lately } from "../kernel";
import {
  type Host,
  type Interface,
  type Plan,
  type PlanIndex,
  type Scope,
  type Segment,
  segmentHolding,
} from "../plan";
import { FABRIC, type Fabric } from "../fabric";
import { flood, type Flood } from "../forwarding";
import { TREE, type PlanTree } from "../spanning-tree";
import type { Lease } from "./lease";
import type { Message } from "./message";
import { hears, partyOfLeg, sourceOf, type Hearing, type Party, type Place } from "../places";
import type { Limited, PortState } from "./port-state";
import { Journey } from "./step";

/** Floods of one fabric, with the trees that held ports back and the end devices that heard them. */
interface KeptFloods {
  readonly tree: PlanTree;
  readonly hosts: Plan["host"];
  readonly floods: Lately<string, Flood>;
}

/**
 * What is sent at a place goes the same way whoever asks: kept for the next questions, also of a plan that
 * differs in nothing that a frame notices: in its walls, say.
 */
const KEPT = new WeakMap<Fabric, KeptFloods>();
const MOST_KEPT = 512;

function floodsOf(index: PlanIndex): KeptFloods["floods"] {
  const [fabric, tree, hosts] = [index.derived(FABRIC), index.derived(TREE), index.plan.host];
  const known = KEPT.get(fabric);
  if (known?.tree === tree && known.hosts === hosts) return known.floods;
  const floods = new Lately<string, Flood>(MOST_KEPT);
  KEPT.set(fabric, { tree, hosts, floods });
  return floods;
}

const keptFlood = (index: PlanIndex, key: string, place: Place): Flood =>
  floodsOf(index).get(key, () => flood(index, sourceOf(place)));

/** Somebody who is plugged in for a probe, with what it knows of its network. */
export interface Guest {
  readonly party: Party;
  readonly own: readonly Prefix[];
  readonly gateway: Address | null;
  readonly gatewayLeg: Interface | null;
  readonly segment: Segment | null;
  readonly leased: boolean;
}

/**
 * Where hosts of the register really are and which address they really have, whatever the register says of
 * both.
 */
export interface Reality {
  /** Null when it is not plugged in, or its port does not let it in. */
  readonly partyOf: (run: ProbeRun, host: Host) => Party | null;
  readonly leaseOf: (run: ProbeRun, host: Host) => Lease | null;
  /** Null where its port lets everything pass. */
  readonly limitOf: (run: ProbeRun, host: Host) => Limited | null;
  /** Whether nobody's place or address is just being looked up. */
  readonly isSettled: (run: ProbeRun) => boolean;
}

/**
 * What one probe works with: the plan, the floods it has made, the steps so far, and what was said on the
 * wires.
 */
export class ProbeRun {
  readonly index: PlanIndex;
  readonly fabric: Fabric;
  /** Names what a repair would create. */
  readonly ids: () => string;
  readonly exchange: Message[];
  /** How the port let in who asks; null where that asks for no sign-in. */
  signedIn: PortState | null = null;
  readonly #floods: Map<string, Flood>;
  readonly #guests: Map<Address, Guest>;
  /** Ways that the steps have shown already. */
  readonly #shown = new Set<string>();
  /** Neighbours that are known by now: nobody asks for them twice. */
  readonly #known = new Set<string>();
  readonly #reality: Reality;
  #journey: Journey;

  constructor(
    index: PlanIndex,
    ids: () => string,
    reality: Reality,
    shared: { readonly floods: Map<string, Flood>; readonly guests: Map<Address, Guest> } = {
      floods: new Map(),
      guests: new Map(),
    },
  ) {
    this.index = index;
    this.#reality = reality;
    this.fabric = index.derived(FABRIC);
    this.ids = ids;
    this.#floods = shared.floods;
    this.exchange = [];
    this.#guests = shared.guests;
    this.#journey = new Journey();
  }

  get journey(): Journey {
    return this.#journey;
  }

  /**
   * Another run on the same plan whose steps and messages nobody sees: for a question inside the question.
   */
  aside(): ProbeRun {
    return new ProbeRun(this.index, this.ids, this.#reality, {
      floods: this.#floods,
      guests: this.#guests,
    });
  }

  /** Another run that goes on from here: what it does, this one and its other branches don't notice. */
  branch(): ProbeRun {
    const run = new ProbeRun(this.index, this.ids, this.#reality, {
      floods: new Map(this.#floods),
      guests: new Map(this.#guests),
    });
    run.signedIn = this.signedIn;
    run.exchange.push(...this.exchange);
    for (const way of this.#shown) run.#shown.add(way);
    for (const neighbour of this.#known) run.#known.add(neighbour);
    run.#journey = this.#journey.branch();
    return run;
  }

  flood(place: Place): Flood {
    const key =
      place.at === "inside"
        ? `${place.device} ${place.vid} ${place.port ?? ""}`
        : `${place.at} ${place.port} ${place.tag ?? ""} ${place.at === "cable" ? (place.host ?? "") : ""}`;
    const known = this.#floods.get(key);
    if (known !== undefined) return known;
    const made = keptFlood(this.index, key, place);
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

  /** Where a host is, once it is let in; null when it is nowhere. */
  partyOf(host: Host): Party | null {
    return this.#reality.partyOf(this, host);
  }

  /** What a host really has for an IPv4 address; null without one. */
  leaseOf(host: Host): Lease | null {
    return this.#reality.leaseOf(this, host);
  }

  /** Whether what is found now stays found: nothing that it may hang on is just being looked up. */
  get isSettled(): boolean {
    return this.#reality.isSettled(this);
  }

  /** What a host's port lets pass until it has signed in; null where that is everything. */
  limitOf(host: Host): Limited | null {
    return this.#reality.limitOf(this, host);
  }

  /** Who of another segment has an address of this scope; undefined when nobody has. */
  #visitorWith(scope: Scope, address: Address): Host | undefined {
    return visitorsWith(this.index, scope, address).find((host) => this.leaseOf(host)?.address === address);
  }

  /** Whether a host answers for an address: a static one for its own, any other for what it was given. */
  #answersFor(host: Host, address: Address): boolean {
    return host.manner === "typed" || familyOf(address) === 6 || this.leaseOf(host)?.address === address;
  }

  /** Everybody who has an address: entered, by a lease, or plugged in for this probe. */
  holders(address: Address): Party[] {
    const { index } = this;
    const guest = this.#guests.get(address)?.party;
    const entered = index.holdersOf(address).flatMap((holder): Party[] => {
      if ("device" in holder) return [partyOfLeg(index, holder) ?? []].flat();
      return this.#answersFor(holder, address) ? [this.partyOf(holder) ?? []].flat() : [];
    });
    if (entered.length > 0 || guest !== undefined) return [...entered, ...[guest ?? []].flat()];
    const family = familyOf(address);
    const segment = segmentHolding(index.plan, address);
    for (const scope of segment === null ? [] : index.scopesOf(segment.id)) {
      const host = scope.family === family ? leaseholder(index, scope, address) : undefined;
      const holder = host ?? (scope.family === family ? this.#visitorWith(scope, address) : undefined);
      if (holder !== undefined && this.#answersFor(holder, address))
        return [this.partyOf(holder) ?? []].flat();
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
