import { BLANK_EXCEPTION, MOST, nameOf, type Exception, type PlanIndex, type RuleSide } from "../../plan";
import { pasteInto, readCells, type RowCells } from "../paste-rows";
import type { EditContext, Refusal } from "../planner";
import { readDate } from "../site/survey-text";
import { conduitNamed } from "./conduit-cell";
import { hoursText, readHours } from "./hours-text";
import { readServices, servicesText } from "./service-list-text";
import { readSides, sideText } from "./side-text";

/** What of an exception is written in a cell. */
export type ExceptionColumn =
  "name" | "from" | "to" | "services" | "hours" | "first" | "last" | "owner" | "reason" | "conduit";
export const EXCEPTION_COLUMNS: readonly (readonly [ExceptionColumn, string])[] = [
  ["name", "Exception"],
  ["from", "From"],
  ["to", "To"],
  ["services", "Lets through"],
  ["hours", "Hours"],
  ["first", "From day"],
  ["last", "Last day"],
  ["owner", "Answers for it"],
  ["reason", "Reason"],
  ["conduit", "Conduit"],
];

/** One end: exactly one thing by name or address. */
function readEnd(index: PlanIndex, text: string): RuleSide | string {
  const sides = readSides(index, text);
  if (typeof sides === "string") return sides;
  const [side] = sides;
  return side === undefined || sides.length > 1
    ? `"${text}" is not one end: an exception is for one segment, device or subnet at each end.`
    : side;
}

function readDay(text: string): string | null | { readonly refusal: string } {
  const read = readDate(/^always$/i.test(text) ? "" : text);
  return read.refusal === null ? read.value : { refusal: read.refusal };
}

/** What is written in a cell as fields of the exception; a sentence where it can't be read. */
function readCell(index: PlanIndex, column: ExceptionColumn, text: string): Partial<Exception> | string {
  switch (column) {
    case "name":
      return text === "" || text.length > 80
        ? "An exception has a name of 1 to 80 characters."
        : { name: text };
    case "from": {
      const from = readEnd(index, text);
      if (typeof from === "string") return from;
      return from.at === "gateway"
        ? "Nothing that the gateway itself starts meets its walls; write where else it comes from."
        : { from };
    }
    case "to": {
      const to = readEnd(index, text);
      return typeof to === "string" ? to : { to };
    }
    case "services": {
      const services = readServices(index, text);
      return typeof services === "string" ? services : { services: [...services] };
    }
    case "hours": {
      const hours = readHours(text);
      return typeof hours === "string" ? hours : { hours };
    }
    case "first":
    case "last": {
      const day = readDay(text);
      if (day !== null && typeof day !== "string") return day.refusal;
      return column === "first" ? { firstDay: day } : { lastDay: day };
    }
    case "conduit": {
      if (/^(none|)$/i.test(text)) return { conduit: null };
      const conduit = conduitNamed(index.plan.conduit.values(), text);
      return conduit === null
        ? `There is no conduit called "${text}"; write it among the conduits first.`
        : { conduit: conduit.id };
    }
    case "owner":
    case "reason":
      return text.length > 120 ? "At most 120 characters here." : { [column]: text };
  }
}

/** What a cell says, as it is read. */
export function exceptionCellText(index: PlanIndex, exception: Exception, column: ExceptionColumn): string {
  switch (column) {
    case "from":
    case "to":
      return sideText(index, exception[column]);
    case "services":
      return servicesText(index, exception.services);
    case "hours":
      return hoursText(exception.hours);
    case "first":
      return exception.firstDay ?? "";
    case "last":
      return exception.lastDay ?? "";
    case "conduit":
      return exception.conduit === null ? "" : nameOf(index, "conduit", exception.conduit);
    case "name":
    case "owner":
    case "reason":
      return exception[column];
  }
}

function addException({ edits, index, ids }: EditContext, fields: Partial<Exception>): Refusal {
  const { from, to } = fields;
  if (from === undefined || to === undefined)
    return "A new exception needs both ends: write or paste a name, from and to in one row.";
  if (edits.all("exception").length >= MOST.exception)
    return `A site has at most ${MOST.exception} exceptions.`;
  edits.put("exception", {
    name: `${sideText(index, from)} to ${sideText(index, to)}`.slice(0, 80),
    ...BLANK_EXCEPTION,
    ...fields,
    id: ids(),
    from,
    to,
  });
  return null;
}

function writeRow(context: EditContext, id: string | null, cells: RowCells<ExceptionColumn>): Refusal {
  const { edits, index } = context;
  const fields = readCells<ExceptionColumn, Exception>(cells, id === null, (column, text) =>
    readCell(index, column, text),
  );
  if (typeof fields === "string") return fields;
  const known = id === null ? undefined : edits.need("exception", id);
  const { firstDay: first, lastDay: last } = { firstDay: null, lastDay: null, ...known, ...fields };
  if (first !== null && last !== null && last < first)
    return `Its last day, ${last}, lies before its first, ${first}.`;
  if (known === undefined) return addException(context, fields);
  edits.patch("exception", known.id, fields);
  return null;
}

/** Writes a block of texts onto exceptions; rows beyond `onto` are new ones, which need both ends. */
export const pasteExceptions = (
  context: EditContext,
  rows: readonly (readonly string[])[],
  from: ExceptionColumn,
  onto: readonly string[],
): Refusal => pasteInto(EXCEPTION_COLUMNS, { rows, from, onto }, (id, cells) => writeRow(context, id, cells));
