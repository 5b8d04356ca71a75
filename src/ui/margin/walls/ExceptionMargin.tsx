"use client";

import { removeExceptions, writeException } from "@/core/commands";
import { EXCEPTION_COLUMNS, exceptionCellText } from "@/core/planners";
import { useUi } from "../../frame/use-ui";
import { TextField } from "../../kit/TextField";
import { useIndex, usePlan } from "../../plan-store/use-plan";
import { FindingsSection } from "../findings/FindingsSection";
import { HistorySection } from "../HistorySection";
import { Caution, MarginHead, Section } from "../parts";

/** One exception: what it lets pass, when, and who answers for it. */
export function ExceptionMargin({ id }: { id: string }) {
  const index = useIndex();
  const edit = usePlan((state) => state.edit);
  const select = useUi((state) => state.select);
  const exception = index.plan.exception.get(id);
  if (exception === undefined)
    return <p className="p-4 text-ink2">That exception is gone; choose another one.</p>;
  const remove = () => {
    edit(removeExceptions({ exceptions: [id] }));
    select(null);
  };
  return (
    <>
      <MarginHead kick="Selected exception">{exception.name}</MarginHead>
      <Section title="Change">
        {EXCEPTION_COLUMNS.map(([column, head]) => (
          <TextField
            key={column}
            label={head}
            value={exceptionCellText(index, exception, column)}
            write={(text) => edit(writeException({ exception: id, column, text }))}
          />
        ))}
      </Section>
      <FindingsSection ids={new Set([id])} />
      {exception.hours === null ? null : (
        <Caution head="Switched by the clock.">
          Whether the device keeps hours itself, or somebody switches it on and off, has to be agreed. On an
          industrial site a network change can move or stop a machine: with the process owner&rsquo;s consent
          only.
        </Caution>
      )}
      <HistorySection about={id} />
      <div className="section px-4 pt-3">
        <button type="button" className="button danger" onClick={remove}>
          Remove the exception
        </button>
      </div>
    </>
  );
}
