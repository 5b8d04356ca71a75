import type { PlanEdits, Host, PlanIndex, Port, Segment } from "../../plan";
import { mainDomain, type IdSource } from "../../planners";
import { byGroup, groupKey, type Group } from "../groups";
import { gearCount, MANAGEMENT } from "../router-gear";
import { shapeOf } from "../router-shape";
import type { SchoolChoice } from "../school";
import type { Need } from "../read-needs";
import { tallyGroups, type GroupTally } from "../tally";

/**
 * What every part of a draft works with. `notes` are sentences for the person: what was left out, or could
 * not be done.
 */
export interface Frame {
  readonly edits: PlanEdits;
  readonly ids: IdSource;
  /** The plan before the draft; the survey in it is not changed by the draft. */
  readonly index: PlanIndex;
  readonly school: SchoolChoice;
  readonly notes: string[];
  readonly groups: readonly GroupTally[];
}

/**
 * Groups that have a segment: where routers separate, the first is the network in front, where the gear's own
 * addresses lie and in a Y nothing else.
 */
export function groupsToDraft(index: PlanIndex, school: SchoolChoice): GroupTally[] {
  const groups = tallyGroups(index);
  if (school.school !== "routers") return groups;
  const others = groups.filter(({ group }) => group.purpose !== "management");
  if (others.length === 0) return [];
  const shape = shapeOf(
    index,
    others.filter(({ group }) => group.purpose !== "safety").map(({ group }) => group),
  );
  const front = shape.shape === "Y" ? MANAGEMENT : shape.front;
  const more = (tally: GroupTally, count: number): GroupTally => ({
    ...tally,
    now: tally.now + count,
    planned: tally.planned + count,
  });
  // Each network has the addresses of its own gear, and the one in front the outside of each router beside
  // the gateway.
  const rest = others
    .filter(({ group }) => groupKey(group) !== groupKey(front))
    .map((tally) => more(tally, gearCount(index, tally.group, front)))
    .sort((a, b) => byGroup(a.group, b.group));
  const first = others.find(({ group }) => groupKey(group) === groupKey(front)) ?? {
    group: front,
    now: 1,
    planned: 1,
  };
  return [more(first, gearCount(index, front, front) + rest.length), ...rest];
}

/** The group of the network in front, where routers separate. */
export const frontOf = (frame: Frame): Group | null =>
  frame.school.school === "routers" ? (frame.groups[0]?.group ?? null) : null;

/** Whether nobody's devices lie in front: each network is behind a router of its own. */
export const isY = (frame: Frame): boolean => frontOf(frame)?.purpose === "management";

/**
 * Where the addresses of a group's devices lie: for the gear itself, where routers separate, the network in
 * front.
 */
export const homeGroup = (frame: Frame, group: Group): Group =>
  group.purpose === "management" ? (frontOf(frame) ?? group) : group;

/** A socket for an internet line: nothing of the inside is plugged in there. */
export const isLinePort = ({ label }: Port): boolean => label.startsWith("Line");

export function segmentOf(edits: PlanEdits, group: Group): Segment | undefined {
  return edits
    .all("segment")
    .find((segment) => groupKey({ purpose: segment.purpose, name: segment.group }) === groupKey(group));
}

/** Groups whose gear has no link to the rest. */
export const standsApart = (frame: Frame, group: Group): boolean =>
  group.purpose === "safety" ||
  (frame.school.school === "gap" && !["management", "people", "voice", "guests"].includes(group.purpose));

/**
 * How a thing gets its address: its kind's way and the site's school; without a link to the rest nobody
 * serves addresses, so all are typed in.
 */
export const mannerOf = (frame: Frame, need: Need, group: Group): Host["manner"] =>
  standsApart(frame, group) ||
  (need.kind.manner === "reserved" && frame.index.plan.site.conventions.school === "type")
    ? "typed"
    : need.kind.manner;

/** The domain of the shared gear. */
export const sharedDomain = (frame: Frame): string => {
  const known = mainDomain(frame.edits.plan) ?? frame.edits.all("domain")[0]?.id;
  return known ?? frame.edits.put("domain", { id: frame.ids(), name: "Main" }).id;
};
