import { asPrefix6, formatPrefix, parsePrefix } from "../../address";
import type { Line } from "../../plan";

type Delegated = Line["delegated"];

const NONE: Delegated = { length: null, prefix: null, keeps: false };
const OTHERWISE =
  "write none, its length like /56, or the prefix like 2001:db8:24::/56, and always where it stays.";

/**
 * "none", "/56", "2001:db8:24::/56", "2001:db8:24::/56, always": what a provider delegates (RFC 8415), and
 * whether it stays; a sentence where it can't be read.
 */
export function readDelegated(text: string): Delegated | string {
  if (/^(none|no|-|)$/i.test(text)) return NONE;
  const [, what = "", always] = /^(\S+?)\s*(?:[,;]\s*(always|fixed|stays|changes))?$/i.exec(text) ?? [];
  const keeps = always !== undefined && !/^changes$/i.test(always);
  const [, digits] = /^\/(\d{1,3})$/.exec(what) ?? [];
  const prefix = digits === undefined ? asPrefix6(parsePrefix(what)) : null;
  const length = digits === undefined ? (prefix?.length ?? null) : Number(digits);
  if (length === null) return `"${text}" is no prefix that a provider delegates; ${OTHERWISE}`;
  return length < 32 || length > 64
    ? `A delegated prefix has a length from /32 to /64, and this one has /${length}; ${OTHERWISE}`
    : { length, prefix, keeps };
}

/** What a line's delegated prefix says in a cell, as it is read. */
export function delegatedText({ length, prefix, keeps }: Delegated): string {
  const always = keeps ? ", always" : "";
  if (prefix !== null) return `${formatPrefix(prefix)}${always}`;
  return length === null ? "none" : `/${length}${always}`;
}
