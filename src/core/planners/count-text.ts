/** A whole number from 0 to `most`, or null for any other text. */
export function countChecked(text: string, most: number): number | null {
  const trimmed = text.trim();
  return /^\d{1,9}$/.test(trimmed) && Number(trimmed) <= most ? Number(trimmed) : null;
}
