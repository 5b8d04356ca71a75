"use client";

import { clsx } from "clsx";
import { useState } from "react";
import type { PlanIndex } from "@/core/plan";
import type { Recorded } from "@/core/records";
import { planOfFile } from "../../plan-store/plan-of-file";
import { EarlierRevision } from "./EarlierRevision";
import { startRunbook, type Found } from "./use-runbook";

/** What is on the devices now: they come out of the box, are as the record has them, or as a plan file says. */
export function FoundChoice({
  index,
  found,
  record,
}: {
  index: PlanIndex;
  found: Found;
  record: readonly Recorded[];
}) {
  const [refusal, setRefusal] = useState<string | null>(null);
  const read = async (file: File | undefined) => {
    if (file === undefined) return;
    setRefusal(null);
    const plan = await planOfFile(index, file);
    if (typeof plan === "string") return setRefusal(plan);
    startRunbook(index, { from: "plan", name: file.name, plan });
  };
  return (
    <div
      className={clsx(
        "flex flex-wrap items-center gap-x-4 gap-y-1 border-b border-hair px-4 py-2 text-13",
        "print:hidden",
      )}
    >
      <span className="text-ink2">On the devices now:</span>
      <label className="flex min-h-6 items-center gap-2">
        <input
          type="radio"
          name="found"
          checked={found.from === "box"}
          onChange={() => startRunbook(index, { from: "box" })}
        />
        nothing, they come out of the box
      </label>
      {record.length === 0 ? null : (
        <label className="flex min-h-6 items-center gap-2">
          <input
            type="radio"
            name="found"
            checked={found.from === "record"}
            onChange={() => startRunbook(index, { from: "record", record })}
          />
          what the record says
        </label>
      )}
      {found.from === "plan" ? (
        <label className="flex min-h-6 items-center gap-2">
          <input type="radio" name="found" checked readOnly />
          what {found.name} says
        </label>
      ) : null}
      <label className="flex min-h-6 items-center gap-2">
        <span>or what a plan file says:</span>
        <input
          type="file"
          accept=".json,application/json"
          aria-label="Plan file of what is on the devices"
          onChange={(event) => {
            void read(event.target.files?.[0]);
            event.target.value = "";
          }}
        />
      </label>
      <EarlierRevision index={index} refuse={setRefusal} />
      {refusal === null ? null : (
        <p role="alert" className="w-full text-stop">
          {refusal}
        </p>
      )}
    </div>
  );
}
