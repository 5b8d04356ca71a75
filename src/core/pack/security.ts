import { deviceData, deviceSteps, type SheetStep } from "../device-sheet";
import { whoGetsIn } from "../guards";
import { wallEndName, type PlanIndex, type WallEnd } from "../plan";
import { doorsInOrder, zonesInOrder } from "../policy";
import {
  conduitTable,
  devicesInOrder,
  doorTable,
  forwardTable,
  ruleTable,
  serviceTable,
  signInTable,
  tunnelTable,
  whoTable,
  wishTable,
  zoneTable,
} from "../sheets";
import { quiet, tableBlock, text, under } from "./blocks";
import type { Block, PackStudy } from "./model";

/** What may reach what: zones, doors, conduits, services of the site's own. */
export const wallBlocks = ({ index }: PackStudy): Block[] => [
  quiet("What is not named here is closed."),
  ...under("Zones", tableBlock(zoneTable(index))),
  ...under("Doors", tableBlock(doorTable(index))),
  ...under("Conduits", tableBlock(conduitTable(index))),
  ...under("Services of the site’s own", tableBlock(serviceTable(index))),
];

/** "reach everything in the internet, and some things in Servers": what a zone's devices do. */
function reachSentence(index: PlanIndex, from: WallEnd): string {
  const doors = doorsInOrder(index).filter((wall) => sameZone(wall.from, from));
  const named = (door: "open" | "services") =>
    doors
      .filter((wall) => wall.door === door && wall.to.at !== "gateway")
      .map(({ to }) => inWords(index, to));
  const [all, some] = [named("open"), named("services")];
  const parts = [
    ...(all.length === 0 ? [] : [`everything in ${listed(all)}`]),
    ...(some.length === 0 ? [] : [`some things in ${listed(some)}`]),
  ];
  return parts.length === 0 ? "reach no other part" : `reach ${parts.join(", and ")}`;
}
const sameZone = (a: WallEnd, b: WallEnd): boolean => a.at === "zone" && b.at === "zone" && a.zone === b.zone;
const inWords = (index: PlanIndex, end: WallEnd): string =>
  end.at === "internet" ? "the internet" : wallEndName(index, end);
const listed = (words: readonly string[]): string =>
  words.length < 2 ? words.join("") : `${words.slice(0, -1).join(", ")} and ${words.at(-1) ?? ""}`;

/** What leads past the walls, or in from outside: how much there is of it, in a customer's words. */
function besideWalls({ plan, today }: PlanIndex): Block[] {
  const holds = (last: string | null): boolean => last === null || today === null || last >= today;
  const exceptions = [...plan.exception.values()].filter(({ lastDay }) => holds(lastDay)).length;
  const forwards = [...plan.forward.values()].filter(({ until }) => holds(until)).length;
  const lets = exceptions === 1 ? "exception lets" : "exceptions let";
  const leads = forwards === 1 ? "port forward leads" : "port forwards lead";
  return [
    ...(exceptions === 0 ? [] : [text(`${exceptions} ${lets} single devices or networks through besides.`)]),
    ...(forwards === 0 ? [] : [text(`${forwards} ${leads} in from the internet.`)]),
  ];
}

/** Who is meant to reach what, in a customer's words: no services, no ports, no rules. */
export const plainWallBlocks = ({ index }: PackStudy): Block[] => [
  text(
    "The site is divided into parts, and a wall is meant to stand between any two of them. Closed is what " +
      "nothing here lets through.",
  ),
  ...tableBlock([
    ["Part", "Its devices", "Among themselves"],
    ...zonesInOrder(index).map((zone) => [
      zone.name,
      reachSentence(index, { at: "zone", zone: zone.id }),
      zone.insideOpen ? "all of its networks reach one another" : "each of its networks is kept apart",
    ]),
  ]),
  ...besideWalls(index),
];

/** The ordered lists that the walls need, and those that stand on devices. */
export const ruleBlocks = ({ index }: PackStudy): Block[] => {
  const [heads = [], ...rows] = ruleTable(index);
  const named = heads.map((head) => (head === "Note" ? "Reason" : head));
  const of = (device: string) => rows.filter((row) => row[0] === device).map((row) => row.slice(1));
  return [...new Set(rows.map((row) => row[0] ?? ""))].flatMap((device) =>
    under(device, tableBlock([named.slice(1), ...of(device)])),
  );
};

/** Who comes in from outside, and how. */
export const wayInBlocks = ({ index }: PackStudy): Block[] => [
  ...under("Wishes", tableBlock(wishTable(index))),
  ...under("Port forwards", tableBlock(forwardTable(index))),
  ...under("Tunnels", tableBlock(tunnelTable(index))),
];

/** Who it is in each situation; addresses and reasons are asked of the plan. */
const WHO_HEADS = [
  "Device",
  "Port",
  "Profile",
  "Plugged in",
  "All well",
  "First server down",
  "All servers down",
  "Another device",
];
/** Who gets in at a port with sign-in, and what answers. */
export const signInBlocks = ({ index }: PackStudy): Block[] => [
  ...under("Sign-in profiles", tableBlock(signInTable(index))),
  ...under("Who gets in", tableBlock(whoTable(index, whoGetsIn(index)), WHO_HEADS)),
];

/** What stands in a part of its own already. */
const ELSEWHERE: ReadonlySet<string> = new Set([
  "Ports of end devices",
  "Phone and PC ports",
  "Trunks, tagging last",
  "List one: membership of each VLAN",
  "List two: PVID of each port",
  "DHCP reservations",
  "DHCP",
  "Firewall rules",
  "Internet lines",
  "Tunnels",
  "Save",
]);

/** A step's own cautions stand with the others, in their own part. */
function stepBlocks({ title, heads, rows, note }: SheetStep): Block[] {
  const table = tableBlock([heads, ...rows]);
  return table.length === 0 && note === ""
    ? []
    : [{ is: "subheading", text: title }, ...table, ...(note === "" ? [] : [quiet(note)])];
}

/** What is entered on each device beside its ports: trees, guards, addresses, radios, administrators. */
export const deviceBlocks = ({ index }: PackStudy): Block[] =>
  devicesInOrder(index).flatMap((device) =>
    under(
      device.name,
      deviceSteps(deviceData(index, device))
        .filter(({ title }) => !ELSEWHERE.has(title))
        .flatMap(stepBlocks),
    ),
  );
