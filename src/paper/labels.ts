import QRCode from "qrcode";
import type { Label } from "@/core/labels";
import { INK, NO_INK, type Inks } from "./inks";
import { placeOn, type LabelForm } from "./label-sheets";
import { fitted, type SetLine } from "./label-text";
import { escaped, short } from "./markup";
import type { Measure } from "./measure";
import { runsOf, USUAL_FONT } from "./faces";

/** What labels are set with. */
export interface LabelsWith {
  readonly form: LabelForm;
  /** Places of the first sheet that are used up already. */
  readonly skip: number;
  readonly inks: Inks;
  /** What the code of a label says; null for labels without one. */
  readonly address: (label: Label) => string | null;
  readonly measure: Measure;
  /** Whether writing is drawn as outlines, which need no font where they are shown. */
  readonly outlined: boolean;
}

/** The dark squares of a code (ISO/IEC 18004) as one path, each of side 1. */
export function codePath(text: string): { readonly path: string; readonly side: number } {
  const { modules } = QRCode.create(text, { errorCorrectionLevel: "M" });
  const squares: string[] = [];
  for (let row = 0; row < modules.size; row += 1)
    for (let column = 0; column < modules.size; column += 1) {
      const from = column;
      while (column < modules.size && modules.get(row, column) === 1) column += 1;
      if (column > from) squares.push(`M${from} ${row}h${column - from}v1h${from - column}z`);
    }
  return { path: squares.join(""), side: modules.size };
}

/** Blank around what stands on a label, in millimetres, where printers shift. */
const PAD = 1.5;
/** The largest type of a title in millimetres, and what of the height tapes take. */
const MOST_TYPE = 5.2;
const TAPE_SHARE = 0.2;
const MOST_TAPE = 4.2;
const LINE_SCALE = 0.72;
/** Narrower than this in millimetres, a code is not read by a telephone. */
const LEAST_CODE = 9;
const MOST_CODE_SHARE = 0.42;

function written({ text, isBold, size, x, y }: SetLine, ink: string, given: LabelsWith): string {
  const { measure, outlined } = given;
  if (outlined) {
    const at = `translate(${short(x)} ${short(y)})`;
    return `<g transform="${at}" fill="${ink}">${measure.outlines(text, isBold, size)}</g>`;
  }
  let left = x;
  return runsOf(text, "text")
    .runs.map((run) => {
      const at = left;
      left += measure.width(run.text, isBold) * size;
      return (
        `<text x="${short(at)}" y="${short(y)}" font-size="${short(size)}" font-family="${run.font}" ` +
        `font-weight="${isBold ? "600" : "400"}" fill="${ink}">${escaped(run.text)}</text>`
      );
    })
    .join("");
}

/**
 * The tapes of a label side by side: each its colour, its tracer, its mark; framed, so that it reads without.
 */
function tapes(
  label: Label,
  room: { x: number; y: number; width: number; height: number },
  given: LabelsWith,
): string {
  const each = Math.min(room.height * 1.9, room.width / label.tapes.length);
  return label.tapes
    .map(({ mark, base, tracer }, at) => {
      const ink = given.inks[base] ?? NO_INK;
      const traced = tracer === null ? null : (given.inks[tracer] ?? NO_INK);
      const x = room.x + at * each;
      const size = Math.min(room.height * 0.7, (each * 0.8) / Math.max(0.1, given.measure.width(mark, true)));
      const left = x + (each * 0.94 - given.measure.width(mark, true) * size) / 2;
      const line =
        traced === null
          ? ""
          : `<rect x="${short(x)}" y="${short(room.y + room.height * 0.82)}" width="${short(each * 0.94)}" ` +
            `height="${short(room.height * 0.18)}" fill="${traced.base}"/>`;
      const text = written(
        { text: mark, isBold: true, size, x: left, y: room.y + room.height * 0.68 },
        ink.on,
        given,
      );
      return (
        `<rect x="${short(x)}" y="${short(room.y)}" width="${short(each * 0.94)}" ` +
        `height="${short(room.height)}" fill="${ink.base}" stroke="${INK}" stroke-width="0.15"/>${line}${text}`
      );
    })
    .join("");
}

/** What stands on a label, from its own corner, in millimetres; and how large its smallest type is. */
export function labelContent(
  label: Label,
  given: LabelsWith,
): { readonly svg: string; readonly leastType: number } {
  const { width, height } = given.form;
  const address = given.address(label);
  const side = Math.min(height - 2 * PAD, width * MOST_CODE_SHARE);
  const hasCode = address !== null && side >= LEAST_CODE;
  const code = hasCode ? codePath(address) : null;
  const left = PAD;
  const room = width - 2 * PAD - (code === null ? 0 : side + PAD);
  const tape = label.tapes.length === 0 ? 0 : Math.min(MOST_TAPE, height * TAPE_SHARE);
  const lines = fitted(
    [
      { text: label.title, isBold: true, scale: 1 },
      ...label.lines.map((text) => ({ text, isBold: false, scale: LINE_SCALE })),
    ],
    { x: left, y: PAD, width: room, height: height - 2 * PAD - (tape === 0 ? 0 : tape + PAD / 2) },
    Math.min(MOST_TYPE, height * 0.3),
    given.measure,
  );
  const codeSvg =
    code === null
      ? ""
      : `<path transform="translate(${short(width - PAD - side)} ${short((height - side) / 2)}) ` +
        `scale(${short(side / code.side)})" d="${code.path}" fill="#000000"/>`;
  const tapeSvg =
    tape === 0 ? "" : tapes(label, { x: left, y: height - PAD - tape, width: room, height: tape }, given);
  return {
    svg: lines.map((line) => written(line, INK, given)).join("") + tapeSvg + codeSvg,
    leastType: Math.min(...lines.map(({ size }) => size)),
  };
}

/** A sheet of labels as a picture: its SVG in millimetres. */
export interface LabelSheet {
  readonly svg: string;
  readonly width: number;
  readonly height: number;
}

/** Labels on sheets, and how many have type that is too small to be read at arm's length. */
export function labelSheets(
  labels: readonly Label[],
  given: LabelsWith,
): { readonly sheets: readonly LabelSheet[]; readonly tooSmall: number } {
  const { form, skip } = given;
  const bySheet = new Map<number, string[]>();
  let tooSmall = 0;
  labels.forEach((label, at) => {
    const { sheet, x, y } = placeOn(form, at + skip);
    const { svg, leastType } = labelContent(label, given);
    if (leastType < SMALL_TYPE) tooSmall += 1;
    const own = bySheet.get(sheet) ?? [];
    own.push(`<g transform="translate(${short(x)} ${short(y)})">${svg}</g>`);
    bySheet.set(sheet, own);
  });
  const [width, height] = form.page;
  return {
    tooSmall,
    sheets: [...bySheet.values()].map((content) => ({
      width,
      height,
      svg:
        `<svg xmlns="http://www.w3.org/2000/svg" width="${width}mm" height="${height}mm" ` +
        `viewBox="0 0 ${width} ${height}">${content.join("")}</svg>`,
    })),
  };
}
/** 4 points in millimetres. */
const SMALL_TYPE = 1.41;

const POINTS = 72 / 25.4;
/** Sheets of labels as a document, a page for each, in their own size. */
export const labelDocument = (sheets: readonly LabelSheet[]) => ({
  pageSize: { width: (sheets[0]?.width ?? 0) * POINTS, height: (sheets[0]?.height ?? 0) * POINTS },
  pageMargins: 0,
  defaultStyle: { font: USUAL_FONT },
  content: sheets.map(({ svg, width, height }, at) => ({
    svg,
    width: width * POINTS,
    height: height * POINTS,
    absolutePosition: { x: 0, y: 0 },
    ...(at === 0 ? {} : { pageBreak: "before" as const }),
  })),
});
