import type { PlanIndex, Room } from "../plan";
import { addressedCount, isSafety, neededGear } from "./gear-needed";
import { byGroup, groupKey, groupOf, surveyed, type Group } from "./groups";
import type { Need } from "./read-needs";

// Whose gear is whose where routers separate: one switch or access point can't be in two networks.

export const MANAGEMENT: Group = { purpose: "management", name: "" };

const wirelessGroups = (index: PlanIndex): ReturnType<typeof surveyed> =>
  surveyed(index).filter(({ need }) => need.wireless && need.kind.role !== "point" && !isSafety(need));

/**
 * Whose each room's access points are: theirs who are wireless there, else the first wireless group's. By the
 * room's id.
 */
export function pointGroups(index: PlanIndex): ReadonlyMap<string, Group> {
  const wireless = wirelessGroups(index).sort(
    (a, b) => b.need.count - a.need.count || byGroup(a.group, b.group),
  );
  const fallback = [...wireless].sort((a, b) => byGroup(a.group, b.group))[0]?.group;
  return new Map(
    surveyed(index)
      .filter(({ need }) => need.kind.role === "point")
      .flatMap(({ room }): [string, Group][] => {
        const group = wireless.find((surveyed) => surveyed.room.id === room.id)?.group ?? fallback;
        return group === undefined ? [] : [[room.id, group]];
      }),
  );
}

/**
 * Groups with wireless devices that none of the survey's access points falls to, and the room for one: where
 * most of them are. None where the survey has no access point at all.
 */
export function pointsMissing(index: PlanIndex): { readonly group: Group; readonly room: Room }[] {
  const assigned = pointGroups(index);
  const served = new Set([...assigned.values()].map(groupKey));
  const missing = new Map<string, { group: Group; room: Room }>();
  if (assigned.size === 0) return [];
  for (const { group, room } of wirelessGroups(index).sort((a, b) => b.need.count - a.need.count))
    if (!served.has(groupKey(group)) && !missing.has(groupKey(group)))
      missing.set(groupKey(group), { group, room });
  return [...missing.values()].sort((a, b) => byGroup(a.group, b.group));
}

/**
 * Whose gear a need is plugged into: its own group's, for an access point that of who joins there, for other
 * gear `home`.
 */
export function gearGroup(
  index: PlanIndex,
  points: ReadonlyMap<string, Group>,
  { room, need, home }: { readonly room: Room; readonly need: Need; readonly home: Group },
): Group {
  const point = need.kind.role === "point" ? points.get(room.id) : undefined;
  const own = groupOf(index.plan.site, room, need);
  return point ?? (own.purpose === "management" ? home : own);
}

/**
 * Addresses that the gear of a group takes in its own network: switches that know VLANs, access points, and
 * at home for gear what else of it is surveyed.
 */
export function gearCount(index: PlanIndex, group: Group, home: Group): number {
  const points = pointGroups(index);
  const belongs = (need: Need, room: Room) =>
    !isSafety(need) && groupKey(gearGroup(index, points, { room, need, home })) === groupKey(group);
  const switches = neededGear(index, null, belongs).reduce(
    (total, place) => total + addressedCount(place),
    0,
  );
  const surveyedPoints = surveyed(index)
    .filter(
      ({ room, need }) =>
        need.kind.role === "point" && groupKey(points.get(room.id) ?? home) === groupKey(group),
    )
    .reduce((total, { need }) => total + need.count, 0);
  const others =
    groupKey(group) !== groupKey(home)
      ? []
      : surveyed(index).filter(
          ({ need, group: own }) =>
            own.purpose === "management" && !["point", "switch", "socket"].includes(need.kind.role),
        );
  return (
    switches +
    others.reduce((total, { need }) => total + need.count, 0) +
    surveyedPoints +
    pointsMissing(index).filter((missing) => groupKey(missing.group) === groupKey(group)).length
  );
}
