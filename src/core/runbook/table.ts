import { nameOf, type PlanIndex } from "../plan";
import { counted, listed } from "../repairs";
import { laptopText, opensText } from "./card";
import type { Runbook } from "./runbook";
import type { Step } from "./step";

/** How many names are said before the rest is counted. */
const MOST_NAMES = 4;

/** "PC 1 and PC 2", "PC 1, PC 2, PC 3, PC 4 and 7 more"; empty for nobody. */
function namesOf(hosts: Step["cuts"]): string {
  const names = hosts.map(({ name }) => name);
  const rest = names.length - MOST_NAMES;
  return rest <= 1 ? listed(names) : `${names.slice(0, MOST_NAMES).join(", ")} and ${rest} more`;
}

/** What a step interrupts and mends, in words; empty for nothing. */
export function interruptsText({ cuts, mends, stops }: Step): string {
  const cut = cuts.length === 0 ? "" : `cuts off ${namesOf(cuts)}`;
  const mended = mends.length === 0 ? "" : `${counted(mends.length, "device gets", "devices get")} through`;
  const stopped = stops.length === 0 ? "" : `stops ${namesOf(stops)} while it restarts`;
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
