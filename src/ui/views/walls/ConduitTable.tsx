"use client";

import { pasteConduits, removeConduits, writeConduit } from "@/core/commands";
import type { ReactNode, RefObject } from "react";
import type { Conduit } from "@/core/plan";
import { CONDUIT_COLUMNS, conduitCellText, type ConduitColumn } from "@/core/planners";
import { useUi } from "../../frame/use-ui";
import { TextTable } from "../../grid/TextTable";
import { useIndex, usePlan } from "../../plan-store/use-plan";

const CELL_OF: Readonly<Record<string, ConduitColumn>> = {
  "conduit-too-weak": "level",
  "conduit-empty": "name",
};

/** What leads from zone to zone, planned and answered for together (IEC 62443). */
export function ConduitTable({
  scroller,
  head,
}: {
  scroller: RefObject<HTMLDivElement | null>;
  head: ReactNode;
}) {
  const index = useIndex();
  const edit = usePlan((state) => state.edit);
  const select = useUi((state) => state.select);
  return (
    <TextTable<Conduit, ConduitColumn>
      label="Conduits"
      about="doors answered for together; a door’s margin says its conduit"
      what="conduit"
      rows={index.plan.conduit}
      columns={CONDUIT_COLUMNS}
      text={conduitCellText}
      cellOf={CELL_OF}
      offers={{ level: ["none", "1", "2", "3", "4"] }}
      actions={{
        edit: (id, column, text) => edit(writeConduit({ conduit: id, column, text })),
        paste: (rows, from, onto) => edit(pasteConduits({ rows, from, onto })),
        remove: (ids) => edit(removeConduits({ conduits: ids })),
        select: (id) => select({ what: "conduit", id }),
      }}
      scroller={scroller}
      head={head}
      newRow={{ name: "New conduit" }}
    />
  );
}
