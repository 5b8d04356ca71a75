import {
  formatAddress,
  formatPrefix,
  rangeCount,
  type Address,
  type AddressRange,
  type Prefix,
} from "../address";

/** ".34" for an IPv4 address (the rest is the segment's), the whole text for IPv6. */
export const shortAddress = (address: Address): string => {
  const text = formatAddress(address);
  return typeof address === "number" ? text.slice(text.lastIndexOf(".")) : text;
};

/** ".30 to .49, count 20": a count always stands beside a range. */
export const rangeWithCount = (range: AddressRange): string =>
  `${shortAddress(range.first)} to ${shortAddress(range.last)}, count ${rangeCount(range)}`;

export const listed = (items: readonly string[]): string =>
  items.length < 2 ? (items[0] ?? "") : `${items.slice(0, -1).join(", ")} and ${items.at(-1) ?? ""}`;

/** A text with a capital in front. */
export const capital = (text: string): string => `${text.charAt(0).toUpperCase()}${text.slice(1)}`;

/** "1 port", "5 ports". */
export const counted = (count: number, single: string, many: string): string =>
  `${count} ${count === 1 ? single : many}`;

export const prefixText = (prefix: Prefix): string => formatPrefix(prefix);
export const addressText = (address: Address): string => formatAddress(address);
