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
import { BLANK_HOST, type Host, type Segment } from "../plan";
import {
  HOST_KIND_WORDS,
  MANNER_WORDS,
  addressInSegment,
  joinedAt,
  parseManner,
  readAddresses,
  readLength,
  readRouter,
  readYes,
  type Read,
} from "../planners";
import type { ImportField } from "./columns";
import type { Names } from "./names";

export type Cells = Partial<Record<ImportField, string>>;
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

/**
 * Where an address may be written short: the segment that the row names, else the one where the device is or
 * the table goes.
 */
interface Near {
  readonly names: Names;
  readonly named: Segment | undefined;
  readonly usual: Segment | undefined;
}

/**
 * An address and its segment: the one the row names, else for one written whole that of its subnet, for one
 * written short the usual one.
 */
function readAddress(
  text: string | undefined,
  family: 4 | 6,
  { names, named, usual }: Near,
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

interface Addressed {
  readonly address: Address | null;
  readonly mac: Host["mac"];
  readonly base: Host["manner"];
  readonly isNew: boolean;
}

function readManner(
  text: string | undefined,
  { address, mac, base, isNew }: Addressed,
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

/** A cell's own value: what was there for an empty or wrong cell, `none` where it is as the segment says. */
function ownOr<T>(
  problems: string[],
  text: string | undefined,
  read: (text: string) => Read<T>,
  { kept, usual, none }: { readonly kept: T; readonly usual: (value: T) => boolean; readonly none: T },
): T {
  if (blank(text) || text === undefined) return kept;
  const { value, refusal } = read(text);
  if (refusal !== null) problems.push(refusal);
  if (value === null || refusal !== null) return kept;
  return usual(value) ? none : value;
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
  const [prefixes4, prefixes6] = [segment?.prefixes4 ?? [], segment?.prefixes6 ?? []];
  const leg = names.legs.get(segment?.gatewayInterface ?? "");
  const dns = (segment?.dns ?? []).join();
  return {
    length4: ownOr(problems, cells.length, (text) => readLength(text, 4), {
      kept: base.length4,
      usual: (length) => prefixes4.some((prefix) => prefix.length === length),
      none: null,
    }),
    gateway4: ownOr(problems, cells.gateway, (text) => readRouter(text, 4), {
      kept: base.gateway4,
      usual: (address) => leg?.addresses4.includes(address as Ipv4) === true,
      none: null,
    }) as Host["gateway4"],
    length6: ownOr(problems, cells.length6, (text) => readLength(text, 6), {
      kept: base.length6,
      usual: (length) => prefixes6.some((prefix) => prefix.length === length),
      none: null,
    }),
    gateway6: ownOr(problems, cells.gateway6, (text) => readRouter(text, 6), {
      kept: base.gateway6,
      usual: (address) => leg?.addresses6.includes(address as Ipv6) === true,
      none: null,
    }) as Host["gateway6"],
    dns: ownOr(problems, cells.dns, (text) => readAddresses(text, 8), {
      kept: base.dns,
      usual: (servers) => servers.join() === dns,
      none: [],
    }),
  };
}

interface ReadRow {
  readonly host: Omit<Host, "id">;
  readonly known: Host | undefined;
  readonly problems: string[];
}

function readMac(text: string | undefined, problems: string[]): Host["mac"] {
  if (blank(text) || text === undefined) return null;
  const mac = parseMac(text);
  if (mac === null) problems.push(`"${text}" is not a MAC address such as 02:5a:10:3c:00:22.`);
  else if (isGroup(mac))
    problems.push(`${mac} stands for a group of devices; it was read or copied wrongly.`);
  return mac;
}

function readKind(names: Names, text: string | undefined, usual: Host["kind"], problems: string[]) {
  if (blank(text) || text === undefined) return usual;
  const kind = names.kinds.get(text.toLowerCase());
  if (kind === undefined)
    problems.push(
      `"${text}" is not a kind of device here; one of: ${Object.values(HOST_KIND_WORDS).join(", ")}.`,
    );
  return kind ?? usual;
}

function readPort(names: Names, text: string | undefined, usual: Host["attachment"], problems: string[]) {
  if (blank(text) || text === undefined) return usual;
  const attachment = attachmentOf(names, text);
  if (attachment === null)
    problems.push(
      `"${text}" is no port, wireless name or device here; ` +
        `write "Upper switch 13", "Staff at Hall AP" or "behind Phone 3".`,
    );
  return attachment ?? usual;
}

function readChanging(text: string | undefined, usual: boolean, problems: string[]): boolean {
  if (blank(text) || text === undefined) return usual;
  const read = readYes(text);
  if (typeof read === "string") problems.push(read);
  return typeof read === "string" ? usual : read.is;
}

function readSegment(names: Names, text: string | undefined, problems: string[]): Segment | undefined {
  if (blank(text) || text === undefined) return undefined;
  const segment = names.segments.get(text.toLowerCase());
  if (segment === undefined) problems.push(`There is no segment called "${text}".`);
  return segment;
}

function nameFaults(name: string, known: Host | undefined): string[] {
  if (name === "" && known === undefined)
    return ["The row has no name and no MAC address of the register; give it a name."];
  return name.length > 80 ? ["The name has more than 80 characters."] : [];
}

/** The device of the register that a row is about: by its MAC address, else by its name. */
const knownBy = (names: Names, name: string, mac: Host["mac"]): Host | undefined =>
  (mac === null ? undefined : names.macs.get(mac)) ??
  (name === "" ? undefined : names.hosts.get(name.toLowerCase()));

/** One row as a device, and everything that is wrong with it. */
// eslint-disable-next-line complexity -- one line for each column of a row
export function readRow(names: Names, cells: Cells, home: Segment | null): ReadRow {
  const problems: string[] = [];
  const name = cells.name ?? "";
  const mac = readMac(cells.mac, problems);
  const known = knownBy(names, name, mac);
  const base: Omit<Host, "id"> = known ?? { ...BLANK_HOST, name };
  problems.push(...nameFaults(name, known));
  const named = readSegment(names, cells.segment, problems);
  const own = names.byId.get(known?.segment ?? "");
  const near = { names, named, usual: own ?? home ?? undefined };
  const [ipv4, segment4] = readAddress(cells.address, 4, near, problems);
  const [ipv6, segment6] = readAddress(cells.ipv6, 6, near, problems);
  const segment = named ?? segment4 ?? segment6 ?? near.usual;
  const kind = readKind(names, cells.kind, base.kind, problems);
  const attachment = readPort(names, cells.port, base.attachment, problems);
  // An empty cell says nothing: what the register has stays. "by DHCP" is how a fixed address is taken away.
  const address4 = ipv4 === null ? base.ipv4 : (ipv4 as Host["ipv4"]);
  const address6 = ipv6 === null ? base.ipv6 : (ipv6 as Host["ipv6"]);
  const addressed = {
    address: address4 ?? address6,
    mac: mac ?? base.mac,
    base: base.manner,
    isNew: address4 !== base.ipv4 || address6 !== base.ipv6,
  };
  const manner = readManner(cells.how, addressed, problems);
  return {
    known,
    problems,
    host: {
      ...base,
      ...readOwn(cells, segment, { names, base, manner }, problems),
      name: name || base.name,
      mac: mac ?? base.mac,
      manner,
      ipv4: manner === "dynamic" ? null : address4,
      ipv6: address6,
      kind,
      segment: segment?.id ?? base.segment,
      attachment,
      place: (cells.place || base.place).slice(0, 120),
      changesMac: readChanging(cells.changesMac, base.changesMac, problems),
      notes: (cells.notes || base.notes).slice(0, 2000),
    },
  };
}
