import type { DrawnCabinet } from "@/core/pack";
import type { Picture } from "./drawing";
import { USUAL_FONT } from "./faces";
import { escaped } from "./markup";

const UNIT = 14;
const WIDTH = 170;
const MARGIN = { left: 22, top: 22, bottom: 4 } as const;
const INK = "#16212b";
const QUIET = "#52606b";

const MOST = 30;
const cut = (text: string): string => (text.length > MOST ? `${text.slice(0, MOST - 1)}…` : text);

/** A cabinet from the front: its height units counted from the floor, and what fills them. */
export function cabinetPicture({ place, units, racked }: DrawnCabinet): Picture {
  const height = MARGIN.top + units * UNIT + MARGIN.bottom;
  const width = MARGIN.left + WIDTH + 4;
  const topOf = (unit: number): number => MARGIN.top + (units - unit) * UNIT;
  const write = (x: number, y: number, words: string, more: string): string =>
    `<text x="${x}" y="${y}" ${more}>${escaped(words)}</text>`;
  const numbers = Array.from({ length: units }, (_, at) =>
    write(
      MARGIN.left - 6,
      topOf(at + 1) + 10,
      String(at + 1),
      `font-size="8" fill="${QUIET}" text-anchor="end"`,
    ),
  );
  const lines = Array.from(
    { length: units },
    (_, at) =>
      `<path d="M${MARGIN.left} ${topOf(at + 1)}h${WIDTH}" stroke="#d8d3c5" stroke-width="0.5" fill="none"/>`,
  );
  const gear = racked.map(({ name, from, to }) => {
    const top = topOf(to);
    const high = (to - from + 1) * UNIT - 2;
    return (
      `<rect x="${MARGIN.left + 3}" y="${top + 1}" width="${WIDTH - 6}" height="${high}" ` +
      `fill="#ffffff" stroke="${INK}" stroke-width="0.8"/>` +
      write(MARGIN.left + 8, top + 10.5, cut(name), `font-size="9" fill="${INK}"`)
    );
  });
  return {
    width,
    height,
    svg:
      `<svg xmlns="http://www.w3.org/2000/svg" width="${width}" height="${height}" ` +
      `viewBox="0 0 ${width} ${height}" ` +
      `font-family="${USUAL_FONT}">` +
      write(MARGIN.left, 13, cut(place), `font-size="11" font-weight="600" fill="${INK}"`) +
      `<rect x="${MARGIN.left}" y="${MARGIN.top}" width="${WIDTH}" height="${units * UNIT}" fill="none" ` +
      `stroke="${INK}"/>${lines.join("")}${numbers.join("")}${gear.join("")}</svg>`,
  };
}
