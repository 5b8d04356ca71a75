import { formatAddress, formatPrefix, type Address } from "../address";
import type { Plan, Segment } from "../plan";

const octets = (text: string): string[] => text.split(".");

/**
 * An address as short as a segment's row can read it: ".1" in the row's own /24, "60.10" where only the first
 * two octets are shared, else the whole. `addressInSegment` reads all three back.
 */
export function shortIn(segment: Segment, address: Address): string {
  const prefix = segment.prefixes4[0];
  const whole = formatAddress(address);
  if (typeof address !== "number" || prefix === undefined) return whole;
  const [a, b, c, d] = octets(whole);
  const [x, y, z] = octets(formatAddress(prefix.network));
  if (a !== x || b !== y) return whole;
  return prefix.length >= 24 && c === z ? `.${d}` : `${c}.${d}`;
}

/**
 * The octets that every IPv4 subnet of the plan begins with, "10.24." say: what may be written quietly. Empty
 * when they share none.
 */
export function quietPart(plan: Plan): string {
  const networks = [...plan.segment.values()].flatMap((segment) =>
    segment.prefixes4.map((prefix) => octets(formatPrefix(prefix)).slice(0, 2)),
  );
  const first = networks[0];
  if (first === undefined) return "";
  const shared = [0, 1].filter((i) =>
    networks.every((network) => network.slice(0, i + 1).join(".") === first.slice(0, i + 1).join(".")),
  );
  return first
    .slice(0, shared.length)
    .map((octet) => `${octet}.`)
    .join("");
}
