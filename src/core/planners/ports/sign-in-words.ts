import type { SignIn } from "../../plan";

/** A choice of a profile's field with the words it is written by; the first are those it is read by. */
type Choices<V extends string> = readonly (readonly [V, string, RegExp])[];

export const STAGES: Choices<SignIn["stage"]> = [
  ["watch", "watch", /^watch(ing)?$/i],
  ["limited", "limited", /^limited$/i],
  ["closed", "closed", /^closed$/i],
];
export const PORT_HOSTS: Choices<SignIn["hosts"]> = [
  ["one", "one device", /^(one|1)( device)?$/i],
  ["phone", "a phone and one", /^(a )?phone( ?(and|\+) ?(one|1|pc)( device)?)?$/i],
  ["several", "several, each by itself", /^several(, each by itself)?$/i],
  ["many", "any number once one is in", /^(many|any( number)?( once one is in)?)$/i],
];
export const ORDERS: Choices<SignIn["order"]> = [
  ["signInFirst", "sign-in first", /^(sign-?in|802\.1x)( first)?$/i],
  ["macFirst", "MAC address first", /^mac( address)?( first)?$/i],
];

/** What a choice is called. */
export const choiceWord = <V extends string>(choices: Choices<V>, value: V): string =>
  choices.find(([word]) => word === value)?.[1] ?? value;

/** The choice that a text says; a sentence where it is none. */
export function readChoice<V extends string>(
  choices: Choices<V>,
  text: string,
): { readonly value: V } | string {
  const found = choices.find(
    ([value, word, pattern]) => value === text || word === text || pattern.test(text),
  );
  return found === undefined
    ? `"${text}" is none of these: ${choices.map(([, word]) => word).join("; ")}.`
    : { value: found[0] };
}

/** Attributes that a switch may send along with a sign-in, by their numbers (RFC 2865, RFC 2869). */
const SENT_ATTRIBUTES: readonly (readonly [number, string])[] = [
  [6, "Service-Type"],
  [8, "Framed-IP-Address"],
  [12, "Framed-MTU"],
  [25, "Class"],
  [30, "Called-Station-Id"],
  [31, "Calling-Station-Id"],
  [32, "NAS-Identifier"],
  [44, "Acct-Session-Id"],
  [61, "NAS-Port-Type"],
  [87, "NAS-Port-Id"],
];

export const attributesText = (numbers: readonly number[]): string =>
  numbers.length === 0
    ? "none"
    : numbers
        .map((number) => `${number} ${SENT_ATTRIBUTES.find(([word]) => word === number)?.[1] ?? ""}`.trim())
        .join(", ");

/** "6, Class, 87 NAS-Port-Id" as numbers; a sentence where one is no attribute. */
export function readAttributes(text: string): number[] | string {
  if (/^(none|-|)$/i.test(text)) return [];
  const numbers: number[] = [];
  for (const piece of text.split(/[,;]/).map((part) => part.trim())) {
    const [, digits] = /^(\d{1,3})(?:\s+[A-Za-z-]+)?$/.exec(piece) ?? [];
    const named = SENT_ATTRIBUTES.find(([, name]) => name.toLowerCase() === piece.toLowerCase())?.[0];
    const number = digits === undefined ? named : Number(digits);
    if (number === undefined || number < 1 || number > 255)
      return `"${piece}" is no attribute: write its number from 1 to 255, or a name such as Class.`;
    numbers.push(number);
  }
  return [...new Set(numbers)].sort((a, b) => a - b);
}
