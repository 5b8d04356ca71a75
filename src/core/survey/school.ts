import type { PlanIndex, Site } from "../plan";
import { DEVICE_MODELS, catalogueOf } from "../catalogue";
import { groupKey, groupTitle, roomsInOrder, surveyed, type Group } from "./groups";
import { shapeOf } from "./router-shape";
import { needsOf } from "./read-needs";

export type School = Exclude<Site["conventions"]["separation"], "auto">;

export interface SchoolChoice {
  readonly school: School;
  readonly reason: string;
  /** Whether the installer chose it against the survey. */
  readonly overridden: boolean;
  /** What the survey itself would choose. */
  readonly fits: School;
}

export const SCHOOL_WORDS: Readonly<Record<School, string>> = {
  vlans: "VLANs on shared gear",
  routers: "Separate routers, chained or in a Y",
  gap: "Separate gear without a link",
};

/** Above this many groups a router for each is more gear, and more to go wrong, than one managed switch. */
const MOST_ROUTERS = 4;

/** How the routers stand to one another, as the draft makes them. */
function shapeWords(index: PlanIndex, groups: readonly Group[]): string {
  const shape = shapeOf(
    index,
    groups.filter(({ purpose }) => purpose !== "safety"),
  );
  const title = (group: Group) => groupTitle(index.plan.site, group);
  switch (shape.shape) {
    case "one":
      return `${title(shape.front)} alone needs no second router.`;
    case "chain":
      return (
        `In a chain: ${title(shape.front)} in front, and behind a router of its ` +
        "own what may open something there and is not to be reached from there."
      );
    case "Y":
      return "In a Y: nobody's devices lie in front, and each network is behind a router of its own.";
  }
}

/** The way of separating that fits, and why; by whether all switches that there will be know no VLANs. */
function fitting(plainOnly: boolean, groups: number): [School, string] {
  if (!plainOnly) return ["vlans", `One set of managed gear keeps ${groups} groups apart.`];
  if (groups <= MOST_ROUTERS)
    return [
      "routers",
      `The switches that stay know no VLANs, and ${groups} groups need no more than ${groups} routers.`,
    ];
  return [
    "vlans",
    `The switches that stay know no VLANs, but ${groups} groups ` +
      "would need as many routers; managed switches are less to go wrong.",
  ];
}

/**
 * Which separation fits. Separate routers: a home whose gear stays and knows no VLANs, with few groups.
 * Separate gear for the whole site only by choice; a safety network is kept apart in every case. Else VLANs.
 */
export function schoolOf(index: PlanIndex): SchoolChoice {
  const { site } = index.plan;
  const gear = [...index.plan.gear.values()].filter(
    (found) => found.fate === "keep" && found.kind === "switch",
  );
  const plain =
    gear.length > 0 &&
    gear.every(
      (found) =>
        found.model !== "" && DEVICE_MODELS.find((model) => model.id === found.model)?.bridging === "plain",
    );
  const groups = new Map(
    surveyed(index)
      .filter(
        ({ need, group }) =>
          (need.kind.role === "host" || need.kind.role === "crowd") && group.purpose !== "management",
      )
      .map(({ group }) => [groupKey(group), group]),
  );
  const safety = surveyed(index).some(({ group }) => group.purpose === "safety");
  const catalogue = catalogueOf(index.plan);
  const managed = roomsInOrder(index).some((room) =>
    needsOf(catalogue, room.needs).some((need) => need.kind.role === "switch"),
  );
  const apart = safety ? " The safety network is recorded on gear of its own and never linked." : "";
  const [fits, why] = fitting(plain && !managed, groups.size);
  const chosen = site.conventions.separation;
  const shape = (school: School) =>
    school === "routers" ? ` ${shapeWords(index, [...groups.values()])}` : "";
  if (chosen === "auto" || chosen === fits)
    return { school: fits, reason: `${why}${shape(fits)}${apart}`, overridden: false, fits };
  return {
    school: chosen,
    reason:
      "Chosen by you. The survey itself points to " +
      `${SCHOOL_WORDS[fits].toLowerCase()}: ${why}${shape(chosen)}${apart}`,
    overridden: true,
    fits,
  };
}
