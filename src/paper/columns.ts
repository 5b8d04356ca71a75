/** As wide as a character is on average, in parts of the size of its font. */
const WIDE = 0.64;
const FIGURE_WIDE = 0.64;
/** Blank at both sides of a cell, in points. */
export const CELL_PAD = 3;
const PAD = 2 * CELL_PAD;
/** No column is asked to be wider on account of one long text: longer ones are broken. */
const MOST_CHARACTERS = 44;
/** A word longer than this may be broken. */
const LONG_WORD = 24;

const longestWord = (text: string): number =>
  Math.max(0, ...text.split(/[\s,;]+/).map((word) => Math.min(LONG_WORD, word.length)));

/** Characters that a column needs at the least, and those that it would like to have. */
export interface Need {
  readonly least: number;
  readonly wish: number;
}

/** What each column of a table needs; heads count as the other cells do. */
export function needsOf(rows: readonly (readonly string[])[]): Need[] {
  const columns = Math.max(0, ...rows.map((row) => row.length));
  return Array.from({ length: columns }, (_, at) => {
    const cells = rows.map((row) => row[at] ?? "");
    const lengths = cells.map((cell) => Math.min(MOST_CHARACTERS, cell.length)).sort((a, b) => a - b);
    // The longest few may break: the wish is what nineteen of twenty ask for.
    const wish = lengths[Math.ceil((lengths.length - 1) * 0.95)] ?? 0;
    const least = Math.max(2, ...cells.map(longestWord));
    return { least, wish: Math.max(least, wish) };
  });
}

/** Whether columns would have to be much narrower than they would like to be, in a page of that width. */
export function areCrammed(needs: readonly Need[], width: number, size: number): boolean {
  const wish = needs.reduce((sum, need) => sum + points(need.wish, size, false), 0);
  return wish > width * CRAMMED;
}
const CRAMMED = 1.25;

/** The width in points of so many characters in a cell. */
const points = (characters: number, size: number, isFigures: boolean): number =>
  characters * size * (isFigures ? FIGURE_WIDE : WIDE) + PAD;

/**
 * The widths of columns in points that fill a page of that width; null where not even the longest words fit
 * side by side. What is left over goes to those that would like to be wider, in proportion.
 */
export function widthsOf(
  needs: readonly Need[],
  {
    width,
    size,
    figures,
  }: { readonly width: number; readonly size: number; readonly figures: readonly boolean[] },
): number[] | null {
  const least = needs.map((need, at) => points(need.least, size, figures[at] ?? false));
  const wish = needs.map((need, at) => points(need.wish, size, figures[at] ?? false));
  const sum = (all: readonly number[]) => all.reduce((total, width) => total + width, 0);
  const room = width - sum(least);
  if (room < 0) return null;
  const more = wish.map((width, at) => width - (least[at] ?? 0));
  const wanted = sum(more);
  const share = wanted === 0 ? 0 : Math.min(1, room / wanted);
  const widths = least.map((width, at) => width + (more[at] ?? 0) * share);
  const left = width - sum(widths);
  const of = sum(widths);
  // A table reaches across the page, or half of it where little stands in it.
  const stretch = of < width / 2 ? Math.min(left, width / 2 - of) : left;
  return widths.map((width) => Math.floor((width + (width / of) * stretch) * 100) / 100);
}
