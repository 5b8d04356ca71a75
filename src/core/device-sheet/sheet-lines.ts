import { nameOf, type Device, type Line, type PlanIndex } from "../plan";
import { lineCellText, pinsText, tunnelCellText } from "../planners";
import { allLinesOf } from "../routing";
import type { SheetFailover, SheetProtection, SheetTunnel } from "./sheet-types";

const BOX: Readonly<Record<Line["providerBox"], string>> = {
  none: "none",
  routes: "routes",
  bridges: "bridges",
  cannotBridge: "routes, cannot bridge",
};
const UPDATES = {
  gateway: "the gateway",
  providerBox: "the provider's box",
  host: "a device inside",
} as const satisfies Record<Line["dynamicName"]["updatedBy"], string>;

/** What the provider's box does, and what only works at it. */
function boxText({ providerBox, boxForwards, locked }: Line): string {
  const routes = providerBox === "routes" || providerBox === "cannotBridge";
  return [
    `${BOX[providerBox]}${boxForwards && routes ? ", sends everything on" : ""}`,
    ...(locked === "" ? [] : [`locked to it: ${locked}`]),
  ].join("; ");
}

/** The largest packet of a line in one piece: a login's wrapping takes eight bytes (RFC 2516 section 7). */
const mtuOf = ({ addressing }: Line): number => (addressing === "login" ? 1492 : 1500);

/** The order in which a device's lines carry what goes out, with all that belongs to one of them alone. */
export const failoverOn = (index: PlanIndex, { id }: Device): SheetFailover[] =>
  allLinesOf(index, id).map(({ line }, at) => ({
    order: at + 1,
    line: line.name,
    share: line.share === 0 ? "everything" : `${line.share} %`,
    noticedBy: lineCellText(index, line, "watch"),
    nextAfter: lineCellText(index, line, "after"),
    backAfter: lineCellText(index, line, "back"),
    pinned: pinsText(index, line.pins),
    marks: lineCellText(index, line, "marks"),
    delegated: lineCellText(index, line, "delegated"),
    mtu: mtuOf(line),
    providerBox: boxText(line),
    name: line.dynamicName.name,
    nameUpdatedBy: line.dynamicName.name === "" ? "" : UPDATES[line.dynamicName.updatedBy],
    nameAccount: line.dynamicName.account,
  }));

/** The tunnels that are answered on a device. */
export const tunnelsOn = (index: PlanIndex, { id }: Device): SheetTunnel[] =>
  index.interfacesOf(id).flatMap((leg): SheetTunnel[] => {
    const segment = index.plan.segment.get(leg.segment ?? "");
    return segment === undefined || segment.tunnel === null
      ? []
      : [
          {
            name: segment.name,
            for: tunnelCellText(index, segment, "kind"),
            farEnd: tunnelCellText(index, segment, "subnet"),
            answeredAt: tunnelCellText(index, segment, "answers"),
            line: tunnelCellText(index, segment, "line"),
          },
        ];
  });

/** What a device does against false servers and false addresses, as far as it is switched on. */
export function protectionsOn(index: PlanIndex, { protections, bridging }: Device): SheetProtection[] {
  const { snooping, option82, arpInspection, bound, keepsBindings, routerGuard, dhcp6Guard } = protections;
  if (bridging !== "vlan") return [];
  const rows: SheetProtection[] = [
    { setting: "DHCP snooping in VLANs", value: snooping.join(", ") },
    { setting: "Option 82 added", value: optionText(snooping.length > 0, option82) },
    { setting: "ARP inspection in VLANs", value: arpInspection.join(", ") },
    { setting: "Router advertisements guarded in VLANs", value: routerGuard.join(", ") },
    { setting: "DHCPv6 guarded in VLANs", value: dhcp6Guard.join(", ") },
    { setting: "Bindings kept over a restart", value: optionText(snooping.length > 0, keepsBindings) },
    { setting: "Bindings by hand", value: bound.map((host) => nameOf(index, "host", host)).join(", ") },
  ];
  return rows.filter(({ value }) => value !== "");
}

/** Whether something that belongs to snooping is on: said where snooping is, or where it is all the same. */
function optionText(snoops: boolean, adds: boolean): string {
  if (adds) return "yes";
  return snoops ? "no" : "";
}
