import { byNaturalText } from "../kernel";
import type { PlanIndex, Wall, WallEnd, Zone } from "../plan";
import { serviceNames } from "./services";
import { sameEnd, wallBetween } from "./decide";

/** Both sides of the walls grid: the internet, the zones as a person counts, the gateway itself. */
export const wallEnds = (index: PlanIndex): WallEnd[] => [
  { at: "internet" },
  ...zonesInOrder(index).map((zone): WallEnd => ({ at: "zone", zone: zone.id })),
  { at: "gateway" },
];

/** Zones in the order of their first segment's VLAN ID; those without segments last, by name. */
export function zonesInOrder(index: PlanIndex): Zone[] {
  const first = (zone: Zone): number =>
    Math.min(
      9999,
      ...(index.groups("segmentsByZone").get(zone.id) ?? []).map((segment) => index.vidOf(segment) ?? 5000),
    );
  return [...index.plan.zone.values()].sort((a, b) => first(a) - first(b) || byNaturalText(a.name, b.name));
}

/**
 * What a cell of the grid says. `inside` is a zone to itself: whether its own segments may talk to one
 * another.
 */
export type WallCell =
  | { readonly kind: "itself" }
  | { readonly kind: "inside"; readonly open: boolean }
  | { readonly kind: "wall"; readonly door: Wall["door"]; readonly text: string };

export function wallCell(index: PlanIndex, from: WallEnd, to: WallEnd): WallCell {
  if (sameEnd(from, to))
    return from.at === "zone"
      ? { kind: "inside", open: index.plan.zone.get(from.zone)?.insideOpen ?? false }
      : { kind: "itself" };
  const wall = wallBetween(index, from, to);
  if (wall === null || wall.door === "closed") return { kind: "wall", door: "closed", text: "closed" };
  return {
    kind: "wall",
    door: wall.door,
    text: wall.door === "open" ? "open" : serviceNames(wall.services).join(" "),
  };
}

/** The doors that are open, in the grid's order. */
export const doorsInOrder = (index: PlanIndex): Wall[] => {
  const ends = wallEnds(index);
  return ends.flatMap((from) =>
    ends.flatMap((to) => {
      const wall = wallBetween(index, from, to);
      return wall === null || wall.door === "closed" ? [] : [wall];
    }),
  );
};
