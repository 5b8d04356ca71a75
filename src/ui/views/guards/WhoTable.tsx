"use client";

import { HOW_WORDS, SITUATIONS, type Entry, type Situation, type WhoRow } from "@/core/guards";
import type { PlanIndex } from "@/core/plan";
import { useUi } from "../../frame/use-ui";
import { useCells } from "../../grid/use-cells";
import { useIndex } from "../../plan-store/use-plan";
import { SegmentChip } from "../../tape/Chip";

const HEADS: Readonly<Record<Situation, string>> = {
  well: "All well",
  firstDown: "First server down",
  allDown: "All servers down",
};

interface Cell {
  readonly key: string;
  readonly entry: Entry | null;
  readonly host: string | null;
  readonly situation: Situation;
}

/** The cells of a row: the situations of its host, then something that nobody knows. */
const cellsOf = ({ host, cells, stranger, port }: WhoRow): Cell[] => [
  ...SITUATIONS.map((situation) => ({
    key: `${port.id} ${host?.id ?? ""} ${situation}`,
    entry: cells?.[situation] ?? null,
    host: host?.id ?? null,
    situation,
  })),
  { key: `${port.id} stranger`, entry: stranger, host: null, situation: "well" as const },
];

/** Where somebody is then: its segment's tape; who stays out is hatched. */
function EntrySign({ index, entry }: { index: PlanIndex; entry: Entry }) {
  const segment = entry.segment === null ? undefined : index.plan.segment.get(entry.segment);
  if (segment === undefined)
    return (
      <span className="bg-panel px-1 text-ink2">
        {entry.how === "closed" ? HOW_WORDS.closed : "no address"}
      </span>
    );
  return (
    <span className="inline-flex items-center gap-[6px]">
      <SegmentChip segment={segment} height={16} />
      <span className="truncate">{HOW_WORDS[entry.how]}</span>
    </span>
  );
}

interface RowProps {
  readonly row: WhoRow;
  readonly number: number;
  /** Whether it is the first of its port: only there the port and a stranger at it are said. */
  readonly isFirst: boolean;
  /** The column that the keyboard is in; null where it is in another row. */
  readonly column: number | null;
  readonly go: (column: number) => void;
  readonly enter: (column: number) => void;
}

/** One who is planned at a port, in each situation. */
function Row({ row, number, isFirst, column: here, go, enter }: RowProps) {
  const index = useIndex();
  const selection = useUi((state) => state.selection);
  const isChosen = (cell: Cell) =>
    selection?.what === "entry" &&
    selection.port === row.port.id &&
    selection.host === cell.host &&
    selection.situation === cell.situation;
  const cells = cellsOf(row).map((cell, column) =>
    column === SITUATIONS.length && !isFirst ? { ...cell, entry: null } : cell,
  );
  return (
    <tr>
      <th scope="row" className="!pl-4 whitespace-nowrap !text-ink">
        {isFirst ? (
          <>
            {row.device.name} <span className="mono">{row.port.label}</span>
          </>
        ) : null}
      </th>
      <td className="whitespace-nowrap">
        {row.host?.name ?? <span className="text-ink2">nothing planned</span>}
      </td>
      {cells.map((cell, column) => (
        <td
          key={cell.key}
          role="gridcell"
          data-cell={`${number}-${column}`}
          tabIndex={here === column ? 0 : -1}
          title={cell.entry?.says}
          aria-selected={isChosen(cell)}
          onClick={() => go(column)}
          onFocus={() => enter(column)}
          className={`cursor-pointer ${cell.entry?.how === "closed" ? "hatched" : ""} ${
            cell.entry?.differs === true ? "outline-2 -outline-offset-2 outline-stop outline-solid" : ""
          } ${isChosen(cell) ? "bg-act-wash" : ""}`}
        >
          {cell.entry === null ? null : <EntrySign index={index} entry={cell.entry} />}
          {cell.entry?.differs === true ? <span className="sr-only">, not as meant</span> : null}
        </td>
      ))}
    </tr>
  );
}

/**
 * Who gets in: a row for each port and what is planned there, a column for each situation. What differs from
 * what is meant is framed.
 */
export function WhoTable({ rows }: { rows: readonly WhoRow[] }) {
  const select = useUi((state) => state.select);
  const last = { row: rows.length - 1, column: SITUATIONS.length };
  const { table, at, go, enter, onKeyDown } = useCells(last, { row: 0, column: 0 }, (place) => {
    const own = rows[place.row];
    const cell = own === undefined ? undefined : cellsOf(own)[place.column];
    if (own !== undefined && cell !== undefined && cell.entry !== null)
      select({ what: "entry", port: own.port.id, host: cell.host, situation: cell.situation });
  });
  return (
    <div className="overflow-x-auto">
      <table
        ref={table}
        role="grid"
        aria-label="Who gets in"
        className="table close still lead"
        onKeyDown={onKeyDown}
      >
        <thead>
          <tr>
            <th scope="col" className="!pl-4">
              port
            </th>
            <th scope="col">plugged in</th>
            {SITUATIONS.map((situation) => (
              <th key={situation} scope="col">
                {HEADS[situation]}
              </th>
            ))}
            <th scope="col">Another device</th>
          </tr>
        </thead>
        <tbody>
          {rows.map((row, number) => (
            <Row
              key={`${row.port.id} ${row.host?.id ?? ""}`}
              row={row}
              number={number}
              isFirst={rows[number - 1]?.port !== row.port}
              column={at.row === number ? at.column : null}
              go={(column) => go({ row: number, column })}
              enter={(column) => enter({ row: number, column })}
            />
          ))}
        </tbody>
      </table>
    </div>
  );
}
