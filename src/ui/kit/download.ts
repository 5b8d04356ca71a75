import Papa from "papaparse";

/** Hands the browser a file to keep. */
export function download(name: string, type: string, text: string): void {
  const address = URL.createObjectURL(new Blob([text], { type }));
  const anchor = document.createElement("a");
  anchor.href = address;
  anchor.download = name;
  anchor.click();
  URL.revokeObjectURL(address);
}

export const CSV_TYPE = "text/csv;charset=utf-8";

export const fileName = (site: string, what: string): string => `${site.toLowerCase().replace(/[^a-z0-9]+/g, "-").replace(/^-|-$/g, "")}-${what}`;

/** RFC 4180, with a first line of heads; a text that a spreadsheet would run as a formula is written as a text. */
export const csv = (table: readonly (readonly string[])[]): string => `${Papa.unparse(table.map((row) => [...row]), { newline: "\r\n", escapeFormulae: true })}\r\n`;
