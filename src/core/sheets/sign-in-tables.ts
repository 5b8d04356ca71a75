import { formatAddress } from "../address";
import { byNaturalText } from "../kernel";
import type { PlanIndex } from "../plan";
import { SIGN_IN_COLUMNS, signInCellText } from "../planners";
import { entryText, SITUATIONS, type Entry, type WhoRow } from "../guards";

const cell = (index: PlanIndex, entry: Entry): string[] => [
  entryText(index, entry),
  entry.address === null ? "" : formatAddress(entry.address),
  entry.differs ? "no" : "yes",
  entry.says,
];

/** Who gets in at every port with sign-in, in each situation: a table of texts, heads first. */
export const whoTable = (index: PlanIndex, rows: readonly WhoRow[]): string[][] => [
  [
    "Device",
    "Port",
    "Profile",
    "Plugged in",
    ...["All well", "First server down", "All servers down", "Another device"].flatMap((situation) => [
      situation,
      `${situation}, address`,
      `${situation}, as meant`,
      `${situation}, why`,
    ]),
  ],
  ...rows.map(({ device, port, profile, host, cells, stranger }) => [
    device.name,
    port.label,
    profile?.name ?? "",
    host?.name ?? "",
    ...SITUATIONS.flatMap((situation) => (cells === null ? ["", "", "", ""] : cell(index, cells[situation]))),
    ...cell(index, stranger),
  ]),
];

/** Every sign-in profile with all that is set in it. */
export const signInTable = (index: PlanIndex): string[][] => [
  SIGN_IN_COLUMNS.map(([, head]) => head),
  ...[...index.plan.signIn.values()]
    .sort((a, b) => byNaturalText(a.name, b.name))
    .map((profile) => SIGN_IN_COLUMNS.map(([column]) => signInCellText(index, profile, column))),
];
