import { formatAddress, type Address } from "../address";
import { byNaturalText } from "../kernel";
import { nameOf, type Line, type PlanIndex } from "../plan";
import { LINE_COLUMNS, lineCellText, outsideFieldText } from "../planners";
import { bridgeAddress } from "../spanning-tree";
import { devicesInOrder } from "./port-sheet";
import { DEVICE_KIND_WORDS } from "./register-sheet";

const addressesText = (addresses: readonly Address[]): string => addresses.map(formatAddress).join(" ");

/**
 * All gear as a table of texts, heads first: what it is, where it stands and is fed, how it is reached, and
 * what its own bridge says.
 */
export function gearTable(index: PlanIndex): string[][] {
  const heads = [
    "Device",
    "Kind",
    "Model",
    "Place",
    "Height unit",
    "Fed by",
    "Second feed",
    "Own addresses",
    "Asks from",
    "Bridge MAC",
    "Tree priority",
    "Serial number",
    "Hardware revision",
    "Software found",
    "Software wanted",
    "Licence until",
    "Support until",
    "Credentials kept",
    "Notes",
  ];
  return [
    heads,
    ...devicesInOrder(index).map((device) => [
      device.name,
      DEVICE_KIND_WORDS[device.kind],
      device.model,
      device.place,
      device.rackUnit === null ? "" : String(device.rackUnit),
      device.feed,
      device.backupFeed,
      index
        .interfacesOf(device.id)
        .filter((leg) => leg.line === null)
        .map((leg) => `${leg.name} ${addressesText([...leg.addresses4, ...leg.addresses6])}`.trim())
        .sort(byNaturalText)
        .join(", "),
      device.asksFrom === null ? "" : (index.plan.interface.get(device.asksFrom)?.name ?? ""),
      bridgeAddress(index, device) ?? "",
      device.tree.kind === "none" ? "" : String(device.tree.priority),
      device.serial,
      device.hardwareRevision,
      device.softwareFound,
      device.softwareWanted,
      device.licenceUntil ?? "",
      device.supportUntil ?? "",
      device.credentialsPlace,
      device.notes,
    ]),
  ];
}

const ACCESS_WORDS = {
  fibre: "fibre",
  cable: "cable",
  dsl: "DSL",
  mobile: "mobile",
  radio: "radio",
  other: "other",
} as const satisfies Record<Line["access"], string>;
const ADDRESSING_WORDS = { dhcp: "DHCP", login: "login", fixed: "fixed" } as const satisfies Record<
  Line["addressing"],
  string
>;

/**
 * All internet lines as a table of texts, heads first: what the provider has told of each, and where it ends.
 */
export function lineTable(index: PlanIndex): string[][] {
  const heads = [
    "Line",
    "Kind",
    "Order",
    "Share %",
    "Loss noticed by",
    "Next after s",
    "Back after s",
    "Pinned",
    "Its name",
    "Marks",
    "Delegated IPv6",
    "Ends at",
    "Address by",
    "Outside addresses",
    "Mask",
    "Next hop",
    "IPv6 length",
    "IPv6 next hop",
    "DNS servers",
    "VLAN tag",
    "Carrier NAT",
    "Down Mbit/s",
    "Up Mbit/s",
    "Locked to its box",
  ];
  return [
    heads,
    ...[...index.plan.line.values()]
      .sort((a, b) => a.place - b.place || byNaturalText(a.name, b.name))
      .map((line) => {
        const legs = [...index.plan.interface.values()].filter((leg) => leg.line === line.id);
        return [
          line.name,
          ACCESS_WORDS[line.access],
          ...LINE_COLUMNS.filter(([id]) => id !== "name").map(([id]) => lineCellText(index, line, id)),
          legs
            .map((leg) =>
              leg.port === null ? nameOf(index, "device", leg.device) : nameOf(index, "port", leg.port),
            )
            .sort(byNaturalText)
            .join(", "),
          ADDRESSING_WORDS[line.addressing],
          addressesText(legs.flatMap((leg): Address[] => [...leg.addresses4, ...leg.addresses6])),
          outsideFieldText(line, "length4"),
          outsideFieldText(line, "nextHop4"),
          outsideFieldText(line, "length6"),
          outsideFieldText(line, "nextHop6"),
          outsideFieldText(line, "dns"),
          line.vlanTag === null ? "" : String(line.vlanTag),
          line.carrierNat === "unknown" ? "" : line.carrierNat,
          String(line.downMbps || ""),
          String(line.upMbps || ""),
          line.locked,
        ];
      }),
  ];
}
