import fc from "fast-check";
import { fennelStreet } from "../../demo/fennel-street";
import { INKS, paperFonts, readPdf } from "../../tests/support/paper";
import {
  asPrinted,
  LABEL_KINDS,
  labelAddress,
  labelsOf,
  namedByLabel,
  newLabels,
  type Label,
} from "@/core/labels";
import { must } from "@/core/kernel";
import { PlanEdits, PlanIndex, applyChanges } from "@/core/plan";
import type { Recorded } from "@/core/records";
import { testId } from "@/core/testing/build-plan";
import { fitted } from "./label-text";
import { formFault, LABEL_FORMS, placeOn, type LabelForm } from "./label-sheets";
import { codePath, labelContent, labelDocument, labelSheets, type LabelsWith } from "./labels";
import { Measure } from "./measure";
import { pdfOf } from "./pdf";

const FONTS = paperFonts();
const measure = new Measure(FONTS);
const FORMS = Object.entries(LABEL_FORMS) as [string, LabelForm][];
const given = (form: LabelForm, more: Partial<LabelsWith> = {}): LabelsWith => ({
  form,
  skip: 0,
  inks: INKS,
  address: () => null,
  measure,
  outlined: false,
  ...more,
});

const LONGEST = [
  { text: "W".repeat(80), isBold: true, scale: 1 },
  {
    text: "Upper switch of the third consult room beside the theatre, behind the cabinet 12",
    isBold: false,
    scale: 0.7,
  },
  { text: `to ${"M".repeat(80)} ${"8".repeat(24)}`, isBold: false, scale: 0.7 },
];

test.each(FORMS)(
  "%s: the longest names that are allowed are whole, within their label, and in order",
  (_, form) => {
    const room = { x: 1.5, y: 1.5, width: form.width * 0.5, height: form.height * 0.6 };
    const lines = fitted(LONGEST, room, 5, measure);
    for (const line of lines) {
      expect(measure.width(line.text, line.isBold) * line.size).toBeLessThanOrEqual(room.width + 1e-6);
      expect(line.y).toBeLessThanOrEqual(room.y + room.height);
      expect(line.y - line.size).toBeGreaterThanOrEqual(room.y - line.size * 0.2);
    }
    const squeezed = (text: string) => text.replace(/ /g, "");
    expect(squeezed(lines.map(({ text }) => text).join(""))).toBe(
      squeezed(LONGEST.map(({ text }) => text).join("")),
    );
  },
);

test("no text is cut, whatever is written and however small its room", () => {
  const words = fc.string({ unit: fc.constantFrom(..."aWi 8.-Łж"), maxLength: 80 });
  fc.assert(
    fc.property(
      words,
      words,
      fc.integer({ min: 8, max: 60 }),
      fc.integer({ min: 5, max: 40 }),
      (a, b, width, height) => {
        const room = { x: 0, y: 0, width, height };
        const lines = fitted(
          [
            { text: a, isBold: true, scale: 1 },
            { text: b, isBold: false, scale: 0.7 },
          ],
          room,
          5,
          measure,
        );
        const squeezed = (text: string) => text.replace(/ /g, "");
        expect(squeezed(lines.map(({ text }) => text).join(""))).toBe(squeezed(a + b));
        for (const line of lines)
          expect(measure.width(line.text, line.isBold) * line.size).toBeLessThanOrEqual(width + 1e-6);
      },
    ),
    { numRuns: 60 },
  );
});

test.each(FORMS)("%s: its labels lie on their sheet and do not meet", (_, form) => {
  expect(formFault(form)).toBeNull();
  const each = form.columns * form.rows;
  const places = Array.from({ length: each + 1 }, (_unused, at) => placeOn(form, at));
  expect(places.at(-1)).toEqual({ ...places[0], sheet: 1 });
  for (const { x, y } of places) {
    expect(x + form.width).toBeLessThanOrEqual(form.page[0] + 0.05);
    expect(y + form.height).toBeLessThanOrEqual(form.page[1] + 0.05);
  }
  expect(new Set(places.slice(0, each).map(({ x, y }) => `${x} ${y}`)).size).toBe(each);
});

test("a form that can't be says why, with its numbers", () => {
  const usual = must(FORMS[0], "a form")[1];
  expect(formFault({ ...usual, width: 90 })).toBe("3 labels side by side take 270 mm; the sheet has 210.");
  expect(formFault({ ...usual, rows: 9 })).toBe(
    "9 labels one below another take 333.5 mm; the sheet has 297.",
  );
  expect(formFault({ ...usual, height: 3 })).toMatch(/at least 20 mm wide and 8 mm high/);
  expect(formFault({ ...usual, width: Number.NaN })).toMatch(/as a number of millimetres/);
  expect(formFault({ ...usual, columns: 0 })).toMatch(/1 to 500 labels/);
  expect(formFault({ ...usual, page: [5000, 297] })).toMatch(/at most 420 mm/);
});

const index = PlanIndex.of(fennelStreet());
const all = labelsOf(index, LABEL_KINDS);
const BASE = "https://plans.example.net";
const printed = (labels: readonly Label[]): Recorded => ({
  by: "Ruth",
  entry: {
    id: testId("labels", "x"),
    at: "2026-11-30T09:00:00.000Z",
    do: "labels",
    printed: asPrinted(labels, BASE),
  },
});

test("each cable has a label at both ends, each with what is at the other", () => {
  const cables = labelsOf(index, ["cable"]);
  expect(cables.length).toBe(2 * index.plan.link.size);
  const [first, second] = cables;
  expect([first?.title, second?.title]).toEqual([first?.title, first?.title]);
  expect(first?.lines[1]).toBe(`to ${second?.lines[0] ?? ""}`);
  expect(second?.lines[1]).toBe(`to ${first?.lines[0] ?? ""}`);
  expect(new Set(all.map(({ key }) => key)).size).toBe(all.length);
});

test("only what was never printed as it is now is new", () => {
  expect(newLabels(all, BASE, []).length).toBe(all.length);
  expect(newLabels(all, BASE, [printed(all)])).toEqual([]);
  // Codes that lead elsewhere are to be printed anew; what has no code is as it was.
  expect(newLabels(all, "https://elsewhere.example.net", [printed(all)])).toEqual(
    all.filter(({ opens }) => opens !== null),
  );
  const edits = new PlanEdits(index.plan);
  const [link] = index.plan.link.values();
  edits.patch("link", must(link, "a cable").id, { label: "renamed" });
  const applied = applyChanges(index.plan, edits.changes());
  const now = PlanIndex.of(must(applied.ok ? applied.value : null, "renamed"));
  expect(
    newLabels(labelsOf(now, LABEL_KINDS), BASE, [printed(all)]).map(({ title, kind }) => [title, kind]),
  ).toEqual([
    ["renamed", "cable"],
    ["renamed", "cable"],
  ]);
  // The same again is new no more once that was printed, too.
  expect(
    newLabels(labelsOf(now, LABEL_KINDS), BASE, [printed(all), printed(labelsOf(now, ["cable"]))]),
  ).toEqual([]);
});

test("a code's address names its thing, and what is none names nothing", () => {
  const opens = { kind: "device", id: testId("device", "x") } as const;
  const address = labelAddress("https://plans.example.net/", index.plan.site.id, opens);
  expect(address).toBe(`https://plans.example.net/sites/${index.plan.site.id}/hardware#device=${opens.id}`);
  expect(namedByLabel(new URL(address).hash)).toEqual(opens);
  for (const hash of ["", "#x", "#gadget=0", `#device=${opens.id}0`, "#device=../../x"])
    expect(namedByLabel(hash)).toBeNull();
});

/** Whether the square of a code at a place is dark, by its path. */
function darkAt(path: string, column: number, row: number): boolean {
  return [...path.matchAll(/M(\d+) (\d+)h(\d+)v1h-\d+z/g)].some(
    ([, from, at, long]) =>
      Number(at) === row && column >= Number(from) && column < Number(from) + Number(long),
  );
}

test("a code has the three corners by which it is found", () => {
  const { path, side } = codePath("https://plans.example.net/sites/x#device=y");
  for (const [left, top] of [
    [0, 0],
    [side - 7, 0],
    [0, side - 7],
  ] as const) {
    const row = (at: number) => Array.from({ length: 7 }, (_, n) => darkAt(path, left + n, top + at));
    expect(row(0)).toEqual(Array.from({ length: 7 }, () => true));
    expect(row(1)).toEqual([true, false, false, false, false, false, true]);
    expect(row(3)).toEqual([true, false, true, true, true, false, true]);
  }
});

test("a label without an address, or too small for a telephone, has no code", () => {
  const label = must(all[0], "a label");
  const long = must(LABEL_FORMS["A4, 3 × 8, 70 × 37 mm"], "a form");
  const hasCode = (form: LabelForm, address: string | null) =>
    labelContent(label, given(form, { address: () => address })).svg.includes("h-");
  expect([hasCode(long, "https://a.example"), hasCode(long, null)]).toEqual([true, false]);
  expect(hasCode({ ...long, height: 9 }, "https://a.example")).toBe(false);
});

test("a sheet begins at the first free place; PDF has a page a sheet, SVG needs no font", async () => {
  const form = LABEL_FORMS["A4, 3 × 8, 70 × 37 mm"];
  const few = all.slice(0, 5);
  const { sheets } = labelSheets(few, given(form, { skip: 22 }));
  expect(sheets.length).toBe(2);
  const bytes = await pdfOf(labelDocument(sheets) as never, FONTS);
  expect(readPdf("pdfinfo", bytes)).toMatch(/Pages:\s+2\n/);
  const text = readPdf("pdftotext", bytes).replace(/\s+/g, " ");
  for (const { title } of few) expect(text).toContain(title);
  const outlined = labelSheets(few, given(form, { outlined: true }))
    .sheets.map(({ svg }) => svg)
    .join("");
  expect(outlined).not.toMatch(/<text|font-family/);
  expect(outlined).toMatch(/width="210mm" height="297mm"/);
});
