import type { Draft, Host, PlanIndex, Segment } from "../../plan";
import { mainDomain, type IdSource } from "../../planners";
import { byGroup, groupKey, type Group } from "../groups";
import type { SchoolChoice } from "../school";
import type { Need } from "../read-needs";
import { tallyGroups, type GroupTally } from "../tally";

/** What every part of a draft works with. `notes` are sentences for the person: what was left out, or could not be done. */
export interface Frame {
  readonly draft: Draft;
  readonly ids: IdSource;
  /** The plan before the draft; the survey in it is not changed by the draft. */
  readonly index: PlanIndex;
  readonly school: SchoolChoice;
  readonly notes: string[];
  readonly groups: readonly GroupTally[];
}

/** Groups that have a segment: where routers separate, the gear's own addresses lie in the first network. */
export function groupsToDraft(index: PlanIndex, school: SchoolChoice): GroupTally[] {
  const groups = tallyGroups(index);
  if (school.school !== "routers") return groups;
  const [management] = groups.filter(({ group }) => group.purpose === "management");
  const others = groups.filter(({ group }) => group.purpose !== "management").sort((a, b) => Number(b.group.purpose === "people") - Number(a.group.purpose === "people") || byGroup(a.group, b.group));
  const [first, ...rest] = others;
  if (first === undefined) return [];
  return management === undefined ? others : [{ ...first, now: first.now + management.now, planned: first.planned + management.planned }, ...rest];
}

/** The group of the network in front, where routers separate. */
export const frontOf = (frame: Frame): Group | null => (frame.school.school === "routers" ? (frame.groups[0]?.group ?? null) : null);

/** Where the addresses of a group's devices lie: for the gear itself, where routers separate, the network in front. */
export const homeGroup = (frame: Frame, group: Group): Group => (group.purpose === "management" ? (frontOf(frame) ?? group) : group);

export function segmentOf(draft: Draft, group: Group): Segment | undefined {
  return draft.all("segment").find((segment) => groupKey({ purpose: segment.purpose, name: segment.group }) === groupKey(group));
}

/** Groups whose gear has no link to the rest. */
export const standsApart = (frame: Frame, group: Group): boolean =>
  group.purpose === "safety" || (frame.school.school === "gap" && !["management", "people", "voice", "guests"].includes(group.purpose));

/** How a thing gets its address: its kind's way and the site's school; without a link to the rest nobody serves addresses, so all are typed in. */
export const mannerOf = (frame: Frame, need: Need, group: Group): Host["manner"] =>
  standsApart(frame, group) || (need.kind.manner === "reserved" && frame.index.plan.site.conventions.school === "type") ? "typed" : need.kind.manner;

/** The domain of the shared gear. */
export const sharedDomain = (frame: Frame): string => {
  const known = mainDomain(frame.draft.plan) ?? frame.draft.all("domain")[0]?.id;
  return known ?? frame.draft.put("domain", { id: frame.ids(), name: "Main" }).id;
};
