/** Marks an id as one of what is only supposed: no entity of a plan has a time of zero in its id (RFC 9562). */
const SUPPOSED = "00000000-0000-7000-8000-";
const HASH_BASE = 31;
const TWELVE_DIGITS = 0xffff_ffff_ffff;

/** An id that is the same each time for the same thing, for what a fault adds to the plan. */
export function madeId(of: string): string {
  let hash = 7;
  for (const letter of of) hash = (hash * HASH_BASE + (letter.codePointAt(0) ?? 0)) % TWELVE_DIGITS;
  return `${SUPPOSED}${hash.toString(16).padStart(12, "0")}`;
}
