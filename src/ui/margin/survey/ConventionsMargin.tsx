"use client";

import { useIndex } from "../../plan-store/use-plan";
import { ConventionFields } from "../site/ConventionFields";
import { HistorySection } from "../HistorySection";
import { MarginHead, Section } from "../parts";
import { SiteFields } from "../site/SiteFields";

/** The conventions, chosen once for the site. */
export function ConventionsMargin() {
  const { site } = useIndex().plan;
  return (
    <>
      <MarginHead kick="Conventions">{site.name}</MarginHead>
      <Section title="Numbering and names">
        <ConventionFields />
      </Section>
      <SiteFields />
      <HistorySection />
    </>
  );
}
