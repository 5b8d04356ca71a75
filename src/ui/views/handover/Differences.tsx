"use client";

import { toast } from "sonner";
import { bringBack } from "@/core/commands";
import { firstLines, type ComparedGroup } from "@/core/comparison";
import { must } from "@/core/kernel";
import type { Kind, Plan } from "@/core/plan";
import { counted } from "@/core/repairs";
import type { Compared } from "@/workers/plan.worker";
import { useGoTo } from "../../frame/go-to";
import { severityColour, SeveritySign } from "../../kit/signs";
import { useIndex, usePlan } from "../../plan-store/use-plan";
import { InTables } from "./InTables";
import { OnDrawing } from "./OnDrawing";
import type { ComparedState } from "./use-compared";

/** What two states come to beside one another; that it is worked out, or why it can't be. */
export function ComparedSheet({ state, from }: { state: ComparedState; from: string | null }) {
  if (state.is === "compared")
    return (
      <>
        <OnDrawing before={state.before} after={state.after} groups={state.compared.groups} />
        {state.compared.groups.length === 0 ? null : <InTables before={state.before} after={state.after} />}
        <Differences
          compared={state.compared}
          back={from === null ? null : { from, earlier: state.before }}
        />
      </>
    );
  return (
    <p role="status" className={`px-4 py-2 text-13 ${state.is === "refused" ? "text-warn" : "text-ink2"}`}>
      {state.is === "refused" ? state.sentence : "Comparing …"}
    </p>
  );
}

/** As many lines stand in the sheet; all of them are in the file. */
const MOST_LINES = 400;

/** Where things can be brought back from. */
interface Back {
  readonly from: string;
  readonly earlier: Plan;
}

/** What differs, subject by subject, and what the later state does to the findings. */
function Differences({
  compared: { groups, findings },
  back,
}: {
  compared: Compared;
  /** Null where the later state is not the plan as it is. */
  back: Back | null;
}) {
  if (groups.length === 0) return <p className="px-4 text-13 text-sound">✓ Nothing has changed.</p>;
  const shown = firstLines(groups, MOST_LINES);
  return (
    <div className="px-4 text-13">
      <Effect findings={findings} />
      {shown.groups.map(({ key, title, lines }) => {
        const group = must(
          groups.find((group) => group.key === key),
          "what is shown of a group is of one",
        );
        return (
          <section key={key} aria-label={title} className="border-t border-hair py-2">
            <div className="flex flex-wrap items-center gap-2">
              <h3 className="flex-1 text-13 font-semibold">{title}</h3>
              {back === null ? null : <AllBack group={group} back={back} />}
            </div>
            <ul>
              {lines.map((line) => (
                <Difference key={`${line.kind} ${line.id}`} line={line} back={isWhole(group) ? null : back} />
              ))}
            </ul>
          </section>
        );
      })}
      {shown.left > 0 ? (
        <p className="border-t border-hair py-2 text-ink2">{shown.left} more are in the file: Save CSV.</p>
      ) : null}
    </div>
  );
}

/** Whether a device came or went with its parts, which can't stand without it. */
const isWhole = ({ lines: [first, ...parts] }: ComparedGroup): boolean =>
  first?.kind === "device" && first.what !== "changed" && parts.length > 0;

/** What makes a thing as it was. */
const BACK = { new: "Take away", changed: "As it was", removed: "Bring back" } as const;

/** All of a subject as it was: what can't stand without the rest comes and goes with it. */
function AllBack({ group, back }: { group: ComparedGroup; back: Back }) {
  const bring = useBring();
  if (group.lines.length < 2) return null;
  const { title, lines } = group;
  return (
    <button
      type="button"
      className="button"
      aria-label={`All ${lines.length} as they were: ${title}`}
      onClick={() => bring(back, lines)}
    >
      All {lines.length} as they were
    </button>
  );
}

/** Brings things back as a change of the plan; a sentence where that can't be. */
function useBring() {
  const edit = usePlan((state) => state.edit);
  return (back: Back, things: readonly { readonly kind: Kind; readonly id: string }[]) => {
    const refusal = edit(bringBack({ ...back, things }));
    if (refusal !== null) toast.error(refusal);
  };
}

/** One thing that is otherwise; it can be gone to, and made as it was. */
function Difference({ line, back }: { line: ComparedGroup["lines"][number]; back: Back | null }) {
  const goTo = useGoTo();
  const index = useIndex();
  const bring = useBring();
  const { kind, id, name, words, what } = line;
  const isThere = kind !== "site" && index.plan[kind].has(id);
  return (
    <li className="flex items-start gap-2 py-1">
      <span className="min-w-0 flex-1 [overflow-wrap:anywhere]">
        {isThere ? (
          <button
            type="button"
            className="min-h-6 text-left underline decoration-rule underline-offset-2"
            onClick={() => goTo.entity({ kind, id })}
          >
            {name}
          </button>
        ) : (
          name
        )}{" "}
        <span className="text-ink2">{words}</span>
      </span>
      {back === null ? null : (
        <button
          type="button"
          className="button flex-none"
          aria-label={`${BACK[what]}: ${name}`}
          onClick={() => bring(back, [line])}
        >
          {BACK[what]}
        </button>
      )}
    </li>
  );
}

/** What the later state does to what is found wrong. */
function Effect({ findings: { appeared, gone } }: Pick<Compared, "findings">) {
  return (
    <section aria-label="Findings" className="pb-2">
      <p>
        {appeared.length === 0
          ? "Nothing is found wrong that was not before"
          : counted(appeared.length, "finding was not there before", "findings were not there before")}
        {gone === 0 ? "" : `; ${gone} of before ${gone === 1 ? "is" : "are"} gone`}.
      </p>
      <ul>
        {appeared.slice(0, MOST_FINDINGS).map(({ severity, sentence }, at) => (
          <li key={`${at} ${sentence}`} className="flex items-baseline gap-2">
            <span className={severityColour(severity)}>
              <SeveritySign severity={severity} />
              <span className="sr-only">{severity}</span>
            </span>
            {sentence}
          </li>
        ))}
      </ul>
    </section>
  );
}
const MOST_FINDINGS = 12;
