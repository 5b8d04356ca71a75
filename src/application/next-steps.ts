import { nextSteps, type NextSteps } from "@/core/plan";
import type { LogLine, OwnLines, Person } from "./stores";

/** What the author's next undo and redo would be, in words; null when there is none. */
export interface Steps {
  readonly undo: string | null;
  readonly redo: string | null;
  /** The next undo takes a whole imported plan back: it is asked first. */ readonly undoIsImport: boolean;
}

const NEWEST = 4_294_967_295;
/** The newest few tell nearly always; where somebody has undone much, more are read. */
const [FIRST_LINES, LINES_AT_ONCE] = [4, 50];

/** Reads the author's lines back as far as it takes. */
async function search(
  ownLines: OwnLines,
  site: string,
  by: Person,
): Promise<{ readonly next: NextSteps; readonly lines: readonly LogLine[] }> {
  const lines: LogLine[] = [];
  for (;;) {
    const asked = lines.length === 0 ? FIRST_LINES : LINES_AT_ONCE;
    const page = await ownLines(site, by.id, lines.at(-1)?.revision ?? NEWEST, asked);
    lines.push(...page);
    const next = nextSteps(lines);
    if (next.isCertain || page.length < asked) return { next, lines };
  }
}

export async function nextStepsOf(ownLines: OwnLines, site: string, by: Person): Promise<NextSteps> {
  return (await search(ownLines, site, by)).next;
}

export async function stepsOf(ownLines: OwnLines, site: string, by: Person): Promise<Steps> {
  const { next, lines } = await search(ownLines, site, by);
  // The batch itself has been read, too: its own line is what made it a step, or a line that mentions it
  // tells its words.
  const words = (id: string | null): string | null => {
    const line =
      id === null
        ? undefined
        : (lines.find((logLine) => logLine.id === id) ??
          lines.find((logLine) => (logLine.undoes ?? logLine.redoes) === id));
    return line === undefined ? null : line.summary.replace(/^(Undid|Brought back): /, "");
  };
  // Brought back, its own line may lie further back than was read; then the words tell.
  const own = lines.find((line) => line.id === next.undo);
  const undoIsImport =
    next.undo !== null &&
    (own === undefined
      ? /^(Took in|Imported) the plan file /.test(words(next.undo) ?? "")
      : own.planner === "import-plan");
  return { undo: words(next.undo), redo: words(next.redo), undoIsImport };
}
