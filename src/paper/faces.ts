import monoRanges from "@fontsource/atkinson-hyperlegible-mono/unicode.json";
import nextRanges from "@fontsource/atkinson-hyperlegible-next/unicode.json";
import notoRanges from "@fontsource/noto-sans/unicode.json";

/** A family as it is asked for: running text, or figures and addresses. */
export type Family = "text" | "figures";

/** A font that has some characters: its two files, and which they are. */
export interface Face {
  readonly name: string;
  readonly normal: string;
  readonly bold: string;
  readonly has: readonly (readonly [first: number, last: number])[];
}

const RANGE = /^U\+([0-9A-F]+)(?:-([0-9A-F]+))?$/;
const rangesOf = (text: string): Face["has"] =>
  text.split(",").flatMap((part): [number, number][] => {
    const [, first, last] = RANGE.exec(part.trim()) ?? [];
    return first === undefined ? [] : [[Number.parseInt(first, 16), Number.parseInt(last ?? first, 16)]];
  });

const NEXT = "atkinson-hyperlegible-next";
const MONO = "atkinson-hyperlegible-mono";
const NOTO = "noto-sans";
type Ranges = Readonly<Record<string, string>>;

const face = (font: string, subset: string, ranges: Ranges): Face => ({
  name: `${font}-${subset}`,
  normal: `${font}-${subset}-400-normal.woff`,
  bold: `${font}-${subset}-600-normal.woff`,
  has: rangesOf(ranges[subset] ?? ""),
});

const OTHERS = ["cyrillic", "cyrillic-ext", "greek", "greek-ext", "vietnamese", "devanagari"].map((subset) =>
  face(NOTO, subset, notoRanges),
);
/** The fonts of a family, the first that has a character is taken for it. */
export const FACES: Readonly<Record<Family, readonly Face[]>> = {
  text: [face(NEXT, "latin", nextRanges), face(NEXT, "latin-ext", nextRanges), ...OTHERS],
  figures: [
    face(MONO, "latin", monoRanges),
    face(MONO, "latin-ext", monoRanges),
    face(NEXT, "latin", nextRanges),
    ...OTHERS,
  ],
};
/** The font that a document is set in where nothing else is said. */
export const USUAL_FONT = FACES.text[0]?.name ?? "";
/** All fonts, each once. */
export const ALL_FACES: readonly Face[] = [
  ...new Map([...FACES.text, ...FACES.figures].map((face) => [face.name, face])).values(),
];

/** What stands for a character that no font here has. */
export const UNKNOWN = "?";

const faceOf = (family: Family, code: number): Face | undefined =>
  FACES[family].find(({ has }) => has.some(([first, last]) => code >= first && code <= last));

/** A piece of a text in one font. */
export interface Run {
  readonly text: string;
  readonly font: string;
}

const ASCII = /^[\n\x20-\x7e]*$/;
/** Letters that belong to the one before them stay with it, whatever font has them alone. */
const JOINS = /^\p{M}|[\u200c\u200d\ufe00-\ufe0f]/u;

/** A text in pieces of one font each; a character that no font has is "?", and is counted in `unknown`. */
export function runsOf(
  text: string,
  family: Family,
): { readonly runs: readonly Run[]; readonly unknown: number } {
  const usual = FACES[family][0]?.name ?? "";
  if (ASCII.test(text)) return { runs: [{ text, font: usual }], unknown: 0 };
  const runs: { text: string; font: string }[] = [];
  let unknown = 0;
  for (const character of text) {
    const last = runs.at(-1);
    const found = faceOf(family, character.codePointAt(0) ?? 0);
    if (last !== undefined && JOINS.test(character)) last.text += found === undefined ? "" : character;
    else {
      if (found === undefined) unknown += 1;
      const font = found?.name ?? usual;
      const shown = found === undefined ? UNKNOWN : character;
      if (last?.font === font) last.text += shown;
      else runs.push({ text: shown, font });
    }
  }
  return { runs, unknown };
}
