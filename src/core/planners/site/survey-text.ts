import {
  formatAddress,
  formatPrefix,
  parseAddress,
  masksAsSlashes,
  readPrefix,
  type Address,
  type Prefix,
} from "../../address";
import type { Refusal } from "../planner";
import { isDate } from "./set-fields";

/** A text field's reading: a value, or the sentence why not. */
export type Read<T> =
  { readonly value: T; readonly refusal: null } | { readonly value: null; readonly refusal: string };
export const readAs = <T>(value: T): Read<T> => ({ value, refusal: null });
export const notRead = (refusal: string): Read<never> => ({ value: null, refusal });

const parts = (text: string): string[] =>
  text.split(/[\s,;]+/).filter((part) => part !== "" && part !== "–" && part !== "-");

/** Prefixes with commas or blanks between. */
export function readPrefixes(text: string, most: number): Read<Prefix[]> {
  const read = parts(masksAsSlashes(text)).map((part) => ({ part, prefix: readPrefix(part) }));
  const bad = read.find(({ prefix }) => prefix === null);
  if (bad !== undefined)
    return notRead(
      `"${bad.part}" is not a subnet such as 10.24.0.0/16 or fd24:5a10:3c01::/48; the host part must be zero.`,
    );
  return read.length > most
    ? notRead(`At most ${most} belong here.`)
    : readAs(read.flatMap(({ prefix }) => prefix ?? []));
}

/** Addresses with commas or blanks between. */
export function readAddresses(text: string, most: number): Read<Address[]> {
  const read = parts(text).map((part) => ({ part, address: parseAddress(part) }));
  const bad = read.find(({ address }) => address === null);
  if (bad !== undefined) return notRead(`"${bad.part}" is not an address such as 10.24.20.1.`);
  return read.length > most
    ? notRead(`At most ${most} belong here.`)
    : readAs(read.flatMap(({ address }) => address ?? []));
}

export const addressesText = (addresses: readonly Address[]): string =>
  addresses.map(formatAddress).join(", ");
export const prefixesText = (prefixes: readonly Prefix[]): string => prefixes.map(formatPrefix).join(", ");

/** Metres, up to two decimals, as centimetres; null for an empty text. */
export function readMetres(text: string): Read<number | null> {
  if (text.trim() === "") return readAs(null);
  const metres = /^\d{1,5}([.,]\d{1,2})?\s*m?$/.test(text.trim())
    ? Number(text.trim().replace(/\s*m$/, "").replace(",", "."))
    : null;
  return metres === null
    ? notRead(`"${text}" is no length; write metres such as 38 or 2.5, or leave it empty.`)
    : readAs(Math.round(metres * 100));
}

export function readDate(text: string): Read<string | null> {
  if (text.trim() === "") return readAs(null);
  return isDate(text.trim())
    ? readAs(text.trim())
    : notRead(`"${text}" is not a date; write it as 2027-06-30, or leave it empty.`);
}

/** A name of 1 to 80 characters that no other has; `of` is the word for what is named. */
export function nameRefusal(text: string, of: string, taken: readonly string[]): Refusal {
  if (text === "" || text.length > 80) return `Give the ${of} a name of 1 to 80 characters.`;
  return taken.some((other) => other.toLowerCase() === text.toLowerCase())
    ? `There is a ${of} called ${text} already; give this one another name.`
    : null;
}
