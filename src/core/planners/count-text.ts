/** A whole number from 0 to `most`, or null for any other text. */
export function countChecked(text: string, most: number): number | null {
  const trimmed = text.trim();
  return /^\d{1,9}$/.test(trimmed) && Number(trimmed) <= most ? Number(trimmed) : null;
}

/** Up to three names, and how many more there are. */
export const listedNames = (names: readonly string[]): string => {
  if (names.length <= 3) {
    if (names.length < 2) return names[0] ?? "";
    return `${names.slice(0, -1).join(", ")} and ${names.at(-1) ?? ""}`;
  }
  return `${names.slice(0, 3).join(", ")} and ${names.length - 3} more`;
};
