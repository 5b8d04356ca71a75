"use client";

import { useUi } from "../../frame/use-ui";
import { useIndex } from "../../plan-store/use-plan";
import { HistorySection } from "../HistorySection";
import { Caution, MarginHead, Section } from "../parts";
import { KeptClear, SiteFields } from "../site/SiteFields";
import { NextStepSection } from "../SheetMargin";
import { DraftSummary } from "./DraftSummary";

/**
 * The survey with nothing chosen in it: the site, what a draft would create, the way to the kinds of device.
 */
export function SurveyMargin() {
  const { site, hostKind } = useIndex().plan;
  const select = useUi((state) => state.select);
  return (
    <>
      <MarginHead kick="The site">{site.name}</MarginHead>
      <Caution head="Your work, your rules.">
        Work only on networks you are authorised to work on. Fixed wiring and mains belong to licensed people
        under the local code.
      </Caution>
      <DraftSummary />
      <SiteFields />
      <KeptClear />
      <Section title="Kinds of device">
        <p className="flex items-center gap-2 px-4 text-13">
          <span className="text-ink2">
            {hostKind.size === 0 ? "the catalogue’s" : `the catalogue’s and ${hostKind.size} of your own`}
          </span>
          <button type="button" className="button ml-auto" onClick={() => select({ what: "kinds" })}>
            Show and add
          </button>
        </p>
      </Section>
      <NextStepSection view="survey" />
      <HistorySection />
    </>
  );
}
