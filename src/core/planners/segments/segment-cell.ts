import {
  addressAt,
  familyOf,
  formatAddress,
  parseAddress,
  parseIpv4,
  parsePrefix,
  prefixesOverlap,
  readPrefix,
  rangeCount,
  rangesOverlap,
  step,
  type Address,
  type AddressRange,
} from "../../address";
import { vid as asVid, type Segment } from "../../plan";
import { countChecked } from "../count-text";
import { zoneNamed } from "./add-segment";
import { setGatewayAddress } from "../addressing/gateway-address";
import { parseLease } from "../addressing/lease-text";
import { moveSegmentTo } from "./move-segment";
import type { EditContext, Refusal } from "../planner";

/** The columns of the segments table, in the order in which a spreadsheet row is read. */
export const SEGMENT_COLUMNS = [
  "mark",
  "vid",
  "name",
  "zone",
  "prefix",
  "gateway",
  "pool",
  "lease",
  "dns",
  "planned",
] as const;
export type SegmentColumn = (typeof SEGMENT_COLUMNS)[number];

/**
 * An address written whole, as its last part in the segment's subnet, or as its last two octets:
 * "10.24.20.1", ".1", "1" or "60.10".
 */
export function addressInSegment(segment: Segment, text: string): Address | null {
  const whole = parseAddress(text.trim());
  if (whole !== null) return whole;
  const prefix = segment.prefixes4[0];
  const lastTwo = /^(\d{1,3}\.\d{1,3})$/.exec(text.trim())?.[1];
  if (lastTwo !== undefined && prefix !== undefined)
    return parseAddress(`${formatAddress(prefix.network).split(".").slice(0, 2).join(".")}.${lastTwo}`);
  const short = /^\.?(\d{1,5})$/.exec(text.trim())?.[1];
  if (short === undefined || prefix === undefined) return null;
  const lastPart = Number(short);
  return prefix.length >= 24
    ? addressAt({ ...prefix, ...baseOf(prefix) }, lastPart)
    : addressAt(prefix, lastPart);
}

/** The /24 around a longer prefix: ".130" in 10.24.20.128/25 is 10.24.20.130, not offset 130. */
const baseOf = (prefix: Segment["prefixes4"][number]) => {
  const whole = parsePrefix(`${formatAddress(prefix.network).replace(/\.\d+$/, ".0")}/24`);
  return whole?.family === 4 ? whole : prefix;
};

/** How many, behind a first address or a range: "+ 40", "count 40", "× 40", "for 40", "40 addresses". */
const HOW_MANY = /(?:^|\s|,)(?:\+|×|x|for|count)\s*(\d{1,7})(?:\s+addresses)?$|\s(\d{1,7})\s+addresses$/i;

/**
 * "first to last", each whole or short, or "first + how many"; one address alone is a pool of one. A range
 * with a count has to have as many.
 */
export function rangeInSegment(segment: Segment, text: string): AddressRange | null {
  const counted = HOW_MANY.exec(text.replace(/(\d)\s*([+×])/, "$1 $2"));
  if (counted !== null)
    return countedRange(
      segment,
      counted.input.slice(0, counted.index).replace(/,\s*$/, ""),
      Number(counted[1] ?? counted[2]),
    );
  const parts = text.split(/\s*(?:-|–|\bto\b)\s*/).filter((part) => part !== "");
  const first = addressInSegment(segment, parts[0] ?? "");
  const last = addressInSegment(segment, parts[1] ?? parts[0] ?? "");
  if (
    parts.length > 2 ||
    first === null ||
    last === null ||
    familyOf(first) !== familyOf(last) ||
    first > last
  )
    return null;
  return { first, last };
}

function countedRange(segment: Segment, text: string, count: number): AddressRange | null {
  const read = rangeInSegment(segment, text);
  if (read === null || count < 1) return null;
  if (read.first !== read.last) return rangeCount(read) === BigInt(count) ? read : null;
  const last = step(read.first, count - 1);
  return last === null ? null : { first: read.first, last };
}

type CellEdit = (context: EditContext, segment: Segment, text: string) => Refusal;

/** Pools with commas between; a count behind a comma belongs to what stands before it. */
export const poolParts = (text: string): string[] =>
  text
    .replace(/,\s*(?=(?:count\s*\d+|\d+\s+addresses)\b)/gi, " ")
    .split(/[,;]/)
    .map((part) => part.trim())
    .filter((part) => part !== "");

const EDITS: { readonly [C in SegmentColumn]: CellEdit } = {
  mark: ({ edits }, segment, text) => {
    const mark = text.toUpperCase();
    if (!/^[A-Z0-9]{2}$/.test(mark)) return `"${text}" is not a mark; write two letters or digits.`;
    const other = edits.all("segment").find((s) => s.mark === mark && s.id !== segment.id);
    if (other !== undefined) return `${other.name} wears the mark ${mark} already; choose another.`;
    edits.patch("segment", segment.id, { mark });
    return null;
  },
  vid: ({ edits }, segment, text) => {
    const number = /^\d{1,5}$/.test(text) ? asVid(Number(text)) : null;
    if (number === null) return `"${text}" is not a VLAN ID; write a whole number from 1 to 4094.`;
    if (segment.vlan === null) return `${segment.name} is on no VLAN.`;
    renumberMembers({ edits }, segment.vlan, number);
    return null;
  },
  name: ({ edits }, segment, text) => {
    if (text === "" || text.length > 80) return "A segment's name has 1 to 80 characters.";
    edits.patch("segment", segment.id, { name: text });
    if (segment.vlan !== null && edits.need("vlan", segment.vlan).name === segment.name)
      edits.patch("vlan", segment.vlan, { name: text });
    return null;
  },
  zone: ({ edits, ids }, segment, text) => {
    if (text === "" || text.length > 80) return "A zone's name has 1 to 80 characters.";
    edits.patch("segment", segment.id, { zone: zoneNamed(edits, ids, text) });
    return null;
  },
  prefix: ({ edits }, segment, text) => {
    const to = readPrefix(text);
    if (to?.family !== 4)
      return `"${text}" is not an IPv4 subnet such as 10.24.20.0/24; the host part must be zero.`;
    const from = segment.prefixes4[0];
    if (from === undefined) edits.patch("segment", segment.id, { prefixes4: [to] });
    else if (from.network === to.network || prefixesOverlap(from, to))
      edits.patch("segment", segment.id, { prefixes4: [to, ...segment.prefixes4.slice(1)] });
    else return moveSegmentTo(edits, segment.id, from, to);
    return null;
  },
  gateway: (context, segment, text) => {
    if (/^(|-|–|none)$/i.test(text)) {
      context.edits.patch("segment", segment.id, { gatewayInterface: null });
      return null;
    }
    const address = parseIpv4(text) ?? addressInSegment(segment, text);
    if (address === null || typeof address !== "number")
      return (
        `"${text}" is not an IPv4 address; write 10.24.20.1 or just ` +
        ".1, or leave it empty for a segment without a gateway."
      );
    return setGatewayAddress(context, segment, address);
  },
  pool: ({ edits, ids }, segment, text) => {
    const scope = edits.all("scope").find((s) => s.segment === segment.id && s.family === 4);
    if (/^(|-|–|none|static|typed in)$/i.test(text)) {
      if (scope !== undefined) edits.remove("scope", scope.id);
      return null;
    }
    const parts = poolParts(text);
    const pools: AddressRange[] = [];
    for (const part of parts) {
      const range = rangeInSegment(segment, part);
      if (range === null || typeof range.first !== "number")
        return (
          `"${part}" is not a pool; write its first and last address, such as .40-.99, ` +
          "or the first and how many, such as .40 + 60, with commas between several."
        );
      if (rangeCount(range) > 1_000_000n) return `A pool of ${rangeCount(range)} addresses is too large.`;
      const met = pools.find((other) => rangesOverlap(other, range));
      if (met !== undefined)
        return (
          `The pools that begin at ${formatAddress(met.first)} and ` +
          `${formatAddress(range.first)} share addresses; write each once.`
        );
      pools.push(range);
    }
    if (pools.length === 0 || pools.length > 32)
      return `"${text}" is not a pool; write its first and last address, such as .40-.99.`;
    if (scope !== undefined) {
      edits.patch("scope", scope.id, { pools });
      return null;
    }
    const leg =
      segment.gatewayInterface === null ? undefined : edits.get("interface", segment.gatewayInterface);
    if (leg === undefined)
      return `${segment.name} has no gateway that could give addresses; set its gateway first.`;
    edits.put("scope", {
      id: ids(),
      segment: segment.id,
      serverDevice: leg.device,
      serverHost: null,
      family: 4,
      pools,
      exclusions: [],
      leaseSeconds: 28_800,
      options: [],
    });
    return null;
  },
  lease: ({ edits }, segment, text) => {
    const seconds = parseLease(text);
    const scope = edits.all("scope").find((s) => s.segment === segment.id && s.family === 4);
    if (seconds === null)
      return `"${text}" is not a lease time; write 8 h, 30 min or 2 d (at least 1 min, at most 365 d).`;
    if (scope === undefined) return `${segment.name} has no pool; set one before its lease time.`;
    edits.patch("scope", scope.id, { leaseSeconds: seconds });
    return null;
  },
  dns: ({ edits }, segment, text) => {
    const parts = text.split(/[\s,;]+/).filter((part) => part !== "" && part !== "–" && part !== "-");
    const addresses = parts.map((part) => addressInSegment(segment, part));
    const bad = parts[addresses.indexOf(null)];
    if (bad !== undefined)
      return `"${bad}" is not an address; write 10.24.60.10 or .1 for one in this subnet.`;
    edits.patch("segment", segment.id, { dns: addresses.filter((a) => a !== null).slice(0, 8) });
    return null;
  },
  planned: ({ edits }, segment, text) => {
    const planned = countChecked(text, 1_000_000);
    if (planned === null)
      return `"${text}" is not a number of devices; write a whole number from 0 to 1000000.`;
    edits.patch("segment", segment.id, { planned });
    return null;
  },
};

/** Gives a VLAN another number, and every port that carried the old one the new one. */
function renumberMembers(
  { edits }: Pick<EditContext, "edits">,
  vlanId: string,
  to: NonNullable<ReturnType<typeof asVid>>,
): void {
  const vlan = edits.need("vlan", vlanId);
  const from = vlan.vid;
  if (from === to) return;
  const shared = edits
    .all("vlan")
    .some((other) => other.id !== vlanId && other.domain === vlan.domain && other.vid === from);
  edits.patch("vlan", vlanId, { vid: to });
  if (shared) return;
  const swap = (list: readonly (typeof to)[]) =>
    [...new Set(list.map((v) => (v === from ? to : v)))].sort((a, b) => a - b);
  for (const port of edits.all("port")) {
    if (edits.get("device", port.device)?.domain !== vlan.domain) continue;
    if (port.pvid !== from && !port.untagged.includes(from) && !port.tagged.includes(from)) continue;
    edits.patch("port", port.id, {
      pvid: port.pvid === from ? to : port.pvid,
      untagged: swap(port.untagged),
      tagged: swap(port.tagged),
    });
  }
}

/** Writes one cell from its text; a refusal names what was typed and changes nothing. */
export function editSegmentCell(
  context: EditContext,
  segmentId: string,
  column: SegmentColumn,
  text: string,
): Refusal {
  return EDITS[column](context, context.edits.need("segment", segmentId), text.trim());
}
