import { formatAddress, inRange, parseIpv4, prefixOf, usableRange } from "../../address";
import { BLANK_LEAFLET, MOST, type Leaflet, type PlanIndex } from "../../plan";
import { formatLease, parseSeconds } from "../addressing/lease-text";
import type { EditContext, Refusal } from "../planner";
import { readYes } from "../yes-text";

/** What can be written of a leaflet: the field, its word, and a hint. */
export const LEAFLET_FIELDS = [
  ["addressing", "First address", "its own, by DHCP"],
  ["address", "Which", "192.168.1.1/24"],
  ["gives", "Is a DHCP server", "yes, no"],
  ["opens", "Opened first", "https, or console 115200 8N1"],
  ["start", "Starts in", "90 s"],
  ["light", "Ready when", "the status light stays on"],
  ["reset", "Reset held for", "10 s"],
  ["restarts", "New address needs a restart", "yes, no"],
  ["nameRule", "Name takes", "anything, letters digits hyphens"],
  ["nameMost", "Name, most characters", "32"],
  ["notes", "Notes", ""],
] as const;
export type LeafletField = (typeof LEAFLET_FIELDS)[number][0];

const ADDRESSING = { unknown: "", fixed: "its own", dhcp: "by DHCP" } as const;
const GIVES = { unknown: "", yes: "yes", no: "no" } as const;
const NAME_RULE = { any: "anything", label: "letters, digits, hyphens" } as const;

const seconds = (value: number | null): string => (value === null ? "" : formatLease(value));

/** A field as it can be written in again; empty where nobody has read it. */
export function leafletText(leaflet: Leaflet | undefined, field: LeafletField): string {
  if (leaflet === undefined) return "";
  const texts: Readonly<Record<LeafletField, string>> = {
    addressing: ADDRESSING[leaflet.addressing],
    address:
      leaflet.address4 === null
        ? ""
        : formatAddress(leaflet.address4) + (leaflet.length4 === null ? "" : `/${leaflet.length4}`),
    gives: GIVES[leaflet.gives],
    opens: leaflet.opens,
    start: seconds(leaflet.startSeconds),
    light: leaflet.light,
    reset: seconds(leaflet.resetSeconds),
    restarts: leaflet.restarts ? "yes" : "",
    nameRule: leaflet.nameRule === "any" ? "" : NAME_RULE.label,
    nameMost: leaflet.nameMost === null ? "" : String(leaflet.nameMost),
    notes: leaflet.notes,
  };
  return texts[field];
}

type Fields = Partial<Leaflet>;

function readAddressing(text: string): Fields | string {
  if (text === "") return { addressing: "unknown" };
  if (/^(its own|own|fixed|static)$/i.test(text)) return { addressing: "fixed" };
  return /dhcp/i.test(text)
    ? { addressing: "dhcp" }
    : `"${text}" is no way to a first address; write "its own" or "by DHCP", or nothing.`;
}

function readAddress(text: string): Fields | string {
  if (text === "") return { address4: null, length4: null };
  const [, host = "", length] = /^([^/]*)(?:\/(\d{1,2}))?$/.exec(text) ?? [];
  const address = parseIpv4(host.trim());
  const bits = length === undefined ? null : Number(length);
  if (address === null || (bits !== null && (bits < 1 || bits > 32)))
    return `"${text}" is no first address; write one with its prefix length, such as 192.168.1.1/24.`;
  const prefix = bits === null ? null : prefixOf(address, bits);
  if (prefix !== null && !inRange(usableRange(prefix), address))
    return `${host.trim()} can't be a device's address in a /${bits}: it is the network's or the broadcast.`;
  return { address4: address, length4: bits };
}

function readGives(text: string): Fields | string {
  if (text === "") return { gives: "unknown" };
  const read = readYes(text);
  return typeof read === "string" ? read : { gives: read.is ? "yes" : "no" };
}

function readSeconds(field: "startSeconds" | "resetSeconds", most: number, text: string): Fields | string {
  if (text === "") return { [field]: null };
  const read = parseSeconds(text);
  return read === null || read > most
    ? `"${text}" is no time up to ${formatLease(most)}; write it such as 90 s or 2 min.`
    : { [field]: read };
}

function readShort(field: "opens" | "light", text: string): Fields | string {
  return text.length > 120
    ? "That is longer than 120 characters; the rest goes into the notes."
    : { [field]: text };
}

function readNameRule(text: string): Fields | string {
  if (/^(|any|anything)$/i.test(text)) return { nameRule: "any" };
  return /^(label|letters,? digits,?( and)? hyphens|rfc ?1123)$/i.test(text)
    ? { nameRule: "label" }
    : `"${text}" is no rule for names; write "anything" or "letters, digits, hyphens".`;
}

function readNameMost(text: string): Fields | string {
  if (text === "") return { nameMost: null };
  const most = /^\d{1,3}$/.test(text) ? Number(text) : 0;
  return most < 1 || most > 255 ? `"${text}" is no number of characters from 1 to 255.` : { nameMost: most };
}

/** What is typed into a field as settings of the leaflet; a sentence where it can't be read. */
function read(field: LeafletField, typed: string): Fields | string {
  const text = field === "notes" ? typed : typed.trim();
  const readers: Readonly<Record<LeafletField, () => Fields | string>> = {
    addressing: () => readAddressing(text),
    address: () => readAddress(text),
    gives: () => readGives(text),
    opens: () => readShort("opens", text),
    start: () => readSeconds("startSeconds", 7200, text),
    light: () => readShort("light", text),
    reset: () => readSeconds("resetSeconds", 600, text),
    restarts: () => {
      const yes = readYes(text);
      return typeof yes === "string" ? yes : { restarts: yes.is };
    },
    nameRule: () => readNameRule(text),
    nameMost: () => readNameMost(text),
    notes: () => ({ notes: text }),
  };
  return readers[field]();
}

/** Writes down what the leaflet of a model says; the first thing written begins it. */
export function setLeaflet(
  { edits, ids }: Pick<EditContext, "edits" | "ids">,
  model: string,
  field: LeafletField,
  typed: string,
): Refusal {
  if (model === "") return "Say first which model the device is: its leaflet holds for all of that model.";
  const fields = read(field, typed);
  if (typeof fields === "string") return fields;
  const known = edits.all("leaflet").filter((leaflet) => leaflet.model === model);
  const [own] = known.sort((a, b) => (a.id < b.id ? -1 : 1));
  if (own === undefined && edits.all("leaflet").length >= MOST.leaflet)
    return `A site holds at most ${MOST.leaflet} leaflets; forget one that no device is of.`;
  if (own === undefined) edits.put("leaflet", { ...BLANK_LEAFLET, ...fields, id: ids(), model });
  else edits.patch("leaflet", own.id, fields);
  return null;
}

/** Leaflets as a table of texts, heads first. */
export function leafletTable(index: PlanIndex): string[][] {
  const rows = [...index.plan.leaflet.values()].sort((a, b) => (a.model < b.model ? -1 : 1));
  return [
    ["Model", ...LEAFLET_FIELDS.map(([, word]) => word)],
    ...rows.map((leaflet) => [
      leaflet.model,
      ...LEAFLET_FIELDS.map(([field]) => leafletText(leaflet, field)),
    ]),
  ];
}

const WORDS = LEAFLET_FIELDS.map(([, word]) => word).join(", ");

/** A table pasted with its heads: each row is what is read off the leaflet of a model. */
export function pasteLeaflets(
  context: Pick<EditContext, "edits" | "ids">,
  rows: readonly (readonly string[])[],
): Refusal {
  const [heads = [], ...rest] = rows;
  const bare = (text: string) => text.toLowerCase().replace(/[^a-z]/g, "");
  const columns = heads.map(
    (head) => LEAFLET_FIELDS.find(([, word]) => bare(word) === bare(head))?.[0] ?? null,
  );
  const at = heads.findIndex((head) => bare(head) === "model");
  if (at < 0 || columns.every((column) => column === null))
    return `The first row has to name the columns: Model, ${WORDS}.`;
  for (const row of rest) {
    const model = (row[at] ?? "").trim();
    for (const [column, field] of columns.entries()) {
      const refusal =
        field === null || model === "" ? null : setLeaflet(context, model, field, row[column] ?? "");
      if (refusal !== null) return `${model}: ${refusal}`;
    }
  }
  return null;
}
