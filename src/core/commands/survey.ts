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
  run: (bench, fields) => addRoomTo(bench, fields),
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
  run: (bench, { room, field, text }) => editRoomText(bench, room, field, text),
});

export const moveRoom = command<{ readonly room: string; readonly by: -1 | 1 }>("move-room", {
  says: ({ room, by }, index) => `${roomName(index, room)} one ${by < 0 ? "up" : "down"}`,
  run: (bench, { room, by }) => moveRoomBy(bench, room, by),
});

export const removeRooms = command<{ readonly rooms: readonly string[] }>("remove-rooms", {
  says: ({ rooms }, index) => {
    const [only, ...more] = rooms;
    return only !== undefined && more.length === 0
      ? `Removed ${roomName(index, only)}`
      : `Removed ${count(rooms, "room")}`;
  },
  run: (bench, { rooms }) => removeRoomsFrom(bench, rooms),
});

export const pasteRooms = command<{ readonly rows: readonly (readonly string[])[] }>("paste-rooms", {
  says: ({ rows }) => pasted(rows, "the survey"),
  run: (bench, { rows }) => pasteRoomsInto(bench, rows),
  log: ({ rows }) => ({ rows: rows.length }),
});

/** Needs alone, onto rooms and beyond them into new ones that are named with `names`. */
export const pasteNeeds = command<{
  readonly needs: readonly string[];
  readonly onto: readonly string[];
  readonly names: readonly string[];
}>("paste-needs", {
  says: ({ needs }) => pasted(needs, "the survey"),
  run: (bench, { needs, onto, names }) =>
    inTurn(
      ...needs.map((text, i) => () => {
        const room = onto[i];
        const refusal =
          room === undefined
            ? addRoomTo(bench, { name: names[i] ?? "", needs: text })
            : editRoomText(bench, room, "needs", text);
        return refusal === null ? null : `Row ${i + 1}: ${refusal}`;
      }),
    ),
  log: ({ needs }) => ({ rows: needs.length, from: "needs" }),
});

export const clearRooms = command<{ readonly cells: readonly Cell<"name" | "needs">[] }>("clear-rooms", {
  says: ({ cells }) => emptied(cells, "the survey"),
  run: (bench, { cells }) => eachCell(cells, (row, column) => editRoomText(bench, row, column, "")),
});

interface OfGear {
  readonly gear: string;
}

export const addGear = command<{ readonly name: string }>("add-gear", {
  says: ({ name }) => `Gear found: ${name}`,
  run: (bench, { name }) => addGearTo(bench, { name }),
});

export const editGear = command<OfGear & { readonly field: GearField; readonly text: string }>("edit-gear", {
  says: ({ gear, field, text }, index) => wrote(nameOf(index, "gear", gear), field, text),
  run: (bench, { gear, field, text }) => editGearText(bench, gear, field, text),
});

export const setGear = command<
  OfGear & {
    readonly fields: Partial<Pick<Gear, "kind" | "model" | "room" | "dhcp" | "facesInternet" | "fate">>;
  }
>("set-gear", {
  says: ({ gear, fields }, index) => chose(index, nameOf(index, "gear", gear), fields),
  run: ({ draft }, { gear, fields }) => draft.patch("gear", gear, fields),
});

export const removeGear = command<OfGear>("remove-gear", {
  says: ({ gear }, index) => `Removed ${nameOf(index, "gear", gear)} from the gear found`,
  run: ({ draft }, { gear }) => draft.remove("gear", gear),
});

type HostKindFields = Partial<Omit<HostKind, "id" | "name" | "aliases">>;

interface OfKind {
  readonly kind: string;
}

export const addHostKind = command<{ readonly name: string }>("add-host-kind", {
  says: ({ name }) => `New kind of device: ${name}`,
  run: (bench, { name }) => addHostKindTo(bench, name, {}),
});

export const setHostKind = command<OfKind & { readonly fields: HostKindFields }>("edit-host-kind", {
  says: ({ kind, fields }, index) => chose(index, nameOf(index, "hostKind", kind), fields),
  run: ({ draft }, { kind, fields }) => draft.patch("hostKind", kind, fields),
});

export const setAliases = command<OfKind & { readonly text: string }>("set-aliases", {
  says: ({ kind, text }, index) => `${nameOf(index, "hostKind", kind)}: also ${text || "nothing else"}`,
  run: (bench, { kind, text }) => setAliasesOf(bench, kind, text),
});

export const removeHostKind = command<OfKind>("remove-host-kind", {
  says: ({ kind }, index) => `Removed the kind ${nameOf(index, "hostKind", kind)}`,
  run: ({ draft }, { kind }) => draft.remove("hostKind", kind),
});
