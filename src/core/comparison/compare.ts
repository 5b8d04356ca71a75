import { describeChanges, type DescribedChange } from "../formats";
import { byNaturalText, byText, grouped } from "../kernel";
import { diff, nameOf, type Change, type Kind, type PlanIndex } from "../plan";

/** One thing that is otherwise: what became of it, in words. */
export interface ComparedLine {
  readonly kind: Kind;
  readonly id: string;
  readonly what: DescribedChange["what"];
  readonly name: string;
  /** "is new", "is gone", or each field with both of its values. */
  readonly words: string;
}
/** What is otherwise of one subject: a device with its ports and addresses, or all of one kind. */
export interface ComparedGroup {
  /** The device's id, or the title: two devices can have had one name. */
  readonly key: string;
  readonly title: string;
  readonly lines: readonly ComparedLine[];
}

/** What things are told under that belong to no device. */
const TITLES: Readonly<Record<Kind, string>> = {
  site: "Site",
  domain: "VLAN domains",
  zone: "Zones",
  room: "Rooms",
  hostKind: "Kinds of devices",
  deviceModel: "Models",
  leaflet: "Leaflets",
  template: "Templates",
  line: "Internet lines",
  vlan: "VLANs",
  segment: "Segments",
  device: "Gear",
  gear: "Other gear",
  deviceVlan: "Gear",
  lag: "Gear",
  port: "Gear",
  link: "Cables",
  interface: "Gear",
  ssid: "Wireless names",
  radio: "Gear",
  host: "End devices",
  scope: "DHCP",
  service: "Services",
  conduit: "Conduits",
  wall: "Walls",
  exception: "Exceptions",
  rule: "Gear",
  signIn: "Sign-in",
  forward: "Port forwards",
  wish: "Wishes",
  expectation: "Kept probes",
  acceptance: "Accepted findings",
  window: "Windows for work",
};
/** The order in which kinds are told after the devices. */
const ORDER = [...new Set(Object.values(TITLES))];

/** The device that something is a part of; null for what is a part of none. */
function deviceOf({ kind, id, before, after }: Change): string | null {
  if (kind === "device") return id;
  const entity = after ?? before;
  return entity !== null && "device" in entity && typeof entity.device === "string" ? entity.device : null;
}

const fieldsText = (fields: DescribedChange["fields"]): string =>
  fields.map(({ field, before, after }) => `${field}: ${before} became ${after}`).join("; ");
const wordsOf = ({ what, fields }: DescribedChange): string => {
  if (what === "new") return "is new";
  return what === "removed" ? "is gone" : fieldsText(fields);
};

/** What a batch did, thing by thing: what became of it, in words; names are those of the plan that is given. */
export const toldChanges = (
  index: PlanIndex,
  changes: readonly Change[],
): { readonly id: string; readonly name: string; readonly words: string }[] =>
  describeChanges(index, index, changes).map((change, at) => ({
    id: changes[at]?.id ?? "",
    name: change.name,
    words: wordsOf(change),
  }));

/** A name without that of the device that it stands under: "port 5", "leg in Staff". */
function nameUnder(title: string, name: string): string {
  if (!name.startsWith(`${title} `)) return name;
  const own = name.slice(title.length + 1);
  return own.startsWith("(") && own.endsWith(")") ? `leg in ${own.slice(1, -1)}` : own;
}

/** The device itself before its parts, and those as a person counts. */
const inGroup = (a: ComparedLine, b: ComparedLine): number =>
  Number(b.kind === "device") - Number(a.kind === "device") ||
  byNaturalText(a.name, b.name) ||
  byText(a.id, b.id);

/**
 * What a later state has otherwise than an earlier one: devices first, each with its parts, then the rest kind
 * by kind. Every field that differs is told with both of its values.
 */
export function compareStates(before: PlanIndex, after: PlanIndex): ComparedGroup[] {
  const changes = diff(before.plan, after.plan);
  const described = describeChanges(before, after, changes);
  const told = changes.flatMap((change, at) => {
    const words = described[at];
    if (words === undefined) return [];
    const device = deviceOf(change);
    const named = device !== null && after.plan.device.has(device) ? after : before;
    const title = device === null ? TITLES[change.kind] : nameOf(named, "device", device);
    const line: ComparedLine = {
      ...{ kind: change.kind, id: change.id, what: words.what },
      name: nameUnder(title, words.name),
      words: wordsOf(words),
    };
    return [{ key: device ?? "", title, line }];
  });
  const groups = grouped(told, ({ key, title }) => `${key} ${title}`);
  return [...groups.values()]
    .map((own) => ({
      isDevice: own[0]?.key !== "",
      key: own[0]?.key || (own[0]?.title ?? ""),
      title: own[0]?.title ?? "",
      lines: own.map(({ line }) => line).sort(inGroup),
    }))
    .sort(
      (a, b) =>
        Number(b.isDevice) - Number(a.isDevice) ||
        (a.isDevice ? byNaturalText(a.title, b.title) : ORDER.indexOf(a.title) - ORDER.indexOf(b.title)),
    )
    .map(({ key, title, lines }) => ({ key, title, lines }));
}

/** The first lines of what differs, with the groups that they stand in, and how many are left out. */
export function firstLines(
  groups: readonly ComparedGroup[],
  most: number,
): { readonly groups: readonly ComparedGroup[]; readonly left: number } {
  let room = most;
  const shown = groups.map((group) => {
    const lines = group.lines.slice(0, room);
    room -= lines.length;
    return { ...group, lines };
  });
  const all = groups.reduce((sum, { lines }) => sum + lines.length, 0);
  return { groups: shown.filter(({ lines }) => lines.length > 0), left: Math.max(0, all - most) };
}

/** What differs as a table, for a spreadsheet. */
export const comparedTable = (groups: readonly ComparedGroup[]): string[][] => [
  ["about", "what", "became"],
  ...groups.flatMap(({ title, lines }) => lines.map(({ name, words }) => [title, name, words])),
];
