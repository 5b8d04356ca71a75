import { formatAddress, formatPrefix, formatRange } from "../address";
import { reservationTable } from "../formats";
import { nameOf, type PlanIndex, type Scope, type Segment } from "../plan";
import { formatLease, SECURITY_SHORT, ssidCellText, SSID_COLUMNS } from "../planners";
import { addressRegisterTable, pointRows, segmentsInOrder, tapeOf } from "../sheets";
import { tableBlock, under } from "./blocks";
import type { Block, Cell, PackStudy } from "./model";

/** A segment's VLAN as tape; empty for one without. */
function tapeCell(index: PlanIndex, segment: Segment): Cell {
  const vlan = segment.vlan === null ? undefined : index.plan.vlan.get(segment.vlan);
  if (vlan === undefined) return "";
  return { tapes: [tapeOf(index, vlan.domain, Number(vlan.vid))], text: String(vlan.vid) };
}

const addresses = (all: readonly (bigint | number)[]): string =>
  all.map((one) => formatAddress(one as never)).join(", ");

/** Every segment with its VLAN, subnets, gateway and name servers, then the VLANs that carry none. */
export function segmentBlocks({ index }: PackStudy): Block[] {
  const { plan } = index;
  const carried = new Set([...plan.segment.values()].flatMap(({ vlan }) => vlan ?? []));
  const others = [...plan.vlan.values()].filter(({ id }) => !carried.has(id));
  return [
    ...tableBlock([
      ["VLAN", "Segment", "Zone", "Subnet", "IPv6 subnet", "Gateway", "DNS", "Time", "Domain"],
      ...segmentsInOrder(index).map((segment) => {
        const gateway = index.gatewayOf(segment);
        return [
          tapeCell(index, segment),
          segment.name,
          nameOf(index, "zone", segment.zone),
          segment.prefixes4.map(formatPrefix).join(", "),
          segment.prefixes6.map(formatPrefix).join(", "),
          addresses([...(gateway?.addresses4 ?? []), ...(gateway?.addresses6 ?? [])]),
          addresses(segment.dns),
          addresses(segment.time),
          segment.domainName,
        ];
      }),
    ]),
    ...under(
      "VLANs without a segment",
      tableBlock([
        ["VLAN", "Name", "Domain"],
        ...others.map(({ vid, name, domain }) => [String(vid), name, nameOf(index, "domain", domain)]),
      ]),
    ),
  ];
}

/** The networks in a customer's words: whose they are, their wireless names, how many devices are known. */
export const plainSegmentBlocks = ({ index }: PackStudy): Block[] =>
  tableBlock([
    ["Tape", "Network", "Part of", "Wireless name", "Known devices"],
    ...segmentsInOrder(index).map((segment) => [
      tapeCell(index, segment),
      segment.name,
      nameOf(index, "zone", segment.zone),
      [...index.plan.ssid.values()]
        .filter((ssid) => ssid.segment === segment.id)
        .map(({ name }) => name)
        .join(", "),
      String(index.hostsIn(segment.id).length),
    ]),
  ]);

const serverOf = (index: PlanIndex, { serverDevice, serverHost }: Scope): string =>
  serverDevice !== null ? nameOf(index, "device", serverDevice) : hostServer(index, serverHost);
const hostServer = (index: PlanIndex, host: string | null): string =>
  host === null ? "" : nameOf(index, "host", host);

/** What the DHCP servers give, and to whom the same. */
export const scopeBlocks = ({ index }: PackStudy): Block[] => [
  ...tableBlock([
    ["Segment", "Server", "Pool", "Left out", "Lease", "Options"],
    ...segmentsInOrder(index).flatMap((segment) =>
      index
        .scopesOf(segment.id)
        .map((scope) => [
          segment.name,
          serverOf(index, scope),
          scope.pools.map(formatRange).join(", "),
          scope.exclusions.map(formatRange).join(", "),
          formatLease(scope.leaseSeconds),
          scope.options.map(({ code, name, value }) => `${code} ${name} ${value}`).join("; "),
        ]),
    ),
  ]),
  ...under("Reservations", tableBlock(reservationTable(index))),
];

/** Everything with an address, or waiting for one. */
export const registerBlocks = ({ index }: PackStudy): Block[] => tableBlock(addressRegisterTable(index));

const SSID_HEADS: Readonly<Record<(typeof SSID_COLUMNS)[number], string>> = {
  name: "Wireless name",
  segment: "Segment",
  more: "Or, by sign-in",
  security: "Security",
  profile: "Sign-in profile",
  hidden: "Hidden",
  isolation: "Stations kept apart",
  bands: "Bands",
  at: "Offered at",
};

/** Wireless names, and each access point's radios. */
export function wirelessBlocks({ index }: PackStudy): Block[] {
  const edits = {
    get: ((kind: "segment", id: string) => index.plan[kind].get(id)) as never,
  } satisfies Parameters<typeof ssidCellText>[0];
  return [
    ...tableBlock([
      SSID_COLUMNS.map((column) => SSID_HEADS[column]),
      ...[...index.plan.ssid.values()].map((ssid) =>
        SSID_COLUMNS.map((column) => ssidCellText(edits, ssid, column)),
      ),
    ]),
    ...under(
      "Access points",
      tableBlock([
        ["Access point", "Place", "Radio", "Channel", "Width MHz", "Power", "Wireless names"],
        ...pointRows(index).flatMap(({ device, radios, ssids }) =>
          radios.map(({ band, enabled, channel, widthMhz, power }) => [
            device.name,
            device.place,
            enabled ? `${band} GHz` : `${band} GHz, off`,
            channel === null ? "by itself" : String(channel),
            String(widthMhz),
            power,
            ssids.map(({ name }) => name).join(", "),
          ]),
        ),
      ]),
    ),
  ];
}

/** The wireless names in a customer's words; where the word for one is kept is not for paper. */
export const plainWirelessBlocks = ({ index }: PackStudy): Block[] =>
  tableBlock([
    ["Wireless name", "Leads into", "Word needed"],
    ...[...index.plan.ssid.values()].map(({ name, segment, security }) => [
      name,
      nameOf(index, "segment", segment),
      WORD_NEEDED[security],
    ]),
  ]);
const WORD_NEEDED: Readonly<Record<keyof typeof SECURITY_SHORT, string>> = {
  open: "no",
  owe: "no",
  wep: "yes",
  pskTkip: "yes",
  psk: "yes",
  pskSae: "yes",
  sae: "yes",
  enterprise: "each person's own",
  enterprise192: "each person's own",
};
