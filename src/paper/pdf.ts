import pdfMake from "pdfmake/build/pdfmake";
import type { TDocumentDefinitions } from "pdfmake/interfaces";
import { ALL_FACES } from "./faces";

/** Font files by their names, each in base64. */
export type FontFiles = Readonly<Record<string, string>>;

/** The names of all files of fonts that a document may ask for. */
export const FONT_FILES: readonly string[] = ALL_FACES.flatMap(({ normal, bold }) => [normal, bold]);

/** A document as the bytes of a PDF file. */
export async function pdfOf(document: TDocumentDefinitions, fonts: FontFiles): Promise<Uint8Array> {
  pdfMake.addVirtualFileSystem({ ...fonts });
  pdfMake.addFonts(
    Object.fromEntries(
      ALL_FACES.map(({ name, normal, bold }) => [name, { normal, bold, italics: normal, bolditalics: bold }]),
    ),
  );
  // Everything that a document needs is in it: nothing is fetched for it.
  pdfMake.setUrlAccessPolicy?.(() => false);
  return new Uint8Array(await pdfMake.createPdf(document).getBuffer());
}
