"use client";

import { removeForwards, writeForward } from "@/core/commands";
import { FORWARD_COLUMNS, forwardCellText } from "@/core/planners";
import { useGoTo } from "../../frame/go-to";
import { useUi } from "../../frame/use-ui";
import { TextField } from "../../kit/TextField";
import { useIndex, usePlan } from "../../plan-store/use-plan";
import { FindingsSection } from "../findings/FindingsSection";
import { HistorySection } from "../HistorySection";
import { Caution, MarginHead, Section } from "../parts";

/** One forward: where it comes in, whom it leads to, for whom and how long. */
export function ForwardMargin({ id }: { id: string }) {
  const index = useIndex();
  const edit = usePlan((state) => state.edit);
  const set = useUi((state) => state.set);
  const select = useUi((state) => state.select);
  const goTo = useGoTo();
  const forward = index.plan.forward.get(id);
  if (forward === undefined)
    return <p className="p-4 text-ink2">That forward is gone; choose another one.</p>;
  const remove = () => {
    edit(removeForwards({ forwards: [id] }));
    select(null);
  };
  const ask = () => {
    select(null);
    set({
      probeWay: "journey",
      probe: {
        from: { at: "internet", line: forward.line },
        as: { as: "client" },
        family: 4,
        goal: { to: "forward", forward: id },
      },
    });
    goTo.view("probe");
  };
  return (
    <>
      <MarginHead kick="Selected forward">{forward.name}</MarginHead>
      <Section title="Change">
        {FORWARD_COLUMNS.map(([column, head]) => (
          <TextField
            key={column}
            label={head}
            value={forwardCellText(index, forward, column)}
            write={(text) => edit(writeForward({ forward: id, column, text }))}
          />
        ))}
        <div className="flex flex-wrap gap-[6px] px-4 pt-2">
          <button type="button" className="button" onClick={ask}>
            Probe it from outside
          </button>
          <button type="button" className="button" onClick={remove}>
            Remove
          </button>
        </div>
      </Section>
      <FindingsSection ids={new Set([id])} />
      <Caution head="Open to the internet.">
        What is forwarded is found and tried by strangers. Cameras and logs: mind the local privacy law; work
        only on networks you are authorised to work on.
      </Caution>
      <HistorySection about={id} />
    </>
  );
}
