"use client";

import { addStack } from "@/core/commands";
import { useState } from "react";
import { toast } from "sonner";
import { PlanEdits } from "@/core/plan";
import { readStack, type StackOrder } from "@/core/planners";
import { useIndex, usePlan } from "../../plan-store/use-plan";

const orderWords = ({ count, model, place, to }: StackOrder) =>
  `${count} × ${model.model}${place === "" ? "" : ` in ${place}`}` +
  (to === null ? "" : `, each with a trunk to ${to.name}`);

/**
 * Several devices in one line: how many of which model, where, cabled to what. It says how it is understood
 * while one types.
 */
export function StackLine() {
  const index = useIndex();
  const edit = usePlan((state) => state.edit);
  const [text, setText] = useState("");
  const [refusal, setRefusal] = useState<string | null>(null);
  const read = text.trim() === "" ? null : readStack(new PlanEdits(index.plan), text);
  const add = () => {
    const refused =
      text.trim() === ""
        ? "Write how many of which model, such as 3 × 24-port PoE in Cabinet A, uplinks to Core."
        : edit(addStack({ text }));
    setRefusal(refused);
    if (refused !== null) return;
    toast(`Added ${read?.order?.count ?? ""} × ${read?.order?.model.model ?? ""}.`);
    setText("");
  };
  const says = refusal ?? (read === null ? "" : (read.refusal ?? orderWords(read.order)));
  return (
    <form
      className="flex flex-wrap items-center gap-3 border-b border-hair bg-paper px-4 py-2 text-13"
      onSubmit={(event) => {
        event.preventDefault();
        add();
      }}
    >
      <label className="flex items-center gap-2">
        Several at once
        <input
          className="field w-[420px]"
          value={text}
          placeholder="3 × 24-port PoE in Cabinet A, uplinks to Core"
          autoComplete="off"
          onChange={(event) => {
            setText(event.target.value);
            setRefusal(null);
          }}
        />
      </label>
      <button type="submit" className="button">
        Add them
      </button>
      {says === "" ? null : (
        <p
          className={`w-full ${refusal === null ? "text-ink2" : "text-stop"}`}
          role={refusal === null ? "status" : "alert"}
        >
          {says}
        </p>
      )}
    </form>
  );
}
