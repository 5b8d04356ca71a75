import { nameOf, type PlanIndex } from "../plan";
import { counted } from "../repairs";
import { laptopText, opensText } from "./card";
import type { Runbook } from "./runbook";
import type { Step } from "./step";
import { fewNames } from "./words";

/** What a step interrupts and mends, in words; empty for nothing. */
export function interruptsText({ cuts, mends, stops }: Step): string {
  const cut = cuts.length === 0 ? "" : `cuts off ${fewNames(cuts)}`;
  const mended = mends.length === 0 ? "" : `${counted(mends.length, "device gets", "devices get")} through`;
  const stopped = stops.length === 0 ? "" : `stops ${fewNames(stops)} while it restarts`;
  return [cut, stopped, mended].filter((part) => part !== "").join("; ");
}

/** A runbook as a table, for a spreadsheet. */
export function runbookTable(index: PlanIndex, { steps }: Runbook): string[][] {
  return [
    [
      "step",
      "do",
      "on",
      "values",
      "laptop at",
      "laptop address",
      "opens",
      "interrupts",
      "needs",
      "if it goes wrong",
    ],
    ...steps.map((step, at) => [
      `${at + 1}`,
      step.title,
      step.device === null ? "" : nameOf(index, "device", step.device),
      step.values.map(([name, value]) => `${name}: ${value}`).join("; "),
      step.card === null ? "" : nameOf(index, "port", step.card.port),
      step.card === null ? "" : laptopText(step.card),
      step.card === null ? "" : opensText(step.card),
      interruptsText(step),
      step.needsConsole ? "console cable" : "",
      step.back,
    ]),
  ];
}
