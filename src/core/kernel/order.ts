/** Order by code point: the same on every machine, unlike a locale's. */
export const byText = (a: string, b: string): number => {
  if (a < b) return -1;
  if (a > b) return 1;
  return 0;
};

/** Whether there is a digit at a place of a text. */
function isDigitAt(text: string, at: number): boolean {
  const code = text.charCodeAt(at);
  return code >= 48 && code <= 57;
}

/** The run of digits that begins at a place. */
function digitsAt(text: string, from: number): string {
  let to = from;
  while (isDigitAt(text, to)) to += 1;
  return text.slice(from, to);
}

/**
 * "port 9" before "port 10": runs of digits compare as numbers, the rest by code point. Large sites sort by
 * it a hundred thousand times: only where two texts part is looked at.
 */
export function byNaturalText(a: string, b: string): number {
  let parts = 0;
  while (parts < a.length && a.charCodeAt(parts) === b.charCodeAt(parts)) parts += 1;
  const [left, right] = [isDigitAt(a, parts), isDigitAt(b, parts)];
  let run = parts;
  while (isDigitAt(a, run - 1)) run -= 1;
  if (run < parts ? left || right : left && right) {
    const [x, y] = [digitsAt(a, run), digitsAt(b, run)];
    return Number(x) - Number(y) || byText(x, y);
  }
  // A run of other characters that ends at a number is shorter than one that goes on.
  if (run > 0 && run === parts && left !== right && parts < a.length && parts < b.length)
    return left ? -1 : 1;
  return byText(a.slice(parts), b.slice(parts));
}

export const ascending = (a: number | bigint, b: number | bigint): number => {
  if (a < b) return -1;
  if (a > b) return 1;
  return 0;
};
