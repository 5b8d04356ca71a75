"use client";

import { removeExceptions, writeException } from "@/core/commands";
import { EXCEPTION_COLUMNS, exceptionCellText } from "@/core/planners";
import { useIndex, usePlan } from "../../plan-store/use-plan";
import { ColumnsMargin, Gone } from "../ColumnsMargin";
import { Caution } from "../parts";

/** One exception: what it lets pass, when, and who answers for it. */
export function ExceptionMargin({ id }: { id: string }) {
  const index = useIndex();
  const edit = usePlan((state) => state.edit);
  const exception = index.plan.exception.get(id);
  if (exception === undefined) return <Gone word="exception" />;
  return (
    <ColumnsMargin
      word="exception"
      id={id}
      name={exception.name}
      columns={EXCEPTION_COLUMNS}
      text={(column) => exceptionCellText(index, exception, column)}
      write={(column, text) => edit(writeException({ exception: id, column, text }))}
      remove={() => edit(removeExceptions({ exceptions: [id] }))}
      caution={
        exception.hours === null ? null : (
          <Caution head="Switched by the clock.">
            Whether the device keeps hours itself, or somebody switches it on and off, has to be agreed. On an
            industrial site a network change can move or stop a machine: with the process owner&rsquo;s
            consent only.
          </Caution>
        )
      }
    />
  );
}
