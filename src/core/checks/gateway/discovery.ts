import { byNaturalText, byText, grouped } from "../../kernel";
import {
  nameOf,
  type Derived,
  type Device,
  type Host,
  type PlanIndex,
  type Purpose,
  type Service,
} from "../../plan";
import { forwardsPackets } from "../../routing";
import { counted, listed, type Repair } from "../../repairs";
import { check, type Found } from "../check";

interface RepeatData {
  readonly device: string;
  readonly segments: readonly string[];
}

const names = (index: PlanIndex, segments: readonly string[]): string =>
  listed(segments.map((id) => nameOf(index, "segment", id)).sort(byNaturalText));

const without = (index: PlanIndex, { device, segments }: RepeatData): Repair => ({
  label: `Tell nothing between ${names(index, segments)} and others on ${nameOf(index, "device", device)}`,
  planner: "set-device",
  args: { device, without: segments },
  edit: (edits) => {
    const { repeatsDiscovery } = edits.need("device", device);
    edits.patch("device", device, {
      repeatsDiscovery: repeatsDiscovery.filter((id) => !segments.includes(id)),
    });
  },
});

const perDevice = (index: PlanIndex, of: (device: Device) => readonly string[]): Found<RepeatData>[] =>
  [...index.plan.device.values()].flatMap((device) => {
    const segments = device.repeatsDiscovery.length === 0 ? [] : of(device);
    return segments.length === 0
      ? []
      : [{ subjects: [{ kind: "device" as const, id: device.id }], data: { device: device.id, segments } }];
  });

export const discoveryWithoutLeg = check<RepeatData>({
  code: "discovery-without-leg",
  severity: "stop",
  family: "gateway",
  title: "A device tells of a segment in which it is not",
  why: "What announces itself by multicast is heard inside its own segment only (RFC 6762 section 11).",
  reads: ["device", "interface", "segment"],
  find: (index) =>
    perDevice(index, ({ id, repeatsDiscovery }) => {
      const own = new Set(index.interfacesOf(id).map(({ segment }) => segment));
      const outside = repeatsDiscovery.filter((segment) => !own.has(segment));
      return outside.length > 0 || repeatsDiscovery.length > 1 ? outside : repeatsDiscovery;
    }),
  describe: ({ device, segments }, index) =>
    segments.length === 1 && index.interfacesOf(device).some(({ segment }) => segment === segments[0])
      ? `${nameOf(index, "device", device)} tells what there is in ${names(index, segments)} to nobody else.`
      : `${nameOf(index, "device", device)} shall tell what there is in ${names(index, segments)}, ` +
        "where it has no leg.",
  repairs: (data, index) => [without(index, data)],
});

/** Whose neighbours shall not be told what there is. */
const STRANGERS: readonly Purpose[] = ["guests", "vendor", "cards", "cell", "safety", "management"];

export const discoveryToStrangers = check<RepeatData>({
  code: "discovery-to-strangers",
  severity: "warn",
  family: "gateway",
  title: "Visitors, vendors or machines are told what there is elsewhere",
  why:
    "What is repeated names every device with its services: a list for whoever wants to try them, " +
    "and noise where machines are controlled.",
  reads: ["device", "segment"],
  find: (index) =>
    perDevice(index, ({ repeatsDiscovery }) =>
      repeatsDiscovery.filter((id) => STRANGERS.includes(index.plan.segment.get(id)?.purpose ?? "other")),
    ),
  describe: ({ device, segments }, index) =>
    `${nameOf(index, "device", device)} tells ${names(index, segments)} what there is in other segments.`,
  repairs: (data, index) => [without(index, data)],
});

/** What is found by announcing itself, and the services by which it is then used (RFC 6763). */
const OFFERED: Readonly<Partial<Record<Host["kind"], readonly string[]>>> = {
  printer: ["print"],
  scanner: ["print"],
  television: ["https", "http"],
};

/** What announces itself, by segment: of a large site's devices few do, and most edits leave them alone. */
const ANNOUNCING: Derived<ReadonlyMap<string | null, readonly Host[]>> = {
  reads: ["host"],
  make: ({ plan }) =>
    grouped(
      [...plan.host.values()].filter(({ kind }) => OFFERED[kind] !== undefined),
      ({ segment }) => segment,
    ),
};

const isMdns = ({ protocol, ports }: Service): boolean =>
  protocol === "udp" && ports.some(([low, high]) => low <= 5353 && high >= 5353);

interface Hidden {
  /** Who may use it and does not find it. */
  readonly from: readonly string[];
  readonly to: string;
  readonly hosts: readonly string[];
  /** Whether a door for multicast DNS is there, which lets nothing through by itself. */
  readonly isDoor: boolean;
}
interface HiddenData extends Hidden {
  /** The router that could tell them; null where none has a leg in all of them. */
  readonly device: string | null;
}

/** What the few devices that tell of segments tell of. */
const toldOf = ({ plan }: PlanIndex): readonly (readonly string[])[] =>
  [...plan.device.values()].flatMap(({ repeatsDiscovery }) =>
    repeatsDiscovery.length === 0 ? [] : [repeatsDiscovery],
  );

/** The router with a leg in all of some segments, the first by name. */
function between(index: PlanIndex, segments: readonly string[]): string | null {
  const [router] = [...index.plan.device.values()]
    .filter((device) => {
      const own = new Set(index.interfacesOf(device.id).map(({ segment }) => segment));
      return forwardsPackets(device) && segments.every((segment) => own.has(segment));
    })
    .sort((a, b) => byNaturalText(a.name, b.name) || byNaturalText(a.id, b.id));
  return router?.id ?? null;
}

/** What passes from zone to zone; services are null for everything. */
interface Door {
  readonly from: string;
  readonly to: string;
  readonly services: readonly Service[] | null;
}

function* doorsOf({ plan }: PlanIndex): Generator<Door> {
  for (const { from, to, door, services } of plan.wall.values())
    if (from.at === "zone" && to.at === "zone" && door !== "closed")
      yield { from: from.zone, to: to.zone, services: door === "open" ? null : services };
  for (const { id, insideOpen } of plan.zone.values())
    if (insideOpen) yield { from: id, to: id, services: null };
}

/** Whether a host announces what a door lets others use. */
function isOfferedBy({ services }: Door, { kind }: Host): boolean {
  const offers = OFFERED[kind];
  return (
    offers !== undefined &&
    (services === null || services.some((service) => isMdns(service) || offers.includes(service.name)))
  );
}

/** What each segment that hides something hides, and from whom. */
function hiddenIn(index: PlanIndex): HiddenData[] {
  const segments = index.groups("segmentsByZone");
  const found = new Map<string, Hidden>();
  const announcing = index.derived(ANNOUNCING);
  const told = toldOf(index);
  const isTold = (from: string, to: string) =>
    told.some((segments) => segments.includes(from) && segments.includes(to));
  for (const door of doorsOf(index))
    for (const to of segments.get(door.to) ?? []) {
      if (STRANGERS.includes(to.purpose)) continue;
      const hosts = (announcing.get(to.id) ?? []).filter((host) => isOfferedBy(door, host));
      const from = (hosts.length === 0 ? [] : (segments.get(door.from) ?? [])).filter(
        ({ id, purpose }) => id !== to.id && purpose === "people" && !isTold(id, to.id),
      );
      if (from.length === 0) continue;
      found.set(
        to.id,
        joined(found.get(to.id) ?? { from: [], to: to.id, hosts: [], isDoor: false }, {
          from: ids(from),
          hosts: ids(hosts),
          isDoor: door.services?.some(isMdns) ?? false,
        }),
      );
    }
  return [...found.values()].map((data) => ({ ...data, device: between(index, [...data.from, data.to]) }));
}

const ids = (all: readonly { readonly id: string }[]): string[] => all.map(({ id }) => id);

/** What is hidden in a segment, with what one more door adds. */
const joined = (known: Hidden, more: Omit<Hidden, "to">): Hidden => ({
  from: [...new Set([...known.from, ...more.from])].sort(byText),
  to: known.to,
  hosts: [...new Set([...known.hosts, ...more.hosts])].sort(byText),
  isDoor: known.isDoor || more.isDoor,
});

export const foundByAddressOnly = check<HiddenData>({
  code: "found-by-address-only",
  severity: "note",
  family: "gateway",
  title: "A printer or television may be used from another segment, and nobody there finds it",
  why:
    "Devices announce themselves by multicast DNS, which no router passes on (RFC 6762 section 11): " +
    "a door lets packets through to those who know the address.",
  reads: ["wall", "zone", "segment", "host", "device", "interface"],
  find: (index) =>
    hiddenIn(index).map((data): Found<HiddenData> => ({
      subjects: [{ kind: "segment", id: data.to }],
      data,
    })),
  describe: ({ from, to, hosts, isDoor }, index) => {
    const [first] = hosts;
    const what =
      hosts.length === 1 && first !== undefined
        ? nameOf(index, "host", first)
        : `${counted(hosts.length, "device", "devices")} there`;
    const why = isDoor
      ? "the door for mdns lets no multicast through"
      : "nothing tells one segment what there is in the other";
    return (
      `${names(index, from)} may use ${what} in ${nameOf(index, "segment", to)} and ` +
      `${from.length === 1 ? "has" : "have"} to be told the address: ${why}.`
    );
  },
  repairs: ({ from, to, device }, index) =>
    device === null
      ? []
      : [
          {
            label:
              `Let ${nameOf(index, "device", device)} tell ${names(index, [...from, to])} ` +
              "what there is in the others",
            planner: "set-device",
            args: { device, segments: [...from, to] },
            edit: (edits) => {
              const { repeatsDiscovery } = edits.need("device", device);
              edits.patch("device", device, {
                repeatsDiscovery: [...new Set([...repeatsDiscovery, ...from, to])],
              });
            },
          },
        ],
});
