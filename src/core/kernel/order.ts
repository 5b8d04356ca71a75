/** Order by code point: the same on every machine, unlike a locale's. */
export const byText = (a: string, b: string): number => {
  if (a < b) return -1;
  if (a > b) return 1;
  return 0;
};

/** "port 9" before "port 10": runs of digits compare as numbers, the rest by code point. */
export function byNaturalText(a: string, b: string): number {
  const left = a.match(/\d+|\D+/g) ?? [];
  const right = b.match(/\d+|\D+/g) ?? [];
  const shared = Math.min(left.length, right.length);
  for (let i = 0; i < shared; i += 1) {
    const x = left[i] ?? "";
    const y = right[i] ?? "";
    const bothNumbers = /^\d/.test(x) && /^\d/.test(y);
    const order = bothNumbers ? Number(x) - Number(y) || byText(x, y) : byText(x, y);
    if (order !== 0) return order;
  }
  return left.length - right.length || byText(a, b);
}

export const ascending = (a: number | bigint, b: number | bigint): number => {
  if (a < b) return -1;
  if (a > b) return 1;
  return 0;
};
