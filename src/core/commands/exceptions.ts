import { nameOf } from "../plan";
import { EXCEPTION_COLUMNS, pasteExceptions as pasteExceptionsInto, type ExceptionColumn } from "../planners";
import { counted } from "../repairs";
import { command, type Pasted } from "./command";
import { pasted } from "./says";

const columnWord = (column: ExceptionColumn): string =>
  EXCEPTION_COLUMNS.find(([key]) => key === column)?.[1].toLowerCase() ?? column;

export const addException = command<{
  readonly from: string;
  readonly to: string;
  readonly services: string;
}>("add-exception", {
  says: ({ from, to }) => `Exception from ${from} to ${to}`,
  run: (context, { from, to, services }) => pasteExceptionsInto(context, [[from, to, services]], "from", []),
});

export const writeException = command<{
  readonly exception: string;
  readonly column: ExceptionColumn;
  readonly text: string;
}>("write-exception", {
  says: ({ exception, column, text }, index) =>
    `Exception ${nameOf(index, "exception", exception)}, ${columnWord(column)}: ${text || "nothing"}`,
  run: (context, { exception, column, text }) => pasteExceptionsInto(context, [[text]], column, [exception]),
});

export const pasteExceptions = command<Pasted<ExceptionColumn>>("paste-exceptions", {
  says: ({ rows }) => pasted(rows, "the exceptions"),
  run: (context, { rows, from, onto }) => pasteExceptionsInto(context, rows, from, onto),
  log: ({ rows, from }) => ({ rows: rows.length, from }),
});

export const removeExceptions = command<{ readonly exceptions: readonly string[] }>("remove-exceptions", {
  says: ({ exceptions }, index) =>
    exceptions.length === 1 && exceptions[0] !== undefined
      ? `Removed the exception ${nameOf(index, "exception", exceptions[0])}`
      : `Removed ${counted(exceptions.length, "exception", "exceptions")}`,
  run: ({ edits }, { exceptions }) => {
    for (const exception of exceptions) edits.remove("exception", edits.need("exception", exception).id);
  },
});
