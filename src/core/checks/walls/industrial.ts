import type { Address } from "../../address";
import { byNaturalText, byText } from "../../kernel";
import {
  type Derived,
  nameOf,
  wallEndName,
  type PlanIndex,
  type Purpose,
  type Wall,
  type WallEnd,
  type Zone,
} from "../../plan";
import { leadDoorTo, removeLeg } from "../../planners";
import { serviceNames } from "../../policy";
import type { Repair } from "../../repairs";
import { check, type Found } from "../check";

/** What the segments of each zone are for. */
const PURPOSES: Derived<ReadonlyMap<string, ReadonlySet<Purpose>>> = {
  reads: ["segment"],
  make: ({ plan }) => {
    const all = new Map<string, Set<Purpose>>();
    for (const { zone, purpose } of plan.segment.values()) {
      const known = all.get(zone);
      if (known === undefined) all.set(zone, new Set([purpose]));
      else known.add(purpose);
    }
    return all;
  },
};
const NOTHING: ReadonlySet<Purpose> = new Set();

export const closeWall = (index: PlanIndex, wall: string): Repair => ({
  label: `Close ${nameOf(index, "wall", wall)}`,
  planner: "set-wall",
  args: { wall, door: "closed" },
  edit: (edits) => edits.remove("wall", wall),
});

/** Lets what a door lets through end in another zone, with its reason and its conduit. */
export const endInstead = ({ id }: Wall, zone: Zone): Repair => ({
  label: `Let it end at ${zone.name} instead`,
  planner: "set-wall",
  args: { wall: id, to: zone.id },
  edit: (edits) => leadDoorTo(edits, id, { at: "zone", zone: zone.id }),
});

/** The zone of the first plant DMZ by name, other than one that an end is; null where there is none. */
function dmzBut({ plan }: PlanIndex, end: WallEnd | undefined): Zone | null {
  const [zone] = [...plan.segment.values()]
    .flatMap((segment) => (segment.purpose === "dmz" ? (plan.zone.get(segment.zone) ?? []) : []))
    .filter(({ id }) => end?.at !== "zone" || end.zone !== id)
    .sort((a, b) => byNaturalText(a.name, b.name) || byText(a.id, b.id));
  return zone ?? null;
}

interface WallData {
  readonly wall: string;
}

/** Those who never come straight to a cell: offices, visitors, vendors. */
const OUTER: readonly Purpose[] = ["people", "voice", "guests", "gadgets", "vendor", "cards"];

const at = (index: PlanIndex, end: WallEnd): ReadonlySet<Purpose> =>
  end.at === "zone" ? (index.derived(PURPOSES).get(end.zone) ?? NOTHING) : NOTHING;

/** Whether a door leads from an office, a vendor or the internet into a cell. */
export const isStraightToCell = (index: PlanIndex, { door, from, to }: Wall): boolean =>
  door !== "closed" &&
  at(index, to).has("cell") &&
  (from.at === "internet" || OUTER.some((purpose) => at(index, from).has(purpose)));

export const straightToCell = check<WallData>({
  code: "straight-to-cell",
  severity: "warn",
  family: "walls",
  title: "An office, a vendor or the internet gets straight to a control cell",
  why:
    "A cell is reached from operations, and everybody else ends in a plant DMZ before it (IEC 62443: " +
    "conduits between zones). A machine can be moved or stopped through such a door.",
  reads: ["wall", "zone", "segment"],
  find: (index) =>
    [...index.plan.wall.values()]
      .filter((wall) => isStraightToCell(index, wall))
      .map(({ id }): Found<WallData> => ({ subjects: [{ kind: "wall", id }], data: { wall: id } })),
  describe: ({ wall: id }, index) => {
    const wall = index.plan.wall.get(id);
    if (wall === undefined) return "";
    const by = wall.door === "open" ? "everything" : serviceNames(wall.services).join(", ");
    return (
      `${wallEndName(index, wall.from)} gets straight to the cell ${wallEndName(index, wall.to)} by ${by}; ` +
      "let it end in a plant DMZ."
    );
  },
  repairs: ({ wall: id }, index) => {
    const wall = index.plan.wall.get(id);
    const dmz = dmzBut(index, wall?.from);
    if (wall === undefined) return [];
    const instead = dmz === null || wall.door !== "services" ? [] : [endInstead(wall, dmz)];
    return [...instead, closeWall(index, id)];
  },
});

interface SafetyData {
  readonly segment: string;
  readonly wall: string | null;
  readonly leg: string | null;
}

export const safetyLinked = check<SafetyData>({
  code: "safety-linked",
  severity: "stop",
  family: "walls",
  title: "A safety network is linked to others",
  why:
    "Emergency stop and safety functions never depend on this plan: their network is recorded here, and no " +
    "router and no door leads into it.",
  reads: ["segment", "zone", "wall", "interface", "device"],
  find: (index) =>
    [...index.plan.segment.values()]
      .filter(({ purpose }) => purpose === "safety")
      .flatMap(({ id, zone }): Found<SafetyData>[] => {
        const isIt = (end: WallEnd) => end.at === "zone" && end.zone === zone;
        const doors = [...index.plan.wall.values()].filter(
          (wall) => wall.door !== "closed" && (isIt(wall.from) || isIt(wall.to)),
        );
        const legs = index
          .interfacesIn(id)
          .filter(({ device }) => index.interfacesOf(device).some(({ segment }) => segment !== id));
        return [
          ...doors.map((wall): Found<SafetyData> => ({
            subjects: [
              { kind: "segment", id },
              { kind: "wall", id: wall.id },
            ],
            data: { segment: id, wall: wall.id, leg: null },
          })),
          ...legs.map((leg): Found<SafetyData> => ({
            subjects: [
              { kind: "segment", id },
              { kind: "interface", id: leg.id },
            ],
            data: { segment: id, wall: null, leg: leg.id },
          })),
        ];
      }),
  describe: ({ segment, wall, leg }, index) => {
    const name = nameOf(index, "segment", segment);
    return leg === null
      ? `${name} is a safety network, and ${nameOf(index, "wall", wall ?? "")} has a door.`
      : `${name} is a safety network, and ${nameOf(index, "interface", leg)} links it to others.`;
  },
  repairs: ({ segment, wall, leg }, index) => {
    if (wall !== null) return [closeWall(index, wall)];
    if (leg === null) return [];
    return [
      {
        label: `Take ${nameOf(index, "interface", leg)} out of it, with what it serves there`,
        planner: "remove-leg",
        args: { leg },
        edit: (edits) => {
          const { device, addresses4, addresses6 } = edits.need("interface", leg);
          const own = new Set<Address>([...addresses4, ...addresses6]);
          for (const scope of edits.all("scope"))
            if (scope.segment === segment && scope.serverDevice === device) edits.remove("scope", scope.id);
          const { dns, time } = edits.need("segment", segment);
          const others = (all: readonly Address[]) => all.filter((address) => !own.has(address));
          edits.patch("segment", segment, { dns: others(dns), time: others(time) });
          removeLeg({ edits }, leg);
        },
      },
    ];
  },
});
