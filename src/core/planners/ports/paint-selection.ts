import type { PlanIndex, Port, Vid } from "../../plan";
import { portCarries } from "../../forwarding";
import { paintPorts, type PortRole } from "./paint-ports";
import type { EditContext, Refusal } from "../planner";
import { makeWan, makeWayBack, parkInVlan } from "./port-roles";
import { accessPointRole, vlanChoices } from "./role-choices";

/** What a selection of ports is painted as, before it is known what each single port then carries. */
export type Paint =
  | Exclude<PortRole, { role: "park" | "wayBack" }>
  /** Between gear: tagged what has to pass this port, everything where nothing is plugged in yet. */
  | { readonly role: "uplink" }
  /** The access point's management untagged, what its wireless names lead into tagged. */
  | { readonly role: "accessPoint" }
  | { readonly role: "park" }
  | { readonly role: "wayBack" }
  /** The lines in the order of the ports. */
  | { readonly role: "wan"; readonly lines: readonly string[] };

/**
 * What one port becomes; null when there is nothing it could carry in that role, or the role makes it no
 * member of any VLAN.
 */
export function roleAt(index: PlanIndex, port: Port, paint: Paint): PortRole | null {
  const domain = index.plan.device.get(port.device)?.domain ?? null;
  switch (paint.role) {
    case "uplink": {
      const need = portCarries(index).get(port.id)?.need;
      const tagged =
        need === undefined
          ? vlanChoices(index, domain).map(({ vid }) => vid)
          : ([...need].sort((a, b) => a - b) as Vid[]);
      return tagged.length === 0 ? null : { role: "trunk", untagged: null, tagged };
    }
    case "accessPoint": {
      const far = index.peerOf(port.id);
      const device = far === undefined ? undefined : index.plan.device.get(far.device);
      const { untagged, tagged } = accessPointRole(
        index,
        domain,
        device?.kind === "accessPoint" ? device : null,
      );
      return untagged === null && tagged.length === 0 ? null : { role: "trunk", untagged, tagged };
    }
    case "park":
      return { role: "park" };
    case "wayBack":
    case "wan":
      return null;
    default:
      return paint;
  }
}

/** Paints a selection, of one device or of many. Ports that nothing could be painted on refuse the whole. */
export function paintSelection(context: EditContext, ports: readonly string[], paint: Paint): Refusal {
  const { edits, index } = context;
  switch (paint.role) {
    case "park":
      return parkInVlan(context, ports);
    case "wayBack":
      return makeWayBack(context, ports);
    case "wan":
      return makeWan(context, ports, paint.lines);
    default:
      break;
  }
  for (const id of ports) {
    const port = edits.need("port", id);
    const device = edits.need("device", port.device);
    const role = roleAt(index, port, paint);
    if (paint.role === "accessPoint" && role !== null && role.role === "trunk" && role.untagged === null)
      return (
        "No segment here is the one that devices are managed from, so the access point would " +
        "be out of reach; mark one as management on Segments, or paint the port as a trunk."
      );
    if (role === null)
      return paint.role === "accessPoint"
        ? "No segment has a wireless name yet; add one on Wireless."
        : `There is no VLAN that ${device.name} port ${port.label} could carry; make a segment first.`;
    if (
      role.role === "trunk" &&
      !device.abilities.mixesTagged &&
      role.untagged !== null &&
      role.tagged.length > 0
    )
      return (
        `${device.name} can't have untagged and tagged VLANs ` +
        "on one port; choose a trunk with nothing untagged."
      );
    if (role.role === "dataVoice" && !device.abilities.mixesTagged)
      return `${device.name} can't have untagged and tagged VLANs on one port, so it has no phone + PC ports.`;
    paintPorts(edits, [id], role);
  }
  return null;
}
