/** The sizes of paper a pack is set on. */
export const SIZES = ["A4", "Letter"] as const;
export type Size = (typeof SIZES)[number];

/** Points of a page that stands upright (ISO 216, ANSI Y14.1). */
const POINTS: Readonly<Record<Size, readonly [width: number, height: number]>> = {
  A4: [595.28, 841.89],
  Letter: [612, 792],
};

/** Blank at the four sides: left, top, right, and at the foot with the title block. */
export const MARGINS = [40, 34, 40, 86] as const;

export interface Page {
  readonly size: Size;
  readonly isWide: boolean;
}

/** The room for what stands on a page, in points. */
export function roomOn({ size, isWide }: Page): readonly [width: number, height: number] {
  const [short, long] = POINTS[size];
  const [width, height] = isWide ? [long, short] : [short, long];
  const [left, top, right, bottom] = MARGINS;
  return [width - left - right, height - top - bottom];
}
