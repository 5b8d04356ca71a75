import { formatAddress, formatPrefix, formatRange, lastOf, prefixOf, type AddressRange } from "../address";
import { nameOf, type PlanIndex } from "../plan";
import { formatLease } from "../planners";
import type { Expected } from "./tests";

type Line = readonly [name: string, value: string];

type Lease = Extract<Expected, { is: "lease" }>;

/** Whether a lease is of IPv6. */
export const isOfSix = ({ address, ranges }: Pick<Lease, "address" | "ranges">): boolean =>
  typeof (address ?? ranges[0]?.first) === "bigint";

/** The first and the last address; of IPv6 a whole /64 by its prefix. */
export function rangeText(range: AddressRange): string {
  const prefix = typeof range.first === "bigint" ? prefixOf(range.first, 64) : null;
  const isWhole = prefix !== null && prefix.network === range.first && lastOf(prefix) === range.last;
  return isWhole ? formatPrefix(prefix) : formatRange(range);
}

function leaseLines(index: PlanIndex, expected: Lease): Line[] {
  const { segment, address, ranges, gateway, dns, leaseSeconds } = expected;
  const own = address === null ? ranges.map(rangeText).join(", ") : formatAddress(address);
  const router = isOfSix(expected) ? "one that begins with fe80" : "none";
  return [
    ["Address", `${own}${segment === null ? "" : `, ${nameOf(index, "segment", segment)}`}`],
    ["Gateway", gateway === null ? router : formatAddress(gateway)],
    ["Name servers", dns.length === 0 ? "none" : dns.map(formatAddress).join(", ")],
    ...(leaseSeconds === null ? [] : [["Lease", formatLease(leaseSeconds)] as const]),
  ];
}

/** What has to be read, line by line, as it stands on the sheet. */
export function expectedLines(index: PlanIndex, expected: Expected): Line[] {
  switch (expected.is) {
    case "lease":
      return leaseLines(index, expected);
    case "no link":
      return [["Light", "none: the port is off"]];
    case "no lease":
      return [
        ["Address", "none"],
        ["Since", expected.why],
      ];
    case "answer":
      return [["Comes back", "an answer"]];
    case "silence":
      return [
        ["Comes back", "nothing"],
        ["Since", expected.why],
      ];
    case "measured":
      return [[expected.what, boundsText(expected)]];
    case "shown":
      return [...expected.lines];
  }
}

const boundsText = ({ least, most, unit }: Extract<Expected, { is: "measured" }>): string =>
  [
    ...(least === null ? [] : [`at least ${least} ${unit}`]),
    ...(most === null ? [] : [`at most ${most} ${unit}`]),
  ].join(", ");

const SHORT = {
  "no link": "no link",
  "no lease": "no address",
  answer: "an answer",
  silence: "nothing comes back",
} as const;

/** As much is written down of what a device's pages have to show: thousands of VLANs at every port are not. */
const MOST_TEXT = 20_000;

/** The same in one line: what is ticked where it is as expected. */
export function expectedText(index: PlanIndex, expected: Expected): string {
  const lines = expectedLines(index, expected);
  if (expected.is === "shown")
    return lines
      .map(([name, value]) => `${name}: ${value}`)
      .join("; ")
      .slice(0, MOST_TEXT);
  if (expected.is === "lease") return lines[0]?.[1] ?? "";
  return expected.is === "measured" ? `${expected.what} ${boundsText(expected)}` : SHORT[expected.is];
}
