import { asPrefix4, masksAsSlashes, readPrefix, type Prefix4 } from "../address";
import { nameOf, type PlanIndex, type Segment } from "../plan";
import {
  addOption as addOptionTo,
  addSegment as addSegmentTo,
  allocate as allocateIn,
  editSegmentCell,
  editSegmentField,
  formatLease,
  mergeSegments as mergeSegmentsIn,
  movePool as movePoolTo,
  numberAll6,
  pasteSegments as pasteSegmentsInto,
  removeOption as removeOptionFrom,
  removeSegment,
  renumberBlock as renumberBlockIn,
  setServer as setServerOf,
  sizeLeases as sizeLeasesOf,
  splitSegment as splitSegmentIn,
  writeAllocation,
  type AddSegment,
  type Paste,
  type SegmentColumn,
  type SegmentField,
} from "../planners";
import { command, eachCell, type Cell } from "./command";
import { chose, count, emptied, pasted, wrote } from "./says";

const segmentName = (index: PlanIndex, id: string): string => nameOf(index, "segment", id);
const segmentOfScope = (index: PlanIndex, scope: string): string =>
  segmentName(index, index.plan.scope.get(scope)?.segment ?? "");

interface OfSegment {
  readonly segment: string;
}

export const addSegment = command<AddSegment>("add-segment", {
  says: ({ name }) => `Added the segment ${name}`,
  run: (context, wanted) => addSegmentTo(context, wanted),
});

export const removeSegments = command<{ readonly segments: readonly string[] }>("remove-segment", {
  says: ({ segments }, index) => {
    const [only, ...more] = segments;
    return only !== undefined && more.length === 0
      ? `Removed the segment ${segmentName(index, only)}`
      : `Removed ${count(segments, "segment")}`;
  },
  run: ({ edits }, { segments }) => {
    for (const id of segments) removeSegment(edits, id);
  },
});

export const editSegment = command<OfSegment & { readonly column: SegmentColumn; readonly text: string }>(
  "edit-segment",
  {
    says: ({ segment, column, text }, index) => wrote(segmentName(index, segment), column, text),
    run: (context, { segment, column, text }) => editSegmentCell(context, segment, column, text),
  },
);

export const editSegmentText = command<OfSegment & { readonly field: SegmentField; readonly text: string }>(
  "edit-segment-field",
  {
    says: ({ segment, field, text }, index) => wrote(segmentName(index, segment), field, text),
    run: (context, { segment, field, text }) => editSegmentField(context, segment, field, text),
  },
);

export const setSegment = command<
  OfSegment & {
    readonly fields: Partial<Pick<Segment, "purpose" | "advertise" | "management" | "tape" | "trafficClass">>;
  }
>("set-segment", {
  says: ({ segment, fields }, index) => chose(index, segmentName(index, segment), fields),
  run: ({ edits }, { segment, fields }) => edits.patch("segment", segment, worn(fields)),
});

/** A tape that is traced in its own colour is one without a tracer. */
const worn = <F extends Partial<Pick<Segment, "tape">>>(fields: F): F =>
  fields.tape === undefined || fields.tape.tracer !== fields.tape.base
    ? fields
    : { ...fields, tape: { ...fields.tape, tracer: null } };

export const pasteSegments = command<Paste<SegmentColumn>>("paste-segments", {
  says: ({ rows }) => pasted(rows, "the segments"),
  run: (context, paste) => pasteSegmentsInto(context, paste),
  log: ({ rows, from }) => ({ rows: rows.length, from }),
});

export const clearSegments = command<{ readonly cells: readonly Cell<SegmentColumn>[] }>("clear-segments", {
  says: ({ cells }) => emptied(cells, "the segments"),
  run: (context, { cells }) => eachCell(cells, (row, column) => editSegmentCell(context, row, column, "")),
});

export const movePool = command<
  OfSegment & { readonly first: number; readonly last: number; readonly said: string }
>("move-pool", {
  says: ({ segment, said }, index) => `${segmentName(index, segment)}: pool ${said}`,
  run: (context, { segment, first, last }) => movePoolTo(context, segment, first, last),
});

export const sizeLeases = command<{
  readonly scope: string;
  readonly leaseSeconds: number;
  readonly missing: number;
}>("size-leases", {
  says: ({ scope, leaseSeconds, missing }, index) =>
    `${segmentOfScope(index, scope)}: lease ${formatLease(leaseSeconds)}` +
    (missing === 0 ? "" : `, ${missing} addresses more in the pool`),
  run: ({ edits }, { scope, leaseSeconds, missing }) => sizeLeasesOf(edits, scope, leaseSeconds, missing),
});

export const setServer = command<{
  readonly scope: string;
  readonly server: { readonly device: string } | { readonly host: string };
}>("set-server", {
  says: ({ scope, server }, index) =>
    `${segmentOfScope(index, scope)} is served by ` +
    ("device" in server ? nameOf(index, "device", server.device) : nameOf(index, "host", server.host)),
  run: (context, { scope, server }) => setServerOf(context, scope, server),
});

export const addOption = command<OfSegment & { readonly text: string }>("add-option", {
  says: ({ segment, text }, index) => `${segmentName(index, segment)}: option ${text}`,
  run: (context, { segment, text }) => addOptionTo(context, segment, text),
});

export const removeOption = command<{ readonly scope: string; readonly code: number }>("remove-option", {
  says: ({ scope, code }, index) => `${segmentOfScope(index, scope)}: option ${code} removed`,
  run: (context, { scope, code }) => removeOptionFrom(context, scope, code),
});

/** The blocks that are written, with commas or spaces between; the sentence about the first that is none. */
function blocksIn(text: string): { readonly blocks: readonly Prefix4[] } | { readonly refusal: string } {
  const parts = masksAsSlashes(text)
    .split(/[\s,]+/)
    .filter((part) => part !== "")
    .map((part) => ({ part, prefix: asPrefix4(readPrefix(part)) }));
  const bad = parts.find(({ prefix }) => prefix === null);
  return bad === undefined
    ? { blocks: parts.flatMap(({ prefix }) => prefix ?? []) }
    : { refusal: notABlock(bad.part, "10.24.0.0/16") };
}

const notABlock = (text: string, example: string): string =>
  `"${text}" is not a block such as ${example}; the host part must be zero.`;

/** Lays out all subnets but those of `keep`, in the blocks that are written, else in the site's own. */
export const allocate = command<{
  readonly scheme: "octet" | "packed";
  readonly doubled: boolean;
  readonly keep: readonly string[];
  readonly blocks: string;
}>("allocate", {
  says: ({ keep }, index) => `Laid ${index.plan.segment.size - keep.length} subnets out anew`,
  run: ({ edits, index }, { scheme, doubled, keep, blocks }) => {
    const read = blocksIn(blocks);
    if ("refusal" in read) return read.refusal;
    if (read.blocks.length === 0 && !index.plan.site.blocks.some((block) => block.family === 4))
      return "The site has no block; write one here, such as 10.24.0.0/16.";
    const wanted = { blocks: read.blocks, scheme, keep: new Set(keep), doubled };
    return writeAllocation(edits, allocateIn(index, wanted));
  },
});

export const renumberBlock = command<{ readonly from: string; readonly to: string }>("renumber", {
  says: ({ from, to }) => `Moved ${from.trim()} to ${to.trim()}`,
  run: ({ edits, index }, { from, to }) => {
    const [old, fresh] = [readPrefix(from), readPrefix(to)];
    if (old === null) return notABlock(from, "10.24.0.0/16");
    if (fresh === null) return notABlock(to, "10.36.0.0/16");
    return renumberBlockIn(edits, index, old, fresh);
  },
});

export const splitSegment = command<OfSegment & { readonly name: string }>("split-segment", {
  says: ({ segment, name }, index) => `Split ${segmentName(index, segment)}; ${name} is new`,
  run: (context, { segment, name }) => splitSegmentIn(context, segment, name),
});

export const mergeSegments = command<{ readonly into: string; readonly gone: string }>("merge-segments", {
  says: ({ into, gone }, index) => `${segmentName(index, into)} took ${segmentName(index, gone)} in`,
  run: (context, { into, gone }) => mergeSegmentsIn(context, into, gone),
});

export const numberSix = command<Record<never, never>>("number-six", {
  says: () => "IPv6 subnets for every segment",
  run: (context) => numberAll6(context),
});
