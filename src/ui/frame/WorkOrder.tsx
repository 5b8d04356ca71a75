"use client";

import { clsx } from "clsx";
import { ChevronDown } from "lucide-react";
import type { Finding, Severity } from "@/core/checks";
import type { Plan } from "@/core/plan";
import { progressOf } from "@/core/sheets";
import { ProgressSign, SeverityCount, type Progress } from "../kit/signs";
import { usePlan } from "../plan-store/use-plan";
import { OthersThere } from "./Others";
import { useUi } from "./use-ui";
import { ViewLink } from "./ViewLink";
import { VIEWS, type View, type ViewKey } from "./views";

const SEVERITIES: readonly Severity[] = ["stop", "warn", "note"];
const GROUPS = ["Plan", "Protect", "Prove", "Build"] as const;

/** How far a view's part of the plan has come when nothing is found wrong in it. */
function progressOfView(view: View & { key: ViewKey }, plan: Plan, probed: boolean): Progress | null {
  if (view.family !== null) return progressOf(plan, view.family);
  if (view.key === "findings") return progressOf(plan, "segments");
  if (view.key === "probe") {
    if (probed) return "begun";
    return "empty";
  }
  return null;
}

/** The views in the order of the job, each with what is open in it. */
export function WorkOrder({ view }: { view: ViewKey }) {
  const plan = usePlan((state) => state.held?.index.plan);
  const list = usePlan((state) => state.list);
  const probed = useUi((state) => state.probed);
  const isUnfolded = useUi((state) => state.unfoldedOver === view);
  const set = useUi((state) => state.set);
  const here = VIEWS.find(({ key }) => key === view);
  const entry = (listed: View & { key: ViewKey }) => (
    <Entry
      key={listed.key}
      view={listed}
      here={listed.key === view}
      list={list}
      plan={plan}
      probed={probed}
    />
  );
  return (
    <nav
      aria-label="Work order"
      className={clsx(
        "relative flex flex-col overflow-y-auto border-r border-hair py-2",
        "max-[1000px]:flex-row max-[1000px]:flex-wrap max-[600px]:py-0",
      )}
    >
      <button
        type="button"
        className={clsx(
          "hidden min-h-11 w-full items-center gap-2 border-b border-hair px-4 font-semibold",
          "max-[600px]:flex",
        )}
        aria-expanded={isUnfolded}
        onClick={() => set({ unfoldedOver: isUnfolded ? null : view })}
      >
        <span className="mono text-12 text-ink2">{here?.number ?? ""}</span>
        {here?.title}
        <span className="ml-auto text-13 font-normal text-ink2">{isUnfolded ? "Fold" : "All views"}</span>
        <ChevronDown size={15} className={isUnfolded ? "rotate-180" : ""} />
      </button>
      <div className={isUnfolded ? "contents" : "contents max-[600px]:hidden"}>
        {GROUPS.map((group) => (
          <div key={group}>
            <h2 className="mt-1 h-7 px-4 text-12 leading-8 text-ink2 first:mt-0">{group}</h2>
            <ul>{VIEWS.filter((view) => view.group === group).map(entry)}</ul>
          </div>
        ))}
        <ul className="mt-auto border-t border-hair pt-1">
          {VIEWS.filter((view) => view.group === null).map(entry)}
        </ul>
      </div>
    </nav>
  );
}

interface EntryProps {
  readonly view: View & { key: ViewKey };
  readonly here: boolean;
  readonly list: readonly Finding[];
  readonly plan: Plan | undefined;
  readonly probed: boolean;
}

function Entry({ view, here, list, plan, probed }: EntryProps) {
  const own =
    view.key === "findings"
      ? list
      : list.filter((finding) => view.family !== null && finding.family === view.family);
  const counts = SEVERITIES.map((severity) => ({
    severity,
    count: own.filter((f) => f.severity === severity).length,
  })).filter(({ count }) => count > 0);
  const progress = plan === undefined ? null : progressOfView(view, plan, probed);
  return (
    <li>
      <ViewLink
        view={view.key}
        current={here}
        className={clsx(
          "flex h-7 items-center gap-[6px] pr-2 pl-4 hover:bg-hover max-[600px]:h-11",
          here && "bg-panel font-semibold",
          here && "shadow-[inset_3px_0_0_var(--act),inset_0_1px_0_var(--hair),inset_0_-1px_0_var(--hair)]",
        )}
      >
        <span className="mono w-4 text-12 text-ink2">{view.number ?? ""}</span>
        <span className="min-w-0 truncate">{view.title}</span>
        <span className="ml-auto flex flex-none items-center gap-1">
          <OthersThere view={view.key} />
          {counts.map(({ severity, count }) => (
            <SeverityCount key={severity} severity={severity} count={count} />
          ))}
          {counts.length > 0 || progress === null ? null : <ProgressSign progress={progress} />}
        </span>
      </ViewLink>
    </li>
  );
}
