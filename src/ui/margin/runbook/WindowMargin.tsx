"use client";

import { removeWindows, writeWindow } from "@/core/commands";
import type { Window } from "@/core/plan";
import { WINDOW_COLUMNS, windowCellText } from "@/core/planners";
import { timeText } from "@/core/runbook";
import { useIndex, usePlan } from "../../plan-store/use-plan";
import { useRunbook } from "../../views/runbook/use-runbook";
import { ColumnsMargin, Gone } from "../ColumnsMargin";
import { Section } from "../parts";

/** A window in full: what it may stop, what has to be signed, and the steps that fall into it. */
export function WindowMargin({ id }: { id: string }) {
  const index = useIndex();
  const edit = usePlan((state) => state.edit);
  const window = index.plan.window.get(id);
  if (window === undefined) return <Gone word="window" />;
  return (
    <ColumnsMargin
      word="window"
      id={id}
      name={window.name}
      columns={WINDOW_COLUMNS}
      text={(column) => windowCellText(index, window, column)}
      write={(column, text) => edit(writeWindow({ window: id, column, text }))}
      remove={() => edit(removeWindows({ windows: [id] }))}
      facts={<FallsIn window={window} />}
    />
  );
}

function FallsIn({ window }: { window: Window }) {
  const index = useIndex();
  const { runbook } = useRunbook(index.plan.site.id);
  const slots = runbook?.slots.filter((slot) => slot.window?.id === window.id) ?? [];
  return (
    <Section title="What is done in it">
      {runbook === null || slots.length === 0 ? (
        <p className="px-4 pb-2 text-13 text-ink2">
          {runbook === null ? "The order is not found yet." : "No step of the present order has to be in it."}
        </p>
      ) : (
        <ol className="px-4 pb-2 text-13">
          {slots.flatMap((slot) =>
            runbook.steps.slice(slot.from, slot.to + 1).map((step, at) => (
              <li key={slot.from + at} className="py-[2px]">
                <span className="mono">{slot.from + at + 1}</span> {step.title}
                {at === 0 ? <span className="text-ink2">, {timeText(window, slot.after)}</span> : null}
              </li>
            )),
          )}
        </ol>
      )}
    </Section>
  );
}
