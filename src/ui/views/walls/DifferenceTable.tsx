"use client";

import { bringRules } from "@/core/commands";
import { useMemo } from "react";
import { toast } from "sonner";
import type { Device } from "@/core/plan";
import { ruleCellText, RULE_COLUMNS, type NeededStep, wayToNeeded } from "@/core/planners";
import { counted } from "@/core/repairs";
import { useIndex, usePlan } from "../../plan-store/use-plan";

/** What is done in a step, with the numbers as they are when it is done. */
function doing({ step }: NeededStep): string {
  switch (step.do) {
    case "delete":
      return `delete rule ${step.at}`;
    case "move":
      return `move rule ${step.at} to ${step.to}`;
    case "insert":
      return `insert as rule ${step.at}`;
  }
}

/** The fewest steps from the list that stands on a device to the one that its walls need. */
export function DifferenceTable({ device }: { device: Device }) {
  const index = useIndex();
  const edit = usePlan((state) => state.edit);
  const way = useMemo(() => wayToNeeded(index, device), [index, device]);
  if (way === null) return null;
  const { steps, setsDefaults } = way;
  const note = () => {
    const refusal = edit(bringRules({ device: device.id }));
    if (refusal !== null) return toast.error(refusal);
    toast(
      `${counted(steps.length, "step is", "steps are")} noted as done on ${device.name}. Undo takes them back.`,
    );
  };
  if (steps.length === 0 && !setsDefaults)
    return (
      <p className="px-4 pb-4 text-15">
        The list that stands on {device.name} is the one that its walls need, rule by rule.
      </p>
    );
  return (
    <>
      <p className="flex items-start gap-3 px-4 pb-2 text-13 text-ink2">
        <span className="min-w-0 flex-1">
          {counted(steps.length, "step", "steps")} on the device, in this order; the numbers are those of the
          list at that moment. Rules that are off stay; rules with hours are not part of it.
          {setsDefaults
            ? " What no rule takes has to be dropped there, and answers let through before any rule."
            : ""}
        </span>
        <button type="button" className="button" onClick={note}>
          Note all as done
        </button>
      </p>
      <table className="table close lead" aria-label={`Steps on ${device.name}`}>
        <thead>
          <tr>
            <th scope="col">Step</th>
            <th scope="col">Do</th>
            {RULE_COLUMNS.map(([column, head]) => (
              <th scope="col" key={column}>
                {head}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {steps.map((neededStep, at) => (
            <tr key={at}>
              <td className="mono">{at + 1}</td>
              <td className="font-medium">{doing(neededStep)}</td>
              {RULE_COLUMNS.map(([column]) => (
                <td key={column} className="!whitespace-normal text-ink2">
                  {ruleCellText(index, neededStep.rule, column)}
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
    </>
  );
}
