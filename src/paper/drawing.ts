import { runsOf, USUAL_FONT } from "./faces";
import { escaped, plain } from "./markup";

/** A picture as SVG, with its size in its own units. */
export interface Picture {
  readonly svg: string;
  readonly width: number;
  readonly height: number;
}

/** Smaller than this part of its size, the writing of a drawing can't be read. */
const READABLE = 0.5;
/** As many sheets has a drawing at most. */
const MOST_SHEETS = 30;

const FONT = /font-family="[^"]*"/g;
const WRITTEN = />([^<>]+)<\/text>/g;
/** The same picture in the fonts of paper, each piece of a text in the one that has it. */
export const inPaperFonts = (svg: string): string =>
  svg
    .replace(FONT, `font-family="${USUAL_FONT}"`)
    .replace(/<title>[^<]*<\/title>/g, "")
    .replace(WRITTEN, (whole, words: string) => {
      const { runs } = runsOf(plain(words), "text");
      if (runs.length === 1 && runs[0]?.font === USUAL_FONT) return whole;
      const spans = runs.map(({ text, font }) => `<tspan font-family="${font}">${escaped(text)}</tspan>`);
      return `>${spans.join("")}</text>`;
    });

const VIEW = /viewBox="(-?[\d.]+) (-?[\d.]+) (-?[\d.]+) (-?[\d.]+)"/;

/** A window of a picture, as a picture. */
function windowOf({ svg }: Picture, left: number, top: number, size: readonly [number, number]): Picture {
  const [width, height] = size;
  const [, x = "0", y = "0"] = VIEW.exec(svg) ?? [];
  return {
    width,
    height,
    svg: svg
      .replace(VIEW, `viewBox="${Number(x) + left} ${Number(y) + top} ${width} ${height}"`)
      .replace(/ width="[^"]*" height="[^"]*" viewBox/, ` width="${width}" height="${height}" viewBox`),
  };
}

/**
 * A drawing as sheets that fit a page of that size in points: the whole of it first, then, where its writing
 * would be too small to read, window by window.
 */
export function sheetsOf(picture: Picture, [width, height]: readonly [number, number]): Picture[] {
  const scale = Math.min(width / picture.width, height / picture.height);
  if (scale >= READABLE) return [picture];
  const [across, down] = [width / READABLE, height / READABLE];
  const [columns, rows] = [Math.ceil(picture.width / across), Math.ceil(picture.height / down)];
  if (columns * rows > MOST_SHEETS) return [picture];
  const windows = Array.from({ length: columns * rows }, (_, at) => {
    const [left, top] = [(at % columns) * across, Math.floor(at / columns) * down];
    return windowOf(picture, left, top, [
      Math.min(across, picture.width - left),
      Math.min(down, picture.height - top),
    ]);
  });
  return [picture, ...windows];
}
