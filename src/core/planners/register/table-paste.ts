import { addSegment } from "../segments/add-segment";
import { addHost, editHostCell, HOST_COLUMNS, type HostColumn } from "./host-cell";
import { HOST_HEADS } from "./host-heads";
import type { EditContext, Refusal } from "../planner";
import { editSegmentCell, SEGMENT_COLUMNS, type SegmentColumn } from "../segments/segment-cell";
import { must } from "../../kernel";

/**
 * A block of cells as it comes off a clipboard: rows of texts, the first of each for the column `from` of the
 * columns that are shown.
 */
export interface Paste<C extends string> {
  readonly rows: readonly (readonly string[])[];
  readonly from: C;
  readonly onto: readonly string[];
  readonly columns?: readonly C[];
}

const named = (row: number, refusal: string): string => `Row ${row + 1}: ${refusal}`;

/**
 * The order in which a row's cells are written: a subnet before the addresses in it, a pool before its lease.
 */
const SEGMENT_ORDER: readonly SegmentColumn[] = [
  "name",
  "mark",
  "vid",
  "zone",
  "prefix",
  "gateway",
  "pool",
  "lease",
  "dns",
  "planned",
];
const HOST_ORDER: readonly HostColumn[] = [
  "name",
  "kind",
  "segment",
  "mac",
  "address",
  "how",
  "port",
  "place",
];

function cellsOf<C extends string>(columns: readonly C[], from: C, row: readonly string[]): Map<C, string> {
  const start = columns.indexOf(from);
  return new Map(
    row.flatMap((text, i): [C, string][] => {
      const column = columns[start + i];
      return column === undefined ? [] : [[column, text.trim()]];
    }),
  );
}

/** What a spreadsheet calls the columns, in small letters. */
const SEGMENT_HEADS: Readonly<Record<SegmentColumn, readonly string[]>> = {
  mark: ["mark"],
  vid: ["vid", "vlan", "vlan id", "tag"],
  name: ["name", "segment", "network", "vlan name"],
  zone: ["zone"],
  prefix: ["prefix", "subnet", "network address", "cidr"],
  gateway: ["gate", "gateway", "default gateway", "router"],
  pool: ["pool", "dhcp", "dhcp pool", "dhcp range", "range", "scope"],
  lease: ["lease", "lease time"],
  dns: ["dns", "dns server", "dns servers", "name servers"],
  planned: ["plan", "planned", "devices", "hosts"],
};

/**
 * A first row that names columns: which, in its order, whatever order the table has. Null when it is a row
 * like the others: fewer than two of its cells are names of columns, or fewer than half, and the first does
 * not name the very column that it would go into.
 */
function headRow<C extends string>(
  heads: Readonly<Record<C, readonly string[]>>,
  { rows, from }: Paste<C>,
): { readonly columns: readonly C[] } | { readonly refusal: string } | null {
  const cells = (rows[0] ?? []).map((text) => text.trim());
  const found = cells.map((text) =>
    (Object.keys(heads) as C[]).find((column) =>
      heads[column].includes(text.toLowerCase().replace(/[\s_-]+/g, " ")),
    ),
  );
  const known = found.filter((column) => column !== undefined);
  // "Name" over names is a head, whatever the other columns are called.
  const isOver = rows.length > 1 && cells[0]?.toLowerCase() === heads[from][0] && found[0] === from;
  if (!isOver && (known.length < 2 || known.length * 2 < cells.filter((text) => text !== "").length))
    return null;
  const [strange, twice] = [
    cells.find((text, i) => found[i] === undefined),
    known.find((column, i) => known.indexOf(column) !== i),
  ];
  if (strange !== undefined)
    return {
      refusal:
        strange === ""
          ? "Row 1 names the columns, and one has no name; take that column out."
          : `Row 1 names the columns, and "${strange}" is none of this table; take that column out.`,
    };
  return twice === undefined
    ? { columns: known }
    : { refusal: `Row 1 names the column ${heads[twice][0] ?? ""} twice.` };
}

/** The paste without its row of names, its columns as that row has them; as it was when it has none. */
function withoutHead<C extends string>(
  heads: Readonly<Record<C, readonly string[]>>,
  paste: Paste<C>,
): { readonly paste: Paste<C>; readonly skipped: number } | { readonly refusal: string } {
  const head = headRow(heads, paste);
  if (head === null) return { paste, skipped: 0 };
  if ("refusal" in head) return head;
  const [first] = head.columns;
  return first === undefined
    ? { paste, skipped: 0 }
    : { paste: { ...paste, rows: paste.rows.slice(1), from: first, columns: head.columns }, skipped: 1 };
}

const FIRST = ["name", "vid", "prefix", "zone"] as const;

/** Adds the segment of a pasted row and takes what is done off its cells; returns its id. */
function addPasted(context: EditContext, cells: Map<SegmentColumn, string>): string | { refusal: string } {
  const known = new Set(context.edits.all("segment").map(({ id }) => id));
  const [name, vid, prefix, zone] = FIRST.map((column) => cells.get(column) ?? "");
  const refusal = addSegment(context, {
    name: name ?? "",
    vid: vid ?? "",
    prefix: prefix ?? "",
    zone: zone ?? "",
  });
  if (refusal !== null) return { refusal };
  for (const done of FIRST) cells.delete(done);
  return must(
    context.edits.all("segment").find(({ id }) => !known.has(id)),
    "the segment was just added",
  ).id;
}

/**
 * Writes pasted rows onto `onto` and makes new segments of those beyond it. A first row that names columns
 * says which each is. One bad cell refuses the whole paste.
 */
export function pasteSegments(context: EditContext, pasted: Paste<SegmentColumn>): Refusal {
  const read = withoutHead(SEGMENT_HEADS, pasted);
  if ("refusal" in read) return read.refusal;
  const { rows, from, onto, columns = SEGMENT_COLUMNS } = read.paste;
  for (const [i, row] of rows.entries()) {
    const cells = cellsOf(columns, from, row);
    const known = onto[i] ?? addPasted(context, cells);
    if (typeof known !== "string") return named(i + read.skipped, known.refusal);
    const id = known;
    for (const column of SEGMENT_ORDER) {
      const text = cells.get(column);
      if (text === undefined || (text === "" && column !== "pool" && column !== "dns")) continue;
      const refusal = editSegmentCell(context, id, column, text);
      if (refusal !== null) return named(i + read.skipped, refusal);
    }
  }
  return null;
}

/** The same for the register. */
export function pasteHosts(context: EditContext, pasted: Paste<HostColumn>, segment: string | null): Refusal {
  const read = withoutHead(HOST_HEADS, pasted);
  if ("refusal" in read) return read.refusal;
  const { rows, from, onto, columns = HOST_COLUMNS } = read.paste;
  for (const [i, row] of rows.entries()) {
    const cells = cellsOf(columns, from, row);
    let id = onto[i];
    if (id === undefined) {
      const known = new Set(context.edits.all("host").map((h) => h.id));
      const refusal = addHost(context, { name: cells.get("name") ?? "", segment });
      if (refusal !== null) return named(i + read.skipped, refusal);
      id = context.edits.all("host").find((h) => !known.has(h.id))?.id;
      cells.delete("name");
    }
    for (const column of HOST_ORDER) {
      const text = cells.get(column);
      if (text === undefined || text === "" || id === undefined) continue;
      const refusal = editHostCell(context, id, column, text);
      if (refusal !== null) return named(i + read.skipped, refusal);
    }
  }
  return null;
}
