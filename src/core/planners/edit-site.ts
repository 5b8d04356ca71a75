import { formatPrefix, parsePrefix, prefixesOverlap, type Prefix } from "../address";
import type { Line, Site } from "../plan";
import { countChecked } from "./count-text";
import type { Bench, Refusal } from "./planner";

export type SiteField = "name" | "blocks" | "timeZone" | "staticSize";

/** Writes a text field of the site; blocks are prefixes with commas or spaces between. */
export function editSite({ draft }: Bench, field: SiteField, typed: string): Refusal {
  const { site } = draft.plan;
  const text = typed.trim();
  switch (field) {
    case "name":
      if (text === "" || text.length > 80) return "A site's name has 1 to 80 characters.";
      draft.put("site", { ...site, name: text });
      return null;
    case "timeZone":
      if (!/^[A-Za-z0-9_+\-/]{1,60}$/.test(text)) return `"${text}" is not a time zone; write it as Europe/London.`;
      draft.put("site", { ...site, timeZone: text });
      return null;
    case "staticSize": {
      const staticSize = countChecked(text, 4096);
      if (staticSize === null) return `"${text}" is no size; write how many addresses are kept for typed-in devices, 0 to 4096.`;
      draft.put("site", { ...site, conventions: { ...site.conventions, staticSize } });
      return null;
    }
    case "blocks": return editBlocks({ draft }, text);
  }
}

function editBlocks({ draft }: Pick<Bench, "draft">, text: string): Refusal {
  const parts = text.split(/[\s,;]+/).filter((part) => part !== "");
  const blocks: Prefix[] = [];
  for (const part of parts) {
    const prefix = parsePrefix(part);
    if (prefix === null) return `"${part}" is not a block such as 10.24.0.0/16; the host part must be zero.`;
    const met = blocks.find((other) => prefixesOverlap(other, prefix));
    if (met !== undefined) return `${formatPrefix(prefix)} and ${formatPrefix(met)} overlap; write each address once.`;
    blocks.push(prefix);
  }
  if (blocks.length > 16) return "A site has at most 16 blocks.";
  draft.put("site", { ...draft.plan.site, blocks });
  return null;
}

/** The site's way of numbering. */
export function setConventions({ draft }: Bench, fields: Partial<Site["conventions"]>): void {
  const { site } = draft.plan;
  draft.put("site", { ...site, conventions: { ...site.conventions, ...fields } });
}

/** "192.168.177.0/24 the provider's box": a range that no subnet may meet, with the reason. */
export function addKeptClear({ draft }: Bench, typed: string): Refusal {
  const { site } = draft.plan;
  const [head = "", ...words] = typed.trim().split(/\s+/);
  const prefix = parsePrefix(head);
  const reason = words.join(" ");
  if (prefix === null) return `"${head}" is not a range such as 192.168.177.0/24; write it first, then why it must stay clear.`;
  if (reason === "" || reason.length > 120) return "Write behind the range why it must stay clear, in at most 120 characters.";
  if (site.keepClear.some((kept) => formatPrefix(kept.prefix) === formatPrefix(prefix))) return `${formatPrefix(prefix)} is kept clear already.`;
  if (site.keepClear.length >= 64) return "At most 64 ranges can be kept clear; summarise some of them.";
  draft.put("site", { ...site, keepClear: [...site.keepClear, { prefix, reason }] });
  return null;
}

export function removeKeptClear({ draft }: Bench, prefix: string): void {
  const { site } = draft.plan;
  draft.put("site", { ...site, keepClear: site.keepClear.filter((kept) => formatPrefix(kept.prefix) !== prefix) });
}

/** Changes the internet line. */
export function editLine({ draft }: Bench, id: string, fields: Partial<Omit<Line, "id">>): Refusal {
  if (fields.name !== undefined && (fields.name.trim() === "" || fields.name.length > 80)) return "A line's name has 1 to 80 characters.";
  draft.patch("line", id, fields);
  return null;
}
