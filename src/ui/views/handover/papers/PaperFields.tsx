"use client";

import { useId, useState } from "react";
import { editPaper } from "@/core/commands";
import type { PaperField } from "@/core/planners";
import { usePlan, useIndex } from "../../../plan-store/use-plan";

const FIELDS: readonly (readonly [PaperField, string, string, number])[] = [
  ["firm", "Who plans and builds", "Name, address and telephone, line by line", 3],
  ["customer", "Customer, and whom to ask there", "Name and telephone, line by line", 2],
  ["agreed", "What was agreed", "In the customer’s words", 4],
  ["calls", "When something fails", "What to look at, and whom to call; a line for each", 4],
  ["linkBase", "Address for the codes on labels", "https://plans.example.net; empty for labels without", 1],
];

/** What stands on the papers beside the plan; never a password or a key. */
export const PaperFields = () => (
  <section aria-label="What stands on the papers" className="flex flex-col gap-3 p-4 text-13">
    <h2 className="text-15">What stands on the papers</h2>
    {FIELDS.map(([field, label, hint, rows]) => (
      <Field key={field} field={field} label={label} hint={hint} rows={rows} />
    ))}
    <p className="text-ink2">
      Whoever opens this site reads it, and it goes with the plan file. Never write a password or a key here;
      say where one is kept.
    </p>
  </section>
);

/** A text of several lines: leaving it writes, Esc takes it back, a refusal keeps what was typed. */
function Field({
  field,
  label,
  hint,
  rows,
}: {
  field: PaperField;
  label: string;
  hint: string;
  rows: number;
}) {
  const value = useIndex().plan.site.paper[field];
  const edit = usePlan((state) => state.edit);
  const [typed, setTyped] = useState<string | null>(null);
  const [refusal, setRefusal] = useState<string | null>(null);
  const id = useId();
  const finish = () => {
    if (typed === null || typed.trim() === value) return setTyped(null);
    const refused = edit(editPaper({ field, text: typed }));
    setRefusal(refused);
    if (refused === null) setTyped(null);
  };
  return (
    <div>
      <label htmlFor={id} className="text-ink2">
        {label}
      </label>
      <textarea
        id={id}
        rows={rows}
        className={`field mt-1 block w-full ${refusal === null ? "" : "wrong"}`}
        placeholder={hint}
        value={typed ?? value}
        aria-invalid={refusal !== null}
        aria-describedby={refusal === null ? undefined : `${id}-refusal`}
        onChange={(event) => {
          setTyped(event.target.value);
          setRefusal(null);
        }}
        onBlur={finish}
        onKeyDown={(event) => {
          if (event.key === "Escape") {
            setTyped(null);
            setRefusal(null);
          }
        }}
      />
      {refusal === null ? null : (
        <p id={`${id}-refusal`} role="alert" className="text-stop">
          {refusal}
        </p>
      )}
    </div>
  );
}
