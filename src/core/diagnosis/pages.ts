import { dataWithoutRules, deviceSteps, guardText } from "../device-sheet";
import { memberText } from "../commissioning";
import { nameOf, wallEndName, isFilter, type PlanIndex, type Port } from "../plan";
import { doorsInOrder, wallCell } from "../policy";

/** A line of what is seen: what it is about, and what stands there. */
export type SeenLine = readonly [about: string, value: string];

/** The steps of a device's sheet that are read as they stand; ports and rules are read one by one. */
const STEPS: ReadonlySet<string> = new Set([
  "Name, address, time",
  "Spanning tree",
  "Guards of the device",
  "Addresses of its own",
  "Internet lines",
  "Routes",
  "Address translation",
  "DHCP",
  "DHCP reservations",
  "Wireless names",
  "Radios",
]);

const ADMIT_WORDS: Readonly<Record<Port["admit"], string>> = {
  all: "",
  tagged: ", only tagged frames",
  untagged: ", only untagged frames",
};

function portLine({ label, guards, ...port }: Port): SeenLine {
  const guarded = guardText(guards);
  const words = `${memberText(port)}${ADMIT_WORDS[port.admit]}${guarded === "none" ? "" : `; ${guarded}`}`;
  return [`port ${label}`, words];
}

/** The walls as a filter has them, pair by pair. */
const doorLines = (index: PlanIndex): SeenLine[] =>
  doorsInOrder(index).map(({ from, to }) => {
    const cell = wallCell(index, from, to);
    const pair = `${wallEndName(index, from)} to ${wallEndName(index, to)}`;
    return [pair, cell.kind === "wall" ? cell.text : "closed"];
  });

/** What is set on a device, as its own pages show it. */
export function deviceLines(index: PlanIndex, id: string): SeenLine[] {
  const device = index.plan.device.get(id);
  if (device === undefined) return [];
  const sheet = deviceSteps({ ...dataWithoutRules(index, device), rules: [] })
    .filter(({ title }) => STEPS.has(title))
    .flatMap(({ title, heads, rows }) =>
      rows.map(([first = "", ...cells]): SeenLine => [
        `${title}, ${first}`,
        cells.map((cell, at) => `${heads[at + 1] ?? ""} ${cell}`.trim()).join("; "),
      ]),
    );
  const rules = index
    .rulesOf(id)
    .map((rule): SeenLine => [nameOf(index, "rule", rule.id), rule.enabled ? rule.action : "off"]);
  return [
    ...index.portsOf(id).map(portLine),
    ...sheet,
    ...(isFilter(device) ? doorLines(index) : []),
    ...rules,
  ];
}
