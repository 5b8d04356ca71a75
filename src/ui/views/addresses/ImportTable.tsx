"use client";

import { importHosts } from "@/core/commands";
import Papa from "papaparse";
import { useMemo, useState } from "react";
import { toast } from "sonner";
import { counted } from "@/core/repairs";
import type { Segment } from "@/core/plan";
import {
  badRowsTable,
  FIELD_WORDS,
  guessColumns,
  IMPORT_FIELDS,
  readHostTable,
  type ImportField,
  type Mapping,
} from "@/core/register";
import { csv, CSV_TYPE, download, fileName } from "../../kit/download";
import { useUi } from "../../frame/use-ui";
import { useIndex, usePlan } from "../../plan-store/use-plan";

const MOST_BYTES = 16_000_000;
const MOST_ROWS = 50_000;
const MOST_SHOWN = 100;

/**
 * Takes a table of devices in: columns are guessed and can be set right, every row is read before anything is
 * written.
 */
export function ImportTable({ segment, close }: { segment: Segment | null; close: () => void }) {
  const index = useIndex();
  const edit = usePlan((state) => state.edit);
  const select = useUi((state) => state.select);
  const [rows, setRows] = useState<readonly (readonly string[])[]>([]);
  const [mapping, setMapping] = useState<Mapping | null>(null);
  const [refusal, setRefusal] = useState<string | null>(null);
  const read = useMemo(
    () => (mapping === null ? null : readHostTable(index, rows, mapping, segment)),
    [index, rows, mapping, segment],
  );
  const take = (text: string) => {
    const parsed = Papa.parse<string[]>(text.replace(/^\ufeff/, ""), { skipEmptyLines: "greedy" });
    const table = parsed.data.slice(0, MOST_ROWS + 1);
    if (parsed.data.length === 0)
      return setRefusal("There is no row in it; copy the rows with their heads, or choose a CSV file.");
    if (table.length > MOST_ROWS)
      return setRefusal(`It has more than ${MOST_ROWS} rows; take it in in parts.`);
    setRefusal(null);
    setRows(table);
    setMapping(guessColumns(table));
  };
  const open = async (file: File | undefined) => {
    if (file === undefined) return;
    if (file.size > MOST_BYTES)
      return setRefusal(
        `${file.name} has ${Math.ceil(file.size / 1_000_000)} ` +
          `MB; a table has at most ${MOST_BYTES / 1_000_000} MB.`,
      );
    take(await file.text());
  };
  const write = () => {
    if (read === null) return;
    const refused = edit(importHosts({ table: read }));
    if (refused !== null) return toast.error(refused);
    toast(
      `${read.added} new, ${read.changed} ` +
        `changed${read.bad.length > 0 ? `, ${read.bad.length} skipped` : ""}. Undo takes it back.`,
    );
    // The rows may have gone to any segment: all of the register is shown, so that they are seen.
    select(null);
    close();
  };
  return (
    <section aria-label="Import" className="flex min-h-0 flex-1 flex-col border-t border-ink">
      <div className="flex min-h-10 flex-none flex-wrap items-center gap-2 border-b border-hair px-4">
        <h2 className="text-15">Import</h2>
        <span className="text-13 text-ink2">
          {segment === null ? "the whole site" : `rows without a segment go to ${segment.name}`}
        </span>
        <span className="flex-1" />
        {mapping !== null ? (
          <>
            <label className="mr-2 flex items-center gap-1 text-13">
              <input
                type="checkbox"
                checked={mapping.hasHeads}
                onChange={(event) => setMapping({ ...mapping, hasHeads: event.target.checked })}
              />
              first row is heads
            </label>
            <button
              type="button"
              className="button"
              onClick={() => {
                setMapping(null);
                setRows([]);
              }}
            >
              Another table
            </button>
          </>
        ) : (
          <input
            type="file"
            aria-label="CSV file"
            accept=".csv,.txt,text/csv,text/plain"
            className="field h-8 w-60 py-1"
            onChange={(event) => {
              void open(event.target.files?.[0]);
              event.target.value = "";
            }}
          />
        )}
        <button type="button" className="button" onClick={close}>
          Close
        </button>
      </div>
      {refusal === null ? null : (
        <p role="alert" className="mx-4 mt-2 border border-stop bg-stop-wash p-2 text-13 text-stop">
          {refusal}
        </p>
      )}
      {mapping === null || read === null ? (
        <div className="flex min-h-0 flex-1 flex-col gap-2 p-4">
          <label className="text-13 text-ink2" htmlFor="pasted-table">
            or paste the rows here, from a spreadsheet or a CSV file; nothing is written before you say so
          </label>
          <textarea
            id="pasted-table"
            className="field mono min-h-24 flex-1 resize-none !h-auto p-2"
            spellCheck={false}
            onPaste={(event) => {
              take(event.clipboardData.getData("text/plain"));
              event.preventDefault();
            }}
            onChange={(event) => {
              if (event.target.value.includes("\n")) take(event.target.value);
            }}
            placeholder={"Name,MAC,Address,Segment\nlab-pc-1,02:5a:10:3c:00:22,.34,Staff"}
          />
        </div>
      ) : (
        <>
          <div className="flex flex-none flex-wrap items-center gap-3 px-4 py-2 text-13" role="status">
            <b className="font-semibold text-sound">{read.added} new</b>
            <b className="font-semibold">{read.changed} changed</b>
            <span className="text-ink2">{read.same} as they are</span>
            <b className={`font-semibold ${read.bad.length > 0 ? "text-stop" : "text-ink2"}`}>
              {counted(read.bad.length, "bad row", "bad rows")}
            </b>
            <span className="flex-1" />
            {read.bad.length === 0 ? null : (
              <button
                type="button"
                className="button"
                onClick={() =>
                  download(
                    fileName(index.plan.site.name, "rows-skipped.csv"),
                    CSV_TYPE,
                    csv(badRowsTable(mapping, read)),
                  )
                }
              >
                Save the bad rows
              </button>
            )}
            <button type="button" className="button go" disabled={read.good.length === 0} onClick={write}>
              {read.bad.length === 0
                ? `Import ${counted(read.good.length, "row", "rows")}`
                : `Skip ${read.bad.length}, import ${read.good.length}`}
            </button>
          </div>
          <div className="min-h-0 flex-1 overflow-auto" tabIndex={-1}>
            <table className="table close still" aria-label="Rows read">
              <thead>
                <tr>
                  <th scope="col">Row</th>
                  <th scope="col" className="min-w-56">
                    Read as
                  </th>
                  {mapping.fields.map((field, column) => (
                    <th key={column} scope="col">
                      <select
                        aria-label={`Column ${column + 1} holds`}
                        className="field !h-6 w-24 !px-1"
                        value={field ?? ""}
                        onChange={(event) =>
                          setMapping({
                            ...mapping,
                            fields: mapping.fields.map((one, i) => {
                              if (i === column) return (event.target.value || null) as ImportField | null;
                              if (one === event.target.value) return null;
                              return one;
                            }),
                          })
                        }
                      >
                        <option value="">left out</option>
                        {IMPORT_FIELDS.map((one) => (
                          <option key={one} value={one}>
                            {FIELD_WORDS[one]}
                          </option>
                        ))}
                      </select>
                    </th>
                  ))}
                </tr>
              </thead>
              <tbody>
                {read.bad.slice(0, MOST_SHOWN).map((one) => (
                  <tr key={`bad ${one.row}`} className="text-stop">
                    <td className="mono">{one.row}</td>
                    <td className="!whitespace-normal py-1">{one.problems.join(" ")}</td>
                    {mapping.fields.map((_, i) => (
                      <td key={i} className="mono">
                        {one.cells[i] ?? ""}
                      </td>
                    ))}
                  </tr>
                ))}
                {read.good.slice(0, MOST_SHOWN).map((one) => {
                  const cells = rows[one.row - 1] ?? [];
                  return (
                    <tr key={`good ${one.row}`}>
                      <td className="mono">{one.row}</td>
                      <td className="text-ink2">
                        {one.known === null
                          ? "new"
                          : "changes " +
                            `${one.changed.map((field) => FIELD_WORDS[field].toLowerCase()).join(", ")}`}
                      </td>
                      {mapping.fields.map((_, i) => (
                        <td key={i} className="mono">
                          {cells[i] ?? ""}
                        </td>
                      ))}
                    </tr>
                  );
                })}
                {read.good.length + read.bad.length > 2 * MOST_SHOWN ? (
                  <tr>
                    <td colSpan={mapping.fields.length + 2} className="text-ink2">
                      {read.good.length + read.bad.length} rows in all; the first of each kind are shown
                    </td>
                  </tr>
                ) : null}
              </tbody>
            </table>
          </div>
        </>
      )}
    </section>
  );
}
