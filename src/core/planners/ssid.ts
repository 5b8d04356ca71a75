import type { Draft } from "../plan";
import type { Bench, Refusal } from "./planner";

/** A wireless name that leads into a segment; access points of its domain offer it. */
export function addSsid({ draft, ids }: Bench, segment: string, text: string): Refusal {
  const name = text.trim();
  if (name === "" || name.length > 32) return "A wireless name has 1 to 32 characters.";
  if (draft.all("ssid").some((ssid) => ssid.name === name)) return `There is a wireless name ${name} already; one name leads into one segment.`;
  draft.put("ssid", { id: ids(), name, segment });
  return null;
}

/** Removes a wireless name; who was on it is left unplaced. */
export function removeSsid(draft: Draft, id: string): void {
  for (const host of draft.all("host")) {
    if (host.attachment.at === "ssid" && host.attachment.ssid === id) draft.patch("host", host.id, { attachment: { at: "unplaced" } });
  }
  draft.remove("ssid", id);
}
