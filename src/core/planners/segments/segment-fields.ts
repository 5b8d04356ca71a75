import { formatAddress, formatPrefix, parseIpv4, type AddressRange } from "../../address";
import { readOption } from "../../dhcp";
import type { PlanIndex, Scope, Segment } from "../../plan";
import { countChecked } from "../count-text";
import { formatLease, parseLease } from "../addressing/lease-text";
import type { EditContext, Refusal } from "../planner";
import { addressInSegment, poolParts, rangeInSegment } from "./segment-cell";
import { setSegmentFields } from "../site/set-fields";

/** What the margin has of a segment and its scope beside the table's columns. */
export const SEGMENT_FIELDS = [
  "prefix6",
  "growth",
  "time",
  "domainName",
  "exclusions",
  "relay",
  "perHour",
  "stay",
  "open",
] as const;
export type SegmentField = (typeof SEGMENT_FIELDS)[number];

const scopeOf = (index: Pick<PlanIndex, "scopesOf">, segment: Segment): Scope | undefined =>
  index.scopesOf(segment.id).find((scope) => scope.family === 4);
const rangeText = (range: AddressRange): string =>
  range.first === range.last
    ? formatAddress(range.first)
    : `${formatAddress(range.first)}–${formatAddress(range.last)}`;

/** The text of such a field, as it can be typed in again. */
export function segmentFieldText(index: PlanIndex, segment: Segment, field: SegmentField): string {
  switch (field) {
    case "prefix6":
      return segment.prefixes6[0] === undefined ? "" : formatPrefix(segment.prefixes6[0]);
    case "growth":
      return String(segment.growth);
    case "time":
      return segment.time.map(formatAddress).join(", ");
    case "domainName":
      return segment.domainName;
    case "exclusions":
      return (scopeOf(index, segment)?.exclusions ?? []).map(rangeText).join(", ");
    case "relay": {
      const relay = index.gatewayOf(segment)?.relayTo ?? null;
      return relay === null ? "" : formatAddress(relay);
    }
    case "perHour":
      return segment.visit === null ? "" : String(segment.visit.perHour);
    case "stay":
      return segment.visit === null ? "" : formatLease(segment.visit.staySeconds);
    case "open":
      return segment.visit === null ? "" : formatLease(segment.visit.openSeconds);
  }
}

/** Writes such a field from its text; an empty text takes it away. */
export function editSegmentField(
  context: EditContext,
  id: string,
  field: SegmentField,
  typed: string,
): Refusal {
  const { edits } = context;
  const segment = edits.need("segment", id);
  const text = typed.trim();
  switch (field) {
    case "prefix6":
      return setSegmentFields(context, id, { prefix6: text });
    case "growth":
      return setSegmentFields(context, id, { growth: text.replace(/\s*%$/, "") });
    case "time": {
      const parts = text.split(/[\s,;]+/).filter((part) => part !== "");
      const bad = parts.find((part) => addressInSegment(segment, part) === null);
      if (bad !== undefined)
        return `"${bad}" is not an address; write 10.24.60.10 or .1 for one in this subnet.`;
      edits.patch("segment", id, {
        time: parts.flatMap((part) => addressInSegment(segment, part) ?? []).slice(0, 8),
      });
      return null;
    }
    case "domainName":
      if (text !== "" && !/^[a-z0-9]([a-z0-9-]*[a-z0-9])?(\.[a-z0-9]([a-z0-9-]*[a-z0-9])?)*$/i.test(text))
        return `"${text}" is not a domain such as fennel.internal: letters, digits, hyphens and dots.`;
      if (text.length > 120) return "A domain has at most 120 characters here.";
      edits.patch("segment", id, { domainName: text.toLowerCase() });
      return null;
    case "exclusions":
      return setExclusions(context, segment, text);
    case "relay": {
      const leg = segment.gatewayInterface;
      const to = text === "" ? null : parseIpv4(text);
      if (leg === null) return `${segment.name} has no gateway that could relay; set its gateway first.`;
      if (text !== "" && to === null)
        return `"${text}" is not the IPv4 address of a server; write it whole, such as 10.24.60.10.`;
      edits.patch("interface", leg, { relayTo: to });
      return null;
    }
    case "perHour":
    case "stay":
    case "open":
      return setVisit(context, segment, field, text);
  }
}

function setExclusions({ edits }: EditContext, segment: Segment, text: string): Refusal {
  const scope = edits.all("scope").find((scope) => scope.segment === segment.id && scope.family === 4);
  if (scope === undefined) return `${segment.name} has no pool to exclude anything from.`;
  const parts = poolParts(text);
  const ranges = parts.map((part) => rangeInSegment(segment, part));
  const bad = parts[ranges.indexOf(null)];
  if (bad !== undefined) return `"${bad}" is no range; write .60 or .60-.69, with commas between several.`;
  if (ranges.length > 64) return "A scope excludes at most 64 ranges.";
  edits.patch("scope", scope.id, { exclusions: ranges.flatMap((range) => range ?? []) });
  return null;
}

const NO_VISITS = { perHour: 0, staySeconds: 3600, openSeconds: 36_000 };

function setVisit(
  { edits }: EditContext,
  segment: Segment,
  field: "perHour" | "stay" | "open",
  text: string,
): Refusal {
  if (text === "") {
    edits.patch("segment", segment.id, { visit: null });
    return null;
  }
  const visit = segment.visit ?? NO_VISITS;
  if (field === "perHour") {
    const perHour = countChecked(text, 100_000);
    if (perHour === null)
      return `"${text}" is no number of arrivals; write how many come in an hour, 0 to 100000.`;
    edits.patch("segment", segment.id, { visit: { ...visit, perHour } });
    return null;
  }
  const seconds = parseLease(text);
  if (seconds === null) return `"${text}" is no time; write 45 min or 9 h.`;
  if (field === "open" && seconds > 86_400) return "A day has 24 h; write at most that.";
  edits.patch("segment", segment.id, {
    visit: { ...visit, ...(field === "stay" ? { staySeconds: seconds } : { openSeconds: seconds }) },
  });
  return null;
}

/** Adds an option to a segment's scope, or changes the one of that code. */
export function addOption({ edits }: EditContext, segmentId: string, text: string): Refusal {
  const scope = edits.all("scope").find((scope) => scope.segment === segmentId && scope.family === 4);
  if (scope === undefined) return "The segment has no pool, and so no scope that could hand options out.";
  const read = readOption(text);
  if (typeof read === "string") return read;
  const others = scope.options.filter((option) => option.code !== read.code);
  if (others.length >= 64) return "A scope hands out at most 64 options.";
  edits.patch("scope", scope.id, { options: [...others, read].sort((a, b) => a.code - b.code) });
  return null;
}

export function removeOption({ edits }: Pick<EditContext, "edits">, scopeId: string, code: number): void {
  edits.patch("scope", scopeId, {
    options: edits.need("scope", scopeId).options.filter((option) => option.code !== code),
  });
}

/** Lets another device or host serve a segment's scope. */
export function setServer(
  { edits }: Pick<EditContext, "edits">,
  scopeId: string,
  server: { readonly device: string } | { readonly host: string },
): void {
  edits.patch(
    "scope",
    scopeId,
    "device" in server
      ? { serverDevice: server.device, serverHost: null }
      : { serverDevice: null, serverHost: server.host },
  );
}
