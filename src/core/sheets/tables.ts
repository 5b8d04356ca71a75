import { byNaturalText } from "../kernel";
import { nameOf, type PlanIndex, type Port } from "../plan";
import {
  HOST_COLUMNS,
  OWN_FIELDS,
  ownFieldText,
  voicePolicyText,
  type HostColumn,
  type OwnField,
} from "../planners";
import { modeOf } from "../fabric";
import { devicesInOrder, pluggedIn } from "./port-sheet";
import { hostCellText, legCellText, registerRows } from "./register-sheet";

const REGISTER_HEADS: Readonly<Record<HostColumn, string>> = {
  address: "Address",
  name: "Name",
  kind: "Kind",
  segment: "Segment",
  how: "How",
  mac: "MAC",
  port: "Plugged into",
  place: "Place",
};
/** What a static device has of its own, where it differs from its segment. */
const OWN_HEADS: Readonly<Record<OwnField, string>> = {
  length4: "Own mask",
  gateway4: "Own gateway",
  length6: "Own IPv6 length",
  gateway6: "Own IPv6 gateway",
  dns: "Own name servers",
};

/** The address register as a table of texts, heads first: everything with an address or waiting for one. */
export function addressRegisterTable(index: PlanIndex): string[][] {
  const rows = registerRows(index, null).map(({ row, entity }) => [
    ...HOST_COLUMNS.map((column) =>
      row === "host" ? hostCellText(index, entity, column) : legCellText(index, entity, column),
    ),
    ...OWN_FIELDS.map((field) => (row === "host" ? ownFieldText(entity, field) : "")),
    row === "host" && entity.changesMac ? "yes" : "",
  ]);
  return [
    [
      ...HOST_COLUMNS.map((column) => REGISTER_HEADS[column]),
      ...OWN_FIELDS.map((field) => OWN_HEADS[field]),
      "Changes MAC",
    ],
    ...rows,
  ];
}

const MODE_WORDS = {
  off: "off",
  undecided: "to decide",
  access: "access",
  dataVoice: "phone + PC",
  trunk: "trunk",
} as const;

const guardsText = ({ guards }: Port): string =>
  [
    guards.edge ? "edge" : "",
    guards.bpduGuard ? "BPDU guard" : "",
    guards.loopGuard ? "loop guard" : "",
    guards.dhcpTrust ? "DHCP trusted" : "",
    guards.arpTrust ? "ARP trusted" : "",
    guards.raTrust ? "RA trusted" : "",
    guards.sourceCheck ? "source check" : "",
    guards.isolated ? "isolated" : "",
    guards.signIn ? "802.1X" : "",
    guards.stormPercent === null ? "" : `storm ${guards.stormPercent} %`,
    guards.macLimit === null ? "" : `${guards.macLimit} MAC`,
  ]
    .filter((t) => t !== "")
    .join(", ");

/** The port schedule of all devices as a table of texts, heads first, in the printed order. */
export function portScheduleTable(index: PlanIndex): string[][] {
  const heads = [
    "Device",
    "Case",
    "Software name",
    "Plugged in",
    "Mode",
    "PVID",
    "Untagged",
    "Tagged",
    "Speed Mbit/s",
    "Medium",
    "Optic",
    "LAG",
    "PoE W",
    "Guards",
    "Profile",
    "Tells phones",
    "Note",
  ];
  const rows = devicesInOrder(index).flatMap((device) =>
    index
      .portsOf(device.id)
      .map((port) => [
        device.name,
        port.label,
        port.softwareName,
        pluggedIn(index, port),
        MODE_WORDS[modeOf(port)],
        port.pvid === null ? "" : String(port.pvid),
        port.untagged.join(" "),
        port.tagged.join(" "),
        String(port.speedMbps),
        port.medium,
        port.optic === "none" ? "" : port.optic,
        port.lag === null ? "" : (index.plan.lag.get(port.lag)?.name ?? ""),
        port.poeMw === 0 ? "" : String(port.poeMw / 1000),
        guardsText(port),
        port.guards.profile === null ? "" : nameOf(index, "signIn", port.guards.profile),
        voicePolicyText(port.voicePolicy),
        port.note,
      ]),
  );
  return [heads, ...rows];
}

/** Names of rooms and cabinets in use, as a person counts. */
export const placesOf = (index: PlanIndex): string[] =>
  [
    ...new Set(
      [...index.plan.device.values(), ...index.plan.host.values()]
        .map((entity) => entity.place)
        .filter((place) => place !== ""),
    ),
  ].sort(byNaturalText);
