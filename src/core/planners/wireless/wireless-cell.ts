import {
  hasRadios,
  BANDS,
  SECURITIES,
  type Band,
  type PlanEdits,
  type Radio,
  type Security,
  type Ssid,
} from "../../plan";
import { SECURITY_FACTS } from "../../wireless";
import type { EditContext, Refusal } from "../planner";
import { readYes } from "../yes-text";
import { addRadios, setChannel, setRadio, widthsFor } from "./radios";
import { addSsid, editSsid } from "./ssid";

export const SSID_COLUMNS = [
  "name",
  "segment",
  "more",
  "security",
  "profile",
  "hidden",
  "isolation",
  "bands",
  "at",
] as const;
export type SsidColumn = (typeof SSID_COLUMNS)[number];
export const RADIO_COLUMNS = ["place", "2.4", "2.4 width", "5", "5 width", "6", "6 width"] as const;
export type RadioColumn = (typeof RADIO_COLUMNS)[number];

type Bound = Pick<EditContext, "edits">;
const lower = (text: string): string => text.toLowerCase().trim();
const squeezed = (text: string): string => lower(text).replace(/[^a-z0-9]/g, "");
/** Kinds of security in a word, for a cell. */
export const SECURITY_SHORT: Readonly<Record<Security, string>> = {
  open: "open",
  owe: "OWE",
  wep: "WEP",
  pskTkip: "TKIP",
  psk: "PSK",
  pskSae: "PSK + SAE",
  sae: "SAE",
  enterprise: "802.1X",
  enterprise192: "802.1X 192 bit",
};

/** A cell of the table of wireless names as it can be typed in again. */
export function ssidCellText(edits: Pick<PlanEdits, "get">, ssid: Ssid, column: SsidColumn): string {
  switch (column) {
    case "name":
      return ssid.name;
    case "segment":
      return edits.get("segment", ssid.segment)?.name ?? "";
    case "more":
      return ssid.moreSegments.map((id) => edits.get("segment", id)?.name ?? "").join(", ");
    case "security":
      return SECURITY_SHORT[ssid.security];
    case "profile":
      return ssid.profile === null ? "" : (edits.get("signIn", ssid.profile)?.name ?? "");
    case "hidden":
      return ssid.hidden ? "yes" : "no";
    case "isolation":
      return ssid.isolation ? "yes" : "no";
    case "bands":
      return ssid.bands.join(", ");
    case "at":
      return ssid.at.length === 0
        ? "everywhere"
        : ssid.at.map((id) => edits.get("device", id)?.name ?? "").join(", ");
  }
}

/** Things named in a list with commas; the first name that nothing has is given back. */
function named<T extends { readonly id: string; readonly name: string }>(
  all: readonly T[],
  text: string,
): { readonly ids: string[]; readonly unknown: string | null } {
  const ids: string[] = [];
  for (const part of text
    .split(",")
    .map(lower)
    .filter((part) => part !== "")) {
    const found = all.find((named) => lower(named.name) === part);
    if (found === undefined) return { ids, unknown: part };
    if (!ids.includes(found.id)) ids.push(found.id);
  }
  return { ids, unknown: null };
}

const spellingsOf = (security: Ssid["security"]): string[] =>
  [security, SECURITY_SHORT[security], SECURITY_FACTS[security].words].map(squeezed);

/** The access points that offer a name, by their names; an empty list is all of them. */
function offerAt(bench: Bound, id: string, text: string): Refusal {
  if (["", "everywhere", "all"].includes(lower(text))) return editSsid(bench, id, { at: [] });
  const points = bench.edits.all("device").filter(hasRadios);
  const { ids, unknown } = named(points, text);
  if (unknown === null) return editSsid(bench, id, { at: ids });
  const some = points.slice(0, 6).map(({ name }) => name);
  return `There is no access point called "${unknown}"; there are ${some.join(", ")}, or write everywhere.`;
}

/** The sign-in profile that a name asks by, by its name; empty is the only one there is. */
function askBy(bench: Bound, id: string, text: string): Refusal {
  const profile = bench.edits.all("signIn").find((profile) => lower(profile.name) === lower(text));
  return profile === undefined && !["", "none"].includes(lower(text))
    ? `There is no sign-in profile "${text}"; add it under Guards first, or leave this empty.`
    : editSsid(bench, id, { profile: profile?.id ?? null });
}

/** Writes one cell of the table of wireless names. */
export function editSsidCell(bench: Bound, id: string, column: SsidColumn, typed: string): Refusal {
  const { edits } = bench;
  const text = typed.trim();
  switch (column) {
    case "name": {
      const other = edits.all("ssid").find((ssid) => ssid.id !== id && ssid.name === text);
      return other === undefined
        ? editSsid(bench, id, { name: text })
        : `There is a wireless name ${text} already; give this ` +
            "one another, or list all its access points in one row.";
    }
    case "segment": {
      const segment = edits
        .all("segment")
        .find((segment) => lower(segment.name) === lower(text) || segment.mark === text.toUpperCase());
      return segment === undefined
        ? `There is no segment called "${text}".`
        : editSsid(bench, id, {
            segment: segment.id,
            moreSegments: edits.need("ssid", id).moreSegments.filter((extra) => extra !== segment.id),
          });
    }
    case "more": {
      const { ids, unknown } = named(edits.all("segment"), text);
      return unknown === null
        ? editSsid(bench, id, {
            moreSegments: ids.filter((segmentId) => segmentId !== edits.need("ssid", id).segment),
          })
        : `There is no segment called "${unknown}"; write the ` +
            "segments the sign-in may choose, with commas between.";
    }
    case "security": {
      const security = SECURITIES.find((security) => spellingsOf(security).includes(squeezed(text)));
      const all = SECURITIES.map((security) => SECURITY_SHORT[security]).join(", ");
      return security === undefined
        ? `"${text}" is no kind of security; write one of ${all}.`
        : editSsid(bench, id, { security });
    }
    case "profile":
      return askBy(bench, id, text);
    case "hidden":
    case "isolation": {
      const read = readYes(text);
      return typeof read === "string" ? read : editSsid(bench, id, { [column]: read.is });
    }
    case "bands": {
      const parts = text
        .replace(/ghz/gi, "")
        .split(/[,;\s]+/)
        .filter((part) => part !== "");
      const wrong = parts.find((part) => !(BANDS as readonly string[]).includes(part));
      return wrong === undefined
        ? editSsid(bench, id, { bands: BANDS.filter((band) => parts.includes(band)) })
        : `"${wrong}" is no band; write 2.4, 5 or 6.`;
    }
    case "at":
      return offerAt(bench, id, text);
  }
}

/**
 * Writes pasted rows of wireless names; a row beyond `onto` is a new name and has to say its segment. One bad
 * cell refuses the whole.
 */
export function pasteSsids(
  context: EditContext,
  rows: readonly (readonly string[])[],
  from: SsidColumn,
  onto: readonly string[],
): Refusal {
  const start = SSID_COLUMNS.indexOf(from);
  for (const [i, row] of rows.entries()) {
    const cells = new Map(
      row.flatMap((text, at): [SsidColumn, string][] => {
        const column = SSID_COLUMNS[start + at];
        return column === undefined ? [] : [[column, text.trim()]];
      }),
    );
    let id = onto[i];
    if (id === undefined) {
      const wanted = cells.get("segment") ?? "";
      const segment = context.edits
        .all("segment")
        .find((segment) => lower(segment.name) === lower(wanted) || segment.mark === wanted.toUpperCase());
      const refusal = addSsid(context, segment?.id ?? "", cells.get("name") ?? "");
      if (refusal !== null) return `Row ${i + 1}: ${refusal}`;
      id = context.edits.all("ssid").at(-1)?.id ?? "";
      cells.delete("name");
    }
    for (const [column, text] of cells) {
      const refusal = editSsidCell(context, id, column, text);
      if (refusal !== null) return `Row ${i + 1}: ${refusal}`;
    }
  }
  return null;
}

const bandOf = (column: RadioColumn): Band | null =>
  BANDS.find((band) => column === band || column === `${band} width`) ?? null;

/**
 * A cell of the table of access points as it can be typed in again: a channel, "auto" for a radio without
 * one, "off", or nothing for a band without a radio.
 */
export function radioCellText(radios: readonly Radio[], place: string, column: RadioColumn): string {
  const band = bandOf(column);
  if (band === null) return place;
  const radio = radios.find((radio) => radio.band === band);
  if (radio === undefined) return "";
  if (column !== band) return String(radio.widthMhz);
  if (!radio.enabled) return "off";
  if (radio.channel === null) return "auto";
  return String(radio.channel);
}

/**
 * Writes one cell of the table of access points; a channel in a band without a radio gives it one, an empty
 * one takes the radio out.
 */
export function editRadioCell(
  context: EditContext,
  device: string,
  column: RadioColumn,
  typed: string,
): Refusal {
  const { edits, ids } = context;
  const text = lower(typed);
  const band = bandOf(column);
  if (band === null) {
    if (typed.trim().length > 120) return "A place has at most 120 characters.";
    edits.patch("device", device, { place: typed.trim() });
    return null;
  }
  const radio = edits.all("radio").find((radio) => radio.device === device && radio.band === band);
  if (column !== band) {
    const width = widthsFor(band).find((width) => String(width) === text.replace(/\s*mhz$/, ""));
    if (radio === undefined)
      return text === ""
        ? null
        : `There is no radio for ${band} GHz in ${edits.need("device", device).name}; write its channel first.`;
    return width === undefined
      ? `"${typed.trim()}" is no width for ${band} GHz; write one of ${widthsFor(band).join(", ")}.`
      : setRadio(context, radio.id, { widthMhz: width });
  }
  if (text === "") {
    if (radio !== undefined) edits.remove("radio", radio.id);
    return null;
  }
  if (radio === undefined) addRadios(edits, ids, device, [band]);
  const own = edits.all("radio").find((radio) => radio.device === device && radio.band === band);
  if (own === undefined) return "The radio could not be made.";
  if (text === "off") return setRadio(context, own.id, { enabled: false });
  const refusal = setChannel(context, own.id, text === "auto" ? "" : text);
  return refusal ?? setRadio(context, own.id, { enabled: true });
}

/** Writes pasted rows onto access points; there are as many rows as access points, or the paste is refused. */
export function pasteRadios(
  context: EditContext,
  rows: readonly (readonly string[])[],
  from: RadioColumn,
  onto: readonly string[],
): Refusal {
  const start = RADIO_COLUMNS.indexOf(from);
  for (const [i, row] of rows.entries()) {
    const device = onto[i];
    if (device === undefined)
      return `Row ${i + 1}: there is no access point for it; add one on Hardware first.`;
    for (const [at, text] of row.entries()) {
      const column = RADIO_COLUMNS[start + at];
      const refusal = column === undefined ? null : editRadioCell(context, device, column, text);
      if (refusal !== null) return `Row ${i + 1}: ${refusal}`;
    }
  }
  return null;
}
