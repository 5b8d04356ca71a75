import type { Repair } from "../repairs";
import { nameOf, vid as asVid, type PlanEdits, type PlanIndex, type Port, type Vid } from "../plan";
import { carryOn } from "../planners";
import type { Tag } from "../fabric";

/** Makes a VLAN the untagged one of a port, the PVID with it. */
function setUntagged(edits: PlanEdits, port: string, vid: Vid): void {
  const own = edits.need("port", port);
  edits.patch("port", port, {
    enabled: true,
    pvid: vid,
    untagged: [vid],
    tagged: own.tagged.filter((carried) => carried !== vid),
    admit: own.admit === "tagged" ? "all" : own.admit,
  });
}

/** What lets a frame of a VLAN, that arrives at a port with a tag or without, in as that VLAN. */
export function mendArrival(
  index: PlanIndex,
  port: Port,
  { tag, vid, vlanName }: { readonly tag: Tag; readonly vid: number; readonly vlanName: string },
): Repair[] {
  const number = asVid(vid);
  if (number === null) return [];
  const name = nameOf(index, "port", port.id);
  const untagged: Repair = {
    label: `Make ${vlanName} the untagged VLAN of ${name}`,
    planner: "set-untagged",
    args: { port: port.id, vid },
    edit: (edits) => setUntagged(edits, port.id, number),
  };
  const carry: Repair = {
    label: `Add ${vlanName} to ${name}`,
    planner: "carry-vlan",
    args: { vid, ports: [port.id] },
    edit: (edits) => {
      carryOn(edits, [port.id], number);
      if (edits.need("port", port.id).admit === "untagged") edits.patch("port", port.id, { admit: "all" });
    },
  };
  return tag === null ? [untagged] : [carry];
}
