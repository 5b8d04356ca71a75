import { hasRadios, BLANK_SSID } from "../../plan";
import { groupKey, surveyed } from "../groups";
import { PURPOSE_ROWS } from "../purposes";
import { segmentOf, standsApart, type Frame } from "./frame";

const LONGEST = 32;

/**
 * One wireless name for each group with wireless devices, where there are access points; every access point
 * of the domain offers it.
 */
export function draftWireless(frame: Frame): void {
  const { edits: edits, ids } = frame;
  const wireless = surveyed(frame.index).filter(({ need }) => need.wireless);
  if (!edits.all("device").some(hasRadios)) {
    if (wireless.length > 0)
      frame.notes.push(
        `${wireless.reduce((sum, { need }) => sum + need.count, 0)} devices ` +
          "are wireless and the survey has no access point; add one to a room.",
      );
    return;
  }
  const site = edits.plan.site.name.split(/[\s,]+/)[0] ?? "";
  for (const { group } of frame.groups) {
    const segment = segmentOf(edits, group);
    const asks = wireless.some((surveyed) => groupKey(surveyed.group) === groupKey(group));
    if (
      segment === undefined ||
      standsApart(frame, group) ||
      !asks ||
      edits.all("ssid").some((ssid) => ssid.segment === segment.id)
    )
      continue;
    const ending = PURPOSE_ROWS[group.purpose].ssid ?? "";
    const wanted = `${site} ${ending === "" || group.name !== "" ? segment.name : ending}`
      .trim()
      .slice(0, LONGEST)
      .trim();
    const taken = new Set(edits.all("ssid").map((ssid) => ssid.name));
    const name = taken.has(wanted) ? `${wanted.slice(0, LONGEST - 3)} ${segment.mark}` : wanted;
    if (!taken.has(name))
      edits.put("ssid", {
        ...BLANK_SSID,
        id: ids(),
        name,
        segment: segment.id,
        isolation: group.purpose === "guests",
      });
  }
}
