"use client";

import { useState } from "react";
import { comparedTable } from "@/core/comparison";
import type { IssuedSheet } from "@/core/records";
import type { Compared } from "@/workers/plan.worker";
import { showView } from "../../frame/views";
import { csv, CSV_TYPE, download, fileName } from "../../kit/download";
import { useIndex } from "../../plan-store/use-plan";
import { startRunbook } from "../runbook/use-runbook";
import { ComparedSheet } from "./Differences";
import { NOW, useCompared } from "./use-compared";

/** What is otherwise in the plan as it is now, or in another sheet, than in this one. */
export function Since({ sheet, sheets }: { sheet: IssuedSheet; sheets: readonly IssuedSheet[] }) {
  const index = useIndex();
  const [other, setOther] = useState(NOW);
  const state = useCompared(sheet, sheets, other);
  const { letter, issue } = sheet;
  const save = (compared: Compared) =>
    download(
      fileName(index.plan.site.name, `since-${letter}.csv`),
      CSV_TYPE,
      csv(comparedTable(compared.groups)),
    );
  return (
    <section aria-label="Changed since">
      <div className="flex flex-wrap items-center gap-2 px-4 pt-3 pb-2">
        <h2 className="text-15">Changed since {letter}</h2>
        <select
          aria-label="Compared with"
          className="field"
          value={other}
          onChange={(event) => setOther(event.target.value)}
        >
          <option value={NOW}>the plan as it is now</option>
          {sheets
            .filter((issuedSheet) => issuedSheet.issue.id !== issue.id)
            .map((issuedSheet) => (
              <option key={issuedSheet.issue.id} value={issuedSheet.issue.id}>
                {issuedSheet.letter} {issuedSheet.issue.sheet.name}
              </option>
            ))}
        </select>
        {state.is === "compared" && state.compared.groups.length > 0 ? (
          <button type="button" className="button" onClick={() => save(state.compared)}>
            Save CSV
          </button>
        ) : null}
        {state.is === "compared" && other === NOW ? (
          <button
            type="button"
            className="button"
            onClick={() => {
              const name = `${letter} ${issue.sheet.name}`;
              startRunbook(index, { from: "plan", name, plan: state.before });
              showView(index.plan.site.id, "runbook");
            }}
          >
            Runbook for the difference
          </button>
        ) : null}
      </div>
      <ComparedSheet state={state} from={other === NOW ? `${letter} ${issue.sheet.name}` : null} />
    </section>
  );
}
