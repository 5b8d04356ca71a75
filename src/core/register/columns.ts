import { parseAddress, parseMac } from "../address";
import { HOST_HEADS } from "../planners";

/** What a column of a table of devices can hold. */
export const IMPORT_FIELDS = [
  "name",
  "kind",
  "mac",
  "how",
  "address",
  "ipv6",
  "segment",
  "port",
  "place",
  "length",
  "gateway",
  "length6",
  "gateway6",
  "dns",
  "changesMac",
  "notes",
] as const;
export type ImportField = (typeof IMPORT_FIELDS)[number];

export const FIELD_WORDS: Readonly<Record<ImportField, string>> = {
  name: "Name",
  kind: "Kind",
  mac: "MAC",
  how: "How",
  address: "Address",
  ipv6: "IPv6 address",
  segment: "Segment",
  port: "Plugged into",
  place: "Place",
  length: "Mask",
  gateway: "Gateway",
  length6: "IPv6 prefix length",
  gateway6: "IPv6 gateway",
  dns: "Name servers",
  changesMac: "Changes MAC",
  notes: "Notes",
};

/** Words over a column by which it is known. */
const HEADS: Readonly<Record<ImportField, readonly string[]>> = {
  ...HOST_HEADS,
  ipv6: ["ipv6", "ipv6 address"],
  length: ["mask", "netmask", "subnet mask", "prefix length", "own mask"],
  gateway: ["gateway", "default gateway", "router", "own gateway"],
  length6: ["ipv6 prefix length", "own ipv6 length"],
  gateway6: ["ipv6 gateway", "own ipv6 gateway"],
  dns: ["dns", "dns servers", "name servers", "own name servers"],
  changesMac: ["changes mac", "random mac", "private address"],
  notes: ["notes", "note", "comment", "remarks", "description"],
};

export interface Mapping {
  /** Whether the first row names the columns. */
  readonly hasHeads: boolean;
  /** By column: what it holds, or null when it is left out. */
  readonly fields: readonly (ImportField | null)[];
}

const headOf = (cell: string): ImportField | null =>
  IMPORT_FIELDS.find((field) => HEADS[field].includes(cell.trim().toLowerCase())) ?? null;

/** What a cell looks like by itself. */
function looksLike(cell: string): ImportField | null {
  const text = cell.trim();
  if (parseMac(text) !== null) return "mac";
  const address = parseAddress(text);
  if (address !== null) return typeof address === "number" ? "address" : "ipv6";
  return null;
}

/**
 * Which column holds what: by the words over them where the first row has at least two, else by what most
 * cells of a column look like; the first column of plain words is then the name. Each field is given once.
 */
export function guessColumns(rows: readonly (readonly string[])[]): Mapping {
  const width = Math.max(0, ...rows.slice(0, 50).map((row) => row.length));
  const heads = Array.from({ length: width }, (_, i) => headOf(rows[0]?.[i] ?? ""));
  const hasHeads =
    heads.filter((field) => field !== null).length >= Math.min(2, width) &&
    heads.some((field) => field === "name" || field === "mac" || field === "address");
  const given = new Set<ImportField>();
  const once = (field: ImportField | null): ImportField | null => {
    if (field === null || given.has(field)) return null;
    given.add(field);
    return field;
  };
  if (hasHeads) return { hasHeads, fields: heads.map(once) };
  const sample = rows.slice(0, 50);
  const fields = Array.from({ length: width }, (_, i) => {
    const counts = new Map<ImportField, number>();
    for (const row of sample) {
      const like = looksLike(row[i] ?? "");
      if (like !== null) counts.set(like, (counts.get(like) ?? 0) + 1);
    }
    const [best] = [...counts].sort((a, b) => b[1] - a[1]);
    return once(
      best !== undefined && best[1] * 2 > sample.filter((row) => (row[i] ?? "").trim() !== "").length
        ? best[0]
        : null,
    );
  });
  const firstWords = fields.findIndex(
    (field, i) => field === null && sample.some((row) => /[a-z]/i.test(row[i] ?? "")),
  );
  return { hasHeads, fields: fields.map((field, i) => (i === firstWords ? once("name") : field)) };
}
