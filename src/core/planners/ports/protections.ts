import { vid as asVid, type Device, type Vid } from "../../plan";
import type { EditContext, Refusal } from "../planner";

/** VLAN IDs as they are typed, "20, 30 to 35", ascending; a sentence when they can't be read. */
export function readVids(typed: string): readonly Vid[] | string {
  const found = new Set<Vid>();
  for (const part of typed.match(/\d+\s*(?:to\b|-|–)\s*\d+|[^,;\s]+/g) ?? []) {
    const run = /^(\d{1,4})(?:\s*(?:to|-|–)\s*(\d{1,4}))?$/.exec(part);
    const [low, high] = [Number(run?.[1]), Number(run?.[2] ?? run?.[1])];
    if (run === null || asVid(low) === null || asVid(high) === null || low > high)
      return `"${part}" is no VLAN ID or run of them; write numbers from 1 to 4094 such as 20, 30 to 35.`;
    for (let n = low; n <= high; n += 1) {
      const vid = asVid(n);
      if (vid !== null) found.add(vid);
    }
  }
  return [...found].sort((a, b) => a - b);
}

/** Protections that are switched on VLAN by VLAN. */
export type ProtectedVids = "snooping" | "arpInspection" | "routerGuard" | "dhcp6Guard";

/** What gear has to be able to for a protection. */
const NEEDS = {
  snooping: "snooping",
  arpInspection: "arpInspection",
  routerGuard: "ipv6Guards",
  dhcp6Guard: "ipv6Guards",
} as const;

/** The VLANs in which a switch snoops, inspects ARP or guards IPv6, as typed. */
export function setProtectedVids(
  { edits }: Pick<EditContext, "edits">,
  id: string,
  field: ProtectedVids,
  typed: string,
): Refusal {
  const device = edits.need("device", id);
  const vids = readVids(typed);
  if (typeof vids === "string") return vids;
  if (vids.length > 0 && !device.abilities[NEEDS[field]])
    return `${device.name} is not known to have that; tick it under "What its software can do" first.`;
  edits.patch("device", id, { protections: { ...device.protections, [field]: vids } });
  return null;
}

/** The region of multiple trees: its name and revision as typed. */
export function setRegion(
  { edits }: Pick<EditContext, "edits">,
  id: string,
  field: "region" | "revision",
  typed: string,
): Refusal {
  const device = edits.need("device", id);
  const text = typed.trim();
  if (field === "region") {
    if (text.length > 32) return "A region's name has at most 32 characters.";
    edits.patch("device", id, { tree: { ...device.tree, region: text } });
    return null;
  }
  const revision = /^\d{1,5}$/.test(text) ? Number(text) : null;
  if (revision === null || revision > 65_535) return `"${text}" is no revision; write 0 to 65535.`;
  edits.patch("device", id, { tree: { ...device.tree, revision } });
  return null;
}

/** A region's trees as text: "1: 20, 30 priority 4096; 2: 40". */
export const instancesText = ({ tree }: Pick<Device, "tree">): string =>
  tree.instances
    .map(
      ({ number, vids, priority }) =>
        `${number}: ${vids.join(", ")}${priority === 32_768 ? "" : ` priority ${priority}`}`,
    )
    .join("; ");

/** Which tree of its region carries which VLANs, as typed in the form of `instancesText`. */
export function setInstances({ edits }: Pick<EditContext, "edits">, id: string, typed: string): Refusal {
  const device = edits.need("device", id);
  const instances: Device["tree"]["instances"] = [];
  const taken = new Map<number, number>();
  for (const part of typed
    .split(";")
    .map((part) => part.trim())
    .filter((part) => part !== "")) {
    const read = /^(\d{1,4})\s*:\s*(.*?)(?:\s+priority\s+(\d{1,5}))?$/.exec(part);
    const [number, priority] = [Number(read?.[1]), Number(read?.[3] ?? 32_768)];
    if (read === null || number < 1 || number > 4094)
      return `"${part}" is no tree of a region; write its number, a colon and its VLANs, such as 1: 20, 30.`;
    if (priority > 61_440 || priority % 4096 !== 0)
      return `${priority} is no bridge priority; write 0 to 61440 in steps of 4096.`;
    const vids = readVids(read[2] ?? "");
    if (typeof vids === "string") return vids;
    for (const vid of vids) {
      const other = taken.get(vid);
      if (other !== undefined)
        return `VLAN ${vid} is in tree ${other} and in tree ${number}; it can be in one only.`;
      taken.set(vid, number);
    }
    instances.push({ number, vids: [...vids], priority });
  }
  edits.patch("device", id, { tree: { ...device.tree, instances } });
  return null;
}
