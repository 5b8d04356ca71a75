import { isFilter, nameOf, wallEndName, type PlanIndex, type Wall, type WallEnd } from "../../plan";
import { setWall } from "../../planners";
import { sameEnd, wallBetween, wallEnds } from "../../policy";
import { madeId } from "../made-id";
import type { Sight } from "../sight";
import { edited, type Suspect } from "../suspect";

/** The ends of walls that somebody in sight is in, with the internet and the gateway itself. */
export function endsInSight(index: PlanIndex, { segments }: Sight): WallEnd[] {
  const zones = new Set([...segments].flatMap((id) => index.plan.segment.get(id)?.zone ?? []));
  return wallEnds(index).filter((end) => end.at !== "zone" || zones.has(end.zone));
}

const subjectsOf = (ends: readonly WallEnd[], wall: Wall | null): Suspect["subjects"] => [
  ...(wall === null ? [] : [{ kind: "wall" as const, id: wall.id }]),
  ...ends.flatMap((end) => (end.at === "zone" ? [{ kind: "zone" as const, id: end.zone }] : [])),
];

function pairSuspects(index: PlanIndex, from: WallEnd, to: WallEnd): Suspect[] {
  const wall = wallBetween(index, from, to);
  const door = wall?.door ?? "closed";
  const pair = `${wallEndName(index, from)} to ${wallEndName(index, to)}`;
  const seenAt = [...index.plan.device.values()]
    .filter(isFilter)
    .map(({ id }) => ({ on: "device" as const, device: id }));
  const told = { subjects: subjectsOf([from, to], wall), seenAt };
  const key = `${from.at === "zone" ? from.zone : from.at} ${to.at === "zone" ? to.zone : to.at}`;
  return [
    ...(door === "closed" || wall === null
      ? []
      : [
          edited(
            {
              id: `shut ${key}`,
              kind: "doorShut",
              words: `The rule that lets ${pair} is missing`,
              mend: `Enter the rule for ${pair}, and save.`,
              ...told,
            },
            (edits) => edits.remove("wall", wall.id),
          ),
        ]),
    ...(door === "open"
      ? []
      : [
          edited(
            {
              id: `open ${key}`,
              kind: "doorOpen",
              words: `${pair} is open for everything`,
              mend: `Take out the rule that lets ${pair}, and save.`,
              ...told,
            },
            (edits) =>
              setWall(edits, () => madeId(key), { from, to, door: "open", services: [], reason: "" }),
          ),
        ]),
  ];
}

/** Rules that stand on a device, each left out. */
const ruleSuspects = (index: PlanIndex, { devices }: Sight): Suspect[] =>
  [...index.plan.rule.values()]
    .filter(({ device, enabled }) => enabled && devices.has(device))
    .map(({ id, device, action }) =>
      edited(
        {
          id: `rule ${id}`,
          kind: action === "accept" ? "doorShut" : "doorOpen",
          words: `A rule of ${nameOf(index, "device", device)} is missing: ${nameOf(index, "rule", id)}`,
          mend: `Enter the rule on ${nameOf(index, "device", device)}, and save.`,
          subjects: [{ kind: "rule", id }],
          seenAt: [{ on: "device", device }],
        },
        (edits) => edits.patch("rule", id, { enabled: false }),
      ),
    );

/** Walls with a door too few or too many. */
export function wallSuspects(index: PlanIndex, sight: Sight): Suspect[] {
  const ends = endsInSight(index, sight);
  const walls = ends.flatMap((from) =>
    from.at === "gateway"
      ? []
      : ends.flatMap((to) => (sameEnd(from, to) ? [] : pairSuspects(index, from, to))),
  );
  return [...walls, ...ruleSuspects(index, sight)];
}
