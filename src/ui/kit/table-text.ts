import Papa from "papaparse";

const MOST_BYTES = 16_000_000;
const MOST_ROWS = 50_000;

type Rows = readonly (readonly string[])[];

/** The rows of a pasted or opened table; the sentence why there are none. */
export function rowsIn(text: string): { readonly rows: Rows } | { readonly refusal: string } {
  const { data } = Papa.parse<string[]>(text.replace(/^\ufeff/, ""), { skipEmptyLines: "greedy" });
  if (data.length === 0)
    return { refusal: "There is no row in it; copy the rows with their heads, or choose a CSV file." };
  if (data.length > MOST_ROWS) return { refusal: `It has more than ${MOST_ROWS} rows; import it in parts.` };
  return { rows: data };
}

/** Why a file is not opened at all; null when it may be. */
export const tooLarge = ({ name, size }: File): string | null =>
  size <= MOST_BYTES
    ? null
    : `${name} has ${Math.ceil(size / 1_000_000)} MB; a table has at most ${MOST_BYTES / 1_000_000} MB.`;
