"use client";

import { clsx } from "clsx";
import { addLine, removeLine } from "@/core/commands";
import { useState } from "react";
import { useUi } from "../../frame/use-ui";
import { TextField } from "../../kit/TextField";
import { useIndex, usePlan } from "../../plan-store/use-plan";
import { FindingsSection } from "../findings/FindingsSection";
import { HistorySection } from "../HistorySection";
import { ProvidersBox } from "../gateway/ProvidersBox";
import { WhenItFails } from "../gateway/WhenItFails";
import { LineFields } from "../site/LineFields";
import { MarginHead, Section } from "../parts";

/** The internet lines; one of them open. */
export function LineMargin({ id }: { id: string | null }) {
  const index = useIndex();
  const edit = usePlan((state) => state.edit);
  const select = useUi((state) => state.select);
  const [added, setAdded] = useState(0);
  const lines = [...index.plan.line.values()];
  const line = id === null ? undefined : index.plan.line.get(id);
  const remove = () => {
    if (line === undefined) return;
    edit(removeLine({ line: line.id }));
    select({ what: "lines" });
  };
  return (
    <>
      <MarginHead kick={line === undefined ? "Internet lines" : "Selected line"}>
        {line?.name ?? `${lines.length} ${lines.length === 1 ? "line" : "lines"}`}
      </MarginHead>
      {line === undefined ? null : (
        <>
          <WhenItFails line={line} />
          <FindingsSection ids={new Set([line.id])} />
          <Section title="Change">
            <LineFields line={line} />
          </Section>
          {line.providerBox === "none" && line.locked === "" ? null : <ProvidersBox line={line} />}
        </>
      )}
      <Section title="All lines">
        <ul className="px-4 text-13">
          {lines.map((line) => (
            <li key={line.id}>
              <button
                type="button"
                aria-current={line.id === id}
                className={clsx(
                  "min-h-7 underline decoration-rule underline-offset-2",
                  "aria-[current=true]:font-semibold",
                )}
                onClick={() => select({ what: "line", id: line.id })}
              >
                {line.name}
              </button>
            </li>
          ))}
        </ul>
        <TextField
          key={added}
          label="Add"
          value=""
          placeholder="Fibre line"
          write={(text) => {
            const refusal = edit(addLine({ name: text }));
            if (refusal === null) setAdded(added + 1);
            return refusal;
          }}
        />
      </Section>
      {line === undefined ? null : (
        <>
          <div className="section px-4 pt-3">
            <button type="button" className="button danger" onClick={remove}>
              Remove the line
            </button>
          </div>
          <HistorySection about={line.id} />
        </>
      )}
    </>
  );
}
