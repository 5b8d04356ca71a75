import { Position } from "@xyflow/react";
import type { DrawnMark } from "@/core/comparison";
import type { Device } from "@/core/plan";
import type { Jacket, Tape } from "@/core/sheets";
import type { LayoutPoint } from "@/workers/layout-model";
import { BOX, facingSides, tapePlace, type DrawnCable } from "./cable-ends";
import { putInto } from "@/core/kernel";

/**
 * What is drawn: each device where it stands, each cable with its way, if it has one of its own, and what it
 * carries.
 */
export interface Drawn {
  readonly title: string;
  readonly devices: readonly {
    readonly device: Device;
    readonly at: LayoutPoint;
    /** What became of it, where two states are laid beside one another. */
    readonly mark: DrawnMark | null;
    /** Room to its left that belongs to its place. */ readonly lane: number;
  }[];
  readonly cables: readonly {
    readonly label: string;
    readonly from: string;
    readonly to: string;
    readonly fromAt: LayoutPoint;
    readonly toAt: LayoutPoint;
    readonly route: readonly LayoutPoint[] | null;
    readonly tapeAt: DrawnCable["tapeAt"];
    readonly jacket: Jacket;
    readonly mark: DrawnMark | null;
  }[];
}

/** Always the light sheet's colours: it is printed. Tape colours come from the page, by their names. */
const INK = {
  paper: "#ffffff",
  ink: "#16212b",
  ink2: "#52606b",
  hair: "#d8d3c5",
  jacket: "#2b3842",
  place: "#f7f5ef",
} as const;
const MARGIN = 40;
const PLACE = { side: 14, top: 30, bottom: 14 } as const;
const MOST_RINGS = 14;

const escaped = (text: string): string =>
  text.replace(/[&<>"]/g, (c) => ({ "&": "&amp;", "<": "&lt;", ">": "&gt;", '"': "&quot;" })[c] ?? c);
// eslint-disable-next-line max-params -- the attributes of an SVG text, as they stand
const text = (x: number, y: number, words: string, size: number, more = ""): string =>
  `<text x="${x}" y="${y}" font-size="${size}" ${more}>${escaped(words)}</text>`;

/** How a line is drawn by what became of it: told apart without colours, too. */
const LINES: Readonly<Record<DrawnMark, { readonly width: number; readonly dashes: string }>> = {
  new: { width: 4, dashes: "none" },
  changed: { width: 3, dashes: "9 4" },
  gone: { width: 2, dashes: "2 5" },
};
const lineOf = (mark: DrawnMark | null, width: number): string =>
  mark === null
    ? `stroke-width="${width}"`
    : `stroke-width="${Math.max(width, LINES[mark].width)}" stroke-dasharray="${LINES[mark].dashes}"`;

const tagWidth = (mark: DrawnMark): number => 14 + 8 * mark.length;

/** The word for it, on ink; `x` is its left side, `y` its middle. */
const markTag = (mark: DrawnMark, x: number, y: number): string =>
  `<rect x="${x}" y="${y - 9}" width="${tagWidth(mark)}" height="18" rx="3" fill="${INK.ink}"/>` +
  text(x + 7, y + 4, mark, 12, `font-weight="600" fill="${INK.paper}"`);

/** The middle of the side of a box by which a cable leaves it. */
function sideOf(at: LayoutPoint, side: Position): LayoutPoint {
  switch (side) {
    case Position.Left:
      return { x: at.x, y: at.y + BOX.height / 2 };
    case Position.Right:
      return { x: at.x + BOX.width, y: at.y + BOX.height / 2 };
    case Position.Top:
      return { x: at.x + BOX.width / 2, y: at.y };
    default:
      return { x: at.x + BOX.width / 2, y: at.y + BOX.height };
  }
}

/** The corners of a cable without a way of its own: out of one side, half-way across, into the other. */
function elbow(fromAt: LayoutPoint, toAt: LayoutPoint): LayoutPoint[] {
  const { out, into } = facingSides(fromAt, toAt);
  const [start, end] = [sideOf(fromAt, out), sideOf(toAt, into)];
  const across = out === Position.Left || out === Position.Right;
  const middle = across ? (start.x + end.x) / 2 : (start.y + end.y) / 2;
  return across
    ? [start, { x: middle, y: start.y }, { x: middle, y: end.y }, end]
    : [start, { x: start.x, y: middle }, { x: end.x, y: middle }, end];
}

function rings(
  jacket: Jacket,
  place: LayoutPoint & { readonly upright: boolean },
  colour: (name: string) => string,
): string {
  const all: readonly { tape: Tape; long: number }[] = [
    ...(jacket.tip === null ? [] : [{ tape: jacket.tip, long: 11 }]),
    ...jacket.rings.map((tape) => ({ tape, long: 6 })),
  ].slice(0, MOST_RINGS);
  const length = all.reduce((sum, part) => sum + part.long + 1, 0);
  let at = (place.upright ? place.y : place.x) - length / 2;
  return all
    .map(({ tape, long }) => {
      const [x, y, w, h] = place.upright ? [place.x - 7, at, 14, long] : [at, place.y - 7, long, 14];
      at += long + 1;
      const along = place.upright
        ? `x="${x + 8}" y="${y}" width="4" height="${h}"`
        : `x="${x}" y="${y + 8}" width="${w}" height="4"`;
      const tracer = tape.tracer === null ? "" : `<rect ${along} fill="${colour(tape.tracer)}"/>`;
      return (
        `<g><title>${escaped(`${tape.name} (${tape.vid})`)}</title><rect x="${x}" ` +
        `y="${y}" width="${w}" height="${h}" fill="${colour(tape.base)}" ` +
        `stroke="${INK.jacket}" stroke-width="0.8"/>${tracer}</g>`
      );
    })
    .join("");
}

/**
 * The drawing as a picture on its own: SVG with nothing outside it. `colour` gives the colour of a tape by
 * its name.
 */
// eslint-disable-next-line max-lines-per-function -- one picture, from its frame to its boxes
export function drawingSvg(
  { title, devices, cables }: Drawn,
  colour: (name: string) => string,
): { readonly svg: string; readonly width: number; readonly height: number } {
  const [xs, ys] = [devices.map(({ at }) => at.x), devices.map(({ at }) => at.y)];
  const routes = cables.map((cable) => ({ ...cable, way: cable.route ?? elbow(cable.fromAt, cable.toAt) }));
  const corners = routes.flatMap(({ way }) => way);
  const [left, top] = [
    Math.min(...xs, ...corners.map((p) => p.x)) - MARGIN,
    Math.min(...ys, ...corners.map((p) => p.y)) - MARGIN - 30,
  ];
  const [right, bottom] = [
    Math.max(...xs.map((x) => x + BOX.width), ...corners.map((p) => p.x)) + MARGIN,
    Math.max(...ys.map((y) => y + BOX.height), ...corners.map((p) => p.y)) + MARGIN,
  ];
  const [width, height] = [Math.ceil(right - left), Math.ceil(bottom - top)];
  const groups = new Map<string, (LayoutPoint & { lane: number })[]>();
  for (const { device, at, lane } of devices)
    if (device.place !== "") putInto(groups, device.place, { ...at, lane });
  const places = [...groups].map(([place, own]) => {
    const [x, y] = [
      Math.min(...own.map((p) => p.x - p.lane)) - PLACE.side,
      Math.min(...own.map((p) => p.y)) - PLACE.top,
    ];
    const [w, h] = [
      Math.max(...own.map((p) => p.x)) + BOX.width + PLACE.side - x,
      Math.max(...own.map((p) => p.y)) + BOX.height + PLACE.bottom - y,
    ];
    return (
      `<rect x="${x}" y="${y}" width="${w}" height="${h}" fill="${INK.place}" ` +
      `stroke="${INK.hair}"/>${text(x + 8, y + 16, place, 12, `font-weight="600" fill="${INK.ink2}"`)}`
    );
  });
  const lines = routes.map(({ way, from, to, label, tapeAt, jacket, mark }) => {
    const [start, end] = [way[0] ?? { x: 0, y: 0 }, way.at(-1) ?? { x: 0, y: 0 }];
    const tapes = tapePlace(way, tapeAt);
    return (
      `<g><title>${escaped(label)}</title><path d="M${way.map(({ x, y }) => `${x} ${y}`).join("L")}" ` +
      `fill="none" stroke="${INK.jacket}" ${lineOf(mark, 5)} ` +
      `stroke-linejoin="round"/>${rings(jacket, tapes, colour)}` +
      (mark === null ? "" : markTag(mark, tapes.x + 12, tapes.y + 4)) +
      text(start.x + 6, start.y + (start.y <= end.y ? 14 : -6), from, 12, `fill="${INK.ink2}"`) +
      `${text(end.x + 6, end.y + (start.y <= end.y ? -6 : 14), to, 12, `fill="${INK.ink2}"`)}</g>`
    );
  });
  const short = (words: string, most: number) =>
    words.length > most ? `${words.slice(0, most - 1)}…` : words;
  const boxes = devices.map(
    ({ device, at, mark }) =>
      `<g><rect x="${at.x}" y="${at.y}" width="${BOX.width}" ` +
      `height="${BOX.height}" rx="3" fill="${INK.paper}" ` +
      `stroke="${INK.ink}" ${lineOf(mark, 1)}/>` +
      (mark === null ? "" : markTag(mark, at.x + BOX.width - 8 - tagWidth(mark), at.y)) +
      text(at.x + 12, at.y + 21, short(device.name, 20), 14, `font-weight="600" fill="${INK.ink}"`) +
      `${text(at.x + 12, at.y + 38, short(device.model, 25), 12, `fill="${INK.ink2}"`)}</g>`,
  );
  return {
    width,
    height,
    svg:
      `<svg xmlns="http://www.w3.org/2000/svg" width="${width}" height="${height}" ` +
      `viewBox="${left} ${top} ${width} ${height}" font-family="'Atkinson Hyperlegible ` +
      `Next', sans-serif"><rect x="${left}" y="${top}" width="${width}" height="${height}" ` +
      `fill="${INK.paper}"/>` +
      text(left + MARGIN, top + 32, title, 18, `font-weight="600" fill="${INK.ink}"`) +
      `${places.join("")}${lines.join("")}${boxes.join("")}</svg>\n`,
  };
}
