"use client";

import { takeOverSeen } from "@/core/commands";
import { useMemo, useState } from "react";
import { toast } from "sonner";
import { formatAddress } from "@/core/address";
import { counted } from "@/core/repairs";
import {
  readSeenTable,
  reconcile,
  SEEN_FIELDS,
  SEEN_WORDS,
  seenIn,
  type Reconciled,
  type SeenField,
  type SeenTable,
  type Verdict,
} from "@/core/register";
import { useUi } from "../../frame/use-ui";
import { useIndex, usePlan } from "../../plan-store/use-plan";

const ORDER: readonly Verdict[] = ["clash", "moved", "new", "learnt", "same"];
const WORDS: Readonly<Record<Verdict, string>> = {
  clash: "clash",
  moved: "moved",
  new: "new",
  learnt: "MAC learnt",
  same: "as planned",
};
const LOOK: Readonly<Record<Verdict, string>> = {
  clash: "text-stop font-semibold",
  moved: "text-warn font-semibold",
  new: "font-semibold",
  learnt: "text-sound font-semibold",
  same: "text-ink2",
};
const CAN_TAKE: readonly Verdict[] = ["learnt", "new", "moved"];
const MOST_SHOWN = 300;

/**
 * Lays a lease, ARP or MAC table from a device beside the register: what is new, missing, moved, what
 * clashes.
 */
export function ReconcileTable({ close }: { close: () => void }) {
  const index = useIndex();
  const [table, setTable] = useState<SeenTable | null>(null);
  const result = useMemo(() => (table === null ? null : reconcile(index, seenIn(table))), [index, table]);
  return (
    <section
      aria-label="Compare with a device’s table"
      className="flex min-h-0 flex-1 flex-col border-t border-ink"
    >
      <div className="flex min-h-10 flex-none items-center gap-2 border-b border-hair px-4">
        <h2 className="text-15">Compare with a device’s table</h2>
        <span className="text-13 text-ink2">leases, ARP or MAC addresses, as the device prints them</span>
        <span className="flex-1" />
        {table === null ? null : (
          <button type="button" className="button" onClick={() => setTable(null)}>
            Another table
          </button>
        )}
        <button type="button" className="button" onClick={close}>
          Close
        </button>
      </div>
      {table === null || result === null ? (
        <PasteSeen read={setTable} />
      ) : (
        <>
          <Verdicts rows={inOrder(result.rows)} missing={result.missing.length} />
          <ColumnChoices table={table} change={setTable} />
          <Seen rows={inOrder(result.rows)} missing={result.missing} />
        </>
      )}
    </section>
  );
}

/** What needs somebody first, then by the lines of the table. */
const inOrder = (rows: readonly Reconciled[]): Reconciled[] =>
  [...rows].sort((a, b) => ORDER.indexOf(a.verdict) - ORDER.indexOf(b.verdict) || a.seen.line - b.seen.line);

function PasteSeen({ read }: { read: (table: SeenTable) => void }) {
  return (
    <div className="flex min-h-0 flex-1 flex-col gap-2 p-4">
      <label htmlFor="seen-table" className="text-13 text-ink2">
        Paste the table here; columns may stand apart by blanks, tabs or commas
      </label>
      <textarea
        id="seen-table"
        className="field mono min-h-24 flex-1 resize-none !h-auto p-2"
        spellCheck={false}
        placeholder={"10.24.20.34   02:5a:10:3c:00:22   lab-pc-1\n10.24.20.35   02:5a:10:3c:00:23   lab-pc-2"}
        onPaste={(event) => {
          read(readSeenTable(event.clipboardData.getData("text/plain")));
          event.preventDefault();
        }}
        onChange={(event) => {
          if (event.target.value.includes("\n")) read(readSeenTable(event.target.value));
        }}
      />
    </div>
  );
}

/** How many there are of each verdict, and which of them are taken over. */
function Verdicts({ rows, missing }: { rows: readonly Reconciled[]; missing: number }) {
  const edit = usePlan((state) => state.edit);
  const [taking, setTaking] = useState<ReadonlySet<Verdict>>(new Set(["learnt"]));
  const chosen = rows.filter((row) => taking.has(row.verdict));
  const write = () => {
    const refused = edit(takeOverSeen({ rows: chosen }));
    if (refused !== null) toast.error(refused);
    else toast(`${counted(chosen.length, "device", "devices")} taken over. Undo takes it back.`);
  };
  const take = (verdict: Verdict, is: boolean) =>
    setTaking(new Set(CAN_TAKE.filter((other) => (other === verdict ? is : taking.has(other)))));
  return (
    <div className="flex flex-none flex-wrap items-center gap-3 px-4 py-2 text-13">
      <span role="status" className="flex flex-wrap gap-3">
        {ORDER.map((verdict) => (
          <span key={verdict} className={LOOK[verdict]}>
            {rows.filter((row) => row.verdict === verdict).length} {WORDS[verdict]}
          </span>
        ))}
        <span className={missing > 0 ? "font-semibold text-warn" : "text-ink2"}>{missing} missing</span>
      </span>
      <span className="flex-1" />
      {CAN_TAKE.map((verdict) => (
        <label key={verdict} className="flex items-center gap-1">
          <input
            type="checkbox"
            checked={taking.has(verdict)}
            onChange={(event) => take(verdict, event.target.checked)}
          />
          {WORDS[verdict]}
        </label>
      ))}
      <button type="button" className="button go" disabled={chosen.length === 0} onClick={write}>
        Take {chosen.length} over
      </button>
    </div>
  );
}

/** What each column holds; a field stands in one column only. */
function ColumnChoices({ table, change }: { table: SeenTable; change: (table: SeenTable) => void }) {
  const choose = (column: number, text: string) =>
    change({
      ...table,
      fields: table.fields.map((field, i) => {
        if (i === column) return (text || null) as SeenField | null;
        return field === text ? null : field;
      }),
    });
  return (
    <p className="flex flex-wrap items-center gap-2 px-4 pb-2 text-12 text-ink2">
      Columns:{" "}
      {table.fields.map((field, column) => (
        <select
          key={column}
          aria-label={`Column ${column + 1} holds`}
          className="field !h-6"
          value={field ?? ""}
          onChange={(event) => choose(column, event.target.value)}
        >
          <option value="">left out</option>
          {SEEN_FIELDS.map((known) => (
            <option key={known} value={known}>
              {SEEN_WORDS[known]}
            </option>
          ))}
        </select>
      ))}
    </p>
  );
}

function Seen({ rows, missing }: { rows: readonly Reconciled[]; missing: readonly string[] }) {
  return (
    <div className="min-h-0 flex-1 overflow-auto" tabIndex={-1}>
      <table className="table close still" aria-label="What was seen">
        <thead>
          <tr>
            <th scope="col">Line</th>
            <th scope="col">Verdict</th>
            <th scope="col">Address</th>
            <th scope="col">MAC</th>
            <th scope="col">Name</th>
            <th scope="col">Why</th>
          </tr>
        </thead>
        <tbody>
          {rows.slice(0, MOST_SHOWN).map((row) => (
            <SeenRow key={row.seen.line} row={row} />
          ))}
          {missing.slice(0, MOST_SHOWN).map((id) => (
            <MissingRow key={id} id={id} />
          ))}
        </tbody>
      </table>
    </div>
  );
}

function MissingRow({ id }: { id: string }) {
  const host = useIndex().plan.host.get(id);
  const select = useUi((state) => state.select);
  return host === undefined ? null : (
    <tr>
      <td />
      <td className="font-semibold text-warn">missing</td>
      <td className="mono">{host.ipv4 === null ? "" : formatAddress(host.ipv4)}</td>
      <td className="mono">{host.mac}</td>
      <td>
        <button
          type="button"
          className="underline decoration-rule underline-offset-2"
          onClick={() => select({ what: "host", id })}
        >
          {host.name}
        </button>
      </td>
      <td className="text-ink2">in the register, and not in the table</td>
    </tr>
  );
}

const SeenRow = ({ row: { seen, verdict, sentence } }: { row: Reconciled }) => (
  <tr>
    <td className="mono">{seen.line}</td>
    <td className={LOOK[verdict]}>{WORDS[verdict]}</td>
    <td className="mono">{seen.address === null ? "" : formatAddress(seen.address)}</td>
    <td className="mono">{seen.mac ?? ""}</td>
    <td>{seen.name ?? ""}</td>
    <td className="!whitespace-normal">{sentence}</td>
  </tr>
);
