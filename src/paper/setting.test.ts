import fc from "fast-check";
import { unzipSync } from "fflate";
import { areCrammed, needsOf, widthsOf } from "./columns";
import { inPaperFonts, sheetsOf } from "./drawing";
import { FACES, runsOf, UNKNOWN } from "./faces";
import { isFigures } from "./setter";
import { zipOf } from "./zip";

test("a text is parted by fonts and loses nothing that a font has", () => {
  const known = fc.string({ unit: fc.constantFrom(..."Az 10.24:łŁжЖαÉ–’ế"), maxLength: 40 });
  fc.assert(
    fc.property(known, fc.constantFrom("text", "figures"), (text, family) => {
      const { runs, unknown } = runsOf(text, family);
      expect([runs.map((run) => run.text).join(""), unknown]).toEqual([text, 0]);
      for (const run of runs) {
        const face = FACES[family].find(({ name }) => name === run.font);
        for (const sign of run.text)
          expect(
            face?.has.some(([a, b]) => (sign.codePointAt(0) ?? 0) >= a && (sign.codePointAt(0) ?? 0) <= b),
          ).toBe(true);
      }
    }),
  );
});

test("what no font has is one sign each, and marks stay with their letter", () => {
  const { runs, unknown } = runsOf("会議 1", "text");
  expect([runs.map((run) => run.text).join(""), unknown]).toEqual([`${UNKNOWN}${UNKNOWN} 1`, 2]);
  expect(
    runsOf("e\u0301x", "text")
      .runs.map((run) => run.text)
      .join(""),
  ).toBe("e\u0301x");
});

test("addresses, ranges and counts are figures, words are not", () => {
  const figures = ["10.24.20.1", "10.24.20.0/25", "02:5a:10:ff:00:02", "2001:db8::1", "10, 20, 90", "1000"];
  expect(figures.filter((text) => !isFigures(text))).toEqual([]);
  expect(["", "Upper switch 24", "802.1X", "face", "to decide"].filter(isFigures)).toEqual([]);
});

test("columns fill the page, none is narrower than its longest word, and too many fit nowhere", () => {
  const cells = fc.array(fc.array(fc.string({ maxLength: 30 }), { minLength: 4, maxLength: 4 }), {
    minLength: 1,
    maxLength: 12,
  });
  fc.assert(
    fc.property(cells, fc.integer({ min: 300, max: 800 }), (rows, width) => {
      const needs = needsOf(rows);
      const asked = { width, size: 8, figures: [false, false, false, false] };
      const widths = widthsOf(needs, asked);
      const least = needs.reduce((sum, need) => sum + need.least * 8 * 0.64 + 6, 0);
      expect(widths === null).toBe(least > width);
      if (widths === null) return;
      expect(widths.reduce((sum, width) => sum + width, 0)).toBeLessThanOrEqual(width + 0.1);
      needs.forEach((need, at) => expect(widths[at]).toBeGreaterThanOrEqual(need.least * 8 * 0.64 + 6 - 0.1));
    }),
  );
  const many = needsOf([Array.from({ length: 20 }, () => "a long text in each of them")]);
  expect([areCrammed(many, 515, 8), areCrammed(many.slice(0, 2), 515, 8)]).toEqual([true, false]);
});

test("a drawing that would be too small to read is the whole first, then windows that cover it", () => {
  const svg = '<svg xmlns="x" width="3000" height="900" viewBox="-40 -30 3000 900" font-family="F"></svg>';
  const sheets = sheetsOf({ svg, width: 3000, height: 900 }, [760, 440]);
  expect(sheets[0]?.svg).toBe(svg);
  const windows = sheets.slice(1).map((sheet) => {
    const [, x, y, w, h] = /viewBox="(\S+) (\S+) (\S+) (\S+)"/.exec(sheet.svg) ?? [];
    return [x, y, w, h].map(Number);
  });
  expect(windows).toEqual([
    [-40, -30, 1520, 880],
    [1480, -30, 1480, 880],
    [-40, 850, 1520, 20],
    [1480, 850, 1480, 20],
  ]);
  expect(sheetsOf({ svg, width: 700, height: 400 }, [760, 440])).toHaveLength(1);
});

test("a drawing is written in the fonts of paper, signs of markup kept", () => {
  const svg = '<svg font-family="\'Any\', sans"><text x="1">A &amp; ж</text><title>gone</title></svg>';
  const set = inPaperFonts(svg);
  expect(set).toContain(`font-family="${FACES.text[0]?.name ?? ""}"`);
  expect(set).toMatch(/<tspan font-family="noto-sans-cyrillic">ж<\/tspan>/);
  expect(set).toContain("A &amp; ");
  expect(set).not.toContain("gone");
});

test("a ZIP holds its files as they are", () => {
  const files = [
    ["01-a.pdf", Uint8Array.of(1, 2, 3)],
    ["drawing.svg", new TextEncoder().encode("<svg/>")],
  ] as const;
  const back = unzipSync(zipOf(files, "2026-11-30T09:00:00.000Z"));
  expect(Object.entries(back).map(([name, bytes]) => [name, [...bytes]])).toEqual(
    files.map(([name, bytes]) => [name, [...bytes]]),
  );
});
