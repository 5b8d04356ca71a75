import { vid as asVid, type PlanIndex } from "../../plan";
import type { EditContext, Refusal } from "../planner";

/**
 * "20 Household, 30 Studio": the VLANs a device has created itself, as it can be typed in again; empty when
 * nobody has looked.
 */
export const deviceVlansText = (index: PlanIndex, device: string): string =>
  [...(index.groups("deviceVlansByDevice").get(device) ?? [])]
    .sort((a, b) => a.vid - b.vid)
    .map((entry) => `${entry.vid} ${entry.name}`.trim())
    .join(", ");

/** Writes them: numbers with names, commas between. What is in the list already keeps its entry. */
export function setDeviceVlans({ edits, ids }: EditContext, device: string, text: string): Refusal {
  const known = edits.all("deviceVlan").filter((entry) => entry.device === device);
  const kept = new Set<string>();
  for (const part of text
    .split(/[,;\n]/)
    .map((part) => part.trim())
    .filter((part) => part !== "")) {
    const match = /^(\d{1,4})(?:\s+(.*))?$/.exec(part);
    const number = match === null ? null : asVid(Number(match[1]));
    if (number === null)
      return (
        `"${part}" is no VLAN; write its number and its name, ` +
        "such as 20 Household, with commas between several."
      );
    const name = match?.[2] ?? "";
    if (name.length > 80) return "A VLAN's name has at most 80 characters.";
    const same = known.find((entry) => entry.vid === number && !kept.has(entry.id));
    const entry = edits.put(
      "deviceVlan",
      same === undefined ? { id: ids(), device, vid: number, name } : { ...same, name },
    );
    kept.add(entry.id);
  }
  for (const entry of known) if (!kept.has(entry.id)) edits.remove("deviceVlan", entry.id);
  return null;
}

/** The longest VLAN name a device's software takes; empty when nobody knows. */
export function setVlanNameLimit({ edits }: EditContext, device: string, text: string): Refusal {
  const limit = /^\d{1,2}$/.test(text.trim()) ? Number(text.trim()) : null;
  if (text.trim() !== "" && (limit === null || limit < 1 || limit > 80))
    return `"${text}" is no length; write 1 to 80 characters, or leave it empty.`;
  edits.patch("device", device, { vlanNameLimit: limit });
  return null;
}
