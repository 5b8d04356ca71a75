import {
  containsAddress,
  familyOf,
  formatAddress,
  inRange,
  isGroup,
  parseAddress,
  parseMac,
  usableRange,
  type Address,
  type Ipv4,
  type Ipv6,
} from "../address";
import { ascending } from "../kernel";
import { BLANK_HOST, HOST_KINDS, type Draft, type Host, type PlanIndex, type Segment } from "../plan";
import {
  HOST_KIND_WORDS,
  MANNER_WORDS,
  addressInSegment,
  joinedAt,
  parseManner,
  readLength,
  readRouter,
  readAddresses,
  type IdSource,
  type Read,
} from "../planners";
import { FIELD_WORDS, type ImportField, type Mapping } from "./columns";

export interface BadRow {
  readonly row: number;
  readonly cells: readonly string[];
  readonly problems: readonly string[];
}
/** A row that can be written: a new device, or changes to one that is in the register. */
export interface GoodRow {
  readonly row: number;
  readonly host: Omit<Host, "id">;
  readonly known: string | null;
  readonly changed: readonly ImportField[];
}
export interface ReadTable {
  readonly good: readonly GoodRow[];
  readonly bad: readonly BadRow[];
  readonly added: number;
  readonly changed: number;
  readonly same: number;
}

/** Looks things up by what a person writes; built once for a table, not once for a row. */
class Names {
  readonly segments = new Map<string, Segment>();
  readonly byId: ReadonlyMap<string, Segment>;
  readonly #subnets: { readonly first: number; readonly segment: Segment }[] = [];
  readonly #subnets6: Segment[];
  readonly ports = new Map<string, string>();
  readonly ssids = new Map<string, string>();
  readonly points = new Map<string, string>();
  readonly legs: PlanIndex["plan"]["interface"];
  readonly hosts = new Map<string, Host>();
  readonly macs = new Map<string, Host>();
  readonly addresses = new Map<Address, string>();
  readonly kinds = new Map<string, Host["kind"]>();

  constructor(index: PlanIndex) {
    const { plan } = index;
    this.byId = plan.segment;
    this.legs = plan.interface;
    for (const segment of plan.segment.values()) {
      for (const key of [segment.mark, segment.name]) this.segments.set(key.toLowerCase(), segment);
      const vid = index.vidOf(segment);
      if (vid !== null && !this.segments.has(String(vid))) this.segments.set(String(vid), segment);
      for (const prefix of segment.prefixes4) this.#subnets.push({ first: prefix.network, segment });
    }
    this.#subnets.sort((a, b) => ascending(a.first, b.first));
    this.#subnets6 = [...plan.segment.values()].filter((segment) => segment.prefixes6.length > 0);
    for (const port of plan.port.values())
      this.ports.set(`${plan.device.get(port.device)?.name ?? ""} ${port.label}`.toLowerCase(), port.id);
    for (const ssid of plan.ssid.values()) this.ssids.set(ssid.name.toLowerCase(), ssid.id);
    for (const device of plan.device.values())
      if (device.kind === "accessPoint") this.points.set(device.name.toLowerCase(), device.id);
    for (const host of plan.host.values()) {
      this.hosts.set(host.name.toLowerCase(), host);
      if (host.mac !== null) this.macs.set(host.mac, host);
      for (const address of [host.ipv4, host.ipv6])
        if (address !== null) this.addresses.set(address, host.id);
    }
    for (const leg of plan.interface.values())
      for (const address of [...leg.addresses4, ...leg.addresses6]) this.addresses.set(address, leg.id);
    for (const kind of HOST_KINDS)
      for (const word of [kind, HOST_KIND_WORDS[kind]]) this.kinds.set(word.toLowerCase(), kind);
  }

  /** The segment whose subnet holds an address. */
  homeOf(address: Address): Segment | undefined {
    if (familyOf(address) === 6)
      return this.#subnets6.find((segment) =>
        segment.prefixes6.some((prefix) => containsAddress(prefix, address)),
      );
    let [low, high] = [0, this.#subnets.length - 1];
    while (low < high) {
      const middle = Math.ceil((low + high) / 2);
      if ((this.#subnets[middle]?.first ?? 0) <= address) low = middle;
      else high = middle - 1;
    }
    const segment = this.#subnets[low]?.segment;
    return segment?.prefixes4.some((prefix) => containsAddress(prefix, address)) === true
      ? segment
      : undefined;
  }
}

type Cells = Partial<Record<ImportField, string>>;
const blank = (text: string | undefined): boolean => text === undefined || /^(|-|–|n\/a|none)$/i.test(text);

function attachmentOf(names: Names, text: string): Host["attachment"] | null {
  const wanted = text.toLowerCase().replace(/\s+port\s+/, " ");
  const port = names.ports.get(wanted);
  if (port !== undefined) return { at: "port", port };
  const wireless = joinedAt(
    wanted,
    (name) => names.ssids.get(name),
    (name) => names.points.get(name),
  );
  if (wireless !== null) return { at: "ssid", ...wireless };
  const behind = /^behind (.+)$/.exec(wanted)?.[1];
  const host = behind === undefined ? undefined : names.hosts.get(behind);
  return host === undefined ? null : { at: "behind", host: host.id };
}

/** One row as a device, and everything that is wrong with it. */
function readRow(
  names: Names,
  cells: Cells,
  home: Segment | null,
): { host: Omit<Host, "id">; known: Host | undefined; problems: string[] } {
  const problems: string[] = [];
  const name = cells.name ?? "";
  const mac = blank(cells.mac) ? null : parseMac(cells.mac ?? "");
  if (!blank(cells.mac) && mac === null)
    problems.push(`"${cells.mac ?? ""}" is not a MAC address such as 02:5a:10:3c:00:22.`);
  if (mac !== null && isGroup(mac))
    problems.push(`${mac} stands for a group of devices; it was read or copied wrongly.`);
  const known =
    (mac === null ? undefined : names.macs.get(mac)) ??
    (name === "" ? undefined : names.hosts.get(name.toLowerCase()));
  const base: Omit<Host, "id"> = known ?? { ...BLANK_HOST, name };
  if (name === "" && known === undefined)
    problems.push("The row has no name and no MAC address of the register; give it a name.");
  if (name.length > 80) problems.push("The name has more than 80 characters.");
  const named = blank(cells.segment) ? undefined : names.segments.get((cells.segment ?? "").toLowerCase());
  if (!blank(cells.segment) && named === undefined)
    problems.push(`There is no segment called "${cells.segment ?? ""}".`);
  const own = known?.segment === null || known === undefined ? undefined : names.byId.get(known.segment);
  const near = { named, usual: own ?? home ?? undefined };
  const [ipv4, segment4] = readAddress(names, cells.address, near, 4, problems);
  const [ipv6, segment6] = readAddress(names, cells.ipv6, near, 6, problems);
  const segment = named ?? segment4 ?? segment6 ?? own ?? home ?? undefined;
  const kind = blank(cells.kind) ? base.kind : names.kinds.get((cells.kind ?? "").toLowerCase());
  if (kind === undefined)
    problems.push(
      `"${cells.kind ?? ""}" is not a kind of device here; ` +
        `one of: ${Object.values(HOST_KIND_WORDS).join(", ")}.`,
    );
  const attachment = blank(cells.port) ? base.attachment : attachmentOf(names, cells.port ?? "");
  if (attachment === null)
    problems.push(
      `"${cells.port ?? ""}" is no port, wireless name or device here; ` +
        `write "Upper switch 13", "Staff at Hall AP" or "behind Phone 3".`,
    );
  // An empty cell says nothing: what the register has stays. "by DHCP" is how a fixed address is taken away.
  const address = ipv4 === null ? base.ipv4 : (ipv4 as Host["ipv4"]);
  const address6 = ipv6 === null ? base.ipv6 : (ipv6 as Host["ipv6"]);
  const isNew = address !== base.ipv4 || address6 !== base.ipv6;
  const manner = readManner(cells.how, address ?? address6, mac ?? base.mac, base.manner, isNew, problems);
  return {
    known,
    problems,
    host: {
      ...base,
      ...readOwn(cells, segment, { names, base, manner }, problems),
      name: name === "" ? base.name : name,
      mac: mac ?? base.mac,
      manner,
      ipv4: manner === "dynamic" ? null : address,
      ipv6: address6,
      kind: kind ?? base.kind,
      segment: segment?.id ?? base.segment,
      attachment: attachment ?? base.attachment,
      place: (cells.place || base.place).slice(0, 120),
      notes: (cells.notes || base.notes).slice(0, 2000),
    },
  };
}

/**
 * Where an address may be written short: the segment that the row names, else the one where the device is or
 * the table goes.
 */
interface Near {
  readonly named: Segment | undefined;
  readonly usual: Segment | undefined;
}

/**
 * An address and its segment: the one the row names, else for one written whole that of its subnet, for one
 * written short the usual one.
 */
function readAddress(
  names: Names,
  text: string | undefined,
  { named, usual }: Near,
  family: 4 | 6,
  problems: string[],
): [Address | null, Segment | undefined] {
  if (blank(text) || text === undefined || /^(by )?dhcp$/i.test(text)) return [null, undefined];
  const whole = parseAddress(text);
  const short = named ?? usual;
  const address = whole ?? (short === undefined ? null : addressInSegment(short, text));
  if (address === null || familyOf(address) !== family) {
    problems.push(
      family === 4
        ? `"${text}" is not an IPv4 address such as 10.24.20.34.`
        : `"${text}" is not an IPv6 address such as fd00:24:20::34.`,
    );
    return [null, undefined];
  }
  const home = named ?? (whole === null ? usual : names.homeOf(whole));
  if (home === undefined) problems.push(`${formatAddress(address)} lies in none of the site's subnets.`);
  else if (
    ![...home.prefixes4, ...home.prefixes6].some(
      (prefix) => containsAddress(prefix, address) && inRange(usableRange(prefix), address),
    )
  )
    problems.push(`${formatAddress(address)} is not a usable address of ${home.name}.`);
  return [address, home];
}

function readManner(
  text: string | undefined,
  address: Address | null,
  mac: Host["mac"],
  base: Host["manner"],
  isNew: boolean,
  problems: string[],
): Host["manner"] {
  if (blank(text) || text === undefined) {
    if (base !== "dynamic" || !isNew) return base;
    if (mac === null) return "typed";
    return "reserved";
  }
  const manner = parseManner(text);
  if (manner === null) problems.push(`"${text}" is none of: ${Object.values(MANNER_WORDS).join(", ")}.`);
  if (manner === "reserved" && mac === null) problems.push("A reservation needs a MAC address.");
  if (manner !== null && manner !== "dynamic" && address === null)
    problems.push(`A device with a ${manner === "typed" ? "static" : "reserved"} address needs the address.`);
  return manner ?? base;
}

/**
 * What a static device's row says of its mask, gateway and name servers, kept where it differs from what its
 * segment says: an empty cell says nothing. A device by DHCP is told them.
 */
function readOwn(
  cells: Cells,
  segment: Segment | undefined,
  {
    names,
    base,
    manner,
  }: { readonly names: Names; readonly base: Omit<Host, "id">; readonly manner: Host["manner"] },
  problems: string[],
): Partial<Host> {
  if (manner !== "typed") return {};
  const taken = <T>(
    text: string | undefined,
    read: (text: string) => Read<T>,
    kept: T,
    usual: (value: T) => boolean,
    none: T,
  ): T => {
    if (blank(text) || text === undefined) return kept;
    const { value, refusal } = read(text);
    if (refusal !== null) problems.push(refusal);
    if (value === null || refusal !== null) return kept;
    if (usual(value)) return none;
    return value;
  };
  const [prefixes4, prefixes6] = [segment?.prefixes4 ?? [], segment?.prefixes6 ?? []];
  const leg = names.legs.get(segment?.gatewayInterface ?? "");
  return {
    length4: taken(
      cells.length,
      (text) => readLength(text, 4),
      base.length4,
      (length) => prefixes4.some((prefix) => prefix.length === length),
      null,
    ),
    gateway4: taken(
      cells.gateway,
      (text) => readRouter(text, 4),
      base.gateway4,
      (address) => leg?.addresses4.includes(address as Ipv4) === true,
      null,
    ) as Host["gateway4"],
    length6: taken(
      cells.length6,
      (text) => readLength(text, 6),
      base.length6,
      (length) => prefixes6.some((prefix) => prefix.length === length),
      null,
    ),
    gateway6: taken(
      cells.gateway6,
      (text) => readRouter(text, 6),
      base.gateway6,
      (address) => leg?.addresses6.includes(address as Ipv6) === true,
      null,
    ) as Host["gateway6"],
    dns: taken(
      cells.dns,
      (text) => readAddresses(text, 8),
      base.dns,
      (servers) => servers.join() === (segment?.dns ?? []).join(),
      [],
    ),
  };
}

const MOST_SENTENCES = 6;

/**
 * Reads a table of devices against the plan. A row is known by its MAC address, else by its name, and changes
 * that device; any other adds one. What is wrong with a row is said in sentences; two rows that claim one
 * address, name or MAC address are both wrong. Nothing is written here. `home`: the segment of rows that name
 * none.
 */
export function readHostTable(
  index: PlanIndex,
  rows: readonly (readonly string[])[],
  mapping: Mapping,
  home: Segment | null,
): ReadTable {
  const names = new Names(index);
  const body = mapping.hasHeads ? rows.slice(1) : rows;
  const offset = mapping.hasHeads ? 2 : 1;
  const read = body.flatMap((cells, i) => {
    if (cells.every((cell) => cell.trim() === "")) return [];
    const fields: Cells = {};
    for (const [column, field] of mapping.fields.entries())
      if (field !== null) fields[field] = (cells[column] ?? "").trim();
    return [{ row: i + offset, cells, ...readRow(names, fields, home) }];
  });
  const claims = {
    name: new Map<string, number[]>(),
    mac: new Map<string, number[]>(),
    address: new Map<Address, number[]>(),
  };
  const claim = <K>(map: Map<K, number[]>, key: K | null, row: number) => {
    if (key !== null) map.set(key, [...(map.get(key) ?? []), row]);
  };
  for (const { row, host } of read) {
    claim(claims.name, host.name === "" ? null : host.name.toLowerCase(), row);
    claim(claims.mac, host.mac, row);
    claim<Address>(claims.address, host.ipv4, row);
    claim<Address>(claims.address, host.ipv6, row);
  }
  const others = (rowsOf: readonly number[] | undefined, row: number) =>
    (rowsOf ?? []).filter((one) => one !== row);
  const good: GoodRow[] = [];
  const bad: BadRow[] = [];
  let same = 0;
  for (const { row, cells, host, known, problems } of read) {
    const twice = (what: string, rowsOf: readonly number[]) => {
      if (rowsOf.length > 0) problems.push(`${what} stands in row ${rowsOf.slice(0, 3).join(" and ")} too.`);
    };
    twice(`The name ${host.name}`, others(claims.name.get(host.name.toLowerCase()), row));
    if (host.mac !== null) twice(host.mac, others(claims.mac.get(host.mac), row));
    for (const address of [host.ipv4, host.ipv6]) {
      if (address === null) continue;
      twice(formatAddress(address), others(claims.address.get(address), row));
      const holder = names.addresses.get(address);
      if (holder !== undefined && holder !== known?.id)
        problems.push(
          `${formatAddress(address)} belongs to ` +
            (index.plan.host.get(holder)?.name ??
              index.plan.device.get(index.plan.interface.get(holder)?.device ?? "")?.name ??
              "another device") +
            " " +
            "already.",
        );
    }
    const changed = known === undefined ? [] : changedFields(known, host);
    if (problems.length > 0) bad.push({ row, cells, problems: problems.slice(0, MOST_SENTENCES) });
    else if (known !== undefined && changed.length === 0) same += 1;
    else good.push({ row, host, known: known?.id ?? null, changed });
  }
  const added = good.filter((one) => one.known === null).length;
  return { good, bad, added, changed: good.length - added, same };
}

const FIELD_OF: Readonly<Record<ImportField, keyof Host>> = {
  length: "length4",
  gateway: "gateway4",
  length6: "length6",
  gateway6: "gateway6",
  dns: "dns",
  name: "name",
  kind: "kind",
  mac: "mac",
  how: "manner",
  address: "ipv4",
  ipv6: "ipv6",
  segment: "segment",
  port: "attachment",
  place: "place",
  notes: "notes",
};

const changedFields = (known: Host, host: Omit<Host, "id">): ImportField[] =>
  (Object.keys(FIELD_OF) as ImportField[]).filter(
    (field) =>
      JSON.stringify(String(known[FIELD_OF[field]] ?? "")) !==
        JSON.stringify(String((host as Host)[FIELD_OF[field]] ?? "")) ||
      (field === "port" && JSON.stringify(known.attachment) !== JSON.stringify(host.attachment)),
  );

/** Writes the rows that were read without a problem. */
export function writeHostTable(draft: Draft, ids: IdSource, table: ReadTable): void {
  for (const { host, known } of table.good) draft.put("host", { ...host, id: known ?? ids() });
}

/** The rows set aside as a table again: what was in them, and why not. */
export const badRowsTable = (mapping: Mapping, table: ReadTable): string[][] => [
  [...mapping.fields.map((field) => (field === null ? "" : FIELD_WORDS[field])), "Why not"],
  ...table.bad.map(({ cells, problems }) => [
    ...mapping.fields.map((_, i) => cells[i] ?? ""),
    problems.join(" "),
  ]),
];
