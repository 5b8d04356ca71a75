import type { PlanIndex, Port, Vid } from "../../plan";
import type { EditContext, Refusal } from "../planner";

export type CrossingWay = "none" | "tagged" | "untagged";

/** How a port has a VLAN now. */
export const crossingOf = (port: Port, vid: number): CrossingWay => {
  if ((port.untagged as readonly number[]).includes(vid) || port.pvid === vid) return "untagged";
  if ((port.tagged as readonly number[]).includes(vid)) return "tagged";
  return "none";
};

/** Every port of the port's LAG, or the port alone: what one member carries all of them carry. */
const withMembers = (index: PlanIndex, port: Port): readonly Port[] =>
  port.lag === null ? [port] : [...(index.groups("portsByLag").get(port.lag) ?? [port])];

/**
 * Sets how a port has one VLAN; what is written is consistent: the untagged one is the PVID and the only one.
 * On a device that can't mix untagged and tagged the one that would be mixed is refused.
 */
export function setCrossing({ edits, index }: EditContext, id: string, vid: Vid, way: CrossingWay): Refusal {
  const device = edits.need("device", edits.need("port", id).device);
  if (device.bridging !== "vlan") return `${device.name} knows no VLANs; there is nothing to set.`;
  for (const { id: member } of withMembers(index, edits.need("port", id))) {
    const port = edits.need("port", member);
    const tip = port.pvid ?? port.untagged[0] ?? null;
    const kept = tip === vid ? null : tip;
    const untagged = way === "untagged" ? vid : kept;
    const tagged = [
      ...new Set([
        ...port.tagged.filter((carried) => carried !== vid && carried !== untagged),
        ...(way === "tagged" ? [vid] : []),
      ]),
    ].sort((a, b) => a - b);
    if (!device.abilities.mixesTagged && untagged !== null && tagged.length > 0)
      return (
        `${device.name} can't have untagged and tagged VLANs on one port; port ` +
        `${port.label} would have ${untagged} untagged and ${tagged.join(", ")} tagged.`
      );
    edits.patch("port", member, {
      enabled: true,
      pvid: untagged,
      untagged: untagged === null ? [] : [untagged],
      tagged,
      admit: untagged === null && tagged.length > 0 ? "tagged" : "all",
    });
  }
  return null;
}
