import Papa from "papaparse";
import type { ExportContent } from "@/core/formats";

/** What a spreadsheet takes for a formula, its full-width forms and one behind a space or a tab, too. */
const FORMULA = /^[\s\u00a0\u3000]*[=+\-@\uff1d\uff0b\uff0d\uff20]|^[\t\r]/;

/**
 * RFC 4180, with a first line of heads; a text that a spreadsheet would run as a formula is written as a
 * text.
 */
export const csv = (table: readonly (readonly string[])[]): string =>
  `${Papa.unparse(
    table.map((row) => [...row]),
    { newline: "\r\n", escapeFormulae: FORMULA },
  )}\r\n`;

/** An export as the text of its file, or why there is none. */
export function exportText(content: ExportContent): string | { readonly refusal: string } {
  switch (content.is) {
    case "table":
      return csv(content.rows);
    case "text":
      return content.text;
    case "refused":
      return { refusal: content.sentence };
  }
}
