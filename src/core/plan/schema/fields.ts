import { z } from "zod";
import {
  asPrefix4,
  asPrefix6,
  formatAddress,
  formatIpv4,
  formatIpv6,
  formatPrefix,
  parseAddress,
  parseIpv4,
  parseIpv6,
  parseMac,
  parsePrefix,
  type Address,
  type Ipv4,
  type Ipv6,
  type Mac,
  type Prefix,
  type Prefix4,
  type Prefix6,
} from "../../address";
import type { Brand } from "../../kernel";

/**
 * Text on one side, a value on the other; the sentence is what a person reads when the text can't be
 * understood.
 */
function textCodec<T>(
  parse: (text: string) => T | null,
  format: (value: T) => string,
  sentence: (text: string) => string,
  maximum = 49,
) {
  return z.codec(z.string().max(maximum), z.custom<T>(), {
    decode: (text, context) => {
      const value = parse(text);
      if (value !== null) return value;
      context.issues.push({ code: "custom", message: sentence(text), input: text });
      return z.NEVER;
    },
    encode: format,
  });
}

export const ipv4Field = textCodec<Ipv4>(
  parseIpv4,
  formatIpv4,
  (t) => `"${t}" is not an IPv4 address such as 10.24.20.1`,
);
export const ipv6Field = textCodec<Ipv6>(
  parseIpv6,
  formatIpv6,
  (t) => `"${t}" is not an IPv6 address such as fd00:24::1`,
);
export const addressField = textCodec<Address>(
  parseAddress,
  formatAddress,
  (t) => `"${t}" is not an IPv4 or IPv6 address`,
);
const prefixSentence = (t: string) =>
  `"${t}" is not a subnet such as 10.24.20.0/24 (the host part must be zero)`;
export const prefixField = textCodec<Prefix>(parsePrefix, formatPrefix, prefixSentence);
export const prefix4Field = textCodec<Prefix4>(
  (t) => asPrefix4(parsePrefix(t)),
  formatPrefix,
  prefixSentence,
);
export const prefix6Field = textCodec<Prefix6>(
  (t) => asPrefix6(parsePrefix(t)),
  formatPrefix,
  prefixSentence,
);
export const macField = textCodec<Mac>(
  parseMac,
  (mac) => mac,
  (t) => `"${t}" is not a MAC address such as 02:5a:10:3c:00:22`,
);

/** A VLAN ID of IEEE 802.1Q section 9.6: 1 to 4094; 0 is the priority tag and 4095 is reserved. */
export type Vid = number & Brand<"Vid">;
const VID_SENTENCE = "A VLAN ID is a whole number from 1 to 4094";
const isVid = (n: number): n is Vid => Number.isInteger(n) && n >= 1 && n <= 4094;
// Cast, not transformed: a transform has no way back to text.
export const vidField = z
  .int({ error: VID_SENTENCE })
  .min(1, VID_SENTENCE)
  .max(4094, VID_SENTENCE) as unknown as z.ZodType<Vid, number>;

/** `n` as a VLAN ID, or null outside 1 to 4094. */
export const vid = (n: number): Vid | null => (isVid(n) ? n : null);

export const UUID = /^[0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12}$/;
export const idField = z.string().regex(UUID, "An id is a UUID in lower case");

/** Half of a character that takes two places in UTF-16 (a lone surrogate). */
export const HALVES = /\p{Surrogate}/u;
const ASCII = /^[\x20-\x7e]*$/;
/**
 * What looks the same is the same: one form for letters that can be written as one character or as several
 * (Unicode NFC).
 */
const oneForm = (text: string): string => (ASCII.test(text) ? text : text.normalize("NFC"));
const CONTROL = /[\u0000-\u001f\u007f]/;
const noControls = (text: string) => !CONTROL.test(text);
/** In text of several lines: a tab and line ends, and no other control character. */
const noControlsInLines = (text: string) => !/[\u0000-\u0008\u000b\u000c\u000e-\u001f\u007f]/.test(text);
const trimmed = (text: string) => text.trim() === text;

/**
 * Every text that people write goes through here: in one form, no longer than that, and of whole characters;
 * half of one (a lone surrogate) can be stored nowhere.
 */
export const textField = (
  maximum: number,
  sentence = `At most ${maximum.toLocaleString("en-GB")} characters`,
) =>
  z
    .string()
    .overwrite(oneForm)
    .max(maximum, sentence)
    .refine((text) => !HALVES.test(text), "This holds half a character; write it again");
/** The same in one line. */
export const lineField = (maximum: number, sentence?: string) =>
  textField(maximum, sentence).refine(noControls, "No line breaks or control characters here");
/** A day that can be one of a plan. */
export const dateField = z.iso
  .date()
  .refine((day) => day >= "1970-01-01", "A day from 1970 on, written as 2027-06-30");

/** A name that people read: 1 to 80 characters, nothing invisible, no space at either end. */
export const nameField = textField(80, "A name has at most 80 characters")
  .min(1, "A name can't be empty")
  .refine(noControls, "A name can't hold line breaks or control characters")
  .refine(trimmed, "A name can't begin or end with a space");
/** A short text that may be empty. */
export const shortText = lineField(120);
export const longText = textField(2000).refine(
  noControlsInLines,
  "No control characters here, but for line breaks",
);
export const countField = (maximum: number) =>
  z.int("A whole number").min(0, "Not below 0").max(maximum, `At most ${maximum}`);

export const markField = z
  .string()
  .regex(/^[A-Z0-9]{2}$/, "A mark is two characters, capital letters or digits");
export const TAPE_COLOURS = [
  "white",
  "yellow",
  "pink",
  "aqua",
  "orange",
  "grey",
  "green",
  "red",
  "blue",
  "violet",
  "brown",
  "black",
] as const;
export const tapeField = z.strictObject({
  base: z.enum(TAPE_COLOURS),
  tracer: z.enum(TAPE_COLOURS).nullable(),
});

/**
 * How two people's edits of one field merge (`rebase`): a `set` is a list whose order says nothing, so what
 * either added or took away holds; a `group` is an object of settings that merge one by one. A list without a
 * mark merges element by element, and any other value is one thing that only one of the two can have.
 */
export const MERGING = z.registry<{ readonly merging: "set" | "group" }, z.ZodType>();
const marked =
  (merging: "set" | "group") =>
  <T extends z.ZodType>(schema: T): T => {
    MERGING.add(schema as z.ZodType, { merging });
    return schema;
  };
export const setField = marked("set");
export const groupField = marked("group");
