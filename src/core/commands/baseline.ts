import { nameOf } from "../plan";
import {
  GEAR_COLUMNS,
  pasteGear as pasteGearInto,
  SITE_ROW,
  toBaseline as bringToBaseline,
  type BaselineField,
  type GearColumn,
} from "../planners";
import { counted } from "../repairs";
import { command, type Pasted } from "./command";
import { pasted } from "./says";

const columnWord = (column: GearColumn): string =>
  GEAR_COLUMNS.find(([key]) => key === column)?.[1].toLowerCase() ?? column;

/** Writes how a device is administered or what it is; the site's own id stands for the whole site. */
export const writeGear = command<{
  readonly row: string;
  readonly column: GearColumn;
  readonly text: string;
}>("write-gear", {
  says: ({ row, column, text }, index) =>
    `${row === index.plan.site.id ? SITE_ROW : nameOf(index, "device", row)}, ${columnWord(column)}: ` +
    `${text.trim() || "nothing"}`,
  run: (context, { row, column, text }) => pasteGearInto(context, [[text]], column, [row]),
});

export const pasteGear = command<Pasted<GearColumn>>("paste-gear", {
  says: ({ rows }) => pasted(rows, "how gear is administered"),
  run: (context, { rows, from, onto }) => pasteGearInto(context, rows, from, onto),
  log: ({ rows, from }) => ({ rows: rows.length, from }),
});

export const toBaseline = command<{
  readonly devices: readonly string[];
  readonly fields: readonly BaselineField[] | null;
}>("to-baseline", {
  says: ({ devices }, index) =>
    devices.length === 1 && devices[0] !== undefined
      ? `${nameOf(index, "device", devices[0])} as the whole site is administered`
      : `${counted(devices.length, "device", "devices")} as the whole site is administered`,
  run: (context, { devices, fields }) => bringToBaseline(context, devices, fields),
});
