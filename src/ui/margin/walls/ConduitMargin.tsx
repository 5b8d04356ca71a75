"use client";

import { removeConduits, writeConduit } from "@/core/commands";
import { CONDUIT_COLUMNS, conduitCellText, inConduit } from "@/core/planners";
import { wallEndName } from "@/core/plan";
import { useIndex, usePlan } from "../../plan-store/use-plan";
import { ColumnsMargin, Gone } from "../ColumnsMargin";
import { Fact } from "../parts";

/** One conduit: which doors lead by it, and who answers for them. */
export function ConduitMargin({ id }: { id: string }) {
  const index = useIndex();
  const edit = usePlan((state) => state.edit);
  const conduit = index.plan.conduit.get(id);
  if (conduit === undefined) return <Gone word="conduit" />;
  const { doors, exceptions } = inConduit(index, id);
  return (
    <ColumnsMargin
      word="conduit"
      id={id}
      name={conduit.name}
      columns={CONDUIT_COLUMNS}
      text={(column) => conduitCellText(conduit, column)}
      write={(column, text) => edit(writeConduit({ conduit: id, column, text }))}
      remove={() => edit(removeConduits({ conduits: [id] }))}
      facts={
        <dl className="facts">
          <Fact name="Doors">
            {doors
              .map(({ from, to }) => `${wallEndName(index, from)} to ${wallEndName(index, to)}`)
              .join("; ") || "none"}
          </Fact>
          <Fact name="Exceptions">{exceptions.map(({ name }) => name).join("; ") || "none"}</Fact>
        </dl>
      }
    />
  );
}
