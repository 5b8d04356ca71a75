"use client";

import { checkOf } from "@/core/checks";
import { nameOf } from "@/core/plan";
import { useGoTo } from "../../frame/go-to";
import { useFoundIn, usePlan } from "../../plan-store/use-plan";
import { Accept } from "./Accept";
import { FindingCard } from "./FindingsSection";
import { MarginHead } from "../parts";
import type { ViewKey } from "../../frame/views";
import { SheetMargin } from "../SheetMargin";

export function FindingMargin({ findingKey, view }: { findingKey: string; view: ViewKey }) {
  const finding = usePlan(
    (state) =>
      state.list.find((f) => f.key === findingKey) ??
      state.accepted.find((accepted) => accepted.finding.key === findingKey)?.finding,
  );
  const index = useFoundIn();
  const goTo = useGoTo();
  if (finding === undefined) return <SheetMargin view={view} />;
  return (
    <>
      <MarginHead kick="Selected finding">{checkOf(finding)?.title}</MarginHead>
      <div className="p-4">
        <FindingCard finding={finding} why />
      </div>
      <Accept finding={finding} />
      <section className="section">
        <h3>Concerns</h3>
        <ul className="flex flex-wrap gap-[6px] px-4">
          {finding.subjects.slice(0, 12).map((subject) => (
            <li key={subject.id}>
              <button type="button" className="button wrap" onClick={() => goTo.entity(subject)}>
                {nameOf(index, subject.kind, subject.id)}
              </button>
            </li>
          ))}
        </ul>
      </section>
    </>
  );
}
