import { byNaturalText } from "../kernel";
import { powerBudget, watts } from "../power";
import {
  cabinets,
  cableScheduleTable,
  cablesInOrder,
  DEVICE_KIND_WORDS,
  devicesInOrder,
  gearTable,
  jacketOf,
  lineTable,
  portScheduleTable,
  type Cabinet,
} from "../sheets";
import { baselineTable } from "../planners";
import { stillCounts, TEST_CAME_WORDS } from "../records";
import { isAdministered, type Device, type PlanIndex } from "../plan";
import { tableBlock, text, under } from "./blocks";
import type { Block, Cell, DrawnCabinet, PackStudy } from "./model";

/** Every place with gear, drawn where height units are known, with what feeds it. */
export function cabinetBlocks({ index }: PackStudy): Block[] {
  const all = cabinets(index);
  const drawn = all.filter(({ units }) => units > 0);
  const loose = all.flatMap(({ place, loose: own }) =>
    own.map(({ device }) => [place, device.name, device.model, device.feed, device.backupFeed]),
  );
  return [
    ...(drawn.length === 0 ? [] : [{ is: "cabinets" as const, cabinets: drawn.map(asDrawn) }]),
    ...under(
      "At no height unit",
      tableBlock([["Place", "Device", "Model", "Fed by", "Second feed"], ...loose]),
    ),
    ...under(
      "Feeds",
      tableBlock([
        ["Place", "Feed", "Feeds", "Dark without it"],
        ...all.flatMap(({ place, feeds }) =>
          feeds.map(({ feed, devices, dark }) => [place, feed, namesOf(devices), namesOf(dark)]),
        ),
      ]),
    ),
  ];
}

const asDrawn = ({ place, units, racked }: Cabinet): DrawnCabinet => ({
  place,
  units,
  racked: racked.map(({ device, from, to }) => ({ name: device.name, from, to })),
});
const namesOf = (all: readonly { readonly name: string }[]): string => all.map(({ name }) => name).join(", ");

/** What stands where, in a customer's words. */
export const whereBlocks = ({ index }: PackStudy): Block[] =>
  tableBlock([
    ["Place", "Device", "What it is", "Fed by"],
    ...devicesInOrder(index)
      .sort((a, b) => byNaturalText(a.place, b.place))
      .map((device) => [device.place, device.name, DEVICE_KIND_WORDS[device.kind], device.feed]),
  ]);

/** The ports of each device with their tape; `only` keeps these columns. */
function scheduleOf(index: PlanIndex, device: Device, rows: readonly string[][], only?: readonly string[]) {
  const ports = index.portsOf(device.id);
  const taped = rows.map((row, at): Cell[] => {
    const port = ports[at];
    const jacket = port === undefined ? null : jacketOf(index, port);
    const tapes = jacket === null ? [] : [...(jacket.tip === null ? [] : [jacket.tip]), ...jacket.rings];
    return [...row.slice(1), { tapes: tapes.slice(0, MOST_TAPES), text: moreText(tapes.length) }];
  });
  const [heads = []] = portScheduleTable(index).slice(0, 1);
  return under(
    device.place === "" ? device.name : `${device.name}, ${device.place}`,
    tableBlock([[...heads.slice(1), "Tape"], ...taped], only),
  );
}
const MOST_TAPES = 6;
const moreText = (tapes: number): string => (tapes > MOST_TAPES ? `and ${tapes - MOST_TAPES} more` : "");

function schedules({ index }: PackStudy, only?: readonly string[]): Block[] {
  const [, ...rows] = portScheduleTable(index);
  let at = 0;
  return devicesInOrder(index).flatMap((device) => {
    const count = index.portsOf(device.id).length;
    const own = rows.slice(at, at + count);
    at += count;
    return scheduleOf(index, device, own, only);
  });
}

/** All ports of all devices, as the next installer needs them. */
export const portBlocks = (study: PackStudy): Block[] => schedules(study);
/** The ports as an electrician needs them: what is plugged in, and what it draws. */
export const socketBlocks = (study: PackStudy): Block[] =>
  schedules(study, ["Case", "Plugged in", "Medium", "Optic", "PoE W", "Tape"]);

/** What a cable tester showed of each cable last, by the cable's id. */
const testedCables = ({ record }: PackStudy): ReadonlyMap<string, string> =>
  new Map(
    stillCounts(record).flatMap(({ entry }) => {
      if (entry.do !== "test" || !entry.test.id.startsWith(CABLE_TEST)) return [];
      const shown = [TEST_CAME_WORDS[entry.came], entry.read].filter((part) => part !== "").join(", ");
      return [[entry.test.id.slice(CABLE_TEST.length), shown] as const];
    }),
  );
const CABLE_TEST = "cable ";

/** The cables between gear, each with what a tester showed of it. */
export function cableBlocks(study: PackStudy): Block[] {
  const [heads = [], ...rows] = cableScheduleTable(study.index);
  const tested = testedCables(study);
  const cables = cablesInOrder(study.index);
  return tableBlock([
    [...heads, "Tested"],
    ...rows.map((row, at) => [...row, tested.get(cables[at]?.link.id ?? "") ?? ""]),
  ]);
}

/** Which end device is at which socket of the gear. */
export const dropBlocks = ({ index }: PackStudy): Block[] =>
  tableBlock([
    ["Place", "End device", "Plugged into", "Port"],
    ...devicesInOrder(index).flatMap((device) =>
      index.portsOf(device.id).flatMap((port) =>
        index
          .hostsAt(port.id)
          .filter(({ attachment }) => attachment.at === "port")
          .map((host) => [host.place, host.name, device.name, port.label]),
      ),
    ),
  ]);

/** What each device feeds over its cables, beside what it can give. */
export function powerBlocks({ index }: PackStudy): Block[] {
  const feeding = devicesInOrder(index)
    .map((device) => powerBudget(index, device))
    .filter(({ budgetMw, loads }) => budgetMw > 0 || loads.length > 0);
  return feeding.length === 0
    ? [text("Nothing here is fed over its cable.")]
    : tableBlock([
        [
          "Device",
          "Place",
          "Fed by",
          "Second feed",
          "Can give W",
          "Set aside W",
          "With one supply lost W",
          "Ports",
        ],
        ...feeding.map(({ device, budgetMw, neededMw, oneLostMw, loads }) => [
          device.name,
          device.place,
          device.feed,
          device.backupFeed,
          watts(budgetMw),
          watts(neededMw),
          oneLostMw === null ? "" : watts(oneLostMw),
          String(loads.length),
        ]),
      ]);
}

/** Every device: what it is, its own addresses, its software, where its credentials are kept. */
export const gearBlocks = ({ index }: PackStudy): Block[] => [
  ...tableBlock(gearTable(index)),
  ...under(
    "How gear is administered",
    tableBlock(baselineTable(index, devicesInOrder(index).filter(isAdministered))),
  ),
];

/** The lines to the internet with all that the provider has told. */
export const lineBlocks = ({ index }: PackStudy): Block[] => tableBlock(lineTable(index));
/** The lines in a customer's words. */
export const plainLineBlocks = ({ index }: PackStudy): Block[] =>
  tableBlock(lineTable(index), ["Line", "Kind", "Down Mbit/s", "Up Mbit/s"]);
