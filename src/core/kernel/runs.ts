/** Whole numbers as runs that have no gap, ascending: 1, 2, 3, 7 as 1 to 3 and 7 to 7. */
function runsOf(numbers: Iterable<number>): (readonly [from: number, to: number])[] {
  const runs: [number, number][] = [];
  for (const number of [...new Set(numbers)].sort((a, b) => a - b)) {
    const last = runs.at(-1);
    if (last !== undefined && last[1] === number - 1) last[1] = number;
    else runs.push([number, number]);
  }
  return runs;
}

/** "1 to 3, 7": such runs by the names of their ends. */
export const runsWords = (numbers: Iterable<number>, name: (number: number) => string): string =>
  runsOf(numbers)
    .map(([from, to]) => (from === to ? name(from) : `${name(from)} to ${name(to)}`))
    .join(", ");
