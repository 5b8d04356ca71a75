import pdfMake from "pdfmake/build/pdfmake";
import type { TDocumentDefinitions } from "pdfmake/interfaces";
import { ALL_FACES } from "./faces";

/** Font files by their names, each in base64. */
export type FontFiles = Readonly<Record<string, string>>;

const HUNDRED = 100;

/** The names of all files of fonts that a document may ask for. */
export const FONT_FILES: readonly string[] = ALL_FACES.flatMap(({ normal, bold }) => [normal, bold]);

/**
 * A document as the bytes of a PDF file; `tell` hears how much of a hundred is written, once it is laid out.
 */
export async function pdfOf(
  document: TDocumentDefinitions,
  fonts: FontFiles,
  tell: (done: number, all: number) => void = () => {},
): Promise<Uint8Array> {
  pdfMake.addVirtualFileSystem({ ...fonts });
  pdfMake.addFonts(
    Object.fromEntries(
      ALL_FACES.map(({ name, normal, bold }) => [name, { normal, bold, italics: normal, bolditalics: bold }]),
    ),
  );
  let told = -1;
  // Each thing on each page is told: only whole percents are of interest.
  pdfMake.setProgressCallback((share) => {
    const percent = Math.round(share * HUNDRED);
    if (percent > told) tell(percent, HUNDRED);
    told = Math.max(told, percent);
  });
  // Everything that a document needs is in it: nothing is fetched for it.
  pdfMake.setUrlAccessPolicy?.(() => false);
  return new Uint8Array(await pdfMake.createPdf(document).getBuffer());
}
