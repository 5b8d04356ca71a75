import { create, type Font } from "fontkit";
import { ALL_FACES, runsOf } from "./faces";
import { short } from "./markup";
import type { FontFiles } from "./pdf";

/** The bytes of a file that is given in base64. */
const bytesOf = (text: string): Uint8Array => Uint8Array.from(atob(text), (sign) => sign.charCodeAt(0));

/** Measures texts, and draws them as outlines that need no font where they are shown. */
export class Measure {
  readonly #fonts = new Map<string, Font>();
  readonly #files: FontFiles;
  readonly #widths = new Map<string, number>();

  constructor(files: FontFiles) {
    this.#files = files;
  }

  #font(name: string, isBold: boolean): Font | null {
    const key = `${name} ${isBold}`;
    const known = this.#fonts.get(key);
    if (known !== undefined) return known;
    const face = ALL_FACES.find((face) => face.name === name);
    const file = face === undefined ? undefined : this.#files[isBold ? face.bold : face.normal];
    if (file === undefined) return null;
    // A file holds one font: only collections hold several.
    const font = create(bytesOf(file) as never) as Font;
    this.#fonts.set(key, font);
    return font;
  }

  /** How wide a text is, in parts of the size of its type. */
  width(text: string, isBold: boolean): number {
    const key = `${isBold} ${text}`;
    const known = this.#widths.get(key);
    if (known !== undefined) return known;
    const width = this.#measured(text, isBold);
    this.#widths.set(key, width);
    return width;
  }

  #measured(text: string, isBold: boolean): number {
    return runsOf(text, "text").runs.reduce((sum, run) => {
      const font = this.#font(run.font, isBold);
      return sum + (font === null ? run.text.length : font.layout(run.text).advanceWidth / font.unitsPerEm);
    }, 0);
  }

  /** A text as the outlines of its letters: SVG paths from a point on its base line. */
  outlines(text: string, isBold: boolean, size: number): string {
    let at = 0;
    const paths = runsOf(text, "text").runs.flatMap((run) => {
      const font = this.#font(run.font, isBold);
      if (font === null) return [];
      const scale = size / font.unitsPerEm;
      const { glyphs, positions } = font.layout(run.text);
      return glyphs.map((glyph, n) => {
        const position = positions[n];
        const [x, y] = [at + (position?.xOffset ?? 0) * scale, -(position?.yOffset ?? 0) * scale];
        at += (position?.xAdvance ?? 0) * scale;
        const placed = `translate(${short(x)} ${short(y)}) scale(${fine(scale)} ${fine(-scale)})`;
        return `<path transform="${placed}" d="${glyph.path.toSVG()}"/>`;
      });
    });
    return paths.join("");
  }
}
/** Letters are drawn in units of a thousandth: their scale is exact to a millionth. */
const fine = (value: number): string => String(Math.round(value * 1e6) / 1e6);
