"use client";

import { useMemo, useState } from "react";
import { toast } from "sonner";
import { importHosts } from "@/core/commands";
import type { Segment } from "@/core/plan";
import { badRowsTable, guessColumns, readHostTable, type Mapping, type ReadTable } from "@/core/register";
import { counted } from "@/core/repairs";
import { csv, CSV_TYPE, download, fileName } from "../../kit/download";
import { useUi } from "../../frame/use-ui";
import { useIndex, usePlan } from "../../plan-store/use-plan";
import { RowsRead } from "./RowsRead";
import { rowsIn, tooLarge } from "../../kit/table-text";

/** A table that was taken up: its rows, and what each column holds. */
interface Table {
  readonly rows: readonly (readonly string[])[];
  readonly mapping: Mapping;
}

/**
 * Imports a table of devices: columns are guessed and can be set right, every row is read before anything is
 * written.
 */
export function ImportTable({ segment, close }: { segment: Segment | null; close: () => void }) {
  const index = useIndex();
  const edit = usePlan((state) => state.edit);
  const select = useUi((state) => state.select);
  const [table, setTable] = useState<Table | null>(null);
  const [refusal, setRefusal] = useState<string | null>(null);
  const read = useMemo(
    () => (table === null ? null : readHostTable(index, table.rows, table.mapping, segment)),
    [index, table, segment],
  );
  const take = (text: string) => {
    const found = rowsIn(text);
    if ("refusal" in found) return setRefusal(found.refusal);
    setRefusal(null);
    setTable({ rows: found.rows, mapping: guessColumns(found.rows) });
  };
  const write = () => {
    if (read === null) return;
    const refused = edit(importHosts({ table: read }));
    if (refused !== null) return toast.error(refused);
    const skipped = read.bad.length > 0 ? `, ${read.bad.length} skipped` : "";
    toast(`${read.added} new, ${read.changed} changed${skipped}. Undo takes it back.`);
    // The rows may have gone to any segment: all of the register is shown, so that they are seen.
    select(null);
    close();
  };
  const setMapping = (mapping: Mapping) => {
    if (table !== null) setTable({ ...table, mapping });
  };
  return (
    <section aria-label="Import" className="flex min-h-0 flex-1 flex-col border-t border-ink">
      <div className="flex min-h-10 flex-none flex-wrap items-center gap-2 border-b border-hair px-4">
        <h2 className="text-15">Import</h2>
        <span className="text-13 text-ink2">
          {segment === null ? "the whole site" : `rows without a segment go to ${segment.name}`}
        </span>
        <span className="flex-1" />
        {table === null ? (
          <FileChoice take={take} refuse={setRefusal} />
        ) : (
          <HeadsAndAnother mapping={table.mapping} setMapping={setMapping} another={() => setTable(null)} />
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
      {table === null || read === null ? (
        <PasteBox take={take} />
      ) : (
        <>
          <Tally read={read} mapping={table.mapping} write={write} site={index.plan.site.name} />
          <RowsRead rows={table.rows} mapping={table.mapping} read={read} setMapping={setMapping} />
        </>
      )}
    </section>
  );
}

function FileChoice({ take, refuse }: { take: (text: string) => void; refuse: (why: string) => void }) {
  const open = async (file: File | undefined) => {
    if (file === undefined) return;
    const why = tooLarge(file);
    if (why !== null) return refuse(why);
    take(await file.text());
  };
  return (
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
  );
}

function HeadsAndAnother({
  mapping,
  setMapping,
  another,
}: {
  mapping: Mapping;
  setMapping: (mapping: Mapping) => void;
  another: () => void;
}) {
  return (
    <>
      <label className="mr-2 flex items-center gap-1 text-13">
        <input
          type="checkbox"
          checked={mapping.hasHeads}
          onChange={(event) => setMapping({ ...mapping, hasHeads: event.target.checked })}
        />
        first row is heads
      </label>
      <button type="button" className="button" onClick={another}>
        Another table
      </button>
    </>
  );
}

function PasteBox({ take }: { take: (text: string) => void }) {
  return (
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
  );
}

/** How the rows are read, and the button that writes them. */
function Tally({
  read,
  mapping,
  write,
  site,
}: {
  read: ReadTable;
  mapping: Mapping;
  write: () => void;
  site: string;
}) {
  const { good, bad } = read;
  const save = () => download(fileName(site, "rows-skipped.csv"), CSV_TYPE, csv(badRowsTable(mapping, read)));
  return (
    <div className="flex flex-none flex-wrap items-center gap-3 px-4 py-2 text-13" role="status">
      <b className="font-semibold text-sound">{read.added} new</b>
      <b className="font-semibold">{read.changed} changed</b>
      <span className="text-ink2">{read.same} as they are</span>
      <b className={`font-semibold ${bad.length > 0 ? "text-stop" : "text-ink2"}`}>
        {counted(bad.length, "bad row", "bad rows")}
      </b>
      <span className="flex-1" />
      {bad.length === 0 ? null : (
        <button type="button" className="button" onClick={save}>
          Save the bad rows
        </button>
      )}
      <button type="button" className="button go" disabled={good.length === 0} onClick={write}>
        {bad.length === 0
          ? `Import ${counted(good.length, "row", "rows")}`
          : `Skip ${bad.length}, import ${good.length}`}
      </button>
    </div>
  );
}
