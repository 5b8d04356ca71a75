import { byText, grouped } from "../../kernel";
import {
  MOST,
  nameOf,
  wallEndName,
  type Conduit,
  type ControlLevel,
  type PlanIndex,
  type Wall,
  type WallEnd,
  type Zone,
} from "../../plan";
import { LEVEL_WORDS } from "../../planners";
import { counted, listed } from "../../repairs";
import { check, type Found } from "../check";
import { closeWall, endInstead, isStraightToCell } from "./industrial";

/** Levels from the machine up; the DMZ lies between operations and the offices. */
const HEIGHT: Readonly<Record<Exclude<ControlLevel, "none">, number>> = {
  process: 0,
  control: 1,
  supervision: 2,
  operations: 3,
  dmz: 4,
  business: 5,
};

const zoneAt = ({ plan }: PlanIndex, end: WallEnd): Zone | null =>
  end.at === "zone" ? (plan.zone.get(end.zone) ?? null) : null;

/** How high an end stands; the internet above all, null for what has no level. */
function heightOf(index: PlanIndex, end: WallEnd): number | null {
  if (end.at === "internet") return HEIGHT.business + 1;
  const level = zoneAt(index, end)?.level ?? "none";
  return level === "none" ? null : HEIGHT[level];
}

/** The doors, in one order whatever that of the rows is. */
const doors = ({ plan }: PlanIndex): Wall[] =>
  [...plan.wall.values()].filter(({ door }) => door !== "closed").sort((a, b) => byText(a.id, b.id));

/** Whether a door passes over a level in between; control and what supervises it belong together. */
function skips(index: PlanIndex, { from, to }: Wall): boolean {
  const [a, b] = [heightOf(index, from), heightOf(index, to)];
  if (a === null || b === null || Math.abs(a - b) < 2) return false;
  const [low, high] = [Math.min(a, b), Math.max(a, b)];
  // Operations read and set what is controlled; offices and the DMZ have the internet.
  return !(low >= HEIGHT.control && high <= HEIGHT.operations) && low < HEIGHT.dmz;
}

interface WallData {
  readonly wall: string;
}

export const levelSkipped = check<WallData>({
  code: "level-skipped",
  severity: "warn",
  family: "walls",
  title: "A door passes over a level of control",
  why:
    "Each level speaks to the next one only, offices and operations by a plant DMZ " +
    "(IEC 62264-1, IEC 62443-3-2): who gets into one of them is then not yet at the machine.",
  reads: ["wall", "zone", "segment"],
  find: (index) =>
    doors(index)
      .filter((wall) => skips(index, wall) && !isStraightToCell(index, wall))
      .map(({ id }): Found<WallData> => ({ subjects: [{ kind: "wall", id }], data: { wall: id } })),
  describe: ({ wall: id }, index) => {
    const wall = index.plan.wall.get(id);
    if (wall === undefined) return "";
    const said = (end: WallEnd) => {
      const level = zoneAt(index, end)?.level;
      return `${wallEndName(index, end)}${level === undefined ? "" : ` (level ${LEVEL_WORDS[level]})`}`;
    };
    return `${said(wall.from)} gets to ${said(wall.to)} over the levels in between.`;
  },
  repairs: ({ wall: id }, index) => {
    const wall = index.plan.wall.get(id);
    const dmz = [...index.plan.zone.values()]
      .filter(({ level }) => level === "dmz")
      .sort((a, b) => byText(a.id, b.id))[0];
    if (wall === undefined) return [];
    const isByDmz =
      dmz !== undefined && wall.door === "services" && (heightOf(index, wall.from) ?? 0) > HEIGHT.dmz;
    const instead = isByDmz ? [endInstead(wall, dmz)] : [];
    return [...instead, closeWall(index, id)];
  },
});

interface ConduitData {
  readonly conduit: string;
}
interface WeakData extends ConduitData {
  readonly wanted: number;
  readonly zones: readonly string[];
}

/** The zones that a conduit's doors and exceptions join. */
function zonesOf(index: PlanIndex, { id }: Conduit): Zone[] {
  const { plan } = index;
  const ends = [...plan.wall.values()]
    .filter(({ conduit }) => conduit === id)
    .flatMap(({ from, to }) => [from, to]);
  return [...new Set(ends.flatMap((end) => zoneAt(index, end) ?? []))];
}

export const conduitTooWeak = check<WeakData>({
  code: "conduit-too-weak",
  severity: "warn",
  family: "walls",
  title: "A conduit's target level is lower than that of a zone it leads to",
  why: "A zone is as well kept as what leads into it (IEC 62443-3-2).",
  reads: ["conduit", "wall", "zone"],
  find: (index) =>
    [...index.plan.conduit.values()].flatMap((conduit): Found<WeakData>[] => {
      const zones = zonesOf(index, conduit).filter(
        ({ securityLevel }) => securityLevel > conduit.securityLevel,
      );
      const wanted = Math.max(0, ...zones.map(({ securityLevel }) => securityLevel));
      return zones.length === 0
        ? []
        : [
            {
              subjects: [{ kind: "conduit", id: conduit.id }],
              data: { conduit: conduit.id, wanted, zones: zones.map(({ id }) => id).sort(byText) },
            },
          ];
    }),
  describe: ({ conduit, zones }, index) => {
    const level = index.plan.conduit.get(conduit)?.securityLevel ?? 0;
    const said = zones.map((id) => {
      const zone = index.plan.zone.get(id);
      return `${zone?.name ?? "a removed zone"} with level ${zone?.securityLevel ?? 0}`;
    });
    return (
      `${nameOf(index, "conduit", conduit)} has ${level === 0 ? "no target level" : `target level ${level}`} ` +
      `and leads to ${listed(said)}.`
    );
  },
  repairs: ({ conduit, wanted }, index) => [
    {
      label: `Give ${nameOf(index, "conduit", conduit)} target level ${wanted}`,
      planner: "write-conduit",
      args: { conduit, securityLevel: wanted },
      edit: (edits) => edits.patch("conduit", conduit, { securityLevel: wanted }),
    },
  ],
});

export const conduitEmpty = check<ConduitData>({
  code: "conduit-empty",
  severity: "note",
  family: "walls",
  title: "A conduit has no doors",
  why: "It stands in the papers, and nothing passes by it.",
  reads: ["conduit", "wall", "exception"],
  find: ({ plan }) => {
    const used = new Set([...plan.wall.values(), ...plan.exception.values()].map(({ conduit }) => conduit));
    return [...plan.conduit.keys()]
      .filter((id) => !used.has(id))
      .map((id): Found<ConduitData> => ({ subjects: [{ kind: "conduit", id }], data: { conduit: id } }));
  },
  describe: ({ conduit }, index) =>
    `No door and no exception belongs to ${nameOf(index, "conduit", conduit)}.`,
  repairs: ({ conduit }, index) => [
    {
      label: `Remove the conduit ${nameOf(index, "conduit", conduit)}`,
      planner: "remove-conduits",
      args: { conduits: [conduit] },
      edit: (edits) => edits.remove("conduit", conduit),
    },
  ],
});

interface PairData {
  readonly zones: readonly [string, string];
  readonly walls: readonly string[];
}

export const doorWithoutConduit = check<PairData>({
  code: "door-without-conduit",
  severity: "note",
  family: "walls",
  title: "Doors between zones of control belong to no conduit",
  why: "What leads from zone to zone is named, guarded and answered for (IEC 62443-1-1).",
  reads: ["conduit", "wall", "zone"],
  find: (index) => {
    if (index.plan.conduit.size === 0) return [];
    const loose = doors(index).flatMap(({ id, from, to, conduit }) => {
      const [a, b] = [zoneAt(index, from), zoneAt(index, to)];
      return conduit !== null || a === null || b === null || a.level === "none" || b.level === "none"
        ? []
        : [{ id, zones: [a.id, b.id].sort(byText) }];
    });
    return [...grouped(loose, ({ zones }) => zones.join()).values()].map((walls): Found<PairData> => {
      const [a = "", b = ""] = walls[0]?.zones ?? [];
      return {
        subjects: walls.map(({ id }) => ({ kind: "wall" as const, id })),
        data: { zones: [a, b], walls: walls.map(({ id }) => id) },
      };
    });
  },
  describe: ({ zones, walls }, index) =>
    `${counted(walls.length, "door", "doors")} between ` +
    `${listed(zones.map((id) => nameOf(index, "zone", id)))} ` +
    `${walls.length === 1 ? "belongs" : "belong"} to no conduit.`,
  repairs: ({ zones, walls }, index) => {
    const name = zones
      .map((id) => nameOf(index, "zone", id))
      .join(" – ")
      .slice(0, 80);
    const securityLevel = Math.max(...zones.map((id) => index.plan.zone.get(id)?.securityLevel ?? 0));
    return index.plan.conduit.size >= MOST.conduit
      ? []
      : [
          {
            label: `Put ${walls.length === 1 ? "it into one of its" : "them into one of their"} own, ${name}`,
            planner: "set-conduit",
            args: { walls, name },
            edit: (edits, ids) => {
              const { id } = edits.put("conduit", { id: ids(), name, securityLevel, owner: "", note: "" });
              for (const wall of walls) edits.patch("wall", wall, { conduit: id });
            },
          },
        ];
  },
});
