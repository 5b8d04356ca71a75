import {
  BLANK_GEAR,
  BLANK_LINE,
  BLANK_ROOM,
  type Gear,
  type HostKind,
  type Room,
  PlanEdits,
} from "../../plan";
import { forget } from "./forget";
import { countChecked } from "../count-text";
import { removeLeg } from "../addressing/legs";
import type { EditContext, Refusal } from "../planner";
import { nameRefusal, readAddresses, readDate, readMetres, readPrefixes } from "./survey-text";

export const ROOM_FIELDS = [
  "name",
  "needs",
  "group",
  "cabinet",
  "cable",
  "height",
  "kind",
  "building",
  "beside",
] as const;
export type RoomField = (typeof ROOM_FIELDS)[number];
const MOST_NEEDS = 2000;

/** A new room behind the last. */
export function addRoom({ edits, ids }: EditContext, fields: Partial<Room> & Pick<Room, "name">): Refusal {
  const rooms = edits.all("room");
  const refusal = nameRefusal(
    fields.name.trim(),
    "room",
    rooms.map((room) => room.name),
  );
  if (refusal !== null) return refusal;
  if (rooms.length >= 2000) return "A survey has at most 2,000 rooms.";
  edits.put("room", {
    ...BLANK_ROOM,
    id: ids(),
    position: Math.max(-1, ...rooms.map((room) => room.position)) + 1,
    ...fields,
    name: fields.name.trim(),
  });
  return null;
}

/** Renames a room, and what stands in it goes with it. */
function renameRoom(edits: PlanEdits, room: Room, text: string): Refusal {
  const others = edits.all("room").filter(({ id }) => id !== room.id);
  const refusal = nameRefusal(
    text,
    "room",
    others.map(({ name }) => name),
  );
  if (refusal !== null) return refusal;
  for (const kind of ["host", "device"] as const)
    for (const entity of edits.all(kind))
      if (entity.place === room.name) edits.patch(kind, entity.id, { place: text });
  edits.patch("room", room.id, { name: text });
  return null;
}

function leadTo(edits: PlanEdits, { id }: Room, text: string): Refusal {
  const cabinet = edits
    .all("room")
    .find((room) => room.kind === "cabinet" && room.name.toLowerCase() === text.toLowerCase());
  if (text !== "" && cabinet === undefined)
    return `There is no cabinet called "${text}"; make that room a cabinet first.`;
  if (cabinet?.id === id) return "A cabinet's own devices are patched in it; it leads to no other.";
  edits.patch("room", id, { cabinet: cabinet?.id ?? null });
  return null;
}

function putBeside(edits: PlanEdits, { id }: Room, text: string): Refusal {
  const byName = new Map(edits.all("room").map((room) => [room.name.toLowerCase(), room.id]));
  const beside = new Set<string>();
  for (const name of text.split(/[,;]/).map((part) => part.trim())) {
    if (name === "") continue;
    const other = byName.get(name.toLowerCase());
    if (other === undefined)
      return `There is no room called "${name}"; write rooms of the survey with commas between.`;
    if (other !== id) beside.add(other);
  }
  edits.patch("room", id, { beside: [...beside] });
  return null;
}

/** What is no cabinet any more has no room's cables lead to it. */
function changeKind(edits: PlanEdits, { id }: Room, text: string): Refusal {
  const kind = (["room", "cabinet", "outdoor"] as const).find((word) => word === text.toLowerCase());
  if (kind === undefined) return `"${text}" is none of: room, cabinet, outdoor.`;
  if (kind !== "cabinet")
    for (const other of edits.all("room"))
      if (other.cabinet === id) edits.patch("room", other.id, { cabinet: null });
  edits.patch("room", id, { kind, ...(kind === "cabinet" ? { cabinet: null } : {}) });
  return null;
}

/** Writes one field of a room from its text. A renamed room takes its devices' places along. */
export function editRoom({ edits }: EditContext, id: string, field: RoomField, typed: string): Refusal {
  const room = edits.need("room", id);
  const text = typed.trim();
  switch (field) {
    case "name":
      return renameRoom(edits, room, text);
    case "needs":
      if (text.length > MOST_NEEDS)
        return `A room's line has at most ${MOST_NEEDS} characters; split the room in two.`;
      edits.patch("room", id, { needs: text });
      return null;
    case "group":
      if (text.length > 120) return "A group's name has at most 120 characters.";
      edits.patch("room", id, { group: text });
      return null;
    case "cabinet":
      return leadTo(edits, room, text);
    case "cable": {
      const read = readMetres(text);
      if (read.refusal !== null) return read.refusal;
      edits.patch("room", id, { cableCm: read.value });
      return null;
    }
    case "height": {
      const units = text === "" ? null : countChecked(text, 100);
      if (text !== "" && units === null)
        return `"${text}" is no height; write rack units from 0 to 100, or leave it empty.`;
      edits.patch("room", id, { heightUnits: units });
      return null;
    }
    case "building":
      if (text.length > 120) return "A building's name has at most 120 characters.";
      edits.patch("room", id, { building: text });
      return null;
    case "beside":
      return putBeside(edits, room, text);
    case "kind":
      return changeKind(edits, room, text);
  }
}

/** Removes rooms; devices that were drafted for them stay in the register, gear found there loses its room. */
export function removeRooms({ edits }: Pick<EditContext, "edits">, ids: readonly string[]): void {
  const gone = new Set(ids);
  for (const room of edits.all("room"))
    if (room.cabinet !== null && gone.has(room.cabinet)) edits.patch("room", room.id, { cabinet: null });
  for (const gear of edits.all("gear"))
    if (gear.room !== null && gone.has(gear.room)) edits.patch("gear", gear.id, { room: null });
  for (const host of edits.all("host"))
    if (host.surveyed !== null && gone.has(host.surveyed.room))
      edits.patch("host", host.id, { surveyed: null });
  for (const room of edits.all("room"))
    if (room.beside.some((id) => gone.has(id)))
      edits.patch("room", room.id, { beside: room.beside.filter((id) => !gone.has(id)) });
  for (const id of ids) edits.remove("room", id);
}

/** Moves a room up or down by one. */
export function moveRoom({ edits }: Pick<EditContext, "edits">, id: string, by: -1 | 1): void {
  const rooms = [...edits.all("room")].sort((a, b) => a.position - b.position || (a.id < b.id ? -1 : 1));
  const at = rooms.findIndex((room) => room.id === id);
  const to = at + by;
  if (at < 0 || to < 0 || to >= rooms.length) return;
  const [moved] = rooms.splice(at, 1);
  if (moved !== undefined) rooms.splice(to, 0, moved);
  for (const [position, room] of rooms.entries())
    if (room.position !== position) edits.patch("room", room.id, { position });
}

type PastedRoom = Readonly<Partial<Record<"needs" | "cabinet" | "cable" | "group", string | undefined>>>;

/** The cells of one pasted row; a cabinet that names its own room says nothing. */
function pasteCells(context: EditContext, room: Room, cells: PastedRoom, isItself: boolean): Refusal {
  for (const field of ["needs", "cabinet", "cable", "group"] as const) {
    const text = cells[field];
    if (text === undefined || (field === "cabinet" && isItself)) continue;
    const refusal = editRoom(context, room.id, field, text);
    if (refusal !== null) return refusal;
  }
  return null;
}

/**
 * Rows of a spreadsheet: room, needs, and if there are more columns cabinet, metres, group. Rooms of that
 * name are changed, others added; a room that others lead to is a cabinet, whichever row comes first.
 */
// eslint-disable-next-line complexity -- one short condition for each column of the paste
export function pasteRooms(context: EditContext, rows: readonly (readonly string[])[]): Refusal {
  const { edits } = context;
  const named = (name: string) =>
    edits.all("room").find((room) => room.name.toLowerCase() === name.toLowerCase());
  const read = rows.map((cells) => cells.map((cell) => cell.trim()));
  for (const [i, cells] of read.entries()) {
    const [name = ""] = cells;
    if (cells.every((cell) => cell === "") || named(name) !== undefined) continue;
    const refusal = addRoom(context, {
      name,
      ...(/\b(cabinet|rack|cupboard)\b/i.test(name) ? { kind: "cabinet" as const } : {}),
    });
    if (refusal !== null) return `Row ${i + 1}: ${refusal}`;
  }
  for (const [i, [name = "", needs, cabinet, cable, group]] of read.entries()) {
    const room = named(name);
    if (room === undefined) continue;
    const leadsTo = cabinet === undefined || cabinet === "" ? undefined : named(cabinet);
    if (leadsTo !== undefined && leadsTo.id !== room.id && leadsTo.kind !== "cabinet")
      edits.patch("room", leadsTo.id, { kind: "cabinet", cabinet: null });
    const refusal = pasteCells(context, room, { needs, cabinet, cable, group }, leadsTo?.id === room.id);
    if (refusal !== null) return `Row ${i + 1}: ${refusal}`;
  }
  return null;
}

export const GEAR_FIELDS = ["name", "addresses", "prefixes", "supportUntil", "notes"] as const;
export type GearField = (typeof GEAR_FIELDS)[number];

export function addGear({ edits, ids }: EditContext, fields: Partial<Gear> & Pick<Gear, "name">): Refusal {
  const refusal = nameRefusal(
    fields.name.trim(),
    "piece of gear",
    edits.all("gear").map((gear) => gear.name),
  );
  if (refusal !== null) return refusal;
  edits.put("gear", { ...BLANK_GEAR, id: ids(), ...fields, name: fields.name.trim() });
  return null;
}

/** Writes one text field of gear that was found. */
export function editGear({ edits }: EditContext, id: string, field: GearField, typed: string): Refusal {
  const text = typed.trim();
  switch (field) {
    case "name": {
      const refusal = nameRefusal(
        text,
        "piece of gear",
        edits
          .all("gear")
          .filter((gear) => gear.id !== id)
          .map((gear) => gear.name),
      );
      if (refusal === null) edits.patch("gear", id, { name: text });
      return refusal;
    }
    case "addresses": {
      const read = readAddresses(text, 16);
      if (read.refusal === null) edits.patch("gear", id, { addresses: read.value });
      return read.refusal;
    }
    case "prefixes": {
      const read = readPrefixes(text, 16);
      if (read.refusal === null) edits.patch("gear", id, { prefixes: read.value });
      return read.refusal;
    }
    case "supportUntil": {
      const read = readDate(text);
      if (read.refusal === null) edits.patch("gear", id, { supportUntil: read.value });
      return read.refusal;
    }
    case "notes":
      if (text.length > 2000) return "Notes have at most 2,000 characters.";
      edits.patch("gear", id, { notes: text });
      return null;
  }
}

/** A kind of device of the site's own; `base` gives everything that is not said. */
export function addHostKind(
  { edits, ids }: EditContext,
  name: string,
  fields: Partial<Omit<HostKind, "id" | "name">>,
): Refusal {
  const refusal = nameRefusal(
    name.trim(),
    "kind",
    edits.all("hostKind").map((kind) => kind.name),
  );
  if (refusal !== null) return refusal;
  edits.put("hostKind", {
    id: ids(),
    name: name.trim(),
    aliases: [],
    base: "other",
    purpose: "other",
    manner: "dynamic",
    wireless: false,
    poeClass: null,
    kbps: 1000,
    speaksDhcp: true,
    speaksSignIn: false,
    internet: "may",
    ...fields,
  });
  return null;
}

/** Other words for a kind, with commas between. */
export function setAliases({ edits }: EditContext, id: string, text: string): Refusal {
  const aliases = [
    ...new Set(
      text
        .split(",")
        .map((alias) => alias.trim())
        .filter((alias) => alias !== ""),
    ),
  ];
  const long = aliases.find((alias) => alias.length > 80);
  if (long !== undefined) return "A word for a kind has at most 80 characters.";
  if (aliases.length > 16) return "A kind has at most 16 other words.";
  edits.patch("hostKind", id, { aliases });
  return null;
}

/** Another internet line. */
export function addLine({ edits, ids }: EditContext, name: string): Refusal {
  const lines = edits.all("line");
  const refusal = nameRefusal(
    name.trim(),
    "line",
    lines.map((line) => line.name),
  );
  if (refusal !== null) return refusal;
  if (lines.length >= 16) return "A site has at most 16 lines.";
  // The last in the order of failover: a line that is added carries nothing that another carries today.
  const place = lines.length === 0 ? 0 : Math.max(...lines.map((line) => line.place)) + 1;
  edits.put("line", { ...BLANK_LINE, id: ids(), name: name.trim(), place });
  return null;
}

/** Removes a line and the legs on it. */
export function removeLine({ edits }: Pick<EditContext, "edits">, id: string): void {
  for (const leg of edits.all("interface")) if (leg.line === id) removeLeg({ edits }, leg.id);
  forget(edits, new Set([id]));
  edits.remove("line", id);
}
