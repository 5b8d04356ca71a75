import { explodeIpv6, formatAddress, type Address, type Ipv4, type Ipv6 } from "../address";
import { byNaturalText, byText, putInto } from "../kernel";
import type { PlanIndex, Segment, Scope } from "../plan";
import { asLabel } from "../planners";

/** A name with an address, as DNS is to have it. */
export interface NamedAddress {
  readonly label: string;
  readonly domain: string;
  readonly address: Address;
  readonly of: string;
}
/** A zone file (RFC 1035 section 5) of one zone. `leftOut`: names that have no label left. */
export interface ZoneFile {
  readonly zone: string;
  readonly text: string;
  readonly records: number;
}
export interface Zones {
  readonly files: readonly ZoneFile[];
  readonly leftOut: readonly string[];
}

/**
 * The domain of a site that has set none: under names that are kept for inside use (RFC 8375; "internal" is
 * kept free in the root).
 */
function siteDomain(index: PlanIndex): string {
  const { site } = index.plan;
  if (site.conventions.domainName !== "") return site.conventions.domainName.toLowerCase().replace(/\.$/, "");
  const label = asLabel(site.name.split(/[\s,]+/)[0] ?? "") || "site";
  return site.kind === "home" ? `${label}.home.arpa` : `${label}.internal`;
}

const domainOf = (index: PlanIndex, segment: Segment | undefined): string =>
  segment === undefined || segment.domainName === ""
    ? siteDomain(index)
    : segment.domainName.toLowerCase().replace(/\.$/, "");

/** Whether a domain can be a zone's name: labels of letters, digits and hyphens, at most 253 characters. */
const isDomain = (domain: string): boolean =>
  domain.length <= 253 &&
  domain.split(".").every((label) => /^[a-z0-9]([a-z0-9-]{0,61}[a-z0-9])?$/.test(label));

/**
 * Every fixed address with the name it gets: devices of the register that are typed in or reserved, and the
 * gear: under its own name in the segment for it, elsewhere with the segment's name behind. Names that have
 * nothing DNS can hold are given back apart.
 */
export function namedAddresses(index: PlanIndex): {
  readonly named: readonly NamedAddress[];
  readonly leftOut: readonly string[];
} {
  const named: NamedAddress[] = [];
  const leftOut: string[] = [];
  const add = (
    name: string,
    label: string,
    segment: Segment | undefined,
    addresses: readonly (Address | null)[],
  ) => {
    const domain = domainOf(index, segment);
    for (const address of addresses) {
      if (address === null) continue;
      if (label === "" || label.length > 63 || !isDomain(domain)) leftOut.push(name);
      else named.push({ label, domain, address, of: name });
    }
  };
  for (const host of index.plan.host.values()) {
    if (host.manner === "dynamic") continue;
    add(
      host.name,
      asLabel(host.name),
      host.segment === null ? undefined : index.plan.segment.get(host.segment),
      [host.ipv4, host.ipv6],
    );
  }
  for (const leg of index.plan.interface.values()) {
    const segment = leg.segment === null ? undefined : index.plan.segment.get(leg.segment);
    if (segment === undefined) continue;
    const device = index.plan.device.get(leg.device)?.name ?? leg.name;
    add(device, segment.management ? asLabel(device) : asLabel(`${device} ${segment.name}`), segment, [
      ...leg.addresses4,
      ...leg.addresses6,
    ]);
  }
  const order = (address: Address) =>
    typeof address === "number"
      ? address.toString().padStart(40, "0")
      : `1${address.toString().padStart(39, "0")}`;
  named.sort(
    (a, b) =>
      byText(a.domain, b.domain) ||
      byNaturalText(a.label, b.label) ||
      byText(order(a.address), order(b.address)),
  );
  return { named, leftOut: [...new Set(leftOut)].sort(byNaturalText) };
}

/**
 * The address that answers for names: the first name server handed out inside the site, else the first
 * gateway. Null without either.
 */
function nameServer(index: PlanIndex): Address | null {
  const segments = [...index.plan.segment.values()].sort(
    (a, b) => (index.vidOf(a) ?? 5000) - (index.vidOf(b) ?? 5000),
  );
  const inside = segments
    .flatMap((segment) => segment.dns)
    .find((address) => index.holdersOf(address).length > 0);
  return (
    inside ??
    segments
      .map((segment) => index.gatewayOf(segment)?.addresses4[0])
      .find((address) => address !== undefined) ??
    null
  );
}

/**
 * The head of every zone: who is in charge, how long others may keep what they heard (RFC 1035 section
 * 3.3.13; times in seconds).
 */
function head(zone: string, server: string, serial: number): string {
  return [
    `$ORIGIN ${zone}.`,
    "$TTL 3600",
    `@\tIN\tSOA\t${server} hostmaster.${server.split(".").slice(1).join(".")} (`,
    `\t\t${serial}\t; serial: the plan's revision`,
    "\t\t3600\t; refresh",
    "\t\t600\t; retry",
    "\t\t604800\t; expire",
    "\t\t300 )\t; negative answers",
    `@\tIN\tNS\t${server}`,
  ].join("\n");
}

const typeOf = (address: Address): string => (typeof address === "number" ? "A" : "AAAA");

function forward(
  domain: string,
  named: readonly NamedAddress[],
  {
    server,
    serverName,
    serial,
  }: { readonly server: Address | null; readonly serverName: string; readonly serial: number },
): ZoneFile {
  const own =
    server === null ||
    !serverName.endsWith(`.${domain}.`) ||
    named.some((namedAddress) => namedAddress.label === "ns" && namedAddress.address === server)
      ? []
      : [`ns\tIN\t${typeOf(server)}\t${formatAddress(server)}`];
  const seen = new Set<string>();
  const records = named.flatMap(({ label, address }) => {
    const record = `${label}\tIN\t${typeOf(address)}\t${formatAddress(address)}`;
    if (seen.has(record)) return [];
    seen.add(record);
    return [record];
  });
  return {
    zone: domain,
    text: `${[head(domain, serverName, serial), ...own, ...records].join("\n")}\n`,
    records: own.length + records.length,
  };
}

/**
 * The reverse zone of an address and its name in it: the /24 of IPv4 (RFC 1035 section 3.5), the /64 of IPv6
 * (RFC 3596 section 2.5).
 */
function reverseOf(address: Address): { zone: string; label: string } {
  if (typeof address === "number") {
    const [a, b, c, d] = formatAddress(address).split(".");
    return { zone: `${c}.${b}.${a}.in-addr.arpa`, label: d ?? "" };
  }
  const nibbles = [...explodeIpv6(address as Ipv6).replaceAll(":", "")].reverse();
  return { zone: `${nibbles.slice(16).join(".")}.ip6.arpa`, label: nibbles.slice(0, 16).join(".") };
}

/** Sorts addresses of one reverse zone as numbers. */
const byAddress = (a: NamedAddress, b: NamedAddress): number => {
  if (BigInt(a.address) < BigInt(b.address)) return -1;
  if (BigInt(a.address) > BigInt(b.address)) return 1;
  return byText(a.label, b.label);
};

/**
 * Forward zones, one for each domain in use, and reverse zones, one for each /24 and /64 in use. `serial` is
 * the plan's revision: it only ever grows. Null when nobody in the plan could answer for names: a zone needs
 * a server.
 */
export function zoneFiles(index: PlanIndex, serial: number): Zones | null {
  const server = nameServer(index);
  if (server === null) return null;
  const { named, leftOut } = namedAddresses(index);
  const serverName = `ns.${siteDomain(index)}.`;
  const domains = [...new Set([siteDomain(index), ...named.map((namedAddress) => namedAddress.domain)])]
    .filter(isDomain)
    .sort(byText);
  const files = domains.map((domain) =>
    forward(
      domain,
      named.filter((namedAddress) => namedAddress.domain === domain),
      { server, serverName, serial: Math.max(1, serial) },
    ),
  );
  const reverse = new Map<string, NamedAddress[]>();
  for (const namedAddress of named) {
    const { zone } = reverseOf(namedAddress.address);
    putInto(reverse, zone, namedAddress);
  }
  for (const [zone, members] of [...reverse].sort(([a], [b]) =>
    byNaturalText(a.split(".").reverse().join("."), b.split(".").reverse().join(".")),
  )) {
    const records = [...members]
      .sort(byAddress)
      .map(({ address, label, domain }) => `${reverseOf(address).label}\tIN\tPTR\t${label}.${domain}.`);
    files.push({
      zone,
      text: `${[head(zone, serverName, Math.max(1, serial)), ...records].join("\n")}\n`,
      records: records.length,
    });
  }
  return { files, leftOut };
}

/** A hosts file: address, full name, short name. */
export const hostsFile = (index: PlanIndex): string =>
  `${namedAddresses(index)
    .named.map(({ address, label, domain }) => `${formatAddress(address)}\t${label}.${domain} ${label}`)
    .join("\n")}\n`;

function serverName({ plan }: PlanIndex, { serverDevice, serverHost }: Scope): string {
  if (serverDevice !== null) return plan.device.get(serverDevice)?.name ?? "";
  return plan.host.get(serverHost ?? "")?.name ?? "";
}

/** The reservations as a table, heads first: what a server has to be told. */
export function reservationTable(index: PlanIndex): string[][] {
  const rows = [...index.plan.host.values()]
    .filter((host) => host.manner === "reserved" && host.ipv4 !== null)
    .sort((a, b) => (a.ipv4 ?? 0) - (b.ipv4 ?? 0))
    .map((host) => {
      const segment = host.segment === null ? undefined : index.plan.segment.get(host.segment);
      const scope =
        segment === undefined ? undefined : index.scopesOf(segment.id).find((scope) => scope.family === 4);
      const server = scope === undefined ? "" : serverName(index, scope);
      return [
        segment?.name ?? "",
        server,
        formatAddress(host.ipv4 as Ipv4),
        host.mac ?? "",
        asLabel(host.name),
        host.name,
      ];
    });
  return [["Segment", "Server", "Address", "MAC", "Host name", "Device"], ...rows];
}
