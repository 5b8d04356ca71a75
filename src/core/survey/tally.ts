import type { PlanIndex, Room } from "../plan";
import { catalogueOf, portPowerMw } from "../catalogue";
import { byGroup, groupKey, roomsInOrder, surveyed, type Group } from "./groups";
import { addressedCount, neededGear } from "./gear-needed";
import { needsOf, type Need } from "./read-needs";

/** What a room comes to. */
export interface RoomTally {
  readonly room: Room;
  /** Wired places; a phone with a PC behind it is one. */
  readonly sockets: number;
  readonly hosts: number;
  /** What the switch has to set aside for the room's powered devices, in mW. */
  readonly poeMw: number;
  readonly accessPoints: number;
  /** Items of the line that could not be read. */
  readonly unread: number;
}

const sum = <T>(items: readonly T[], of: (item: T) => number): number =>
  items.reduce((total, item) => total + of(item), 0);

/** Sockets of a need: a crowd and what is wireless have none. */
const socketsOf = (need: Need): number =>
  need.wireless || need.kind.role === "crowd" || need.kind.role === "switch" ? 0 : need.count;
const hostsOf = (need: Need): number => {
  if (need.kind.role === "socket") return 0;
  if (need.kind.role === "pair") return need.count * 2;
  return need.count;
};

export function tallyRoom(index: PlanIndex, room: Room): RoomTally {
  const catalogue = catalogueOf(index.plan);
  const needs = needsOf(catalogue, room.needs);
  return {
    room,
    sockets: sum(needs, socketsOf),
    hosts: sum(needs, hostsOf),
    poeMw: sum(needs, (need) => need.count * portPowerMw(need.poeClass)),
    accessPoints: sum(needs, (need) => (need.kind.role === "point" ? need.count : 0)),
    unread: room.needs.split(/[,;\n]/).filter((part) => part.trim() !== "").length - needs.length,
  };
}

/** A group's addresses, now and with growth rounded up. */
export interface GroupTally {
  readonly group: Group;
  readonly now: number;
  readonly planned: number;
}

export const grown = (count: number, percent: number): number => Math.ceil((count * (100 + percent)) / 100);

/**
 * Addresses by purpose and group in the order of their VLAN IDs; the drafted gear's own are among the
 * management's.
 */
export function tallyGroups(index: PlanIndex): GroupTally[] {
  const { growth } = index.plan.site.conventions;
  const groups = new Map<string, { group: Group; now: number; grownTo: number }>();
  const add = (group: Group, now: number, grownTo: number) => {
    const known = groups.get(groupKey(group));
    groups.set(groupKey(group), {
      group: known?.group ?? group,
      now: (known?.now ?? 0) + now,
      grownTo: (known?.grownTo ?? 0) + grownTo,
    });
  };
  for (const { need, group } of surveyed(index)) {
    if (need.kind.role === "socket" || need.kind.role === "switch") continue;
    // Rounded up once for a group, not once for a line: fifty lines of one PC are not fifty more.
    add(group, need.count, (need.count * (100 + (need.growth ?? growth))) / 100);
  }
  const switches = neededGear(index).reduce((total, place) => total + addressedCount(place), 0);
  if (switches > 0) add({ purpose: "management", name: "" }, switches, switches * (1 + growth / 100));
  return [...groups.values()]
    .map(({ group, now, grownTo }) => ({ group, now, planned: Math.ceil(grownTo - 1e-9) }))
    .sort((a, b) => byGroup(a.group, b.group));
}

/** The whole survey in figures. */
export interface SurveyTally {
  readonly rooms: readonly RoomTally[];
  readonly groups: readonly GroupTally[];
  readonly sockets: number;
  /** Of the sockets, those in cabinets: patch leads, not wall sockets. */
  readonly inCabinets: number;
  readonly hosts: number;
  readonly planned: number;
  readonly poeMw: number;
  readonly accessPoints: number;
  readonly unread: number;
}

export function tallySurvey(index: PlanIndex): SurveyTally {
  const rooms = roomsInOrder(index).map((room) => tallyRoom(index, room));
  const groups = tallyGroups(index);
  const cabinets = rooms.filter((r) => r.room.kind === "cabinet");
  return {
    rooms,
    groups,
    sockets: sum(
      rooms.filter((r) => r.room.kind !== "cabinet"),
      (r) => r.sockets,
    ),
    inCabinets: sum(cabinets, (r) => r.sockets),
    hosts: sum(rooms, (r) => r.hosts),
    planned: sum(groups, (g) => g.planned),
    poeMw: sum(rooms, (r) => r.poeMw),
    accessPoints: sum(rooms, (r) => r.accessPoints),
    unread: sum(rooms, (r) => r.unread),
  };
}

/**
 * Sockets and power that come together in each cabinet: its own devices and those of the rooms that lead to
 * it.
 */
export interface CabinetTally {
  readonly cabinet: Room;
  readonly rooms: number;
  readonly sockets: number;
  readonly poeMw: number;
}

export const tallyCabinets = (tally: SurveyTally): CabinetTally[] =>
  tally.rooms
    .filter((r) => r.room.kind === "cabinet")
    .map(({ room }) => {
      const own = tally.rooms.filter((r) => r.room.id === room.id || r.room.cabinet === room.id);
      return {
        cabinet: room,
        rooms: own.length - 1,
        sockets: sum(own, (r) => r.sockets),
        poeMw: sum(own, (r) => r.poeMw),
      };
    });
