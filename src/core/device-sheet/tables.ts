import type { DeviceData } from "./sheet-types";
import { deviceSteps } from "./steps";

/**
 * The steps of a device as one table of texts, heads first: the step, then what is entered, as column and
 * value.
 */
export function deviceTable(data: DeviceData): string[][] {
  const rows = deviceSteps(data).flatMap((step, i) => {
    const lead = [String(i + 1), step.title];
    return [
      ...(step.note === "" ? [] : [[...lead, "", "Note", step.note]]),
      ...(step.caution === "" ? [] : [[...lead, "", "Caution", step.caution]]),
      ...step.rows.flatMap((row, at) =>
        row.map((cell, column) => [...lead, String(at + 1), step.heads[column] ?? "", cell]),
      ),
    ];
  });
  return [["Step", "What", "Row", "Setting", "Value"], ...rows];
}

/** The same data as JSON text. */
export const deviceJson = (data: DeviceData): string => `${JSON.stringify(data, null, 2)}\n`;
