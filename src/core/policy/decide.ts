import { equal } from "../kernel";
import { serviceNames } from "./services";
import {
  wallEndName,
  type Derived,
  type PlanIndex,
  type Segment,
  type Service,
  type Wall,
  type WallEnd,
} from "../plan";

/** A segment, the internet, or the gateway's own addresses. */
export type WallSide = Segment | "internet" | "gateway";

export interface Decision {
  readonly passes: boolean;
  /** The wall that decides; null when no wall takes part or none is set. */
  readonly wall: Wall | null;
  readonly reason: string;
}

const keyOf = (end: WallEnd): string => (end.at === "zone" ? end.zone : end.at);

/** Walls by their two ends. */
export const WALLS: Derived<ReadonlyMap<string, Wall>> = {
  reads: ["wall"],
  make: (index) =>
    new Map([...index.plan.wall.values()].map((wall) => [`${keyOf(wall.from)}>${keyOf(wall.to)}`, wall])),
};

export const endOf = (party: WallSide): WallEnd =>
  typeof party === "string" ? { at: party } : { at: "zone", zone: party.zone };

export const wallBetween = (index: PlanIndex, from: WallEnd, to: WallEnd): Wall | null =>
  index.derived(WALLS).get(`${keyOf(from)}>${keyOf(to)}`) ?? null;

/**
 * Whether `from` may start talking to `to`. `service` null asks for anything at all: a door for some services
 * is then open, and the reason names them. One segment never meets a wall; one zone follows its own setting.
 */
export function decide(index: PlanIndex, from: WallSide, to: WallSide, service: Service | null): Decision {
  if (typeof from !== "string" && typeof to !== "string") {
    if (from.id === to.id)
      return { passes: true, wall: null, reason: "Both are in one segment; nothing stands between them." };
    if (from.zone === to.zone) {
      const zone = index.plan.zone.get(from.zone);
      return zone?.insideOpen === true
        ? {
            passes: true,
            wall: null,
            reason: `Both are in the zone ${zone.name}, whose segments may talk to one another.`,
          }
        : {
            passes: false,
            wall: null,
            reason: `Both are in the zone ${zone?.name ?? ""}, whose segments are kept apart.`,
          };
    }
  }
  const ends = { from: endOf(from), to: endOf(to) };
  const wall = wallBetween(index, ends.from, ends.to);
  const between = `${wallEndName(index, ends.from)} to ${wallEndName(index, ends.to)}`;
  if (wall === null || wall.door === "closed")
    return { passes: false, wall, reason: `The wall ${between} is closed.` };
  if (wall.door === "open") return { passes: true, wall, reason: `The wall ${between} is open.` };
  const names = serviceNames(wall.services).join(", ");
  if (service === null)
    return { passes: true, wall, reason: `The wall ${between} has a door for ${names} only.` };
  const passes = wall.services.some((offered) => covers(offered, service));
  return {
    passes,
    wall,
    reason: `The wall ${between} has a door for ${names} only${passes ? "" : `, not for ${service.name}`}.`,
  };
}

/** Whether every port of `wanted` lies in `offered`; a service without ports stands for its whole protocol. */
function covers(offered: Service, wanted: Service): boolean {
  if (offered.protocol !== wanted.protocol) return false;
  if (offered.ports.length === 0) return true;
  return (
    wanted.ports.length > 0 &&
    wanted.ports.every(([low, high]) => offered.ports.some(([a, b]) => a <= low && high <= b))
  );
}

export const sameEnd = (a: WallEnd, b: WallEnd): boolean => equal(a, b);
