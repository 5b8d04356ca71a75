import type { Port } from "../plan";

/** A tag as it stands in the frame: a VID, or null for untagged and priority-tagged frames. */
export type Tag = number | null;

/** A port as frames meet it: with what its device does otherwise than IEEE 802.1Q says. */
export interface BridgePort extends Port {
  /**
   * Drops, at an access port, frames that come in tagged with the port's own VLAN; the standard accepts them.
   */
  readonly dropsOwnTag?: boolean;
}

/**
 * The VLAN that a frame joins on arriving at a port, or null when it is dropped: the PVID without a tag, else
 * the tag, if the port admits such frames (IEEE 802.1Q section 6.9) and, with ingress filtering on, is in the
 * member set of that VLAN (section 8.6.2).
 */
export function classify(port: BridgePort, tag: Tag): number | null {
  if (tag === null || tag === 0)
    return port.admit === "tagged" || port.pvid === null || (port.ingressFilter && !isMember(port, port.pvid))
      ? null
      : port.pvid;
  if (port.admit === "untagged") return null;
  if (dropsTagged(port) && (port.untagged as readonly number[]).includes(tag)) return null;
  return port.ingressFilter && !isMember(port, tag) ? null : tag;
}

/** Whether a port takes no tagged frames at all, as the access ports of some gear do. */
export const dropsTagged = (port: BridgePort): boolean =>
  port.dropsOwnTag === true && port.tagged.length === 0;

/** Why `classify` drops the frame, in words that go on from "drops it:". Empty when it does not. */
export function dropReason(port: BridgePort, tag: Tag): string {
  if (classify(port, tag) !== null) return "";
  if (tag === null || tag === 0) {
    if (port.admit === "tagged") return "the port admits tagged frames only";
    return port.pvid === null
      ? "no VLAN is set for untagged frames here"
      : `untagged frames join VLAN ${port.pvid} here (its PVID), which is in neither list of the port`;
  }
  if (port.admit !== "untagged" && isMember(port, tag))
    return `this device drops frames tagged with the port's own untagged VLAN ${tag}`;
  return port.admit === "untagged"
    ? "the port admits untagged frames only"
    : `VLAN ${tag} is not carried here`;
}

export const isMember = (port: Port, vid: number): boolean =>
  (port.untagged as readonly number[]).includes(vid) || (port.tagged as readonly number[]).includes(vid);

/**
 * The tag with which a VLAN leaves a port: null untagged, a VID tagged, undefined when it doesn't leave there
 * at all.
 */
export function egressTag(port: Port, vid: number): Tag | undefined {
  if ((port.untagged as readonly number[]).includes(vid)) return null;
  return (port.tagged as readonly number[]).includes(vid) ? vid : undefined;
}

/** What the membership amounts to; never stored. */
export type PortMode = "off" | "undecided" | "access" | "dataVoice" | "trunk";

export function modeOf(port: Port): PortMode {
  if (!port.enabled) return "off";
  if (port.pvid === null && port.untagged.length === 0 && port.tagged.length === 0) return "undecided";
  if (port.tagged.length === 0) return "access";
  return port.tagged.length === 1 && port.pvid !== null && port.guards.edge ? "dataVoice" : "trunk";
}

/** Whether untagged membership and PVID say the same: one VLAN in both, or none in either. */
export const isConsistent = (port: Port): boolean =>
  port.pvid === null
    ? port.untagged.length === 0
    : port.untagged.length === 1 && port.untagged[0] === port.pvid && !port.tagged.includes(port.pvid);
