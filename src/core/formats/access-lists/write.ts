import { formatPrefix, type Family, type Prefix } from "../../address";
import type { Device, PlanIndex, Segment } from "../../plan";
import { FOUND_LISTS, type FilterAction, type Side } from "../../policy";
import { everyService, groupsOf, ruleListOf, type ServiceGroup, type ServiceSpan } from "../../rules";
import { filteringDevices, PLANNED_LISTS } from "../../walls";
import { EndsAsPrefixes } from "./ends";

/** A rule of an ordered list, in the words of the analysis. */
interface Listed {
  readonly from: readonly Side[];
  readonly to: readonly Side[];
  readonly services: readonly ServiceSpan[];
  readonly action: FilterAction;
  readonly log: boolean;
}

/** A list as it is written: its rules in their order, and what happens to what none takes. */
interface WrittenList {
  readonly device: Device;
  readonly name: string;
  readonly rules: readonly Listed[];
  readonly forwardDefault: FilterAction;
  readonly inputDefault: FilterAction;
  readonly segmentsOf: (network: string) => readonly Segment[];
}

type Tree = Record<string, unknown>;
interface AccessList {
  readonly name: string;
  readonly type: string;
  readonly aces: { readonly ace: readonly Tree[] };
}
/** A list's name begins with its device and says which of its lists it is, in 64 characters. */
export const listName = (device: Device, which: "needed" | "standing"): string =>
  `${device.name.slice(0, 46)}, ${which}`;
const MODULE = "ietf-access-control-list";
const MOST_ENTRIES = 20_000;
const thousands = (count: number): string => count.toLocaleString("en-GB");

const actions = (action: FilterAction, log = false): Tree => ({
  forwarding: `${MODULE}:${action}`,
  ...(log ? { logging: `${MODULE}:log-syslog` } : {}),
});

/** What a group of services matches, a piece for each range of ports. */
function serviceMatches({ protocol, ports }: ServiceGroup, family: Family): { number: number; more: Tree }[] {
  if (typeof protocol === "number") return [{ number: protocol, more: {} }];
  if (protocol === "icmp") return [{ number: family === 4 ? 1 : 58, more: {} }];
  const number = protocol === "tcp" ? 6 : 17;
  const all = ports === null || (ports[0]?.[0] === 0 && ports[0][1] === 65_535);
  if (all) return [{ number, more: {} }];
  return ports.map(([low, high]) => ({
    number,
    more: {
      [protocol]: {
        "destination-port":
          low === high ? { operator: "eq", port: low } : { "lower-port": low, "upper-port": high },
      },
    },
  }));
}

/** What a rule's services match in a family; one piece without anything for all of them. */
function servicesIn(
  services: readonly ServiceSpan[],
  family: Family,
): { number: number | null; more: Tree }[] {
  const every = everyService(family);
  const common = every.flatMap((whole) =>
    services.flatMap(({ first, last }) =>
      first <= whole.last && last >= whole.first
        ? [{ first: Math.max(first, whole.first), last: Math.min(last, whole.last) }]
        : [],
    ),
  );
  const size = (spans: readonly ServiceSpan[]) =>
    spans.reduce((sum, { first, last }) => sum + last - first + 1, 0);
  if (size(common) === size(every)) return [{ number: null, more: {} }];
  return groupsOf(common).flatMap((group) => serviceMatches(group, family));
}

function header(
  family: Family,
  [from, to]: readonly [Prefix | null, Prefix | null],
  number: number | null,
): Tree {
  const fields = {
    ...(number === null ? {} : { protocol: number }),
    ...(from === null ? {} : { [`source-ipv${family}-network`]: formatPrefix(from) }),
    ...(to === null ? {} : { [`destination-ipv${family}-network`]: formatPrefix(to) }),
  };
  return Object.keys(fields).length === 0 ? {} : { [`ipv${family}`]: fields };
}

/** The entries of one rule: every sender with every receiver by every piece of its services. */
function entriesOf(
  rule: Listed,
  number: number,
  { ends, family }: { ends: EndsAsPrefixes; family: Family },
): Tree[] {
  const services = servicesIn(rule.services, family);
  const [from, to] = [rule.from, rule.to].map((sides) => sides.flatMap((side) => ends.of(side)));
  const all = (from ?? []).flatMap((source) =>
    (to ?? []).flatMap((target) =>
      services.map((service) => ({
        matches: { ...header(family, [source, target], service.number), ...service.more },
        actions: actions(rule.action, rule.log),
      })),
    ),
  );
  return all.map((entry, at) => ({ name: all.length === 1 ? `${number}` : `${number}.${at + 1}`, ...entry }));
}

/**
 * What no list may stop (RFC 4890 sections 4.3 and 4.4): errors of ICMPv6, and the discovery of neighbours and
 * routers.
 */
export const NEVER_STOPPED = [1, 2, 3, 4, 133, 134, 135, 136] as const;
const survivors = (): Tree[] =>
  NEVER_STOPPED.map((type) => ({
    name: `RFC 4890 type ${type}`,
    matches: { ipv6: { protocol: 58 }, icmp: { type } },
    actions: actions("accept"),
  }));

const ANY: Side = { network: "any", prefixes: null };
const OWN: Side = { network: "router", prefixes: null };

/**
 * A list as an access list of one family. An access list takes the device's own addresses for addresses like
 * any others: what is for the device itself comes first and is closed before what passes through it.
 */
function accessList(index: PlanIndex, list: WrittenList, family: Family): AccessList | null {
  const ends = new EndsAsPrefixes(index, list.device, family, list.segmentsOf);
  if (!ends.hasPlanned) return null;
  const every = everyService(family);
  const towards = (isOwn: boolean) =>
    list.rules.flatMap((rule, at) => {
      const to = rule.to.filter(({ network }) => (network === "router") === isOwn);
      return to.length === 0 ? [] : entriesOf({ ...rule, to }, at + 1, { ends, family });
    });
  const closing = (to: Side, action: FilterAction, number: number) =>
    entriesOf({ from: [ANY], to: [to], services: every, action, log: false }, number, { ends, family });
  const last = list.rules.length + 1;
  const input = towards(true).map((entry) => ({ ...entry, name: `own ${String(entry.name)}` }));
  return {
    name: `${list.name}, IPv${family}`,
    type: `${MODULE}:ipv${family}-acl-type`,
    aces: {
      ace: [
        ...(family === 6 ? survivors() : []),
        ...input,
        ...closing(OWN, list.inputDefault, last).map((entry) => ({
          ...entry,
          name: `own ${String(entry.name)}`,
        })),
        ...towards(false),
        ...closing(ANY, list.forwardDefault, last),
      ],
    },
  };
}

/** The lists of a device that filters: the one its walls need, and the one that stands on it. */
function writtenLists(index: PlanIndex, device: Device): WrittenList[] {
  const segment = (id: string) => index.plan.segment.get(id) ?? [];
  const planned = index.derived(PLANNED_LISTS).get(device.id);
  const found = index.derived(FOUND_LISTS).get(device.id);
  return [
    ...(planned === undefined
      ? []
      : [
          {
            device,
            name: listName(device, "needed"),
            rules: planned.rules.map((rule) => ({ ...rule, log: false })),
            forwardDefault: "drop" as const,
            inputDefault: "drop" as const,
            segmentsOf: (network: string) => (planned.universe.members.get(network) ?? []).flatMap(segment),
          },
        ]),
    ...(found === undefined
      ? []
      : [
          {
            device,
            name: listName(device, "standing"),
            ...ruleListOf(found),
            rules: ruleListOf(found).rules.map((rule, at) => ({
              ...rule,
              log: found.rules[at]?.rule.log ?? false,
            })),
            segmentsOf: (zone: string) => index.groups("segmentsByZone").get(zone) ?? [],
          },
        ]),
  ];
}

/** Access lists as YANG data in JSON (RFC 8519, RFC 7951); a sentence where one would be too long. */
function listsText(
  index: PlanIndex,
  lists: readonly WrittenList[],
): { readonly text: string } | { readonly refusal: string } {
  const acl = lists.flatMap((list) =>
    ([4, 6] as const).flatMap((family) => accessList(index, list, family) ?? []),
  );
  const long = acl.find(({ aces }) => aces.ace.length > MOST_ENTRIES);
  if (long !== undefined)
    return {
      refusal:
        `The list ${long.name} would have ${thousands(long.aces.ace.length)} entries, since an access ` +
        `list names subnets one by one; ${thousands(MOST_ENTRIES)} can be written. ` +
        "Take the table of rules instead.",
    };
  return { text: `${JSON.stringify({ [`${MODULE}:acls`]: { acl } }, null, 2)}\n` };
}

/**
 * The list that a device filters by, as `accessListText` writes it: the rules that stand on it, or those that
 * its walls need where none do. No list on a device that does not filter.
 */
export function deviceAccessListText(index: PlanIndex, device: Device): ReturnType<typeof listsText> {
  const isFiltering = filteringDevices(index).some(({ id }) => id === device.id);
  return listsText(index, isFiltering ? writtenLists(index, device).slice(-1) : []);
}

/**
 * All rule lists as YANG data in JSON (RFC 8519, RFC 7951), IPv4 and IPv6 apart. Answers to what was let
 * through pass by the device's own memory, which an access list can't say; rules that hold in some hours only
 * are not in it. A sentence where it would be too long.
 */
export const accessListText = (index: PlanIndex): ReturnType<typeof listsText> =>
  listsText(
    index,
    filteringDevices(index).flatMap((device) => writtenLists(index, device)),
  );
