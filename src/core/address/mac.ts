import type { Brand } from "../kernel";
import { hasBit } from "./bits";

/** A 48-bit MAC address, canonical: lower case, pairs joined by colons. */
export type Mac = string & Brand<"Mac">;

const NOTATIONS = [
  /^[0-9a-f]{2}(:[0-9a-f]{2}){5}$/i,
  /^[0-9a-f]{2}(-[0-9a-f]{2}){5}$/i,
  /^[0-9a-f]{4}(\.[0-9a-f]{4}){2}$/i,
  /^[0-9a-f]{12}$/i,
];

/** As it is kept: nothing has to be made of it. */
const CANONICAL = /^[0-9a-f]{2}(?::[0-9a-f]{2}){5}$/;

/**
 * Reads pairs with colons or hyphens, three dotted groups of four, or twelve digits; null for anything else.
 */
export function parseMac(text: string): Mac | null {
  if (CANONICAL.test(text)) return text as Mac;
  if (!NOTATIONS.some((notation) => notation.test(text))) return null;
  const digits = text.replace(/[^0-9a-f]/gi, "").toLowerCase();
  return (digits.match(/../g) ?? []).join(":") as Mac;
}

/** The low half of the first octet, which holds both bits. */
const lowHalf = (mac: Mac): number => {
  const code = mac.charCodeAt(1);
  return code <= 57 ? code - 48 : code - 87;
};

/** The U/L bit of IEEE 802: set means that the address was chosen locally. */
export const isLocallyAdministered = (mac: Mac): boolean => hasBit(lowHalf(mac), 1);

/** The I/G bit of IEEE 802: set means a group; no device may send from it. */
export const isGroup = (mac: Mac): boolean => hasBit(lowHalf(mac), 0);
