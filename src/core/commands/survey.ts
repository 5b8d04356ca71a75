import { nameOf, type Gear, type HostKind, type PlanIndex } from "../plan";
import {
  addGear as addGearTo,
  addHostKind as addHostKindTo,
  addRoom as addRoomTo,
  editGear as editGearText,
  editRoom as editRoomText,
  moveRoom as moveRoomBy,
  pasteRooms as pasteRoomsInto,
  removeRooms as removeRoomsFrom,
  setAliases as setAliasesOf,
  type GearField,
  type RoomField,
} from "../planners";
import { command, eachCell, inTurn, type Cell } from "./command";
import { chose, count, emptied, pasted, wrote } from "./says";

const roomName = (index: PlanIndex, id: string): string => nameOf(index, "room", id);

export const addRoom = command<{ readonly name: string; readonly needs: string }>("add-room", {
  says: ({ name }) => `Added the room ${name}`,
  run: (context, fields) => addRoomTo(context, fields),
});

export const editRoom = command<{
  readonly room: string;
  readonly field: RoomField;
  readonly text: string;
}>("edit-room", {
  says: ({ room, field, text }, index) => {
    if (field === "name") return `${roomName(index, room)} is now ${text}`;
    if (field === "needs") return `${roomName(index, room)}: ${text === "" ? "nothing needed" : text}`;
    return wrote(roomName(index, room), field, text);
  },
  run: (context, { room, field, text }) => editRoomText(context, room, field, text),
});

export const moveRoom = command<{ readonly room: string; readonly by: -1 | 1 }>("move-room", {
  says: ({ room, by }, index) => `${roomName(index, room)} one ${by < 0 ? "up" : "down"}`,
  run: (context, { room, by }) => moveRoomBy(context, room, by),
});

export const removeRooms = command<{ readonly rooms: readonly string[] }>("remove-rooms", {
  says: ({ rooms }, index) => {
    const [only, ...more] = rooms;
    return only !== undefined && more.length === 0
      ? `Removed ${roomName(index, only)}`
      : `Removed ${count(rooms, "room")}`;
  },
  run: (context, { rooms }) => removeRoomsFrom(context, rooms),
});

export const pasteRooms = command<{ readonly rows: readonly (readonly string[])[] }>("paste-rooms", {
  says: ({ rows }) => pasted(rows, "the survey"),
  run: (context, { rows }) => pasteRoomsInto(context, rows),
  log: ({ rows }) => ({ rows: rows.length }),
});

/** Needs alone, onto rooms and beyond them into new ones that are named with `names`. */
export const pasteNeeds = command<{
  readonly needs: readonly string[];
  readonly onto: readonly string[];
  readonly names: readonly string[];
}>("paste-needs", {
  says: ({ needs }) => pasted(needs, "the survey"),
  run: (context, { needs, onto, names }) =>
    inTurn(
      ...needs.map((text, i) => () => {
        const room = onto[i];
        const refusal =
          room === undefined
            ? addRoomTo(context, { name: names[i] ?? "", needs: text })
            : editRoomText(context, room, "needs", text);
        return refusal === null ? null : `Row ${i + 1}: ${refusal}`;
      }),
    ),
  log: ({ needs }) => ({ rows: needs.length, from: "needs" }),
});

export const clearRooms = command<{ readonly cells: readonly Cell<"name" | "needs">[] }>("clear-rooms", {
  says: ({ cells }) => emptied(cells, "the survey"),
  run: (context, { cells }) => eachCell(cells, (row, column) => editRoomText(context, row, column, "")),
});

interface OfGear {
  readonly gear: string;
}

export const addGear = command<{ readonly name: string }>("add-gear", {
  says: ({ name }) => `Gear found: ${name}`,
  run: (context, { name }) => addGearTo(context, { name }),
});

export const editGear = command<OfGear & { readonly field: GearField; readonly text: string }>("edit-gear", {
  says: ({ gear, field, text }, index) => wrote(nameOf(index, "gear", gear), field, text),
  run: (context, { gear, field, text }) => editGearText(context, gear, field, text),
});

export const setGear = command<
  OfGear & {
    readonly fields: Partial<Pick<Gear, "kind" | "model" | "room" | "dhcp" | "facesInternet" | "fate">>;
  }
>("set-gear", {
  says: ({ gear, fields }, index) => chose(index, nameOf(index, "gear", gear), fields),
  run: ({ edits }, { gear, fields }) => edits.patch("gear", gear, fields),
});

export const removeGear = command<OfGear>("remove-gear", {
  says: ({ gear }, index) => `Removed ${nameOf(index, "gear", gear)} from the gear found`,
  run: ({ edits }, { gear }) => edits.remove("gear", gear),
});

type HostKindFields = Partial<Omit<HostKind, "id" | "name" | "aliases">>;

interface OfKind {
  readonly kind: string;
}

export const addHostKind = command<{ readonly name: string }>("add-host-kind", {
  says: ({ name }) => `New kind of device: ${name}`,
  run: (context, { name }) => addHostKindTo(context, name, {}),
});

export const setHostKind = command<OfKind & { readonly fields: HostKindFields }>("edit-host-kind", {
  says: ({ kind, fields }, index) => chose(index, nameOf(index, "hostKind", kind), fields),
  run: ({ edits }, { kind, fields }) => edits.patch("hostKind", kind, fields),
});

export const setAliases = command<OfKind & { readonly text: string }>("set-aliases", {
  says: ({ kind, text }, index) => `${nameOf(index, "hostKind", kind)}: also ${text || "nothing else"}`,
  run: (context, { kind, text }) => setAliasesOf(context, kind, text),
});

export const removeHostKind = command<OfKind>("remove-host-kind", {
  says: ({ kind }, index) => `Removed the kind ${nameOf(index, "hostKind", kind)}`,
  run: ({ edits }, { kind }) => edits.remove("hostKind", kind),
});
