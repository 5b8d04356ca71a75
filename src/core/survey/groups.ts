import type { PlanIndex, Purpose, Room, Site } from "../plan";
import { byNaturalText } from "../kernel";
import { catalogueOf } from "../catalogue";
import { PURPOSE_ORDER, PURPOSE_ROWS } from "./purposes";
import { needsOf, type Need } from "./read-needs";

/** What is surveyed where. */
export interface Surveyed {
  readonly room: Room;
  readonly need: Need;
  readonly group: Group;
}
/** What gets a segment of its own: a purpose, and whose, where it is kept apart. */
export interface Group {
  readonly purpose: Purpose;
  readonly name: string;
}

export const groupKey = ({ purpose, name }: Group): string => `${purpose}/${name.toLowerCase()}`;

/** At home a flat's television belongs to the flat: a room's group takes all of these along. */
const GOES_WITH_ROOM: readonly Purpose[] = ["people", "gadgets", "voice"];

/** The group of a need: what the line says, else the room's, where its purpose is kept apart room by room. */
export function groupOf(site: Site, room: Room, need: Need): Group {
  const { purpose } = need.kind;
  if (need.group !== null && need.group !== "")
    return { purpose: GOES_WITH_ROOM.includes(purpose) ? "people" : purpose, name: need.group };
  if (site.kind === "home" && room.group !== "" && GOES_WITH_ROOM.includes(purpose))
    return { purpose: "people", name: room.group };
  if (!PURPOSE_ROWS[purpose].byGroup) return { purpose, name: "" };
  const wanted = purpose === "people" && site.kind === "industrial" ? "" : room.group;
  const unnamed = purpose === "cell" ? room.name : "";
  return { purpose, name: room.group === "" ? unnamed : wanted };
}

/** Rooms in the order of the survey, cabinets among them. */
export const roomsInOrder = (index: PlanIndex): Room[] =>
  [...index.plan.room.values()].sort(
    (a, b) => a.position - b.position || byNaturalText(a.name, b.name) || (a.id < b.id ? -1 : 1),
  );

/**
 * Everything that was understood of the survey, in the order of the rooms and their lines. A pair is a phone
 * and a PC.
 */
export function surveyed(index: PlanIndex): Surveyed[] {
  const catalogue = catalogueOf(index.plan);
  return roomsInOrder(index).flatMap((room) =>
    needsOf(catalogue, room.needs).flatMap((need) => {
      const group = groupOf(index.plan.site, room, need);
      if (need.kind.role !== "pair") return [{ room, need, group }];
      const pc = catalogue.find((kind) => kind.word === "PC");
      const phone = catalogue.find((kind) => kind.word === "phone");
      return [phone, pc].flatMap((kind) => {
        if (kind === undefined) return [];
        const single: Need = {
          ...need,
          kind,
          what: kind.word,
          poeClass: kind.word === "phone" ? need.poeClass : null,
          wireless: false,
        };
        return [{ room, need: single, group: groupOf(index.plan.site, room, single) }];
      });
    }),
  );
}

/** The name a group's segment gets. */
export function groupTitle(site: Site, group: Group): string {
  const { title } = PURPOSE_ROWS[group.purpose];
  if (group.name === "") return title[site.kind];
  return group.purpose === "people" || group.purpose === "cell" || group.purpose === "other"
    ? group.name
    : `${title[site.kind]} ${group.name}`;
}

export const byGroup = (a: Group, b: Group): number =>
  PURPOSE_ORDER.indexOf(a.purpose) - PURPOSE_ORDER.indexOf(b.purpose) ||
  Number(a.name !== "") - Number(b.name !== "") ||
  byNaturalText(a.name, b.name);
