"use client";

import { comparedTable, firstLines } from "@/core/comparison";
import type { IssuedSheet } from "@/core/records";
import { counted } from "@/core/repairs";
import type { Compared } from "@/workers/plan.worker";
import { useState } from "react";
import { useGoTo } from "../../frame/go-to";
import { showView } from "../../frame/views";
import { csv, CSV_TYPE, download, fileName } from "../../kit/download";
import { severityColour, SeveritySign } from "../../kit/signs";
import { useIndex } from "../../plan-store/use-plan";
import { startRunbook } from "../runbook/use-runbook";
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
      csv(comparedTable(compared.groups)),
      CSV_TYPE,
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
            .filter((one) => one.issue.id !== issue.id)
            .map((one) => (
              <option key={one.issue.id} value={one.issue.id}>
                {one.letter} {one.issue.sheet.name}
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
      {state.is === "compared" ? (
        <Differences compared={state.compared} />
      ) : (
        <p role="status" className={`px-4 text-13 ${state.is === "refused" ? "text-warn" : "text-ink2"}`}>
          {state.is === "refused" ? state.sentence : "Comparing …"}
        </p>
      )}
    </section>
  );
}

/** As many lines stand in the sheet; all of them are in the file. */
const MOST_LINES = 400;

function Differences({ compared: { groups, findings } }: { compared: Compared }) {
  const goTo = useGoTo();
  const index = useIndex();
  if (groups.length === 0) return <p className="px-4 text-13 text-sound">✓ Nothing has changed.</p>;
  const shown = firstLines(groups, MOST_LINES);
  return (
    <div className="px-4 text-13">
      <Effect findings={findings} />
      {shown.groups.map(({ title, lines }) => (
        <section key={title} aria-label={title} className="border-t border-hair py-2">
          <h3 className="text-13 font-semibold">{title}</h3>
          <ul>
            {lines.map(({ kind, id, name, words, what }) => (
              <li key={`${kind} ${id}`} className="[overflow-wrap:anywhere]">
                {what === "removed" || kind === "site" || !index.plan[kind].has(id) ? (
                  name
                ) : (
                  <button
                    type="button"
                    className="min-h-6 text-left underline decoration-rule underline-offset-2"
                    onClick={() => goTo.entity({ kind, id })}
                  >
                    {name}
                  </button>
                )}{" "}
                <span className="text-ink2">{words}</span>
              </li>
            ))}
          </ul>
        </section>
      ))}
      {shown.left > 0 ? (
        <p className="border-t border-hair py-2 text-ink2">{shown.left} more are in the file: Save CSV.</p>
      ) : null}
    </div>
  );
}

/** What the later state does to what is found wrong. */
function Effect({ findings: { appeared, gone } }: Pick<Compared, "findings">) {
  return (
    <section aria-label="Findings" className="pb-2">
      <p>
        {appeared.length === 0
          ? "Nothing is found wrong that was not before"
          : counted(appeared.length, "finding was not there before", "findings were not there before")}
        {gone === 0 ? "" : `; ${gone} of before ${gone === 1 ? "is" : "are"} gone`}.
      </p>
      <ul>
        {appeared.slice(0, MOST_FINDINGS).map(({ severity, sentence }) => (
          <li key={sentence} className="flex items-baseline gap-2">
            <span className={severityColour(severity)}>
              <SeveritySign severity={severity} />
              <span className="sr-only">{severity}</span>
            </span>
            {sentence}
          </li>
        ))}
      </ul>
    </section>
  );
}
const MOST_FINDINGS = 12;
