import { byText } from "../kernel";
import type { Change } from "./change";
import { buildGroups, deriveGroups, type GroupKey, type Grouping, type Groups } from "./group";
import { planInIdOrder } from "./id-order";
import type { Plan } from "./plan";
import type { CollectionKind, EntityOf, Kind } from "./schema/kinds";

const by = <K extends CollectionKind>(kind: K, keysOf: Grouping<K>["keysOf"]): Grouping<K> => ({
  kind,
  keyOf: null,
  keysOf,
});
const present = <T>(value: T | null): T[] => (value === null ? [] : [value]);
/** By at most one key of each; null for none. */
const byOne = <K extends CollectionKind>(
  kind: K,
  keyOf: (entity: EntityOf<K>) => GroupKey | null,
): Grouping<K> => ({ kind, keyOf, keysOf: (entity) => present(keyOf(entity)) });

const GROUPINGS = {
  portsByDevice: byOne("port", (p) => p.device),
  linksByPort: by("link", (l) => [l.a, l.b]),
  interfacesByDevice: byOne("interface", (i) => i.device),
  interfacesBySegment: byOne("interface", (i) => i.segment),
  interfacesByPort: byOne("interface", (i) => i.port),
  interfacesByAddress: by("interface", (i) => [...i.addresses4, ...i.addresses6]),
  interfacesByMac: byOne("interface", (i) => i.mac),
  hostsByPort: byOne("host", (h) => (h.attachment.at === "port" ? h.attachment.port : null)),
  hostsByHost: byOne("host", (h) => (h.attachment.at === "behind" ? h.attachment.host : null)),
  hostsBySsid: byOne("host", (h) => (h.attachment.at === "ssid" ? h.attachment.ssid : null)),
  hostsBySegment: byOne("host", (h) => h.segment),
  hostsByAddress: by("host", (h) => [...present(h.ipv4), ...present(h.ipv6)]),
  hostsByMac: byOne("host", (h) => h.mac),
  scopesBySegment: byOne("scope", (s) => s.segment),
  portsByLag: byOne("port", (p) => p.lag),
  lagsByDevice: byOne("lag", (l) => l.device),
  radiosByDevice: byOne("radio", (r) => r.device),
  rulesByDevice: byOne("rule", (r) => r.device),
  deviceVlansByDevice: byOne("deviceVlan", (v) => v.device),
  leafletsByModel: byOne("leaflet", (l) => l.model),
  segmentsByVlan: byOne("segment", (s) => s.vlan),
  segmentsByZone: byOne("segment", (s) => s.zone),
  ssidsBySegment: byOne("ssid", (s) => s.segment),
  vlansByDomainAndVid: byOne("vlan", (v) => `${v.domain}/${v.vid}`),
} as const;

type GroupName = keyof typeof GROUPINGS;
type GroupsOf<N extends GroupName> = (typeof GROUPINGS)[N] extends Grouping<infer K> ? Groups<K> : never;

/**
 * A value that belongs to one plan, worked out once when first asked for: a compiled fabric, say. `follow`
 * may bring the value of an earlier plan up to date with the changes since; null when that isn't possible and
 * it has to be made anew.
 */
export interface Derived<T> {
  readonly reads: readonly Kind[];
  readonly make: (index: PlanIndex) => T;
  readonly follow?: (previous: T, index: PlanIndex, changes: readonly Change[]) => T | null;
}

/** Changes that a value hasn't followed yet: the last edit's, and those before it. */
interface Behind {
  readonly changes: readonly Change[];
  readonly before: Behind | null;
}

/** A derived value with what it hasn't followed yet; a list would be copied at each edit. */
interface Kept {
  readonly value: unknown;
  readonly behind: Behind | null;
}

/** All those changes, the oldest first. */
function changesOf(behind: Behind | null): readonly Change[] {
  const edits: (readonly Change[])[] = [];
  for (let at = behind; at !== null; at = at.before) edits.push(at.changes);
  return edits.length === 1 ? (edits[0] ?? []) : edits.reverse().flat();
}

/** VLANs by domain, then by number; the first of those that share a number. */
const VLANS: Derived<ReadonlyMap<string, ReadonlyMap<number, EntityOf<"vlan">>>> = {
  reads: ["vlan"],
  make: (index) => {
    const domains = new Map<string, Map<number, EntityOf<"vlan">>>();
    for (const vlan of index.plan.vlan.values()) {
      const numbers = domains.get(vlan.domain) ?? new Map<number, EntityOf<"vlan">>();
      if (!numbers.has(vlan.vid)) numbers.set(vlan.vid, vlan);
      domains.set(vlan.domain, numbers);
    }
    return domains;
  },
};

/** Rooms by their name in small letters: a device's place is the name of its room. */
const ROOMS: Derived<ReadonlyMap<string, EntityOf<"room">>> = {
  reads: ["room"],
  make: ({ plan }) => new Map([...plan.room.values()].map((room) => [room.name.toLowerCase(), room])),
};

/** A device's ports in printed order, by its group; a group stays the same as long as none of it changes. */
const PRINTED = new WeakMap<readonly EntityOf<"port">[], readonly EntityOf<"port">[]>();

/**
 * Look-ups over one plan. Each grouping is built when first asked for and then follows the changes. What is
 * derived from kinds that did not change is handed on to the next index.
 */
export class PlanIndex {
  readonly plan: Plan;
  /**
   * The day for which questions are asked, as 2027-06-30; null when nobody said, and what depends on it is
   * not asked then.
   */
  readonly today: string | null;
  /**
   * The minute of the week, from Monday on, at which questions are asked; null outside all hours that anything
   * is limited to.
   */
  readonly minute: number | null;
  readonly #groups: Map<GroupName, unknown>;
  readonly #derived: Map<Derived<unknown>, Kept>;
  /** What is asked for at every port and host is at hand without a look-up. */
  #vlans: ReadonlyMap<string, ReadonlyMap<number, EntityOf<"vlan">>> | null = null;

  private constructor(
    plan: Plan,
    at: { readonly today: string | null; readonly minute: number | null },
    groups: Map<GroupName, unknown>,
    derived: Map<Derived<unknown>, Kept>,
  ) {
    this.plan = plan;
    this.today = at.today;
    this.minute = at.minute;
    this.#groups = groups;
    this.#derived = derived;
  }

  static of(plan: Plan, today: string | null = null): PlanIndex {
    return new PlanIndex(planInIdOrder(plan), { today, minute: null }, new Map(), new Map());
  }

  /** The same plan at a minute of the week; what does not depend on hours is handed on. */
  atMinute(minute: number | null): PlanIndex {
    const derived = [...this.#derived].filter(([recipe]) => !recipe.reads.includes("exception"));
    return new PlanIndex(this.plan, { today: this.today, minute }, new Map(this.#groups), new Map(derived));
  }

  /** The index of the plan after `changes`; `plan` is what `applyChanges` made of them. */
  derive(plan: Plan, changes: readonly Change[]): PlanIndex {
    const changed = new Set(changes.map((change) => change.kind));
    const groups = new Map<GroupName, unknown>();
    for (const [name, value] of this.#groups) {
      const grouping = GROUPINGS[name] as Grouping<CollectionKind>;
      groups.set(
        name,
        changed.has(grouping.kind) ? deriveGroups(grouping, value as Groups<CollectionKind>, changes) : value,
      );
    }
    const derived = new Map<Derived<unknown>, Kept>();
    for (const [recipe, kept] of this.#derived) {
      const concerned = recipe.reads.some((kind) => changed.has(kind));
      if (!concerned) derived.set(recipe, kept);
      else if (recipe.follow !== undefined)
        derived.set(recipe, { value: kept.value, behind: { changes, before: kept.behind } });
    }
    return new PlanIndex(plan, { today: this.today, minute: this.minute }, groups, derived);
  }

  groups<N extends GroupName>(name: N): GroupsOf<N> {
    const known = this.#groups.get(name);
    if (known !== undefined) return known as GroupsOf<N>;
    const grouping = GROUPINGS[name] as Grouping<CollectionKind>;
    const built = buildGroups(
      grouping,
      this.plan[grouping.kind] as ReadonlyMap<string, EntityOf<CollectionKind>>,
    );
    this.#groups.set(name, built);
    return built as GroupsOf<N>;
  }

  derived<T>(recipe: Derived<T>): T {
    const kept = this.#derived.get(recipe as Derived<unknown>);
    if (kept?.behind === null) return kept.value as T;
    const followed =
      kept === undefined ? null : (recipe.follow?.(kept.value as T, this, changesOf(kept.behind)) ?? null);
    const value = followed ?? recipe.make(this);
    this.#derived.set(recipe as Derived<unknown>, { value, behind: null });
    return value;
  }

  /** A device's ports in printed order. */
  portsOf(device: string): readonly EntityOf<"port">[] {
    const ports = this.groups("portsByDevice").get(device);
    if (ports === undefined) return [];
    const known = PRINTED.get(ports);
    if (known !== undefined) return known;
    const sorted = [...ports].sort((a, b) => a.position - b.position || byText(a.id, b.id));
    PRINTED.set(ports, sorted);
    return sorted;
  }

  /** The rules that stand on a device, the first asked first. */
  rulesOf(device: string): readonly EntityOf<"rule">[] {
    const rules = this.groups("rulesByDevice").get(device) ?? [];
    return [...rules].sort((a, b) => a.place - b.place || byText(a.id, b.id));
  }

  linkAt(port: string): EntityOf<"link"> | undefined {
    return this.groups("linksByPort").get(port)?.[0];
  }

  /** The port at the other end of the cable, or undefined without a cable. */
  peerOf(port: string): EntityOf<"port"> | undefined {
    const link = this.linkAt(port);
    return link === undefined ? undefined : this.plan.port.get(link.a === port ? link.b : link.a);
  }

  interfacesOf(device: string): readonly EntityOf<"interface">[] {
    return this.groups("interfacesByDevice").get(device) ?? [];
  }

  interfacesIn(segment: string): readonly EntityOf<"interface">[] {
    return this.groups("interfacesBySegment").get(segment) ?? [];
  }

  /** Hosts plugged straight into the port, then those behind them. */
  hostsAt(port: string): readonly EntityOf<"host">[] {
    const own = this.groups("hostsByPort").get(port);
    const behind = this.groups("hostsByHost");
    if (own === undefined) return [];
    if (!own.some(({ id }) => behind.has(id))) return own;
    const found: EntityOf<"host">[] = [...own];
    for (let i = 0; i < found.length; i += 1) {
      const host = found[i];
      if (host !== undefined) found.push(...(behind.get(host.id) ?? []));
    }
    return found;
  }

  hostsIn(segment: string): readonly EntityOf<"host">[] {
    return this.groups("hostsBySegment").get(segment) ?? [];
  }

  scopesOf(segment: string): readonly EntityOf<"scope">[] {
    return this.groups("scopesBySegment").get(segment) ?? [];
  }

  /** The VLAN entity behind a number on a device of `domain`; undefined when none is defined. */
  vlanOf(domain: string | null, vid: number): EntityOf<"vlan"> | undefined {
    if (domain === null) return undefined;
    this.#vlans ??= this.derived(VLANS);
    return this.#vlans.get(domain)?.get(vid);
  }

  /** The segment that `vid` carries in `domain`, or undefined. */
  segmentOn(domain: string | null, vid: number): EntityOf<"segment"> | undefined {
    const vlan = this.vlanOf(domain, vid);
    return vlan === undefined ? undefined : this.groups("segmentsByVlan").get(vlan.id)?.[0];
  }

  /** The room of the survey that a place names, or undefined. */
  roomAt(place: string): EntityOf<"room"> | undefined {
    return place === "" ? undefined : this.derived(ROOMS).get(place.toLowerCase());
  }

  vidOf(segment: EntityOf<"segment">): number | null {
    return segment.vlan === null ? null : (this.plan.vlan.get(segment.vlan)?.vid ?? null);
  }

  gatewayOf(segment: EntityOf<"segment">): EntityOf<"interface"> | undefined {
    return segment.gatewayInterface === null ? undefined : this.plan.interface.get(segment.gatewayInterface);
  }

  /** Who has the address: interfaces and hosts of every manner. */
  holdersOf(address: number | bigint): readonly (EntityOf<"interface"> | EntityOf<"host">)[] {
    return [
      ...(this.groups("interfacesByAddress").get(address) ?? []),
      ...(this.groups("hostsByAddress").get(address) ?? []),
    ];
  }
}
