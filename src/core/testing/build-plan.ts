import { must } from "../kernel";
import {
  BLANK_ZONE,
  usualFilter,
  applyChanges,
  BLANK_DEVICE,
  BLANK_HOST,
  BLANK_LINK,
  BLANK_PORT,
  BLANK_SEGMENT,
  COLLECTION_KINDS,
  CONVENTIONS,
  emptyPlan,
  NO_BASELINE,
  NO_PAPER,
  NO_RADIO_RULES,
  type CollectionKind,
  type Device,
  type EntityOf,
  type Host,
  type Interface,
  type Link,
  type Plan,
  type Port,
  type Scope,
  type Segment,
  type Site,
  type Vlan,
  type Zone,
  type Domain,
  type Change,
} from "../plan";

/**
 * A UUID made of words: the same words always give the same id, and other words another one (FNV-1a, four
 * lanes).
 */
export function testId(kind: string, name: string): string {
  const lane = (seed: number): string => {
    let hash = 2166136261 + seed * 7919;
    for (const char of `${kind}|${name}|${seed}`)
      hash = Math.imul(hash, 16777619) + (char.codePointAt(0) ?? 0) * 31;
    return (hash >= 0 ? hash % 4294967296 : (hash % 4294967296) + 4294967296)
      .toString(16)
      .padStart(8, "0")
      .slice(-8);
  };
  const digits = [1, 2, 3, 4].map(lane).join("");
  return (
    `${digits.slice(0, 8)}-${digits.slice(8, 12)}-7` +
    `${digits.slice(13, 16)}-8${digits.slice(17, 20)}-${digits.slice(20)}`
  );
}

export const aSite = (fields: Partial<Site> = {}): Site => ({
  id: testId("site", "site"),
  name: "Fennel Street Veterinary Practice",
  kind: "office",
  timeZone: "Europe/London",
  blocks: [],
  conventions: CONVENTIONS,
  radio: NO_RADIO_RULES,
  paper: NO_PAPER,
  baseline: NO_BASELINE,
  keepClear: [],
  ...fields,
});
export const aDomain = (fields: Partial<Domain> = {}): Domain => ({
  id: testId("domain", "main"),
  name: "Practice",
  ...fields,
});
export const aZone = (fields: Partial<Zone> = {}): Zone => ({
  ...BLANK_ZONE,
  id: testId("zone", "main"),
  name: "Practice",
  insideOpen: true,
  ...fields,
});
export const aVlan = (fields: Partial<Vlan> & Pick<Vlan, "vid">): Vlan => ({
  id: testId("vlan", String(fields.vid)),
  domain: testId("domain", "main"),
  name: `VLAN ${fields.vid}`,
  purpose: "segment",
  ...fields,
});
export const aSegment = (fields: Partial<Segment> & Pick<Segment, "name">): Segment => ({
  ...BLANK_SEGMENT,
  id: testId("segment", fields.name),
  zone: testId("zone", "main"),
  vlan: null,
  mark: fields.name.slice(0, 2).toUpperCase(),
  tape: { base: "blue", tracer: null },
  ...fields,
});
export const aDevice = (fields: Partial<Device> & Pick<Device, "name">): Device => ({
  ...BLANK_DEVICE,
  id: testId("device", fields.name),
  kind: "switch",
  bridging: "vlan",
  model: "24-port switch",
  domain: null,
  place: "Cabinet A",
  filter: usualFilter({ kind: fields.kind ?? "switch" }),
  ...fields,
});
export const aPort = (fields: Partial<Port> & Pick<Port, "device" | "label">): Port => ({
  ...BLANK_PORT,
  id: testId("port", `${fields.device} ${fields.label}`),
  softwareName: `e${fields.label}`,
  position: Number.parseInt(fields.label, 10) || 0,
  ...fields,
});
export const aLink = (fields: Partial<Link> & Pick<Link, "a" | "b">): Link => ({
  ...BLANK_LINK,
  id: testId("link", `${fields.a} ${fields.b}`),
  ...fields,
});
export const anInterface = (fields: Partial<Interface> & Pick<Interface, "device" | "name">): Interface => ({
  id: testId("interface", `${fields.device} ${fields.name}`),
  port: null,
  segment: null,
  line: null,
  mac: null,
  addresses4: [],
  addresses6: [],
  relayTo: null,
  translates: "asUsual",
  ...fields,
});
export const aHost = (fields: Partial<Host> & Pick<Host, "name">): Host => ({
  ...BLANK_HOST,
  id: testId("host", fields.name),
  ...fields,
});
export const aScope = (fields: Partial<Scope> & Pick<Scope, "segment">): Scope => ({
  id: testId("scope", fields.segment),
  serverDevice: null,
  serverHost: null,
  family: 4,
  pools: [],
  exclusions: [],
  leaseSeconds: 28_800,
  options: [],
  ...fields,
});

/**
 * A sound plan of the entities; the site may be given too. A reference that leads nowhere is a bug of the
 * test.
 */
export function planWith(
  entities: { [K in CollectionKind]?: readonly EntityOf<K>[] } & { site?: Site },
): Plan {
  const changes = COLLECTION_KINDS.flatMap((kind) =>
    (entities[kind] ?? []).map((after) => ({ kind, id: after.id, before: null, after }) as Change),
  );
  const built = applyChanges(emptyPlan(entities.site ?? aSite()), changes);
  return must(
    built.ok ? built.value : null,
    `the test's plan holds together: ${built.ok ? "" : JSON.stringify(built.error)}`,
  );
}
