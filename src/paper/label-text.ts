import type { Measure } from "./measure";

/** A line of writing on a label: where its base line begins, in the label's own measures. */
export interface SetLine {
  readonly text: string;
  readonly isBold: boolean;
  readonly size: number;
  readonly x: number;
  readonly y: number;
}
interface Paragraph {
  readonly text: string;
  readonly isBold: boolean;
  /** How large it is beside the others. */
  readonly scale: number;
}

const LINE = 1.12;
/** The base line of a line of type, from its top. */
const BASE = 0.82;

/** A word cut where it is too wide for a line, by itself. */
function pieces(word: string, isBold: boolean, most: number, measure: Measure): string[] {
  const cut: string[] = [];
  let piece = "";
  for (const character of word) {
    if (piece !== "" && measure.width(piece + character, isBold) > most) {
      cut.push(piece);
      piece = "";
    }
    piece += character;
  }
  return [...cut, piece];
}

/** A text broken into lines no wider than that, in parts of the size of its type. */
function broken({ text, isBold }: Paragraph, most: number, measure: Measure): string[] {
  const lines: string[] = [];
  for (const word of text.split(" ")) {
    const last = lines.at(-1);
    if (last !== undefined && measure.width(`${last} ${word}`, isBold) <= most) {
      lines[lines.length - 1] = `${last} ${word}`;
      continue;
    }
    lines.push(...(measure.width(word, isBold) <= most ? [word] : pieces(word, isBold, most, measure)));
  }
  return lines;
}

interface Room {
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
}

const SMALLER = 0.94;
/** Smaller than a hundredth of its room no type is asked for. */
const LEAST = 0.01;

/**
 * Paragraphs as large as they all fit into a room, broken into lines, none of them cut; at most so large.
 * Sizes are in the measures of the room.
 */
export function fitted(
  paragraphs: readonly Paragraph[],
  room: Room,
  most: number,
  measure: Measure,
): SetLine[] {
  for (let size = most; ; size *= SMALLER) {
    const lines = paragraphs.flatMap((paragraph) => {
      const own = size * paragraph.scale;
      return broken(paragraph, room.width / own, measure).map((text) => ({
        text,
        isBold: paragraph.isBold,
        size: own,
      }));
    });
    const height = lines.reduce((sum, line) => sum + line.size * LINE, 0);
    if (height > room.height && size > room.height * LEAST) continue;
    let top = room.y;
    return lines.map((line): SetLine => {
      const y = top + line.size * BASE;
      top += line.size * LINE;
      return { ...line, x: room.x, y };
    });
  }
}
