import { nameOf } from "../plan";
import { pasteWindows as pasteWindowsInto, WINDOW_COLUMNS, type WindowColumn } from "../planners";
import { counted } from "../repairs";
import { command, type Pasted } from "./command";
import { pasted } from "./says";

const columnWord = (column: WindowColumn): string =>
  WINDOW_COLUMNS.find(([key]) => key === column)?.[1].toLowerCase() ?? column;

export const addWindow = command<{ readonly name: string; readonly starts: string }>("add-window", {
  says: ({ name, starts }) => `Window ${name} from ${starts}`,
  run: (context, { name, starts }) => pasteWindowsInto(context, [[name, starts]], "name", []),
});

export const writeWindow = command<{
  readonly window: string;
  readonly column: WindowColumn;
  readonly text: string;
}>("write-window", {
  says: ({ window, column, text }, index) =>
    `Window ${nameOf(index, "window", window)}, ${columnWord(column)}: ${text.trim() || "nothing"}`,
  run: (context, { window, column, text }) => pasteWindowsInto(context, [[text]], column, [window]),
});

export const pasteWindows = command<Pasted<WindowColumn>>("paste-windows", {
  says: ({ rows }) => pasted(rows, "the windows"),
  run: (context, { rows, from, onto }) => pasteWindowsInto(context, rows, from, onto),
  log: ({ rows, from }) => ({ rows: rows.length, from }),
});

export const removeWindows = command<{ readonly windows: readonly string[] }>("remove-windows", {
  says: ({ windows }, index) =>
    windows.length === 1 && windows[0] !== undefined
      ? `Removed the window ${nameOf(index, "window", windows[0])}`
      : `Removed ${counted(windows.length, "window", "windows")}`,
  run: ({ edits }, { windows }) => {
    for (const id of windows) edits.remove("window", edits.need("window", id).id);
  },
});
