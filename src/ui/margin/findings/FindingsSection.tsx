"use client";

import { checkOf, repairsOf, sentenceOf, type Finding, type Severity } from "@/core/checks";
import { SeverityCount, SeveritySign, severityColour } from "../../kit/signs";
import { useFoundIn, usePlan } from "../../plan-store/use-plan";
import { RepairChoice } from "./RepairChoice";

const BORDER = { stop: "border-stop", warn: "border-warn", note: "border-note" } as const;
const MOST_SHOWN = 8;

/** One finding: how bad, what is so, why it matters, what can be done. */
export function FindingCard({
  finding,
  recommend = true,
  why = false,
}: {
  finding: Finding;
  recommend?: boolean;
  why?: boolean;
}) {
  const index = useFoundIn();
  const repairs = repairsOf(finding, index);
  return (
    <article
      data-code={finding.code}
      className={`border-l-[3px] pl-[11px] leading-[1.38] ${BORDER[finding.severity]}`}
    >
      <p className={`flex items-center gap-1 text-13 font-semibold ${severityColour(finding.severity)}`}>
        <SeveritySign severity={finding.severity} />
        {finding.severity}
      </p>
      <p className="mb-[7px]">{sentenceOf(finding, index)}</p>
      {why ? <p className="mb-[7px] text-13 text-ink2">{checkOf(finding)?.why}</p> : null}
      <RepairChoice repairs={repairs} recommend={recommend} />
    </article>
  );
}

/** The findings that concern any of these entities. */
export function FindingsSection({ ids, title = "Findings" }: { ids: ReadonlySet<string>; title?: string }) {
  const list = usePlan((state) => state.list);
  return (
    <FindingList
      own={list.filter((finding) => finding.subjects.some((subject) => ids.has(subject.id)))}
      title={title}
    />
  );
}

/** Some findings with their repairs, and how many there are of each severity; nothing where there is none. */
export function FindingList({ own, title }: { own: readonly Finding[]; title: string }) {
  if (own.length === 0) return null;
  const count = (severity: Severity) => own.filter((finding) => finding.severity === severity).length;
  return (
    <section className="section">
      <h3>
        {title}{" "}
        {(["stop", "warn", "note"] as const).map((severity) =>
          count(severity) === 0 ? null : (
            <SeverityCount key={severity} severity={severity} count={count(severity)} />
          ),
        )}
      </h3>
      <div className="flex flex-col gap-[10px] px-4">
        {own.slice(0, MOST_SHOWN).map((finding, i) => (
          <FindingCard key={finding.key} finding={finding} recommend={i === 0} />
        ))}
        {own.length > MOST_SHOWN ? (
          <p className="text-13 text-ink2">{own.length - MOST_SHOWN} more on the sheet Findings.</p>
        ) : null}
      </div>
    </section>
  );
}
