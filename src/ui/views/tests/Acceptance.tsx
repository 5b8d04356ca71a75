"use client";

import { useMemo } from "react";
import type { TestSheet } from "@/core/commissioning";
import type { PlanIndex } from "@/core/plan";
import {
  CRITERION_WORDS,
  criteriaOf,
  criteriaTable,
  proofOf,
  readingsOf,
  type Criterion,
  type CriterionState,
} from "@/core/records";
import { showView } from "../../frame/views";
import { csv, CSV_TYPE, download, fileName } from "../../kit/download";
import { useJudged, usePlan } from "../../plan-store/use-plan";
import { useRecord } from "../../record-store/use-record";

const SIGNS: Readonly<Record<CriterionState, readonly [sign: string, colour: string]>> = {
  met: ["✓", "text-sound"],
  open: ["·", "text-ink2"],
  failed: ["✕", "text-stop"],
};
const AT: Readonly<Record<Criterion["at"], string>> = {
  findings: "Findings",
  runbook: "Runbook",
  sheet: "Sheet",
  wrong: "What is wrong?",
};

const metText = (met: number, all: number): string =>
  met === all ? `All ${all} met: it can be handed over` : `${met} of ${all} met`;

/** What must be right before the site is handed over, and how it stands with each. */
export function Acceptance({
  index,
  sheet,
  onTab,
}: {
  index: PlanIndex;
  sheet: TestSheet;
  onTab: (tab: "sheet" | "wrong") => void;
}) {
  const findings = usePlan((state) => state.list);
  const isJudged = useJudged();
  const { record } = useRecord();
  const criteria = useMemo(
    () =>
      criteriaOf({
        findings,
        proof: proofOf(index, sheet, record),
        record,
        readings: readingsOf(index, sheet, record),
      }),
    [index, sheet, record, findings],
  );
  const met = criteria.filter(({ state }) => state === "met").length;
  const goTo = (at: Criterion["at"]) =>
    at === "findings" || at === "runbook" ? showView(index.plan.site.id, at) : onTab(at);
  return (
    <div className="min-h-0 flex-1 overflow-auto print:overflow-visible">
      <div className="flex flex-wrap items-center gap-3 border-b border-hair px-4 py-2">
        <p role="status" className={`text-15 ${isJudged && met === criteria.length ? "text-sound" : ""}`}>
          {isJudged ? metText(met, criteria.length) : "The plan is being judged …"}
        </p>
        <button
          type="button"
          className="button ml-auto print:hidden"
          onClick={() =>
            download(fileName(index.plan.site.name, "acceptance.csv"), CSV_TYPE, csv(criteriaTable(criteria)))
          }
        >
          Save as CSV
        </button>
      </div>
      <ul aria-label="Before hand-over">
        {criteria.map(({ words, state, says, at }) => (
          <li key={words} className="flex items-start gap-3 border-b border-hair px-4 py-2">
            <b className={`w-5 flex-none text-center ${SIGNS[state][1]}`} aria-hidden>
              {SIGNS[state][0]}
            </b>
            <span className="min-w-0 flex-1">
              <span className="block text-15">{words}</span>
              <span className={`block text-13 ${state === "failed" ? "text-stop" : "text-ink2"}`}>
                {CRITERION_WORDS[state]}: {says}
              </span>
            </span>
            <button
              type="button"
              className="button print:hidden"
              aria-label={`${AT[at]}: ${words}`}
              onClick={() => goTo(at)}
            >
              {AT[at]}
            </button>
          </li>
        ))}
      </ul>
      <p className="max-w-[72ch] px-4 py-3 text-13 text-ink2">
        Fixed wiring, mains and radio are accepted by those who are licensed for them under the local codes;
        this list is about the network.
      </p>
    </div>
  );
}
