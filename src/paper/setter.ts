import type { Content, ContentText } from "pdfmake/interfaces";
import type { Cell } from "@/core/pack";
import { runsOf, USUAL_FONT, type Family } from "./faces";
import { NO_INK, QUIET_INK, type Inks } from "./inks";

/** Addresses, ports, counts: what is read figure by figure. */
const FIGURES =
  /^[\d.:/,\s\u2013-]*\d[\d.:/,\s\u2013-]*$|^(?:[\da-f]{2}:){5}[\da-f]{2}$|^[\da-f:]*::?[\da-f:]*(?:\/\d+)?$/i;
export const isFigures = (text: string): boolean => text !== "" && FIGURES.test(text);

/** What a cell comes to as text, its tapes as their marks. */
export const cellText = (cell: Cell): string =>
  typeof cell === "string"
    ? cell
    : [...cell.tapes.map(({ mark }) => ` ${mark} `), cell.text].filter((part) => part !== "").join(" ");

/** A text as the library takes it. */
interface SetText {
  readonly text: ContentText["text"];
  readonly font?: string;
}

/** Sets texts in the fonts that have their characters, and counts those that none has. */
export class Setter {
  readonly #inks: Inks;
  #unknown = 0;

  constructor(inks: Inks) {
    this.#inks = inks;
  }

  /** How many characters are shown as "?" since no font has them. */
  get unknown(): number {
    return this.#unknown;
  }

  text(text: string, family: Family = "text"): SetText {
    const { runs, unknown } = runsOf(text, family);
    this.#unknown += unknown;
    const [only] = runs;
    // A piece costs the library time: most texts are one, in the font that is usual.
    if (only === undefined || runs.length > 1) return { text: [...runs] };
    return only.font === USUAL_FONT ? { text: only.text } : only;
  }

  /**
   * A cell: tapes as marks on their colour, framed by what stands beside them, so that they read without it.
   */
  cell(cell: Cell): Content {
    if (typeof cell === "string") return this.text(cell, isFigures(cell) ? "figures" : "text");
    const marks = cell.tapes.flatMap(({ mark, base, tracer }): Content[] => {
      const ink = this.#inks[base] ?? NO_INK;
      const traced = tracer === null ? null : (this.#inks[tracer] ?? NO_INK);
      return [
        ...runsOf(`\u00a0${mark}\u00a0`, "figures").runs.map((run) => ({
          ...run,
          bold: true,
          background: ink.base,
          color: ink.on,
          ...(traced === null
            ? {}
            : { decoration: "underline" as const, decorationColor: traced.base, decorationThickness: 1.5 }),
        })),
        { text: " " },
      ];
    });
    const after = cell.text === "" ? [] : [this.text(cell.text, isFigures(cell.text) ? "figures" : "text")];
    return { text: [...marks, ...after] as ContentText["text"] };
  }

  quiet(text: string): Content {
    return { ...this.text(text), color: QUIET_INK };
  }
}
