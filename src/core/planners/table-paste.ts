import { addSegment } from "./add-segment";
import { addHost, editHostCell, HOST_COLUMNS, type HostColumn } from "./host-cell";
import type { Bench, Refusal } from "./planner";
import { editSegmentCell, SEGMENT_COLUMNS, type SegmentColumn } from "./segment-cell";

/** A block of cells as it comes off a clipboard: rows of texts, the first of each for the column `from` of the columns that are shown. */
export interface Paste<C extends string> { readonly rows: readonly (readonly string[])[]; readonly from: C; readonly onto: readonly string[]; readonly columns?: readonly C[] }

const named = (row: number, refusal: string): string => `Row ${row + 1}: ${refusal}`;

/** The order in which a row's cells are written: a subnet before the addresses in it, a pool before its lease. */
const SEGMENT_ORDER: readonly SegmentColumn[] = ["name", "mark", "vid", "zone", "prefix", "gateway", "pool", "lease", "dns", "planned"];
const HOST_ORDER: readonly HostColumn[] = ["name", "kind", "segment", "mac", "address", "how", "port", "place"];

function cellsOf<C extends string>(columns: readonly C[], from: C, row: readonly string[]): Map<C, string> {
  const start = columns.indexOf(from);
  return new Map(row.flatMap((text, i): [C, string][] => {
    const column = columns[start + i];
    return column === undefined ? [] : [[column, text.trim()]];
  }));
}

/** Writes pasted rows onto `onto` and makes new segments of those beyond it. One bad cell refuses the whole paste. */
export function pasteSegments(bench: Bench, { rows, from, onto, columns = SEGMENT_COLUMNS }: Paste<SegmentColumn>): Refusal {
  for (const [i, row] of rows.entries()) {
    const cells = cellsOf(columns, from, row);
    let id = onto[i];
    if (id === undefined) {
      const known = new Set(bench.draft.all("segment").map((s) => s.id));
      const refusal = addSegment(bench, { name: cells.get("name") ?? "", vid: cells.get("vid") ?? "", prefix: cells.get("prefix") ?? "", zone: cells.get("zone") ?? "" });
      if (refusal !== null) return named(i, refusal);
      id = bench.draft.all("segment").find((s) => !known.has(s.id))?.id;
      for (const done of ["name", "vid", "prefix", "zone"] as const) cells.delete(done);
    }
    for (const column of SEGMENT_ORDER) {
      const text = cells.get(column);
      if (text === undefined || id === undefined || (text === "" && column !== "pool" && column !== "dns")) continue;
      const refusal = editSegmentCell(bench, id, column, text);
      if (refusal !== null) return named(i, refusal);
    }
  }
  return null;
}

/** The same for the register. */
export function pasteHosts(bench: Bench, { rows, from, onto, columns = HOST_COLUMNS }: Paste<HostColumn>, segment: string | null): Refusal {
  for (const [i, row] of rows.entries()) {
    const cells = cellsOf(columns, from, row);
    let id = onto[i];
    if (id === undefined) {
      const known = new Set(bench.draft.all("host").map((h) => h.id));
      const refusal = addHost(bench, { name: cells.get("name") ?? "", segment });
      if (refusal !== null) return named(i, refusal);
      id = bench.draft.all("host").find((h) => !known.has(h.id))?.id;
      cells.delete("name");
    }
    for (const column of HOST_ORDER) {
      const text = cells.get(column);
      if (text === undefined || text === "" || id === undefined) continue;
      const refusal = editHostCell(bench, id, column, text);
      if (refusal !== null) return named(i, refusal);
    }
  }
  return null;
}
