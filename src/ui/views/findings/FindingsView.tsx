"use client";

import { clsx } from "clsx";
import { useState } from "react";
import type { Severity } from "@/core/checks";
import { counted } from "@/core/repairs";
import { SeveritySign, severityColour } from "../../kit/signs";
import { useIndex, usePlan } from "../../plan-store/use-plan";
import { useJudged } from "@/ui/plan-store/use-plan";
import { AcceptedSections } from "./AcceptedSections";
import { FindingRow, titleOf } from "./FindingRow";

const SEVERITIES: readonly [Severity, string][] = [
  ["stop", "Stops: this will not work"],
  ["warn", "Warnings: this will bite some day"],
  ["note", "Notes"],
];
const MOST_SHOWN = 300;

const noneWords = (isJudged: boolean) => (isJudged ? "nothing found" : "checking …");

/**
 * Everything that the checks have found, worst first; choosing one shows why it matters and its repairs in
 * the margin.
 */
export function FindingsView() {
  const index = useIndex();
  const list = usePlan((state) => state.list);
  const accepted = usePlan((state) => state.accepted);
  const isJudged = useJudged();
  const isEmpty = index.plan.segment.size + index.plan.device.size === 0;
  const [family, setFamily] = useState("");
  const shown = list.filter((finding) => family === "" || finding.family === family);
  return (
    <main className="sheet">
      <div className="head">
        <h1>Findings</h1>
        <p>
          {list.length === 0
            ? noneWords(isJudged)
            : `${counted(list.length, "finding", "findings")}, each with its reason and its repair`}
          {accepted.length === 0 ? "" : `; ${accepted.length} accepted`}
        </p>
        <span className="push" />
        <label className="text-13">
          Sheet{" "}
          <select className="field" value={family} onChange={(event) => setFamily(event.target.value)}>
            <option value="">all</option>
            {[...new Set([...list, ...accepted.map(({ finding }) => finding)].map((f) => f.family))].map(
              (key) => (
                <option key={key} value={key}>
                  {titleOf(key)}
                </option>
              ),
            )}
          </select>
        </label>
      </div>
      <div className="min-h-0 flex-1 overflow-auto pb-6" tabIndex={-1}>
        {isEmpty ? (
          <p className="p-4 text-15">
            The plan is still empty, so there is nothing to check. Begin with the segments.
          </p>
        ) : null}
        {!isEmpty && shown.length === 0 ? (
          <p role="status" className={`p-4 text-15 ${isJudged ? "text-sound" : "text-ink2"}`}>
            {isJudged ? "✓ The checks find nothing wrong here." : "Checking …"}
          </p>
        ) : null}
        {SEVERITIES.map(([severity, title]) => {
          const own = shown.filter((finding) => finding.severity === severity);
          return own.length === 0 ? null : (
            <section key={severity} aria-label={title}>
              <h2
                className={clsx(
                  "flex h-9 items-center gap-2 border-b border-rule px-4 text-13",
                  severityColour(severity),
                )}
              >
                <SeveritySign severity={severity} />
                {title} <span className="mono">{own.length}</span>
              </h2>
              <ul>
                {own.slice(0, MOST_SHOWN).map((finding) => (
                  <FindingRow key={finding.key} finding={finding} />
                ))}
              </ul>
              {own.length > MOST_SHOWN ? (
                <p className="px-4 py-2 text-13 text-ink2">
                  and {own.length - MOST_SHOWN} more; repair some of these first.
                </p>
              ) : null}
            </section>
          );
        })}
        <AcceptedSections family={family} />
      </div>
    </main>
  );
}
