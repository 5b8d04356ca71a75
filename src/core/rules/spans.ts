import { ascending } from "../kernel";

/** From `first` to `last`, both included; of numbers (IPv4, services) or of big integers (IPv6). */
export interface Span<T extends number | bigint = number | bigint> {
  readonly first: T;
  readonly last: T;
}

/** The next value up; past the end of its family it is the number behind the last. */
export const after = <T extends number | bigint>(value: T): T =>
  (typeof value === "bigint" ? value + 1n : Number(value) + 1) as T;

/** The same values as ascending spans that neither overlap nor touch. */
export function merged<T extends number | bigint>(spans: readonly Span<T>[]): Span<T>[] {
  if (spans.length < 2) return [...spans];
  const out: { first: T; last: T }[] = [];
  for (const { first, last } of [...spans].sort((a, b) => ascending(a.first, b.first))) {
    const open = out.at(-1);
    if (open === undefined || after(open.last) < first) out.push({ first, last });
    else if (open.last < last) open.last = last;
  }
  return out;
}

/** What lies in both; each given ascending and without overlap. */
export function common<T extends number | bigint>(a: readonly Span<T>[], b: readonly Span<T>[]): Span<T>[] {
  const out: Span<T>[] = [];
  let [i, j] = [0, 0];
  for (let x = a[i], y = b[j]; x !== undefined && y !== undefined; x = a[i], y = b[j]) {
    const first = x.first > y.first ? x.first : y.first;
    const last = x.last < y.last ? x.last : y.last;
    if (first <= last) out.push({ first, last });
    if (x.last < y.last) i += 1;
    else j += 1;
  }
  return out;
}

/** What lies in `a` and not in `b`; each given ascending and without overlap. */
export function without<T extends number | bigint>(a: readonly Span<T>[], b: readonly Span<T>[]): Span<T>[] {
  const out: Span<T>[] = [];
  for (const span of a) {
    let at = span.first;
    for (const hole of b) {
      if (hole.last < at) continue;
      if (hole.first > span.last) break;
      if (at < hole.first)
        out.push({
          first: at,
          last: (typeof at === "number" ? Number(hole.first) - 1 : BigInt(hole.first) - 1n) as T,
        });
      at = after(hole.last);
    }
    if (at <= span.last) out.push({ first: at, last: span.last });
  }
  return out;
}

export const sameSpans = (a: readonly Span[], b: readonly Span[]): boolean =>
  a.length === b.length && a.every(({ first, last }, at) => first === b[at]?.first && last === b[at]?.last);

/** How many values there are; the spans must not overlap. */
export const sizeOf = (spans: readonly Span[]): bigint =>
  spans.reduce((sum, { first, last }) => sum + BigInt(last) - BigInt(first) + 1n, 0n);
