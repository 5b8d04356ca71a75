import { hasRadios, BLANK_SSID, type Band, type PlanEdits, type Ssid, type Device } from "../../plan";
import { forget } from "../site/forget";
import { fillPattern } from "../name-pattern";
import type { EditContext, Refusal } from "../planner";

const LONGEST = 32;

/** A wireless name that leads into a segment; access points of its domain offer it. */
export function addSsid({ edits, ids }: EditContext, segment: string, text: string): Refusal {
  const name = text.trim();
  if (name === "" || name.length > LONGEST) return "A wireless name has 1 to 32 characters.";
  const target = edits.get("segment", segment);
  if (target === undefined) return "Choose the segment that the name leads into.";
  if (edits.all("ssid").some((ssid) => ssid.name === name))
    return `There is a wireless name ${name} already; one name leads into one segment.`;
  edits.put("ssid", { ...BLANK_SSID, id: ids(), name, segment, isolation: target.purpose === "guests" });
  return null;
}

/** Changes a wireless name; the schema holds what else is wrong with it. */
export function editSsid(
  { edits }: Pick<EditContext, "edits">,
  id: string,
  fields: Partial<Omit<Ssid, "id">>,
): Refusal {
  const before = edits.need("ssid", id);
  const name = fields.name?.trim();
  if (name !== undefined && (name === "" || name.length > LONGEST))
    return "A wireless name has 1 to 32 characters.";
  if (fields.bands !== undefined && fields.bands.length === 0)
    return `${before.name} is offered in one band at least.`;
  edits.put("ssid", { ...before, ...fields, name: name ?? before.name });
  return null;
}

/** Removes a wireless name; who was on it is left unplaced. */
export function removeSsid(edits: PlanEdits, id: string): void {
  for (const host of edits.all("host")) {
    if (host.attachment.at === "ssid" && host.attachment.ssid === id)
      edits.patch("host", host.id, { attachment: { at: "unplaced" } });
  }
  forget(edits, new Set([id]));
  edits.remove("ssid", id);
}

/** A name that every access point offers becomes one of each, with its place in it. */
function nameEach(edits: PlanEdits, ids: EditContext["ids"], ssid: Ssid, points: readonly Device[]): Refusal {
  if (ssid.at.length > 0) return null;
  const { vlan } = edits.need("segment", ssid.segment);
  const domain = edits.get("vlan", vlan ?? "")?.domain;
  const own = domain === undefined ? points : points.filter((point) => point.domain === domain);
  for (const [i, point] of own.entries()) {
    const name = fillPattern("{name} {place}", {
      name: ssid.name,
      place: point.place === "" ? point.name : point.place,
    })
      .slice(0, LONGEST)
      .trim();
    if (edits.all("ssid").some((other) => (i > 0 || other.id !== ssid.id) && other.name === name))
      return `Two access points would offer "${name}"; give them different places first.`;
    edits.put("ssid", { ...ssid, id: i === 0 ? ssid.id : ids(), name, at: [point.id] });
  }
  return null;
}

/** The names of one segment that stand at single access points become one; who was on them is on it. */
function nameOnce(edits: PlanEdits, ssid: Ssid): void {
  if (ssid.at.length === 0) return;
  const others = edits
    .all("ssid")
    .filter((other) => other.id !== ssid.id && other.segment === ssid.segment && other.at.length > 0);
  const place = edits.get("device", ssid.at[0] ?? "")?.place ?? "";
  const endsInPlace = place !== "" && ssid.name.endsWith(` ${place}`);
  const name = endsInPlace ? ssid.name.slice(0, -place.length - 1) : ssid.name;
  edits.put("ssid", { ...ssid, name, at: [] });
  for (const other of others) {
    for (const host of edits.all("host"))
      if (host.attachment.at === "ssid" && host.attachment.ssid === other.id)
        edits.patch("host", host.id, { attachment: { ...host.attachment, ssid: ssid.id } });
    forget(edits, new Set([other.id]));
    edits.remove("ssid", other.id);
  }
}

/**
 * From one name everywhere (stations roam) to one for each access point (one knows where one is), or back.
 * Each name is taken apart into one an access point, with the access point's place behind it; back again,
 * those of one segment become the first of them.
 */
export function setNameSchool({ edits, ids }: EditContext, school: "one" | "each"): Refusal {
  const site = edits.need("site", edits.plan.site.id);
  const points = edits.all("device").filter(hasRadios);
  edits.put("site", { ...site, conventions: { ...site.conventions, wifiNames: school } });
  for (const ssid of edits.all("ssid")) {
    if (edits.get("ssid", ssid.id) === undefined) continue;
    const refusal = school === "each" ? nameEach(edits, ids, ssid, points) : null;
    if (refusal !== null) return refusal;
    if (school === "one") nameOnce(edits, ssid);
  }
  return null;
}

export const BAND_WORDS: Readonly<Record<Band, string>> = { "2.4": "2.4 GHz", "5": "5 GHz", "6": "6 GHz" };
