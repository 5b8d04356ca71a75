import { nameOf } from "../plan";
import {
  arrangeBox as arrangeBoxOf,
  ARRANGEMENTS,
  type Arrangement,
  FORWARD_COLUMNS,
  LINE_COLUMNS,
  pasteLines as pasteLinesInto,
  removeLine as removeLineFrom,
  writeFollow,
  type FollowField,
  type LineColumn,
  pasteForwards as pasteForwardsInto,
  pasteRoutes as pasteRoutesInto,
  removeRoutes as removeRoutesFrom,
  type ForwardColumn,
  type RouteColumn,
} from "../planners";
import { counted } from "../repairs";
import { command, type Pasted } from "./command";
import { pasted } from "./says";

const columnWord = (column: ForwardColumn): string =>
  FORWARD_COLUMNS.find(([key]) => key === column)?.[1].toLowerCase() ?? column;

export const writeForward = command<{
  /** Null for a new one, which begins with the device it leads to. */
  readonly forward: string | null;
  readonly column: ForwardColumn;
  readonly text: string;
}>("write-forward", {
  says: ({ forward, column, text }, index) =>
    forward === null
      ? `New forward to ${text}`
      : `Forward ${nameOf(index, "forward", forward)}, ${columnWord(column)}: ${text || "nothing"}`,
  run: (context, { forward, column, text }) =>
    pasteForwardsInto(context, [[text]], column, forward === null ? [] : [forward]),
});

export const pasteForwards = command<Pasted<ForwardColumn>>("paste-forwards", {
  says: ({ rows }) => pasted(rows, "the forwards"),
  run: (context, { rows, from, onto }) => pasteForwardsInto(context, rows, from, onto),
  log: ({ rows, from }) => ({ rows: rows.length, from }),
});

export const removeForwards = command<{ readonly forwards: readonly string[] }>("remove-forwards", {
  says: ({ forwards }, index) =>
    forwards.length === 1 && forwards[0] !== undefined
      ? `Removed the forward ${nameOf(index, "forward", forwards[0])}`
      : `Removed ${counted(forwards.length, "forward", "forwards")}`,
  run: ({ edits }, { forwards }) => {
    const gone = new Set(forwards);
    for (const kept of edits.all("expectation")) {
      const { goal } = kept.question;
      if (goal.to === "forward" && gone.has(goal.forward)) edits.remove("expectation", kept.id);
    }
    for (const forward of forwards) edits.remove("forward", forward);
  },
});

const lineWord = (column: LineColumn): string =>
  LINE_COLUMNS.find(([key]) => key === column)?.[1].toLowerCase() ?? column;

export const writeLine = command<{
  /** Null for a new one, which begins with its name. */
  readonly line: string | null;
  readonly column: LineColumn;
  readonly text: string;
}>("write-line", {
  says: ({ line, column, text }, index) =>
    line === null
      ? `New line ${text}`
      : `${nameOf(index, "line", line)}, ${lineWord(column)}: ${text || "nothing"}`,
  run: (context, { line, column, text }) =>
    pasteLinesInto(context, [[text]], column, line === null ? [] : [line]),
});

export const pasteLines = command<Pasted<LineColumn>>("paste-lines", {
  says: ({ rows }) => pasted(rows, "the lines"),
  run: (context, { rows, from, onto }) => pasteLinesInto(context, rows, from, onto),
  log: ({ rows, from }) => ({ rows: rows.length, from }),
});

export const removeLines = command<{ readonly lines: readonly string[] }>("remove-lines", {
  says: ({ lines }, index) =>
    lines.length === 1 && lines[0] !== undefined
      ? `Removed the line ${nameOf(index, "line", lines[0])}`
      : `Removed ${counted(lines.length, "line", "lines")}`,
  run: (context, { lines }) => {
    for (const line of lines) removeLineFrom(context, line);
  },
});

export const editFollow = command<{
  readonly line: string;
  readonly field: FollowField;
  readonly text: string;
}>("edit-follow", {
  says: ({ line, field, text }, index) =>
    `${nameOf(index, "line", line)}: ` +
    `${field === "name" ? "name that follows it" : "account kept"} ${text || "emptied"}`,
  run: (context, { line, field, text }) => writeFollow(context, line, field, text),
});

export const arrangeBox = command<{ readonly line: string; readonly arrangement: Arrangement }>(
  "arrange-box",
  {
    says: ({ line, arrangement }, index) =>
      `The provider's box of ${nameOf(index, "line", line)}: ` +
      `${ARRANGEMENTS.find((row) => row.arrangement === arrangement)?.name ?? arrangement}`,
    run: (context, args) => arrangeBoxOf(context, args),
  },
);

export const pasteRoutes = command<{
  readonly device: string;
  readonly rows: readonly (readonly string[])[];
  readonly from: RouteColumn;
  /** The places of the routes that are written onto; rows beyond them are new. */
  readonly onto: readonly number[];
}>("paste-routes", {
  says: ({ device, rows, onto }, index) => {
    const name = nameOf(index, "device", device);
    if (rows.length > 1) return pasted(rows, `the routes of ${name}`);
    return `${onto.length === 0 ? "New route" : "Route"} on ${name}: ${rows[0]?.join(" by ") ?? ""}`;
  },
  run: (context, args) => pasteRoutesInto(context, args),
  log: ({ device, rows, from }) => ({ device, rows: rows.length, from }),
});

export const removeRoutes = command<{ readonly device: string; readonly places: readonly number[] }>(
  "remove-routes",
  {
    says: ({ device, places }, index) =>
      `Removed ${counted(places.length, "route", "routes")} of ${nameOf(index, "device", device)}`,
    run: (context, { device, places }) => removeRoutesFrom(context, device, places),
  },
);
