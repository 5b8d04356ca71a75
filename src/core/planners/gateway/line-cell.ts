import { formatAddress, parseAddress, type Address } from "../../address";
import { MOST, type Line, type PlanIndex } from "../../plan";
import { linesInOrder } from "../../routing";
import { parseSeconds } from "../addressing/lease-text";
import { addLine } from "../site/edit-survey";
import { editLine } from "../site/edit-site";
import { pasteInto, type RowCells } from "../paste-rows";
import type { EditContext, Refusal } from "../planner";
import { delegatedText, readDelegated } from "./delegated-text";
import { pinsText, readPins } from "./pin-text";

/** What of a line is written in a cell of the lines' table. */
export type LineColumn =
  "order" | "name" | "share" | "watch" | "after" | "back" | "pins" | "follows" | "marks" | "delegated";
export const LINE_COLUMNS: readonly (readonly [LineColumn, string])[] = [
  ["order", "Order"],
  ["name", "Line"],
  ["share", "Share %"],
  ["watch", "Loss noticed by"],
  ["after", "Next after"],
  ["back", "Back after"],
  ["pins", "Pinned to it"],
  ["follows", "Name that follows it"],
  ["marks", "Marks"],
  ["delegated", "Delegated"],
];

/** "10", "10 s", "2 min" as seconds; null for anything else, or for more than `most`. */
function readSeconds(text: string, most: number): number | null {
  const seconds = parseSeconds(text);
  return seconds === null || seconds > most ? null : seconds;
}

function readWatch(text: string): Pick<Line["watch"], "by" | "targets"> | string {
  if (/^(the )?(link|cable|)$/i.test(text)) return { by: "link", targets: [] };
  const targets: Address[] = [];
  for (const part of text.split(/[,;\s]+/).filter((part) => part !== "")) {
    const address = parseAddress(part);
    if (address === null)
      return (
        `"${part}" is no address to ask; write link, or up to four addresses outside ` +
        "such as 198.51.100.53."
      );
    targets.push(address);
  }
  return targets.length > 4
    ? `At most four targets are asked; these are ${targets.length}.`
    : { by: "target", targets };
}

/**
 * "cleared", "kept", "kept, calls 5": whether the provider goes by marks, and the priority it wants of calls.
 */
function readMarks(text: string): Line["marks"] | string {
  const [, said = "", priority] =
    /^(kept|cleared|not known|)\s*(?:[,;]\s*(?:calls|voice|priority|pcp)\s*([0-7]))?$/i.exec(text) ?? [];
  if (said === "" && text !== "")
    return `"${text}" says nothing of marks; write cleared, kept, or kept, calls 5 for a priority from 0 to 7.`;
  return {
    kept: said.toLowerCase() === "kept",
    voicePriority: priority === undefined ? null : Number(priority),
  };
}

const marksText = ({ kept, voicePriority }: Line["marks"]): string =>
  `${kept ? "kept" : "cleared"}${voicePriority === null ? "" : `, calls ${voicePriority}`}`;

/** The columns that say when another line takes over, and when this one is back. */
function readTimes(column: "after" | "back", text: string, watch: Line["watch"]): Line["watch"] | string {
  if (column === "back" && /^(by hand|never)$/i.test(text)) return { ...watch, returns: false };
  const seconds = readSeconds(text, column === "after" ? 3600 : 86_400);
  if (seconds === null)
    return column === "after"
      ? `"${text}" is no time; write seconds up to 3600, like 10 s or 2 min.`
      : `"${text}" is no time; write seconds up to a day, like 60 s, or by hand.`;
  return column === "after"
    ? { ...watch, afterSeconds: seconds }
    : { ...watch, backSeconds: seconds, returns: true };
}

/** What is written in a cell as fields of the line; a sentence where it can't be read. */
function readLineCell(
  index: PlanIndex,
  column: Exclude<LineColumn, "order">,
  text: string,
  { watch, dynamicName }: Pick<Line, "watch" | "dynamicName">,
): Partial<Line> | string {
  switch (column) {
    case "name":
      return { name: text };
    case "share": {
      const share = /^(|none|no|-)$/i.test(text) ? "0" : text.replace(/\s*%$/, "");
      return /^\d{1,3}$/.test(share) && Number(share) <= 100
        ? { share: Number(share) }
        : `"${text}" is no share; write percent from 1 to 100, or none.`;
    }
    case "watch": {
      const read = readWatch(text);
      return typeof read === "string" ? read : { watch: { ...watch, ...read } };
    }
    case "after":
    case "back": {
      const read = readTimes(column, text, watch);
      return typeof read === "string" ? read : { watch: read };
    }
    case "pins": {
      const pins = readPins(index, text);
      return typeof pins === "string" ? pins : { pins: [...pins] };
    }
    case "marks": {
      const marks = readMarks(text);
      return typeof marks === "string" ? marks : { marks };
    }
    case "delegated": {
      const delegated = readDelegated(text);
      return typeof delegated === "string" ? delegated : { delegated };
    }
    case "follows":
      return /^[^\s]{0,120}$/.test(text)
        ? { dynamicName: { ...dynamicName, name: text } }
        : `"${text}" is no name of a host; write one without spaces, like lock.example.`;
  }
}

/**
 * The lines that stand in one order of failover: those that end at the same device; a line that ends nowhere
 * stands alone.
 */
export function linesBeside({ plan }: PlanIndex, id: string): Line[] {
  const ends = new Set(
    [...plan.interface.values()].filter(({ line }) => line === id).map(({ device }) => device),
  );
  const beside = new Set(
    [...plan.interface.values()].flatMap(({ line, device }) =>
      line !== null && ends.has(device) ? [line] : [],
    ),
  );
  return linesInOrder([...plan.line.values()].filter((line) => line.id === id || beside.has(line.id)));
}

/** Moves a line to a place in its order, counted from 1; the others close up. */
function moveLine({ edits, index }: EditContext, id: string, text: string): Refusal {
  const beside = new Set(linesBeside(index, id).map((line) => line.id));
  const now = linesInOrder(edits.all("line").filter((line) => beside.has(line.id)));
  const place = /^\d{1,2}$/.test(text) ? Number(text) : 0;
  if (place < 1 || place > now.length) return `"${text}" is no place in the order; write 1 to ${now.length}.`;
  const others = now.filter((line) => line.id !== id);
  const order = [...others.slice(0, place - 1), edits.need("line", id), ...others.slice(place - 1)];
  for (const [at, line] of order.entries())
    if (line.place !== at) edits.patch("line", line.id, { place: at });
  return null;
}

/** What a cell says, as it is read. */
export function lineCellText(index: PlanIndex, line: Line, column: LineColumn): string {
  const { watch } = line;
  switch (column) {
    case "order":
      return String(linesBeside(index, line.id).findIndex(({ id }) => id === line.id) + 1);
    case "name":
      return line.name;
    case "share":
      return line.share === 0 ? "none" : String(line.share);
    case "watch":
      return watch.by === "link" ? "link" : watch.targets.map(formatAddress).join(", ");
    case "after":
      return `${watch.afterSeconds} s`;
    case "back":
      return watch.returns ? `${watch.backSeconds} s` : "by hand";
    case "pins":
      return pinsText(index, line.pins);
    case "marks":
      return marksText(line.marks);
    case "delegated":
      return delegatedText(line.delegated);
    case "follows":
      return line.dynamicName.name;
  }
}

/** Writes one cell of a line. */
function writeCell(context: EditContext, id: string, column: LineColumn, typed: string): Refusal {
  const text = typed.trim();
  if (column === "order") return moveLine(context, id, text);
  const read = readLineCell(context.index, column, text, context.edits.need("line", id));
  return typeof read === "string" ? read : editLine(context, id, read);
}

/** Writes a block of texts onto lines; rows beyond `onto` are new lines, which need their name. */
export const pasteLines = (
  context: EditContext,
  rows: readonly (readonly string[])[],
  from: LineColumn,
  onto: readonly string[],
): Refusal => pasteInto(LINE_COLUMNS, { rows, from, onto }, (id, cells) => writeRow(context, id, cells));

function writeRow(context: EditContext, known: string | null, cells: RowCells<LineColumn>): Refusal {
  const name = cells.find(([column]) => column === "name")?.[1].trim() ?? "";
  if (known === null && name === "")
    return `Begin a new line with its name; a site has at most ${MOST.line}.`;
  let id = known;
  if (id === null) {
    const before = new Set(context.edits.all("line").map((line) => line.id));
    const refusal = addLine(context, name);
    if (refusal !== null) return refusal;
    id = context.edits.all("line").find((line) => !before.has(line.id))?.id ?? null;
  }
  if (id === null) return null;
  for (const [column, text] of cells) {
    // A new line stands last; where it belongs is said once it ends at a device.
    if (known === null && (column === "name" || column === "order")) continue;
    const refusal = writeCell(context, id, column, text);
    if (refusal !== null) return refusal;
  }
  return null;
}

/** The texts of a line's margin that belong to the name that follows it. */
export type FollowField = "name" | "account";

/** Writes a text of the name that follows a line. */
export function writeFollow(context: EditContext, id: string, field: FollowField, typed: string): Refusal {
  const text = typed.trim();
  if (field === "name") return writeCell(context, id, "follows", text);
  if (text.length > 120) return "At most 120 characters here.";
  const { dynamicName } = context.edits.need("line", id);
  return editLine(context, id, { dynamicName: { ...dynamicName, account: text } });
}
