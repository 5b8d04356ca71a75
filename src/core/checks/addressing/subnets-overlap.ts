import {
  byPrefix,
  containsPrefix,
  lengthForHosts,
  nextFreeSubnet,
  prefixesOverlap,
  type Prefix,
} from "../../address";
import type { PlanIndex, Segment } from "../../plan";
import { forbiddenRanges, moveSegmentTo } from "../../planners";
import { check, type Found } from "../check";
import { type Repair, prefixText } from "../../repairs";

interface Data {
  readonly a: string;
  readonly b: string;
  readonly first: Prefix;
  readonly second: Prefix;
}
interface Placed {
  readonly segment: Segment;
  readonly prefix: Prefix;
}

const domainOf = (index: PlanIndex, segment: Segment): string | null =>
  segment.vlan === null ? null : (index.plan.vlan.get(segment.vlan)?.domain ?? null);

/** Both prefixes of every pair that meets. Sorted, a prefix only meets those that still enclose it. */
function overlaps(placed: Placed[]): [Placed, Placed][] {
  const sorted = [...placed].sort((x, y) => byPrefix(x.prefix, y.prefix));
  const pairs: [Placed, Placed][] = [];
  const enclosing: Placed[] = [];
  for (const current of sorted) {
    for (
      let top = enclosing.at(-1);
      top !== undefined && !containsPrefix(top.prefix, current.prefix);
      top = enclosing.at(-1)
    )
      enclosing.pop();
    for (const outer of enclosing) if (outer.segment.id !== current.segment.id) pairs.push([outer, current]);
    enclosing.push(current);
  }
  return pairs;
}

const placedOf = (index: PlanIndex): Placed[] =>
  [...index.plan.segment.values()].flatMap((segment) =>
    [...segment.prefixes4, ...segment.prefixes6].map((prefix) => ({ segment, prefix })),
  );

/**
 * Moves the second segment's first IPv4 prefix to the next place in the site's block where it meets nothing.
 */
export function moveToFreePlace(index: PlanIndex, segmentId: string): Repair[] {
  const segment = index.plan.segment.get(segmentId);
  const prefix = segment?.prefixes4[0];
  if (segment === undefined || prefix === undefined) return [];
  const taken = [
    ...placedOf(index)
      .filter((p) => p.segment.id !== segmentId)
      .map((p) => p.prefix),
    ...forbiddenRanges(index.plan).map((k) => k.prefix),
  ];
  const length = Math.min(
    prefix.length,
    lengthForHosts(Math.max(segment.planned, index.hostsIn(segmentId).length)),
  );
  for (const block of index.plan.site.blocks) {
    const free = block.family === 4 ? nextFreeSubnet(block, length, taken) : null;
    if (free === null || free.family !== 4) continue;
    return [
      {
        label: `Move ${segment.name} to ${prefixText(free)}`,
        planner: "move-segment",
        args: { segment: segmentId, to: prefixText(free) },
        edit: (edits) => moveSegmentTo(edits, segmentId, prefix, free),
      },
    ];
  }
  return [];
}

export const subnetsOverlap = check<Data>({
  code: "subnets-overlap",
  severity: "stop",
  family: "segments",
  title: "Two segments share addresses",
  why: "A router can't tell to which of the two an address belongs, so one of them is unreachable.",
  reads: ["segment", "vlan", "site"],
  find: (index): Found<Data>[] =>
    overlaps(placedOf(index))
      .filter(([a, b]) => {
        const left = domainOf(index, a.segment);
        const right = domainOf(index, b.segment);
        return left === null || right === null || left === right;
      })
      .map(([a, b]) => ({
        subjects: [
          { kind: "segment", id: b.segment.id },
          { kind: "segment", id: a.segment.id },
        ],
        data: { a: a.segment.id, b: b.segment.id, first: a.prefix, second: b.prefix },
      })),
  describe: ({ a, b, first, second }, index) => {
    const name = (id: string) => index.plan.segment.get(id)?.name ?? "a segment";
    return (
      `${name(b)} (${prefixText(second)}) lies in the same ` +
      `addresses as ${name(a)} (${prefixText(first)}).`
    );
  },
  repairs: ({ a, b }, index) => [...moveToFreePlace(index, b), ...moveToFreePlace(index, a)],
});

interface KeptClear {
  readonly segment: string;
  readonly prefix: Prefix;
  readonly kept: Prefix;
  readonly reason: string;
}

export const subnetMeetsKeptClear = check<KeptClear>({
  code: "subnet-meets-kept-clear",
  severity: "stop",
  family: "segments",
  title: "A segment meets a range that must stay clear",
  why: "The same addresses are in use on the other side of a router or a VPN, so traffic for them goes astray.",
  reads: ["segment", "site", "line", "gear", "interface"],
  find: (index): Found<KeptClear>[] => {
    const forbidden = forbiddenRanges(index.plan);
    return placedOf(index).flatMap(({ segment, prefix }) =>
      forbidden
        .filter((kept) => prefixesOverlap(kept.prefix, prefix))
        .map((kept) => ({
          subjects: [{ kind: "segment" as const, id: segment.id }],
          data: { segment: segment.id, prefix, kept: kept.prefix, reason: kept.reason },
          apart: `${prefixText(prefix)} ${prefixText(kept.prefix)} ${kept.reason}`,
        })),
    );
  },
  describe: ({ segment, prefix, kept, reason }, index) =>
    `${index.plan.segment.get(segment)?.name ?? "A segment"} (${prefixText(prefix)}) ` +
    `meets ${prefixText(kept)}, which must stay clear: ${reason}.`,
  repairs: ({ segment }, index) => moveToFreePlace(index, segment),
});
