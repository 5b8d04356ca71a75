"use client";

import type { ReactNode } from "react";
import { counted } from "@/core/repairs";
import { glanceAt, nextStep } from "@/core/sheets";
import { ViewLink } from "../frame/ViewLink";
import { VIEWS, type View, type ViewKey } from "../frame/views";
import { useHasFindings, useIndex, usePlan } from "../plan-store/use-plan";
import { FindingList } from "./findings/FindingsSection";
import { HistorySection } from "./HistorySection";
import { Fact, MarginHead, Section } from "./parts";

function remarks(all: number, stops: number): string {
  if (all === 0) return "Nothing found wrong";
  if (stops > 0) return counted(stops, "thing stops it", "things stop it");
  return `${counted(all, "remark", "remarks")}, no stop`;
}

/**
 * Nothing is selected: what this sheet holds, what is found wrong on it with the ways to mend it, and where
 * to go on; then what can be asked of this sheet alone, which waits for the findings that stand above it.
 */
export function SheetMargin({ view, children }: { view: ViewKey; children?: ReactNode }) {
  const index = useIndex();
  const list = usePlan((state) => state.list);
  const hasFindings = useHasFindings();
  const here: View | undefined = VIEWS.find(({ key }) => key === view);
  const family = here?.family ?? null;
  const facts = family === null ? [] : glanceAt(index, family);
  const own = family === null ? list : list.filter((finding) => finding.family === family);
  const stops = own.filter(({ severity }) => severity === "stop").length;
  return (
    <>
      <MarginHead kick={family === null ? "The whole plan" : `This sheet, ${here?.title ?? ""}`}>
        {hasFindings ? remarks(own.length, stops) : "Checking …"}
      </MarginHead>
      {facts.length === 0 ? null : (
        <dl className="facts">
          {facts.map(({ name, value }) => (
            <Fact key={name} name={name}>
              {value}
            </Fact>
          ))}
        </dl>
      )}
      <FindingList title="Findings" own={own} />
      <NextStepSection view={view} />
      {hasFindings ? children : null}
      <HistorySection />
    </>
  );
}

/** Where the work goes on, from whatever sheet. */
export function NextStepSection({ view }: { view: ViewKey }) {
  const index = useIndex();
  const list = usePlan((state) => state.list);
  const hasFindings = useHasFindings();
  const next = nextStep(index, list);
  const goal = VIEWS.find(({ key }) => key === next.sheet);
  if (goal === undefined || !hasFindings) return null;
  return (
    <Section title="Next step">
      <p className="px-4 pb-2 text-13 text-ink2">{goal.key === view ? `Here: ${next.why}` : next.why}</p>
      {goal.key === view ? null : (
        <p className="px-4">
          <ViewLink view={goal.key} current={false} className="button">
            <span className="mono mr-1">{goal.number}</span>
            {goal.title}
          </ViewLink>
        </p>
      )}
    </Section>
  );
}
