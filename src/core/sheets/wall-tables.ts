import { byNaturalText } from "../kernel";
import { nameOf, wallEndName, type PlanIndex } from "../plan";
import {
  CONDUIT_COLUMNS,
  conduitCellText,
  EXCEPTION_COLUMNS,
  exceptionCellText,
  inConduit,
  LEVEL_WORDS,
  securityLevelText,
  SERVICE_COLUMNS,
  serviceCellText,
  servicesText,
} from "../planners";
import { doorsInOrder, servicesCalled, serviceText, zonesInOrder } from "../policy";

const byName = (a: { readonly name: string }, b: { readonly name: string }): number =>
  byNaturalText(a.name, b.name);

/** Every door between zones, then what passes beside the walls: a table of texts, heads first. */
export function doorTable(index: PlanIndex): string[][] {
  const heads = [
    "From",
    "To",
    "Lets through",
    "Hours",
    "From day",
    "Last day",
    "Answers for it",
    "Reason",
    "Conduit",
  ];
  const doors = doorsInOrder(index).map(({ from, to, door, services, reason, conduit }) => [
    wallEndName(index, from),
    wallEndName(index, to),
    door === "open" ? "any" : servicesText(index, services),
    "always",
    "",
    "",
    "",
    reason,
    conduit === null ? "" : nameOf(index, "conduit", conduit),
  ]);
  const exceptions = [...index.plan.exception.values()]
    .sort(byName)
    .map((exception) =>
      EXCEPTION_COLUMNS.filter(([column]) => column !== "name").map(([column]) =>
        exceptionCellText(index, exception, column),
      ),
    );
  return [heads, ...doors, ...exceptions];
}

/** Every zone with its segments, its level of control and its target security level. */
export const zoneTable = (index: PlanIndex): string[][] => [
  ["Zone", "Segments", "Inside", "Level of control", "Target level"],
  ...zonesInOrder(index).map((zone) => [
    zone.name,
    (index.groups("segmentsByZone").get(zone.id) ?? []).map(({ name }) => name).join(", "),
    zone.insideOpen ? "open" : "kept apart",
    LEVEL_WORDS[zone.level],
    securityLevelText(zone.securityLevel),
  ]),
];

/** Every conduit with the doors and exceptions that lead by it. */
export const conduitTable = (index: PlanIndex): string[][] => [
  [...CONDUIT_COLUMNS.map(([, head]) => head), "Doors", "Exceptions"],
  ...[...index.plan.conduit.values()].sort(byName).map((conduit) => {
    const { doors, exceptions } = inConduit(index, conduit.id);
    return [
      ...CONDUIT_COLUMNS.map(([column]) => conduitCellText(conduit, column)),
      doors.map(({ from, to }) => `${wallEndName(index, from)} to ${wallEndName(index, to)}`).join("; "),
      exceptions.map(({ name }) => name).join("; "),
    ];
  }),
];

/** Every service of the site's own, with all that it stands for. */
export const serviceTable = (index: PlanIndex): string[][] => [
  [...SERVICE_COLUMNS.map(([, head]) => head), "Stands for"],
  ...[...index.plan.service.values()]
    .sort(byName)
    .map((service) => [
      ...SERVICE_COLUMNS.map(([column]) => serviceCellText(service, column)),
      servicesCalled(index.plan, service.name).map(serviceText).join("; "),
    ]),
];
