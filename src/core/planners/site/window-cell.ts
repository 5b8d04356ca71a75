import { byText } from "../../kernel";
import { MOST, windowSchema, type PlanEdits, type PlanIndex, type Window } from "../../plan";
import { formatLease, parseSeconds } from "../addressing/lease-text";
import { pasteInto, readCells, type RowCells } from "../paste-rows";
import type { EditContext, Refusal } from "../planner";

/** What of a window is written in a cell. */
export type WindowColumn = "name" | "starts" | "length" | "segments" | "permit" | "consent" | "notes";
export const WINDOW_COLUMNS: readonly (readonly [WindowColumn, string])[] = [
  ["name", "Window"],
  ["starts", "Begins"],
  ["length", "Length"],
  ["segments", "May stop"],
  ["permit", "Permit"],
  ["consent", "Agrees first"],
  ["notes", "Notes"],
];

/** How "every segment" is written. */
const ALL = "everybody";
/** As long as a window is of which nobody said it. */
const USUAL_MINUTES = 120;

type Fields = Partial<Omit<Window, "id">>;

function readStart(text: string): Fields | string {
  const [, day, hour = "", minute = "00"] =
    /^(\d{4}-\d{2}-\d{2})[T ]+(\d{1,2})(?::(\d{2}))?$/.exec(text) ?? [];
  const starts = `${day ?? ""}T${hour.padStart(2, "0")}:${minute}`;
  return day !== undefined && windowSchema.shape.starts.safeParse(starts).success
    ? { starts }
    : `"${text}" is no day and time; write it as 2026-12-05 18:00, in the site's own time.`;
}

function readLength(text: string): Fields | string {
  const seconds = parseSeconds(/^\d+$/.test(text) ? `${text} min` : text);
  const minutes = seconds === null ? 0 : seconds / 60;
  return Number.isInteger(minutes) && minutes >= 5 && minutes <= 10_080
    ? { minutes }
    : `"${text}" is no length; write 90 min or 4 h, from 5 min to 7 d.`;
}

function readSegments(edits: PlanEdits, text: string): Fields | string {
  if (text === "" || text.toLowerCase() === ALL) return { segments: [] };
  const known = new Map(edits.all("segment").map(({ id, name }) => [name.toLowerCase(), id]));
  const names = text.split(/\s*[,;]\s*/).filter((name) => name !== "");
  const bad = names.find((name) => !known.has(name.toLowerCase()));
  if (bad !== undefined) return `There is no segment ${bad}; write segments by their names, or "${ALL}".`;
  return { segments: [...new Set(names.map((name) => known.get(name.toLowerCase()) ?? ""))] };
}

function readCell(edits: PlanEdits, column: WindowColumn, text: string): Fields | string {
  switch (column) {
    case "name":
      return text === "" || text.length > 80 ? "A window has a name of 1 to 80 characters." : { name: text };
    case "starts":
      return readStart(text);
    case "length":
      return readLength(text);
    case "segments":
      return readSegments(edits, text);
    case "permit":
    case "consent":
      return text.length > 120 ? "At most 120 characters here." : { [column]: text };
    case "notes":
      return text.length > 2000 ? "Notes have at most 2,000 characters." : { notes: text };
  }
}

/** What a cell says, as it is read. */
export function windowCellText(
  { plan }: Pick<PlanIndex, "plan">,
  window: Window,
  column: WindowColumn,
): string {
  switch (column) {
    case "starts":
      return window.starts.replace("T", " ");
    case "length":
      return formatLease(window.minutes * 60);
    case "segments":
      return window.segments.length === 0
        ? ALL
        : window.segments
            .flatMap((id) => plan.segment.get(id)?.name ?? [])
            .sort(byText)
            .join(", ");
    default:
      return window[column];
  }
}

function writeRow({ edits, ids }: EditContext, id: string | null, cells: RowCells<WindowColumn>): Refusal {
  const fields = readCells<WindowColumn, Window>(cells, id === null, (column, text) =>
    readCell(edits, column, text),
  );
  if (typeof fields === "string") return fields;
  const known = id === null ? null : edits.need("window", id);
  const name = fields.name ?? known?.name;
  const starts = fields.starts ?? known?.starts;
  if (name === undefined || starts === undefined)
    return "A new window needs its name and when it begins: write or paste both in one row.";
  const other = edits
    .all("window")
    .find((other) => other.id !== known?.id && other.name.toLowerCase() === name.toLowerCase());
  if (other !== undefined) return `There is a window ${other.name} already; give this one another name.`;
  if (known === null && edits.all("window").length >= MOST.window)
    return `A site has at most ${MOST.window} windows; remove some that are over.`;
  edits.put("window", {
    minutes: USUAL_MINUTES,
    segments: [],
    permit: "",
    consent: "",
    notes: "",
    ...known,
    ...fields,
    name,
    starts,
    id: known?.id ?? ids(),
  });
  return null;
}

/** Writes a block of texts onto windows; rows beyond `onto` are new ones, which need their name and begin. */
export const pasteWindows = (
  context: EditContext,
  rows: readonly (readonly string[])[],
  from: WindowColumn,
  onto: readonly string[],
): Refusal => pasteInto(WINDOW_COLUMNS, { rows, from, onto }, (id, cells) => writeRow(context, id, cells));

/** Windows as a table of texts, heads first, in the order in which they come. */
export function windowTable(index: PlanIndex): string[][] {
  const rows = [...index.plan.window.values()].sort(
    (a, b) => byText(a.starts, b.starts) || byText(a.id, b.id),
  );
  return [
    WINDOW_COLUMNS.map(([, word]) => word),
    ...rows.map((window) => WINDOW_COLUMNS.map(([column]) => windowCellText(index, window, column))),
  ];
}
