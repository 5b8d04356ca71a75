"use client";

import { sentenceOf, type Finding } from "@/core/checks";
import type { ReactNode } from "react";
import { useGoTo } from "../../frame/go-to";
import { useUi } from "../../frame/use-ui";
import { VIEWS } from "../../frame/views";
import { useFoundIn } from "../../plan-store/use-plan";

/** The title of a finding's own sheet. */
export const titleOf = (key: string): string => VIEWS.find((view) => view.key === key)?.title ?? key;

/** One finding of the list; choosing it shows it in the margin. */
export function FindingRow({ finding, children }: { finding: Finding; children?: ReactNode }) {
  const index = useFoundIn();
  const selection = useUi((state) => state.selection);
  const select = useUi((state) => state.select);
  const goTo = useGoTo();
  const chosen = selection?.what === "finding" && selection.key === finding.key;
  return (
    <li
      className={`flex items-start gap-3 border-b border-hair px-4 ${
        chosen ? "bg-act-wash shadow-[inset_3px_0_0_var(--act)]" : "hover:bg-hover"
      }`}
    >
      <button
        type="button"
        aria-pressed={chosen}
        className="min-h-9 flex-1 py-2 text-left"
        onClick={() => select({ what: "finding", key: finding.key })}
      >
        {sentenceOf(finding, index)}
        {children}
      </button>
      <button type="button" className="button my-1" onClick={() => goTo.finding(finding)}>
        {titleOf(finding.family)}
      </button>
    </li>
  );
}
