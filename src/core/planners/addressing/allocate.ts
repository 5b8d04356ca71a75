import {
  asPrefix4,
  containsAddress,
  containsPrefix,
  formatIpv4,
  formatPrefix,
  lengthForHosts,
  offsetIn,
  packSubnets,
  parsePrefix,
  prefixesOverlap,
  rangeCount,
  usableIn,
  type Prefix,
  type Prefix4,
  type SubnetWish,
} from "../../address";
import { byText } from "../../kernel";
import type { PlanEdits, PlanIndex, Scope, Segment } from "../../plan";
import { poolFor } from "./conventions";
import { indexOf } from "../drafted";
import { forbiddenRanges } from "./forbidden";
import type { Refusal } from "../planner";
import { renumber, type Move } from "./renumber";

export interface Allocation {
  /** Where from; the site's own blocks when empty. */
  readonly blocks: readonly Prefix4[];
  /** octet: the VLAN ID is the third octet where it can be; packed: each as tight as it can lie. */
  readonly scheme: "octet" | "packed";
  /** Segments that stay where they are. */
  readonly keep: ReadonlySet<string>;
  /** Keep as much again free behind each packed subnet, so that it can be doubled in place. */
  readonly doubled: boolean;
}

export interface Allocated {
  readonly moves: readonly Move[];
  /** Segments without a subnet so far, and the one they get. */
  readonly fresh: readonly { readonly segment: string; readonly prefix: Prefix4 }[];
  /** Names of segments for which there is no room. */
  readonly unplaced: readonly string[];
}

/** How many devices a segment has to hold: the plan with growth, and never less than are in it. */
export const devicesOf = (index: PlanIndex, segment: Segment): number =>
  Math.max(
    Math.ceil((segment.planned * (100 + segment.growth)) / 100),
    index.hostsIn(segment.id).length + index.interfacesIn(segment.id).length,
  );

/**
 * The length that holds a number of devices and as many again, so that an ordinary year of additions needs no
 * renumbering; /28 at most.
 */
export const roomyLength = (devices: number): number => Math.min(28, lengthForHosts(devices * 2));

/** The usable addresses of a subnet of that length. */
export const roomyCount = (devices: number): number => usableIn(roomyLength(devices));

/** The length a segment gets: roomy, and never so small that an address in use would lose its offset. */
function lengthFor(index: PlanIndex, segment: Segment): number {
  const from = segment.prefixes4[0];
  const used = [
    ...index.hostsIn(segment.id).map((host) => host.ipv4),
    ...index.interfacesIn(segment.id).flatMap((leg) => leg.addresses4),
  ];
  const highest =
    from === undefined
      ? 0
      : used.reduce<number>(
          (most, address) =>
            address === null || !containsAddress(from, address)
              ? most
              : Math.max(most, offsetIn(from, address)),
          0,
        );
  let length = roomyLength(devicesOf(index, segment));
  // The last address of a subnet is its broadcast address, so an offset needs one more behind it.
  while (length > 0 && highest + 1 >= 2 ** (32 - length)) length -= 1;
  return length;
}

/**
 * The subnet of `length` at the third octet that is the VLAN ID; null where the block or the number does not
 * allow it.
 */
export function octetSubnet(block: Prefix4, vid: number | null, length: number): Prefix4 | null {
  if (vid === null || vid > 255 || block.length > 24 || length < 24) return null;
  const [a, b] = formatIpv4(block.network).split(".");
  const prefix = asPrefix4(parsePrefix(`${a}.${b}.${vid}.0/${length}`));
  return prefix !== null && containsPrefix(block, prefix) ? prefix : null;
}

/**
 * Subnets for all segments that are not kept: sized for what is planned, in the given blocks, clear of what
 * is forbidden and of those that stay. A segment whose subnet is right already (large enough, in a block,
 * where the scheme wants it) is left alone.
 */
export function allocate(index: PlanIndex, wanted: Allocation): Allocated {
  const segments = [...index.plan.segment.values()].sort(
    (a, b) => (index.vidOf(a) ?? 5000) - (index.vidOf(b) ?? 5000) || byText(a.id, b.id),
  );
  const blocks =
    wanted.blocks.length > 0
      ? wanted.blocks
      : index.plan.site.blocks.filter((block): block is Prefix4 => block.family === 4);
  const staying = segments.filter((segment) => wanted.keep.has(segment.id));
  const taken: Prefix[] = [
    ...staying.flatMap((segment) => segment.prefixes4),
    ...forbiddenRanges(index.plan).map((f) => f.prefix),
  ];
  const targets = new Map<string, Prefix4>();
  const wishes: SubnetWish[] = [];
  for (const segment of segments) {
    if (wanted.keep.has(segment.id)) continue;
    const length = lengthFor(index, segment);
    const place =
      wanted.scheme === "octet"
        ? blocks
            .map((block) => octetSubnet(block, index.vidOf(segment), length))
            .find((prefix) => prefix !== null && !taken.some((t) => prefixesOverlap(t, prefix)))
        : undefined;
    if (place === undefined || place === null)
      wishes.push({ key: segment.id, length, roomLength: wanted.doubled ? length - 1 : length });
    else {
      targets.set(segment.id, place);
      taken.push(place);
    }
  }
  const packed = packSubnets(blocks, wishes, taken);
  for (const [segment, prefix] of packed.placed) if (prefix.family === 4) targets.set(segment, prefix);
  const moves: Move[] = [];
  const fresh: { segment: string; prefix: Prefix4 }[] = [];
  for (const segment of segments) {
    const to = targets.get(segment.id);
    const from = segment.prefixes4[0];
    if (to === undefined) continue;
    if (from === undefined) fresh.push({ segment: segment.id, prefix: to });
    else if (formatPrefix(from) !== formatPrefix(to)) moves.push({ segment: segment.id, from, to });
  }
  return { moves, fresh, unplaced: packed.unplaced.map((id) => index.plan.segment.get(id)?.name ?? id) };
}

/**
 * Writes an allocation; refused whole when a segment has no room, or an address in use would lose its place.
 */
export function writeAllocation(edits: PlanEdits, { moves, fresh, unplaced }: Allocated): Refusal {
  if (unplaced.length > 0)
    return (
      "There is no room for " +
      `${unplaced.slice(0, 4).join(", ")}${unplaced.length > 4 ? ` and ${unplaced.length - 4} more` : ""}; ` +
      "add a block, or keep fewer segments where they are."
    );
  const refusal = renumber(edits, moves);
  if (refusal !== null) return refusal;
  for (const { segment, prefix } of fresh) edits.patch("segment", segment, { prefixes4: [prefix] });
  redraftCutPools(edits, moves);
  return null;
}

/**
 * A smaller subnet may leave little of a pool, or nothing: it is then drafted anew by the site's conventions.
 */
function redraftCutPools(edits: PlanEdits, moves: readonly Move[]): void {
  const smaller = new Set(
    moves.filter((move) => move.to.length > move.from.length).map((move) => move.segment),
  );
  if (smaller.size === 0) return;
  const size = (scope: Scope) => scope.pools.reduce((sum, pool) => sum + rangeCount(pool), 0n);
  const index = indexOf(edits);
  for (const scope of edits.all("scope")) {
    const before = edits.plan.scope.get(scope.id);
    if (
      scope.family !== 4 ||
      !smaller.has(scope.segment) ||
      before === undefined ||
      size(before) === size(scope)
    )
      continue;
    const pool = poolFor(index, edits.need("segment", scope.segment));
    if (pool !== null) edits.patch("scope", scope.id, { pools: [pool], exclusions: [] });
  }
}

/**
 * Everything inside `from` goes to the same places inside `to`: the whole site, or the part of it that lies
 * there.
 */
function movesOfBlock(index: PlanIndex, from: Prefix, to: Prefix): Move[] | string {
  if (from.family !== to.family) return "Both blocks have to be IPv4, or both IPv6.";
  if (to.length > from.length)
    return (
      `${formatPrefix(to)} is smaller than ${formatPrefix(from)}; ` +
      "choose a block of at least the same size."
    );
  const moves = [...index.plan.segment.values()].flatMap((segment) =>
    [...segment.prefixes4, ...segment.prefixes6].flatMap((prefix): Move[] => {
      if (!containsPrefix(from, prefix)) return [];
      const offset = BigInt(prefix.network) - BigInt(from.network);
      const network = BigInt(to.network) + offset;
      const there =
        to.family === 4
          ? { family: 4, network: Number(network), length: prefix.length }
          : { family: 6, network, length: prefix.length };
      return [{ segment: segment.id, from: prefix, to: there as Prefix }];
    }),
  );
  return moves.length === 0 ? `No segment lies in ${formatPrefix(from)}.` : moves;
}

/** Renumbers the part of the site inside one block into another; the site's own list of blocks follows. */
export function renumberBlock(edits: PlanEdits, index: PlanIndex, from: Prefix, to: Prefix): Refusal {
  const moves = movesOfBlock(index, from, to);
  if (typeof moves === "string") return moves;
  const moving = new Set(moves.map((move) => move.segment));
  for (const move of moves) {
    const clash = forbiddenRanges(index.plan).find((f) => prefixesOverlap(f.prefix, move.to));
    if (clash !== undefined)
      return (
        `${formatPrefix(move.to)} would meet ${formatPrefix(clash.prefix)}, ` +
        `which must stay clear: ${clash.reason}. Choose another block.`
      );
    const met = [...index.plan.segment.values()].find(
      (segment) =>
        !moving.has(segment.id) && segment.prefixes4.some((prefix) => prefixesOverlap(prefix, move.to)),
    );
    if (met !== undefined)
      return `${formatPrefix(move.to)} would meet ${met.name}, which does not move. Choose another block.`;
  }
  const refusal = renumber(edits, moves);
  if (refusal !== null) return refusal;
  const site = edits.need("site", edits.plan.site.id);
  const blocks = site.blocks.map((block) =>
    block.family === from.family && containsPrefix(from, block) ? to : block,
  );
  const distinct = blocks.filter(
    (block, i) => blocks.findIndex((other) => formatPrefix(other) === formatPrefix(block)) === i,
  );
  if (!distinct.some((block) => containsPrefix(block, to)) && distinct.length < 16) distinct.push(to);
  edits.put("site", { ...site, blocks: distinct });
  return null;
}
