import { byNaturalText } from "../kernel";
import type { PlanIndex, Port } from "../plan";
import { HOST_COLUMNS, type HostColumn } from "../planners";
import { modeOf } from "../switching";
import { devicesInOrder, pluggedIn } from "./port-sheet";
import { hostCellText, legCellText, registerRows } from "./register-sheet";

const REGISTER_HEADS: Readonly<Record<HostColumn, string>> = {
  address: "Address", name: "Name", kind: "Kind", segment: "Segment", how: "How", mac: "MAC", port: "Plugged into", place: "Place",
};

/** The address register as a table of texts, heads first: everything with an address or waiting for one. */
export function addressRegisterTable(index: PlanIndex): string[][] {
  const rows = registerRows(index, null).map(({ row, entity }) =>
    HOST_COLUMNS.map((column) => (row === "host" ? hostCellText(index, entity, column) : legCellText(index, entity, column))));
  return [HOST_COLUMNS.map((column) => REGISTER_HEADS[column]), ...rows];
}

const MODE_WORDS = { off: "off", undecided: "to decide", access: "access", dataVoice: "phone + PC", trunk: "trunk" } as const;

const guardsText = ({ guards }: Port): string =>
  [guards.edge ? "edge" : "", guards.bpduGuard ? "BPDU guard" : "", guards.loopGuard ? "loop guard" : "", guards.dhcpTrust ? "DHCP trusted" : "",
    guards.arpTrust ? "ARP trusted" : "", guards.signIn ? "802.1X" : "", guards.macLimit === null ? "" : `${guards.macLimit} MAC`].filter((t) => t !== "").join(", ");

/** The port schedule of all devices as a table of texts, heads first, in the printed order. */
export function portScheduleTable(index: PlanIndex): string[][] {
  const heads = ["Device", "Case", "Software name", "Plugged in", "Mode", "PVID", "Untagged", "Tagged", "Speed Mbit/s", "Medium", "Optic", "LAG", "PoE W", "Guards", "Profile", "Note"];
  const rows = devicesInOrder(index).flatMap((device) => index.portsOf(device.id).map((port) => [
    device.name, port.label, port.softwareName, pluggedIn(index, port), MODE_WORDS[modeOf(port)], port.pvid === null ? "" : String(port.pvid),
    port.untagged.join(" "), port.tagged.join(" "), String(port.speedMbps), port.medium, port.optic === "none" ? "" : port.optic,
    port.lag === null ? "" : (index.plan.lag.get(port.lag)?.name ?? ""), port.poeMw === 0 ? "" : String(port.poeMw / 1000), guardsText(port), port.guards.profile, port.note,
  ]));
  return [heads, ...rows];
}

/** Names of rooms and cabinets in use, as a person counts. */
export const placesOf = (index: PlanIndex): string[] =>
  [...new Set([...index.plan.device.values(), ...index.plan.host.values()].map((entity) => entity.place).filter((place) => place !== ""))].sort(byNaturalText);
