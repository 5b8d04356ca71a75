import { formatAddress, parseAddress, parseMac, step } from "../address";

/** "0a" as "0b", keeping the length. */
const nextHex = (text: string, by: number): string =>
  (Number.parseInt(text, 16) + by).toString(16).padStart(text.length, "0");

/**
 * The text `by` steps further: an address or a MAC address counts on, a text that ends in a number counts
 * that, any other stays.
 */
function stepped(text: string, by: number): string {
  const address = parseAddress(text);
  const moved = address === null ? null : step(address, by);
  if (moved !== null) return formatAddress(moved);
  const mac = parseMac(text);
  if (mac !== null) {
    // The lower half is the device's own number; past its end there is no next one.
    const digits = nextHex(mac.replaceAll(":", "").slice(6), by);
    return digits.length > 6 ? text : `${mac.slice(0, 9)}${digits.match(/../g)?.join(":") ?? ""}`;
  }
  const match = /^(.*?)(\d{1,9})(\D*)$/.exec(text);
  if (match === null) return text;
  const [, head = "", digits = "", tail = ""] = match;
  const next = Number(digits) + by;
  return next < 0 ? text : `${head}${String(next).padStart(digits.length, "0")}${tail}`;
}

/** What lies between two texts that count alike; 1 when they don't. */
function distance(first: string, second: string): number {
  for (const by of [1, 2, 5, 10, 16, 32, 64, 100, 256, -1]) if (stepped(first, by) === second) return by;
  const [a, b] = [/(\d{1,9})\D*$/.exec(first)?.[1], /(\d{1,9})\D*$/.exec(second)?.[1]];
  const by = a === undefined || b === undefined ? 0 : Number(b) - Number(a);
  return by !== 0 && stepped(first, by) === second ? by : 1;
}

/**
 * A series as a spreadsheet fills it: from the first text, in the step that leads to the second where there
 * is one. `count` texts, the first included.
 */
export function seriesFrom(first: string, second: string | null, count: number): string[] {
  const by = second === null ? 1 : distance(first, second);
  return Array.from({ length: count }, (_, i) => stepped(first, by * i));
}
