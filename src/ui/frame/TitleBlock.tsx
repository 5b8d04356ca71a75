"use client";

import { clsx } from "clsx";
import { useMemo, type ReactNode } from "react";
import type { Severity } from "@/core/checks";
import { counted } from "@/core/repairs";
import { wallsProven } from "@/core/sheets";
import { reaches } from "@/http/contracts/answers";
import { SeverityCount } from "../kit/signs";
import type { Saving } from "../plan-store/plan-state";
import { mayNotDraw } from "../plan-store/may-not-draw";
import { usePlan } from "../plan-store/use-plan";
import { OthersHere } from "./Others";
import { VIEWS, type ViewKey } from "./views";
import { useJudged } from "@/ui/plan-store/use-plan";

const Cell = ({ head, children, wide = false }: { head?: string; children: ReactNode; wide?: boolean }) => (
  <span
    className={clsx(
      "flex items-center gap-[7px] border-r border-rule px-3 first:pl-4 last:border-r-0",
      "last:pr-4",
      wide ? "flex-1" : "",
    )}
  >
    {head === undefined ? null : <small className="text-12 text-ink2">{head}</small>}
    {children}
  </span>
);

const clock = (ms: number): string =>
  new Intl.DateTimeFormat("en-GB", { hour: "2-digit", minute: "2-digit" }).format(ms);

/**
 * The title block of a drawing: which sheet of which site, at which revision, whether it is sound and saved.
 */
export function TitleBlock({ view, fallbackName }: { view: ViewKey; fallbackName: string }) {
  const name = usePlan((state) => state.held?.index.plan.site.name) ?? fallbackName;
  const revision = usePlan((state) => state.held?.revision);
  const person = usePlan((state) => state.person);
  const role = usePlan((state) => state.role);
  const list = usePlan((state) => state.list);
  const isEmpty = usePlan(
    (state) =>
      (state.held?.index.plan.segment.size ?? 0) === 0 && (state.held?.index.plan.device.size ?? 0) === 0,
  );
  const shown = VIEWS.find((v) => v.key === view);
  const count = (severity: Severity) => list.filter((finding) => finding.severity === severity).length;
  const accepted = usePlan((state) => state.accepted.length);
  const isJudged = useJudged();
  const verdict = count("stop") === 0 ? "Sound" : "Not sound";
  const judged = isJudged ? verdict : "Checking …";
  return (
    <footer
      className={clsx(
        "col-span-full flex overflow-hidden border-t border-ink bg-paper text-13",
        "leading-[27px] whitespace-nowrap",
      )}
    >
      <Cell head="Site">
        <b className="font-semibold">{name}</b>
      </Cell>
      <Cell head="Sheet">
        {shown?.number === null ? null : <b className="mono font-semibold">{shown?.number}</b>}
        {shown?.title}
      </Cell>
      <Cell head="Revision">
        <b data-revision={revision} className="mono font-semibold">
          {revision ?? "–"}
        </b>
      </Cell>
      <Cell head={reaches(role, "editor") ? "Drawn" : "Read"}>{person}</Cell>
      {reaches(role, "editor") ? null : (
        <Cell>
          <b className="font-semibold" title={mayNotDraw(role)}>
            {role === "field" ? "Field: ticks, tests, notes" : "Reads only"}
          </b>
        </Cell>
      )}
      <Cell wide>
        <b className="font-semibold">{isEmpty ? "Nothing to judge yet" : judged}</b>
        {(["stop", "warn", "note"] as const).map((severity) =>
          count(severity) === 0 ? null : (
            <SeverityCount key={severity} severity={severity} count={count(severity)} word />
          ),
        )}
        {accepted === 0 ? null : <span className="text-ink2">{accepted} accepted</span>}
      </Cell>
      <OthersHere />
      {view === "walls" ? <ProvenCell /> : null}
      <Cell>
        <SavedState />
      </Cell>
    </footer>
  );
}

/** Above this many segments the proof is too long to be made anew with every edit. */
const MOST_PROVEN = 150;

/** On the walls' sheet: whether they hold, by every list that filters and by every way that leads past them. */
function ProvenCell() {
  const index = usePlan((state) => state.held?.index);
  const verdict = useMemo(
    () => (index === undefined || index.plan.segment.size > MOST_PROVEN ? null : wallsProven(index)),
    [index],
  );
  if (verdict === null) return null;
  const { proven, wrong, past } = verdict;
  const count = Math.max(wrong, past);
  return (
    <Cell>
      <b className={`font-semibold ${proven ? "text-sound" : "text-stop"}`}>
        {proven ? "Walls proven" : `Walls not proven: ${counted(count, "pair", "pairs")}`}
      </b>
    </Cell>
  );
}

/** What the server does not have yet, in a few words, and why. */
function savedText({
  saving,
  savedAt,
  count,
  trouble,
}: {
  saving: Saving;
  savedAt: number | null;
  count: number;
  trouble: string | null;
}): string {
  const changes = `${counted(count, "change", "changes")} waiting`;
  switch (saving) {
    case "stranger":
      return `signed out: ${changes}; sign in again`;
    case "waiting":
      return (
        `${trouble === null || trouble.startsWith("The server does not answer") ? "offline" : "not saved"}: ` +
        `${changes}`
      );
    case "saving":
      return "saving …";
    case "saved":
      if (count > 0) return "saving …";
      if (savedAt === null) return "";
      return `saved ${clock(savedAt)}`;
  }
}

function SavedState() {
  const saving = usePlan((state) => state.saving);
  const savedAt = usePlan((state) => state.savedAt);
  const trouble = usePlan((state) => state.trouble);
  const keeping = usePlan((state) => state.keeping);
  const ask = usePlan((state) => state.ask);
  const stuck = usePlan((state) => state.held?.stuck.length ?? 0);
  const count = usePlan((state) => state.held?.pending.length ?? 0) - stuck;
  const isLate = saving === "waiting" || saving === "stranger";
  return (
    <>
      <span
        role="status"
        title={trouble ?? undefined}
        data-saving={saving === "saved" && count > 0 ? "saving" : saving}
        className={isLate ? "font-semibold text-warn" : ""}
      >
        {savedText({ saving, savedAt, count, trouble })}
        {keeping === "not-kept" && count + stuck > 0 ? "; lost if this tab is closed now" : ""}
      </span>
      {stuck === 0 ? null : (
        <button type="button" className="font-semibold text-stop underline" onClick={() => ask(true)}>
          {counted(stuck, "change waits", "changes wait")} for your choice
        </button>
      )}
    </>
  );
}
