import { formatAddress, formatPrefix, formatRange, type Address } from "../address";
import { byNaturalText, byText, grouped } from "../kernel";
import { nameOf, PlanEdits, type PlanIndex, type Scope } from "../plan";
import {
  FORWARD_COLUMNS,
  formatLease,
  forwardCellText,
  ROUTE_COLUMNS,
  routeCellText,
  SSID_COLUMNS,
  ssidCellText,
  TUNNEL_COLUMNS,
  tunnelCellText,
} from "../planners";
import { devicesInOrder } from "./port-sheet";
import { segmentsInOrder } from "./segment-sheet";
import { pointRows } from "./wireless-sheet";

const addresses = (all: readonly Address[]): string => all.map(formatAddress).join(", ");

/** Every segment with its VLAN, subnets, gateway and servers as a table of texts, heads first. */
export const segmentTable = (index: PlanIndex): string[][] => [
  [
    ...["VLAN", "Segment", "Zone", "Subnet", "IPv6 subnet", "Gateway", "DNS", "Time", "Domain"],
    ...["Mark", "Planned", "Growth %"],
  ],
  ...segmentsInOrder(index).map((segment) => {
    const gateway = index.gatewayOf(segment);
    return [
      index.vidOf(segment)?.toString() ?? "",
      segment.name,
      nameOf(index, "zone", segment.zone),
      segment.prefixes4.map(formatPrefix).join(", "),
      segment.prefixes6.map(formatPrefix).join(", "),
      addresses([...(gateway?.addresses4 ?? []), ...(gateway?.addresses6 ?? [])]),
      addresses(segment.dns),
      addresses(segment.time),
      segment.domainName,
      segment.mark,
      String(segment.planned),
      String(segment.growth),
    ];
  }),
];

/** Every VLAN of every VLAN domain as a table of texts, heads first, with the segment that it carries. */
export function vlanTable(index: PlanIndex): string[][] {
  const carried = grouped(segmentsInOrder(index), ({ vlan }) => vlan);
  return [
    ["VLAN", "Name", "Domain", "Segment"],
    ...[...index.plan.vlan.values()]
      .map(({ id, vid, name, domain }) => ({
        ...{ vid, name, domain: nameOf(index, "domain", domain) },
        segments: (carried.get(id) ?? []).map((segment) => segment.name).join(", "),
      }))
      .sort((a, b) => byNaturalText(a.domain, b.domain) || a.vid - b.vid)
      .map(({ vid, name, domain, segments }) => [String(vid), name, domain, segments]),
  ];
}

function serverOf(index: PlanIndex, { serverDevice, serverHost }: Scope): string {
  if (serverDevice !== null) return nameOf(index, "device", serverDevice);
  return serverHost === null ? "" : nameOf(index, "host", serverHost);
}

/** What the DHCP servers give as a table of texts, heads first. */
export const scopeTable = (index: PlanIndex): string[][] => [
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
];

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

/** Every wireless name as a table of texts, heads first. */
export function ssidTable(index: PlanIndex): string[][] {
  const edits = new PlanEdits(index.plan);
  return [
    SSID_COLUMNS.map((column) => SSID_HEADS[column]),
    ...[...index.plan.ssid.values()]
      .sort((a, b) => byNaturalText(a.name, b.name) || byText(a.id, b.id))
      .map((ssid) => SSID_COLUMNS.map((column) => ssidCellText(edits, ssid, column))),
  ];
}

/** Every radio of every access point as a table of texts, heads first. */
export const radioTable = (index: PlanIndex): string[][] => [
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
];

/** Every port forward as a table of texts, heads first. */
export const forwardTable = (index: PlanIndex): string[][] => [
  FORWARD_COLUMNS.map(([, head]) => head),
  ...[...index.plan.forward.values()]
    .sort((a, b) => byNaturalText(a.name, b.name))
    .map((forward) => FORWARD_COLUMNS.map(([column]) => forwardCellText(index, forward, column))),
];

/** Every tunnel as a table of texts, heads first. */
export const tunnelTable = (index: PlanIndex): string[][] => [
  TUNNEL_COLUMNS.map(([, head]) => head),
  ...[...index.plan.segment.values()]
    .filter(({ tunnel }) => tunnel !== null)
    .map((segment) => TUNNEL_COLUMNS.map(([column]) => tunnelCellText(index, segment, column))),
];

/** Every route that is entered by hand as a table of texts, heads first. */
export const routeTable = (index: PlanIndex): string[][] => [
  ["Device", ...ROUTE_COLUMNS.map(([, head]) => head)],
  ...devicesInOrder(index).flatMap(({ name, routes }) =>
    routes.map((route) => [name, ...ROUTE_COLUMNS.map(([column]) => routeCellText(route, column))]),
  ),
];
