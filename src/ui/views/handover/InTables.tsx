"use client";

import { useEffect, useState } from "react";
import { tableApartTable, type CellApart, type RowApart, type TableApart } from "@/core/comparison";
import type { Plan } from "@/core/plan";
import { counted } from "@/core/repairs";
import { csv, CSV_TYPE, download, fileName } from "../../kit/download";
import { planWorker } from "../../plan-store/plan-worker";
import { useIndex } from "../../plan-store/use-plan";

/** As many rows of a table stand in the sheet; all of them are in its file. */
const MOST_ROWS = 50;

interface States {
  readonly before: Plan;
  readonly after: Plan;
}

/** What differs between two states in the site's own tables: worked out when it is asked for. */
export function InTables(states: States) {
  const [isOpen, setOpen] = useState(false);
  return (
    <div className="px-4 pb-2 text-13">
      <button type="button" className="button" aria-expanded={isOpen} onClick={() => setOpen(!isOpen)}>
        In the tables
      </button>
      {isOpen ? <Tables {...states} /> : null}
    </div>
  );
}

function Tables({ before, after }: States) {
  const { today } = useIndex();
  const [tables, setTables] = useState<readonly TableApart[] | null | undefined>();
  useEffect(() => {
    let isCurrent = true;
    void planWorker()
      .inTables(before, after, today)
      .catch(() => null)
      .then((made) => {
        if (isCurrent) setTables(made);
      });
    return () => {
      isCurrent = false;
    };
  }, [before, after, today]);
  if (tables === undefined)
    return (
      <p role="status" className="py-2 text-ink2">
        Laying the tables together …
      </p>
    );
  if (tables === null)
    return <p className="py-2">They could not be laid together; reload the page and try again.</p>;
  if (tables.length === 0) return <p className="py-2 text-ink2">No table differs.</p>;
  return (
    <div className="pt-2">
      {tables.map((table) => (
        <Sheet key={table.file} table={table} />
      ))}
    </div>
  );
}

function Sheet({ table }: { table: TableApart }) {
  const { title, file, heads, rows, alike } = table;
  const site = useIndex().plan.site.name;
  const left = rows.length - MOST_ROWS;
  return (
    <section aria-label={`Table: ${title}`} className="-mx-4 border-t border-hair py-2">
      <div className="flex flex-wrap items-center gap-2 px-4 pb-1">
        <h3 className="text-13 font-semibold">{title}</h3>
        <span className="flex-1 text-ink2">
          {counted(rows.length, "row differs", "rows differ")},{" "}
          {alike === 0 ? "none is alike" : counted(alike, "is alike", "are alike")}
          {left > 0 ? `; the first ${MOST_ROWS} are here, all of them in the file` : ""}.
        </span>
        <button
          type="button"
          className="button"
          aria-label={`Save CSV: ${title}`}
          onClick={() => download(fileName(site, `changed-${file}`), CSV_TYPE, csv(tableApartTable(table)))}
        >
          Save CSV
        </button>
      </div>
      {/* A wide table is scrolled by keys, too. */}
      <div className="overflow-x-auto" role="group" aria-label={`Rows of ${title}`} tabIndex={0}>
        <table className="table still">
          <thead>
            <tr>
              <th scope="col">Became</th>
              {heads.map((head, at) => (
                <th key={`${at} ${head}`} scope="col">
                  {head}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {rows.slice(0, MOST_ROWS).map((row, at) => (
              <Row key={at} row={row} />
            ))}
          </tbody>
        </table>
      </div>
    </section>
  );
}

const BECAME = { new: "+ new", changed: "changed", gone: "− gone" } as const;

function Row({ row: { what, cells } }: { row: RowApart }) {
  return (
    <tr className={what === "changed" ? "" : "font-medium"}>
      <td className="text-ink2">{BECAME[what]}</td>
      {cells.map((cell, at) => (
        <td key={at} className="py-1">
          <Cell cell={cell} />
        </td>
      ))}
    </tr>
  );
}

/** Both values where they differ, the earlier one crossed out; so is all of a row that is gone. */
function Cell({ cell: { before, after } }: { cell: CellApart }) {
  if (after === null) return <del className="text-ink2">{before}</del>;
  if (before === null) return <ins className="no-underline">{after}</ins>;
  if (before === after) return <span className="text-ink2">{after}</span>;
  return (
    <>
      {before === "" ? null : <del className="block text-ink2">{before}</del>}
      <ins className="block font-semibold no-underline">{after === "" ? "(empty)" : after}</ins>
    </>
  );
}
