import {
  containsAddress,
  formatAddress,
  inRange,
  isGroup,
  parseAddress,
  parseMac,
  usableRange,
  type Address,
  type Ipv4,
  type Mac,
} from "../address";
import { byText } from "../kernel";
import { BLANK_HOST, type PlanEdits, type Host, type Interface, type PlanIndex, type Segment } from "../plan";
import { asLabel, type IdSource } from "../planners";

/** What a column of a device's own table holds. */
export const SEEN_FIELDS = ["mac", "address", "name", "vid", "port"] as const;
export type SeenField = (typeof SEEN_FIELDS)[number];
export const SEEN_WORDS: Readonly<Record<SeenField, string>> = {
  mac: "MAC",
  address: "Address",
  name: "Name",
  vid: "VLAN ID",
  port: "Port",
};

export interface SeenTable {
  readonly rows: readonly (readonly string[])[];
  readonly fields: readonly (SeenField | null)[];
}

/** A line as its columns: by tabs, commas or semicolons where it has them, else by runs of blanks. */
const cut = (line: string, by: RegExp): string[] =>
  line
    .trim()
    .split(by)
    .map((cell) => cell.trim().replace(/^"|"$/g, ""));

/** Splits a pasted table; columns are cut the same way in all lines. */
function rowsOf(text: string): string[][] {
  const lines = text.split(/\r?\n/).filter((line) => line.trim() !== "" && !/^[\s=+|-]+$/.test(line));
  const separator =
    [/\t/, /[;,]/, /\s{2,}/].find(
      (by) => lines.filter((line) => by.test(line.trim())).length * 2 > lines.length,
    ) ?? /\s+/;
  return lines.map((line) => cut(line.replace(/^\s*\||\|\s*$/g, ""), separator));
}

type Guess = SeenField | "other";

/** What tables of neighbours and leases say beside addresses and names. */
const WORDS_BETWEEN = new Set(
  (
    "at on is via dev lladdr dynamic static self permanent reachable stale delay incomplete arpa internet " +
    "ether active expired learned yes no vlan mac address port name type"
  ).split(" "),
);

function guess(cell: string): Guess | null {
  const text = cell.replace(/^[([]|[)\]]$/g, "");
  if (text === "" || text === "*" || text === "-") return null;
  if (parseMac(text) !== null) return "mac";
  if (parseAddress(text) !== null) return "address";
  if (/^\d+$/.test(text)) return Number(text) >= 1 && Number(text) <= 4094 ? "vid" : "other";
  if (WORDS_BETWEEN.has(text.toLowerCase())) return "other";
  if (/^[a-z]{1,12}[-/ ]?\d+([/.:]\d+)*$/i.test(text) && !/^[a-z]+-[a-z]/i.test(text)) return "port";
  return /^[a-z0-9][a-z0-9._-]*$/i.test(text) && /[a-z]/i.test(text) ? "name" : "other";
}

/**
 * Reads a lease, ARP or MAC table pasted from a device; what each column seems to hold is guessed from most
 * of its cells.
 */
export function readSeenTable(text: string): SeenTable {
  const rows = rowsOf(text);
  const width = Math.max(0, ...rows.map((row) => row.length));
  const given = new Set<SeenField>();
  const scores = Array.from({ length: width }, (_, column) => {
    const counts = new Map<Guess, number>();
    for (const row of rows) {
      const kind = guess(row[column] ?? "");
      if (kind !== null) counts.set(kind, (counts.get(kind) ?? 0) + 1);
    }
    return counts;
  });
  const fields: (SeenField | null)[] = Array<SeenField | null>(width).fill(null);
  // The surest kinds are given first: a name may look like a port, a MAC address like nothing else.
  for (const field of SEEN_FIELDS) {
    const best = scores
      .map((counts, column) => ({
        column,
        count: counts.get(field) ?? 0,
        all: [...counts.values()].reduce((a, b) => a + b, 0),
      }))
      .filter(({ column, count, all }) => fields[column] === null && count > 0 && count * 2 >= all)
      .sort((a, b) => b.count - a.count || a.column - b.column)[0];
    if (best === undefined || given.has(field)) continue;
    fields[best.column] = field;
    given.add(field);
  }
  return { rows, fields };
}

/** What was seen of one device. */
export interface Seen {
  readonly line: number;
  readonly mac: Mac | null;
  readonly address: Address | null;
  readonly name: string | null;
  readonly vid: number | null;
  readonly port: string | null;
}

/** The lines that hold a MAC address or an address; heads and other lines fall away. */
export function seenIn({ rows, fields }: SeenTable): Seen[] {
  return rows.flatMap((row, i): Seen[] => {
    const cell = (field: SeenField) => {
      const column = fields.indexOf(field);
      return column < 0 ? "" : (row[column] ?? "").replace(/^[([]|[)\]]$/g, "");
    };
    const mac = parseMac(cell("mac"));
    const address = parseAddress(cell("address"));
    if ((mac === null && address === null) || (mac !== null && isGroup(mac))) return [];
    const vid = /^\d{1,4}$/.test(cell("vid")) ? Number(cell("vid")) : null;
    const name = guess(cell("name")) === "name" ? cell("name") : null;
    return [{ line: i + 1, mac, address, name, vid, port: cell("port") === "" ? null : cell("port") }];
  });
}

/**
 * same: as planned; learnt: the address is planned for a device whose MAC address nobody had read; moved: a
 * known device with another address or in another segment; new: nobody in the register; clash: the address is
 * planned for, or seen at, another device.
 */
export type Verdict = "same" | "learnt" | "moved" | "new" | "clash";
export interface Reconciled {
  readonly seen: Seen;
  readonly verdict: Verdict;
  readonly host: string | null;
  readonly sentence: string;
}
export interface Reconciliation {
  readonly rows: readonly Reconciled[];
  /** Devices with a MAC address in the segments that the table covers, and not in it. */
  readonly missing: readonly string[];
}

const homeOf = (index: PlanIndex, address: Address): Segment | undefined =>
  [...index.plan.segment.values()].find((segment) =>
    [...segment.prefixes4, ...segment.prefixes6].some((prefix) => containsAddress(prefix, address)),
  );

/** The segment on a VLAN by its number, where there is one only: a switch's own table names no address. */
function homeByVid(index: PlanIndex, vid: number | null): Segment | undefined {
  const [only, ...others] =
    vid === null ? [] : [...index.plan.segment.values()].filter((segment) => index.vidOf(segment) === vid);
  return others.length === 0 ? only : undefined;
}

const isHost = (holder: Host | Interface): holder is Host => "attachment" in holder;
const nameOf = (index: PlanIndex, holder: Host | Interface): string =>
  isHost(holder) ? holder.name : (index.plan.device.get(holder.device)?.name ?? holder.name);

function whereSeen(segment: Segment | undefined, at: string | null): string {
  if (segment !== undefined) return `; it is in ${segment.name}`;
  return at === null ? "" : `, and ${at} lies in none of the site's subnets`;
}

const holderOfMac = (index: PlanIndex, mac: Mac): Host | Interface | undefined =>
  index.groups("hostsByMac").get(mac)?.[0] ?? index.groups("interfacesByMac").get(mac)?.[0];

/** Who has the address in the plan and is not what was seen: by its MAC address where both are known. */
const otherHolder = (
  holders: readonly (Host | Interface)[],
  mac: Mac | null,
  byMac: Host | Interface | undefined,
): Host | Interface | undefined =>
  holders.find((holder) =>
    byMac === undefined ? mac !== null && holder.mac !== null && holder.mac !== mac : holder.id !== byMac.id,
  );

const hostNamed = (index: PlanIndex, name: string): Host | undefined =>
  [...index.plan.host.values()].find((host) => asLabel(host.name) === asLabel(name));

// eslint-disable-next-line complexity -- the verdicts in their order, each told with what is known
function judge(index: PlanIndex, seen: Seen, twice: ReadonlyMap<Address, ReadonlySet<Mac>>): Reconciled {
  const { mac, address } = seen;
  const at = address === null ? "" : formatAddress(address);
  const byMac = mac === null ? undefined : holderOfMac(index, mac);
  const holders = address === null ? [] : index.holdersOf(address);
  const result = (verdict: Verdict, host: Host | Interface | undefined, sentence: string): Reconciled => ({
    seen,
    verdict,
    host: host !== undefined && isHost(host) ? host.id : null,
    sentence,
  });
  if (address !== null && (twice.get(address)?.size ?? 0) > 1)
    return result(
      "clash",
      byMac,
      `${at} is seen at ${[...(twice.get(address) ?? [])].join(" and ")} at the same time.`,
    );
  const other = otherHolder(holders, mac, byMac);
  if (other !== undefined)
    return result(
      "clash",
      byMac,
      `${at} is planned for ${nameOf(index, other)}${other.mac === null ? "" : ` (${other.mac})`} ` +
        `and seen at ${byMac === undefined ? (mac ?? "another device") : nameOf(index, byMac)}.`,
    );
  if (byMac !== undefined) return judgeKnown(index, seen, byMac, result);
  const holder = holders[0];
  if (holder !== undefined)
    return mac !== null && holder.mac === null
      ? result("learnt", holder, `${nameOf(index, holder)} has ${at} in the plan; its MAC address is ${mac}.`)
      : result("same", holder, `${nameOf(index, holder)}, as planned.`);
  const named = seen.name === null ? undefined : hostNamed(index, seen.name);
  if (named?.mac === null && mac !== null)
    return result("learnt", named, `${named.name} answers to its name; its MAC address is ${mac}.`);
  const segment = address === null ? undefined : homeOf(index, address);
  const where = whereSeen(segment, address === null ? null : at);
  return result("new", undefined, `${seen.name ?? mac ?? at} is not in the register${where}.`);
}

function judgeKnown(
  index: PlanIndex,
  { address }: Seen,
  known: Host | Interface,
  result: (verdict: Verdict, host: Host | Interface, sentence: string) => Reconciled,
): Reconciled {
  const name = nameOf(index, known);
  if (address === null) return result("same", known, `${name} is there.`);
  const planned: Address[] = isHost(known)
    ? [known.ipv4, known.ipv6].filter((address) => address !== null)
    : [...known.addresses4, ...known.addresses6];
  const sameFamily = planned.filter((other) => typeof other === typeof address);
  if (sameFamily.includes(address)) return result("same", known, `${name}, as planned.`);
  const segment = known.segment === null ? undefined : index.plan.segment.get(known.segment);
  const home = homeOf(index, address);
  if (sameFamily.length > 0)
    return result(
      "moved",
      known,
      `${name} has ${sameFamily.map(formatAddress).join(" and ")} ` +
        `in the plan and is seen at ${formatAddress(address)}.`,
    );
  return home?.id === segment?.id
    ? result("same", known, `${name}, by DHCP in ${segment?.name ?? "no segment"}.`)
    : result(
        "moved",
        known,
        `${name} belongs to ${segment?.name ?? "no segment"} and is seen in ` +
          `${home?.name ?? "none of the site's subnets"}, at ${formatAddress(address)}.`,
      );
}

/** Lays what a device saw beside the register. */
export function reconcile(index: PlanIndex, seen: readonly Seen[]): Reconciliation {
  const twice = new Map<Address, Set<Mac>>();
  for (const { address, mac } of seen)
    if (address !== null && mac !== null) twice.set(address, (twice.get(address) ?? new Set()).add(mac));
  const rows = seen.map((row) => judge(index, row, twice));
  const found = new Set(rows.flatMap((row) => row.host ?? []));
  const macs = new Set(seen.flatMap(({ mac }) => mac ?? []));
  const covered = new Set(
    seen.flatMap(({ address, vid }) => {
      const byAddress = address === null ? undefined : homeOf(index, address);
      const byVid =
        vid === null
          ? []
          : [...index.plan.segment.values()].filter((segment) => index.vidOf(segment) === vid);
      return [byAddress, ...byVid].flatMap((segment) => segment?.id ?? []);
    }),
  );
  const missing = [...index.plan.host.values()]
    .filter(
      (host) =>
        host.mac !== null &&
        host.segment !== null &&
        covered.has(host.segment) &&
        !found.has(host.id) &&
        !macs.has(host.mac),
    )
    .sort((a, b) => byText(a.name, b.name));
  return { rows, missing: missing.map((host) => host.id) };
}

/** A name for what was seen without one: from its MAC address, else from its address. */
function nameFor({ mac, address }: Seen): string {
  if (mac !== null) return `seen-${mac.replaceAll(":", "").slice(6)}`;
  return address === null ? "seen" : `seen-${formatAddress(address).replaceAll(/[.:]/g, "-")}`;
}

/** The address where it is one that a device of the segment can have; else null. */
const usableIn = (segment: Segment | undefined, address: Address | null): Ipv4 | null =>
  typeof address === "number" &&
  segment?.prefixes4.some((prefix) => inRange(usableRange(prefix), address)) === true
    ? address
    : null;

/** A device that nobody knew, as what was seen says of it. */
const newHost = (seen: Seen, home: Segment | undefined): Omit<Host, "id"> => ({
  ...BLANK_HOST,
  name: seen.name ?? nameFor(seen),
  kind: "other",
  mac: seen.mac,
  segment: home?.id ?? null,
  notes: seen.port === null ? "" : `Seen at port ${seen.port}`,
});

/**
 * Takes over what was seen: MAC addresses that were learnt, new devices by DHCP, the address or segment of
 * moved ones. Clashes are for a person.
 */
export function takeSeen(
  edits: PlanEdits,
  index: PlanIndex,
  ids: IdSource,
  rows: readonly Reconciled[],
): void {
  for (const { seen, verdict, host } of rows) {
    const home = seen.address === null ? homeByVid(index, seen.vid) : homeOf(index, seen.address);
    if (verdict === "learnt" && host !== null) edits.patch("host", host, { mac: seen.mac });
    if (verdict === "new") edits.put("host", { ...newHost(seen, home), id: ids() });
    if (verdict === "moved" && host !== null) {
      const known = edits.need("host", host);
      const ipv4 = usableIn(home, seen.address) ?? known.ipv4;
      edits.put("host", {
        ...known,
        segment: home?.id ?? known.segment,
        ipv4: known.ipv4 === null ? null : ipv4,
      });
    }
  }
}
