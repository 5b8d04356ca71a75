/**
 * How many single mistakes of typing (a letter left out, added, wrong, or two changed over) lie between two
 * words: the restricted Damerau-Levenshtein distance. Stops counting above `most`.
 */
export function typingMistakes(a: string, b: string, most: number): number {
  if (Math.abs(a.length - b.length) > most) return most + 1;
  let [beforeLast, last] = [[] as number[], Array.from({ length: b.length + 1 }, (_, i) => i)];
  for (let i = 1; i <= a.length; i += 1) {
    const row = [i];
    for (let j = 1; j <= b.length; j += 1) {
      const same = a[i - 1] === b[j - 1] ? 0 : 1;
      let cost = Math.min((last[j] ?? 0) + 1, (row[j - 1] ?? 0) + 1, (last[j - 1] ?? 0) + same);
      if (i > 1 && j > 1 && a[i - 1] === b[j - 2] && a[i - 2] === b[j - 1])
        cost = Math.min(cost, (beforeLast[j - 2] ?? 0) + 1);
      row.push(cost);
    }
    if (Math.min(...row) > most) return most + 1;
    [beforeLast, last] = [last, row];
  }
  return last[b.length] ?? 0;
}

/** How many mistakes are forgiven in a word: none in a short one, where another word is too near. */
export const forgiven = (word: string): number => {
  if (word.length < 5) return 0;
  if (word.length < 9) return 1;
  return 2;
};
