import { fieldWord, valueWords } from "../formats";
import type { PlanIndex } from "../plan";
import { counted } from "../repairs";

/** "Hall switch: place Loft", "Hall switch: place emptied". */
export const wrote = (name: string, field: string, text: string): string =>
  `${name}: ${fieldWord(field)} ${text === "" ? "emptied" : text}`;

/** Fields that were chosen, each with its new value in words: "Lock: hidden yes". */
export const chose = (index: PlanIndex, name: string, fields: object): string =>
  `${name}: ${Object.entries(fields)
    .map(([field, value]) => `${fieldWord(field)} ${valueWords(index, value)}`)
    .join(", ")}`;

/** "3 cells", "1 row". */
export const count = (items: readonly unknown[], single: string, many = `${single}s`): string =>
  counted(items.length, single, many);

export const pasted = (rows: readonly unknown[], into: string): string =>
  `Pasted ${count(rows, "row")} into ${into}`;
export const emptied = (cells: readonly unknown[], of: string): string =>
  `Emptied ${count(cells, "cell")} of ${of}`;
