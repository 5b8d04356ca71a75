import { formatPrefix } from "../../address";
import { byNaturalText } from "../../kernel";
import { nameOf, PlanEdits, type Line, type PlanIndex, type Wall } from "../../plan";
import { ARRANGEMENTS, arrangeBox, type Arrangement } from "../../planners";
import { listed, type Repair } from "../../repairs";
import { check, type Found } from "../check";

interface SeenData {
  readonly line: string;
  /** Whose doors to the internet lead there. */
  readonly zones: readonly string[];
}

const PAGES = [80, 443];

/** Whether a door lets a device's own pages through. */
const letsPages = ({ door, services }: Wall): boolean =>
  door === "open" ||
  (door === "services" &&
    services.some(
      ({ protocol, ports }) =>
        protocol === "tcp" && ports.some(([low, high]) => PAGES.some((page) => low <= page && page <= high)),
    ));

/** The zones that may use the internet's pages, by name. */
function zonesWithPages({ plan }: PlanIndex): string[] {
  const zones = [...plan.wall.values()].flatMap((wall) =>
    wall.from.at === "zone" && wall.to.at === "internet" && letsPages(wall)
      ? (plan.zone.get(wall.from.zone) ?? [])
      : [],
  );
  return [...new Set(zones)]
    .sort((a, b) => byNaturalText(a.name, b.name) || byNaturalText(a.id, b.id))
    .map(({ id }) => id);
}

const routesInFront = ({ providerBox }: Line): boolean =>
  providerBox === "routes" || providerBox === "cannotBridge";

/** Ways to have the box no longer in front; those that can't be done here are not among them. */
const WAYS: readonly Arrangement[] = ["bridged", "bypassed", "behind"];

function away(index: PlanIndex, line: Line, arrangement: Arrangement): Repair[] {
  const edit: Repair["edit"] = (edits, ids) => arrangeBox({ edits, ids }, { line: line.id, arrangement });
  if (edit(new PlanEdits(index.plan), () => "") !== null) return [];
  const name = ARRANGEMENTS.find((row) => row.arrangement === arrangement)?.name ?? arrangement;
  return [
    {
      label: `Have the box of ${line.name} ${name}`,
      planner: "arrange-box",
      args: { line: line.id, arrangement },
      edit,
    },
  ];
}

export const boxNetworkSeen = check<SeenData>({
  code: "box-network-seen",
  severity: "note",
  family: "gateway",
  title: "Who may use the internet also gets to what is inside the provider's box",
  why:
    "For the gateway the box's own network is a part of the outside: its pages, and whatever hangs on it, " +
    "lie behind the door to the internet, for visitors too.",
  reads: ["line", "interface", "wall", "zone"],
  find: (index) => {
    const { plan } = index;
    const zones = zonesWithPages(index);
    const used = new Set([...plan.interface.values()].map(({ line }) => line));
    return [...plan.line.values()]
      .filter(
        (line) => zones.length > 0 && routesInFront(line) && line.boxPrefix !== null && used.has(line.id),
      )
      .map(({ id }): Found<SeenData> => ({ subjects: [{ kind: "line", id }], data: { line: id, zones } }));
  },
  describe: ({ line, zones }, index) => {
    const prefix = index.plan.line.get(line)?.boxPrefix ?? null;
    return (
      `${listed(zones.map((id) => nameOf(index, "zone", id)))} ${zones.length === 1 ? "gets" : "get"} to the ` +
      `pages of the box of ${nameOf(index, "line", line)} and to what hangs on it, ` +
      `${prefix === null ? "its own network" : formatPrefix(prefix)}: keep nothing there, and set its password.`
    );
  },
  repairs: ({ line: id }, index) => {
    const line = index.plan.line.get(id);
    return line === undefined ? [] : WAYS.flatMap((arrangement) => away(index, line, arrangement));
  },
});
