import { madeMac, type Address, type Mac } from "../address";
import { byNaturalText } from "../kernel";
import type { Host, PlanIndex, Scope } from "../plan";
import { freeAddresses, offerTo, type Leases } from "./scope-room";

const KNOWN = new WeakMap<PlanIndex, Map<string, ReadonlyMap<string, Address>>>();

/**
 * Which address each host of the register that asks for one holds when all of them have asked, by name: by
 * host id. Those that the pool has none left for are missing.
 */
export function leasedTo(index: PlanIndex, scope: Scope): ReadonlyMap<string, Address> {
  const ofIndex = KNOWN.get(index) ?? new Map<string, ReadonlyMap<string, Address>>();
  KNOWN.set(index, ofIndex);
  const known = ofIndex.get(scope.id);
  if (known !== undefined) return known;
  const given = new Map<string, Address>();
  const asking = index
    .hostsIn(scope.segment)
    .filter((host) => host.manner !== "typed")
    .sort((a, b) => byNaturalText(a.name, b.name));
  const free = freeAddresses(index, scope);
  for (const host of asking) {
    const reserved =
      host.manner === "reserved" && host.mac !== null ? offerTo(index, scope, { mac: host.mac }) : null;
    // A reservation whose MAC address is still to be read on site holds as it is planned.
    const planned = host.manner === "reserved" && host.mac === null ? host.ipv4 : null;
    const address = planned ?? (reserved?.reserved === true ? reserved.address : free.next().value);
    if (address !== undefined) given.set(host.id, address);
  }
  ofIndex.set(scope.id, given);
  return given;
}

interface Visiting {
  readonly free: readonly Address[];
  /** By name: everybody of another segment who asks for an address. */ readonly hosts: readonly Host[];
  readonly place: ReadonlyMap<string, number>;
}
const VISITING = new WeakMap<PlanIndex, Map<string, Visiting>>();

function visitingOf(index: PlanIndex, scope: Scope): Visiting {
  const ofIndex = VISITING.get(index) ?? new Map<string, Visiting>();
  VISITING.set(index, ofIndex);
  const known = ofIndex.get(scope.id);
  if (known !== undefined) return known;
  const taken = new Set(leasedTo(index, scope).values());
  const hosts = [...index.plan.host.values()]
    .filter((host) => host.manner !== "typed" && host.segment !== scope.segment)
    .sort((a, b) => byNaturalText(a.name, b.name) || (a.id < b.id ? -1 : 1));
  const made = {
    free: [...freeAddresses(index, scope)].filter((address) => !taken.has(address)),
    hosts,
    place: new Map(hosts.map(({ id }, i) => [id, i])),
  };
  ofIndex.set(scope.id, made);
  return made;
}

/**
 * The address that a scope gives to a host of another segment that asks it all the same: plugged in
 * elsewhere, or put into another VLAN by its sign-in. By its place among all who might, by name, so that two
 * of them get two addresses; null when those of the segment have taken all.
 */
export function visitorAddress(index: PlanIndex, scope: Scope, host: Host): Address | null {
  const { free, place } = visitingOf(index, scope);
  return free[(place.get(host.id) ?? 0) % Math.max(1, free.length)] ?? null;
}

/** The hosts of other segments that would have this address if they asked this scope. */
export function visitorsWith(index: PlanIndex, scope: Scope, address: Address): Host[] {
  const { free, hosts } = visitingOf(index, scope);
  const at = free.indexOf(address);
  return at < 0 ? [] : hosts.filter((_, i) => i % free.length === at);
}

/** Who of the register holds an address by a lease of a scope, or undefined. */
export function leaseholder(index: PlanIndex, scope: Scope, address: Address): Host | undefined {
  for (const [id, held] of leasedTo(index, scope)) if (held === address) return index.plan.host.get(id);
  return undefined;
}

const LEASES = new WeakMap<ReturnType<typeof leasedTo>, Leases>();

/** What all leases of a scope are, by MAC address, as its server knows them. */
export function leasesOf(index: PlanIndex, scope: Scope): Leases {
  const given = leasedTo(index, scope);
  const known =
    LEASES.get(given) ??
    new Map(
      [...given].flatMap(([id, address]): [Mac, Address][] => {
        const host = index.plan.host.get(id);
        return host === undefined || host.manner !== "dynamic" ? [] : [[host.mac ?? madeMac(id), address]];
      }),
    );
  LEASES.set(given, known);
  return known;
}
