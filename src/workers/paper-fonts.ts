/* eslint-disable max-len -- the builder finds a file only where its whole address stands in one piece */
import { FONT_FILES, type FontFiles } from "@/paper/pdf";

// The builder takes along the files whose addresses stand here.
const ADDRESSES: Readonly<Record<string, URL>> = {
  "atkinson-hyperlegible-next-latin-400-normal.woff": new URL(
    "" +
      "" +
      "../../node_modules/@fontsource/atkinson-hyperlegible-next/files/atkinson-hyperlegible-next-latin-400-normal.woff",
    import.meta.url,
  ),
  "atkinson-hyperlegible-next-latin-600-normal.woff": new URL(
    "" +
      "" +
      "../../node_modules/@fontsource/atkinson-hyperlegible-next/files/atkinson-hyperlegible-next-latin-600-normal.woff",
    import.meta.url,
  ),
  "atkinson-hyperlegible-next-latin-ext-400-normal.woff": new URL(
    "" +
      "" +
      "../../node_modules/@fontsource/atkinson-hyperlegible-next/files/atkinson-hyperlegible-next-latin-ext-400-normal.woff",
    import.meta.url,
  ),
  "atkinson-hyperlegible-next-latin-ext-600-normal.woff": new URL(
    "" +
      "" +
      "../../node_modules/@fontsource/atkinson-hyperlegible-next/files/atkinson-hyperlegible-next-latin-ext-600-normal.woff",
    import.meta.url,
  ),
  "atkinson-hyperlegible-mono-latin-400-normal.woff": new URL(
    "" +
      "" +
      "../../node_modules/@fontsource/atkinson-hyperlegible-mono/files/atkinson-hyperlegible-mono-latin-400-normal.woff",
    import.meta.url,
  ),
  "atkinson-hyperlegible-mono-latin-600-normal.woff": new URL(
    "" +
      "" +
      "../../node_modules/@fontsource/atkinson-hyperlegible-mono/files/atkinson-hyperlegible-mono-latin-600-normal.woff",
    import.meta.url,
  ),
  "atkinson-hyperlegible-mono-latin-ext-400-normal.woff": new URL(
    "" +
      "" +
      "../../node_modules/@fontsource/atkinson-hyperlegible-mono/files/atkinson-hyperlegible-mono-latin-ext-400-normal.woff",
    import.meta.url,
  ),
  "atkinson-hyperlegible-mono-latin-ext-600-normal.woff": new URL(
    "" +
      "" +
      "../../node_modules/@fontsource/atkinson-hyperlegible-mono/files/atkinson-hyperlegible-mono-latin-ext-600-normal.woff",
    import.meta.url,
  ),
  "noto-sans-cyrillic-400-normal.woff": new URL(
    "../../node_modules/@fontsource/noto-sans/files/noto-sans-cyrillic-400-normal.woff",
    import.meta.url,
  ),
  "noto-sans-cyrillic-600-normal.woff": new URL(
    "../../node_modules/@fontsource/noto-sans/files/noto-sans-cyrillic-600-normal.woff",
    import.meta.url,
  ),
  "noto-sans-cyrillic-ext-400-normal.woff": new URL(
    "../../node_modules/@fontsource/noto-sans/files/noto-sans-cyrillic-ext-400-normal.woff",
    import.meta.url,
  ),
  "noto-sans-cyrillic-ext-600-normal.woff": new URL(
    "../../node_modules/@fontsource/noto-sans/files/noto-sans-cyrillic-ext-600-normal.woff",
    import.meta.url,
  ),
  "noto-sans-greek-400-normal.woff": new URL(
    "../../node_modules/@fontsource/noto-sans/files/noto-sans-greek-400-normal.woff",
    import.meta.url,
  ),
  "noto-sans-greek-600-normal.woff": new URL(
    "../../node_modules/@fontsource/noto-sans/files/noto-sans-greek-600-normal.woff",
    import.meta.url,
  ),
  "noto-sans-greek-ext-400-normal.woff": new URL(
    "../../node_modules/@fontsource/noto-sans/files/noto-sans-greek-ext-400-normal.woff",
    import.meta.url,
  ),
  "noto-sans-greek-ext-600-normal.woff": new URL(
    "../../node_modules/@fontsource/noto-sans/files/noto-sans-greek-ext-600-normal.woff",
    import.meta.url,
  ),
  "noto-sans-vietnamese-400-normal.woff": new URL(
    "../../node_modules/@fontsource/noto-sans/files/noto-sans-vietnamese-400-normal.woff",
    import.meta.url,
  ),
  "noto-sans-vietnamese-600-normal.woff": new URL(
    "../../node_modules/@fontsource/noto-sans/files/noto-sans-vietnamese-600-normal.woff",
    import.meta.url,
  ),
  "noto-sans-devanagari-400-normal.woff": new URL(
    "../../node_modules/@fontsource/noto-sans/files/noto-sans-devanagari-400-normal.woff",
    import.meta.url,
  ),
  "noto-sans-devanagari-600-normal.woff": new URL(
    "../../node_modules/@fontsource/noto-sans/files/noto-sans-devanagari-600-normal.woff",
    import.meta.url,
  ),
};

/** In pieces: more arguments at once than the engine takes would end it. */
const PIECE = 0x8000;
/** Bytes in base64. */
export function base64(bytes: Uint8Array): string {
  let text = "";
  for (let at = 0; at < bytes.length; at += PIECE)
    text += String.fromCharCode(...bytes.subarray(at, at + PIECE));
  return btoa(text);
}

async function fetched(name: string): Promise<readonly [string, string]> {
  const address = ADDRESSES[name];
  if (address === undefined) throw new Error(`No address for the font ${name}`);
  const answer = await fetch(address);
  if (!answer.ok) throw new Error(`The font ${name} could not be fetched`);
  return [name, base64(new Uint8Array(await answer.arrayBuffer()))];
}

let fonts: Promise<FontFiles> | null = null;

/** The fonts of paper, fetched once from where the application itself comes from. */
export const paperFonts = (): Promise<FontFiles> =>
  (fonts ??= Promise.all(FONT_FILES.map(fetched)).then((files) => Object.fromEntries(files)));
