/** The form of a sheet of labels, in millimetres; `page` is a single label where they come off a roll. */
export interface LabelForm {
  readonly page: readonly [width: number, height: number];
  readonly columns: number;
  readonly rows: number;
  readonly width: number;
  readonly height: number;
  readonly left: number;
  readonly top: number;
  /** From one label to the next: blank between columns, between rows. */
  readonly gap: readonly [across: number, down: number];
}

const A4_MM = [210, 297] as const;
const LETTER_MM = [215.9, 279.4] as const;

const sheet = (
  page: LabelForm["page"],
  [columns, rows]: readonly [number, number],
  [width, height]: readonly [number, number],
  gap: LabelForm["gap"] = [0, 0],
): LabelForm => ({
  page,
  columns,
  rows,
  width,
  height,
  // What is left over is shared by both sides.
  left: Math.max(0, (page[0] - columns * width - (columns - 1) * gap[0]) / 2),
  top: Math.max(0, (page[1] - rows * height - (rows - 1) * gap[1]) / 2),
  gap,
});
const roll = (width: number, height: number): LabelForm => sheet([width, height], [1, 1], [width, height]);

/** Common forms by what they are called. */
export const LABEL_FORMS = {
  "A4, 3 × 8, 70 × 37 mm": sheet(A4_MM, [3, 8], [70, 37]),
  "A4, 3 × 7, 63.5 × 38.1 mm": sheet(A4_MM, [3, 7], [63.5, 38.1], [2.5, 0]),
  "A4, 4 × 12, 48.5 × 23 mm": sheet(A4_MM, [4, 12], [48.5, 23]),
  "A4, 5 × 13, 38.1 × 21.2 mm": sheet(A4_MM, [5, 13], [38.1, 21.2], [2.5, 0]),
  "Letter, 3 × 10, 66.7 × 25.4 mm": sheet(LETTER_MM, [3, 10], [66.7, 25.4], [3.2, 0]),
  "Letter, 4 × 20, 44.5 × 12.7 mm": sheet(LETTER_MM, [4, 20], [44.5, 12.7], [7.6, 0]),
  "Roll, 60 × 30 mm": roll(60, 30),
  "Roll, 50 × 24 mm": roll(50, 24),
  "Roll, 40 × 12 mm": roll(40, 12),
} as const satisfies Readonly<Record<string, LabelForm>>;
export type LabelFormName = keyof typeof LABEL_FORMS;

/** The least sides of a label, in millimetres: below, nothing on it can be read. */
const LEAST = [20, 8] as const;
/** No sheet is larger than A3. */
const MOST_SIDE = 420;
const MOST_LABELS_ON_SHEET = 500;

/** Why a form of somebody's own can't be: a sentence; null for one that can. */
export function formFault({ page, columns, rows, width, height, left, top, gap }: LabelForm): string | null {
  const all = [...page, columns, rows, width, height, left, top, ...gap];
  if (!all.every((number) => Number.isFinite(number) && number >= 0))
    return "Write each measure as a number of millimetres.";
  if (page.some((side) => side > MOST_SIDE)) return `A sheet has sides of at most ${MOST_SIDE} mm.`;
  if (width < LEAST[0] || height < LEAST[1])
    return `A label is at least ${LEAST[0]} mm wide and ${LEAST[1]} mm high, or nothing on it can be read.`;
  if (columns < 1 || rows < 1 || columns * rows > MOST_LABELS_ON_SHEET)
    return `A sheet has 1 to ${MOST_LABELS_ON_SHEET} labels.`;
  const across = left + columns * width + (columns - 1) * gap[0];
  const down = top + rows * height + (rows - 1) * gap[1];
  if (across > page[0] + HAIR)
    return `${columns} labels side by side take ${short(across)} mm; the sheet has ${page[0]}.`;
  if (down > page[1] + HAIR)
    return `${rows} labels one below another take ${short(down)} mm; the sheet has ${page[1]}.`;
  return null;
}
const HAIR = 0.05;
const short = (mm: number): string => String(Math.round(mm * 10) / 10);

/** Where the label with a number lies: counted from 0, line by line, from the corner of its sheet. */
export function placeOn(
  form: LabelForm,
  at: number,
): { readonly sheet: number; readonly x: number; readonly y: number } {
  const each = form.columns * form.rows;
  const on = at % each;
  return {
    sheet: Math.floor(at / each),
    x: form.left + (on % form.columns) * (form.width + form.gap[0]),
    y: form.top + Math.floor(on / form.columns) * (form.height + form.gap[1]),
  };
}
