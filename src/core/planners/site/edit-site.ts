import { formatPrefix, masksAsSlashes, readPrefix, prefixesOverlap, type Prefix } from "../../address";
import type { Line, Site } from "../../plan";
import { CABLE_WORDS_IN_BRACES } from "../gear/edit-cabling";
import { patternFault } from "../name-pattern";
import { countChecked } from "../count-text";
import { formatLease, parseLease } from "../addressing/lease-text";
import type { EditContext, Refusal } from "../planner";
import { addressesText, prefixesText, readAddresses, readPrefixes } from "./survey-text";

export const SITE_FIELDS = [
  "name",
  "blocks",
  "timeZone",
  "staticSize",
  "vidStart",
  "vidStep",
  "namePattern",
  "dnsServers",
  "lease",
  "guestLease",
  "growth",
  "domainName",
  "devicePattern",
  "cablePattern",
] as const;
export type SiteField = (typeof SITE_FIELDS)[number];

/** The text of a site's field, as it can be typed in again. */
export function siteFieldText(site: Site, field: SiteField): string {
  const { conventions } = site;
  switch (field) {
    case "name":
    case "timeZone":
      return site[field];
    case "blocks":
      return prefixesText(site.blocks);
    case "dnsServers":
      return addressesText(conventions.dnsServers);
    case "lease":
      return formatLease(conventions.leaseSeconds);
    case "guestLease":
      return formatLease(conventions.guestLeaseSeconds);
    default:
      return String(conventions[field]);
  }
}

const COUNTS = {
  staticSize: {
    least: 0,
    most: 4096,
    sentence: "is no size; write how many addresses are kept for static devices, 0 to 4096.",
  },
  vidStart: {
    least: 2,
    most: 4094,
    sentence: "is not a VLAN ID to begin with; write a whole number from 2 to 4094.",
  },
  vidStep: { least: 1, most: 1000, sentence: "is no step; write a whole number from 1 to 1000." },
  growth: { least: 0, most: 1000, sentence: "is no growth; write whole percent from 0 to 1000." },
} as const;

function domainFault(text: string): string | null {
  if (text !== "" && !/^[a-z0-9]([a-z0-9-]*[a-z0-9])?(\.[a-z0-9]([a-z0-9-]*[a-z0-9])?)*$/i.test(text))
    return `"${text}" is not a domain such as fennel.internal: letters, digits, hyphens and dots.`;
  return text.length > 120 ? "A domain has at most 120 characters here." : null;
}

/** Writes a text field of the site; blocks and name servers have commas or spaces between. */
// eslint-disable-next-line complexity -- one short case for each field
export function editSite({ edits }: EditContext, field: SiteField, typed: string): Refusal {
  const site = edits.need("site", edits.plan.site.id);
  const text = typed.trim();
  const convention = (fields: Partial<Site["conventions"]>): null => {
    edits.put("site", { ...site, conventions: { ...site.conventions, ...fields } });
    return null;
  };
  switch (field) {
    case "name":
      if (text === "" || text.length > 80) return "A site's name has 1 to 80 characters.";
      edits.put("site", { ...site, name: text });
      return null;
    case "timeZone":
      if (!/^[A-Za-z0-9_+\-/]{1,60}$/.test(text))
        return `"${text}" is not a time zone; write it as Europe/London.`;
      edits.put("site", { ...site, timeZone: text });
      return null;
    case "staticSize":
    case "vidStart":
    case "vidStep":
    case "growth": {
      const { least, most, sentence } = COUNTS[field];
      const count = countChecked(field === "growth" ? text.replace(/\s*%$/, "") : text, most);
      return count === null || count < least ? `"${text}" ${sentence}` : convention({ [field]: count });
    }
    case "namePattern":
      if (text === "" || text.length > 60 || !/\{(place|kind|segment|n)\}/.test(text))
        return `"${text}" makes no names; use {place}, {kind}, {segment} and {n}, such as {place}-{kind}-{n}.`;
      return convention({ namePattern: text });
    case "devicePattern":
    case "cablePattern": {
      const known = field === "devicePattern" ? ["place", "kind", "n"] : CABLE_WORDS_IN_BRACES;
      if (text.length > 60) return "A pattern has at most 60 characters.";
      return patternFault(text, known) ?? convention({ [field]: text });
    }
    case "domainName":
      return domainFault(text) ?? convention({ domainName: text.toLowerCase() });
    case "dnsServers": {
      const read = readAddresses(text, 8);
      return read.refusal ?? convention({ dnsServers: read.value ?? [] });
    }
    case "lease":
    case "guestLease": {
      const seconds = parseLease(text);
      if (seconds === null)
        return `"${text}" is not a lease time; write 8 h, 30 min or 2 d (at least 1 min, at most 365 d).`;
      return convention(field === "lease" ? { leaseSeconds: seconds } : { guestLeaseSeconds: seconds });
    }
    case "blocks":
      return editBlocks({ edits }, text);
  }
}

function editBlocks({ edits }: Pick<EditContext, "edits">, text: string): Refusal {
  const parts = masksAsSlashes(text)
    .split(/[\s,;]+/)
    .filter((part) => part !== "");
  const blocks: Prefix[] = [];
  for (const part of parts) {
    const prefix = readPrefix(part);
    if (prefix === null) return `"${part}" is not a block such as 10.24.0.0/16; the host part must be zero.`;
    const met = blocks.find((other) => prefixesOverlap(other, prefix));
    if (met !== undefined)
      return `${formatPrefix(prefix)} and ${formatPrefix(met)} overlap; write each address once.`;
    blocks.push(prefix);
  }
  if (blocks.length > 16) return "A site has at most 16 blocks.";
  edits.put("site", { ...edits.need("site", edits.plan.site.id), blocks });
  return null;
}

/** The site's way of numbering. */
export function setConventions({ edits }: EditContext, fields: Partial<Site["conventions"]>): void {
  const { site } = edits.plan;
  edits.put("site", { ...site, conventions: { ...site.conventions, ...fields } });
}

/** "192.168.177.0/24 the provider's box": a range that no subnet may meet, with the reason. */
export function addKeptClear({ edits }: EditContext, typed: string): Refusal {
  const { site } = edits.plan;
  const [head = "", ...words] = masksAsSlashes(typed.trim()).split(/\s+/);
  const prefix = readPrefix(head);
  const reason = words.join(" ");
  if (prefix === null)
    return `"${head}" is not a range such as 192.168.177.0/24; write it first, then why it must stay clear.`;
  if (reason === "" || reason.length > 120)
    return "Write behind the range why it must stay clear, in at most 120 characters.";
  if (site.keepClear.some((kept) => formatPrefix(kept.prefix) === formatPrefix(prefix)))
    return `${formatPrefix(prefix)} is kept clear already.`;
  if (site.keepClear.length >= 64) return "At most 64 ranges can be kept clear; summarise some of them.";
  edits.put("site", { ...site, keepClear: [...site.keepClear, { prefix, reason }] });
  return null;
}

export function removeKeptClear({ edits }: EditContext, prefix: string): void {
  const { site } = edits.plan;
  edits.put("site", {
    ...site,
    keepClear: site.keepClear.filter((kept) => formatPrefix(kept.prefix) !== prefix),
  });
}

/** Changes an internet line. */
export function editLine({ edits }: EditContext, id: string, fields: Partial<Omit<Line, "id">>): Refusal {
  if (fields.name !== undefined && (fields.name.trim() === "" || fields.name.length > 80))
    return "A line's name has 1 to 80 characters.";
  edits.patch("line", id, fields);
  return null;
}

export const LINE_FIELDS = ["vlanTag", "downMbps", "upMbps", "boxPrefix", "locked"] as const;
export type LineField = (typeof LINE_FIELDS)[number];

/** Writes a text field of a line. */
export function editLineText(context: EditContext, id: string, field: LineField, typed: string): Refusal {
  const text = typed.trim();
  switch (field) {
    case "vlanTag": {
      const tag = text === "" ? null : countChecked(text, 4094);
      return text !== "" && (tag === null || tag < 1)
        ? `"${text}" is not a VLAN ID; write 1 to 4094, or leave it empty when the provider wants no tag.`
        : editLine(context, id, { vlanTag: tag });
    }
    case "downMbps":
    case "upMbps": {
      const rate = text === "" ? 0 : countChecked(text.replace(/\s*(mbit\/s|mbps|m)$/i, ""), 1_000_000);
      return rate === null
        ? `"${text}" is no rate; write whole Mbit/s.`
        : editLine(context, id, { [field]: rate });
    }
    case "boxPrefix": {
      const read = readPrefixes(text, 1);
      return read.refusal ?? editLine(context, id, { boxPrefix: read.value?.[0] ?? null });
    }
    case "locked":
      return text.length > 120 ? "At most 120 characters here." : editLine(context, id, { locked: text });
  }
}
