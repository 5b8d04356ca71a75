import { nameOf, type PlanIndex } from "@/core/plan";
import { laptopText, opensText, type Step } from "@/core/runbook";

/** What a step says under its title. */
function sentences(index: PlanIndex, { values, card, why, isBlind, caution }: Step): string[] {
  const entered = values.map(([name, value]) => `${name}: ${value}`).join("; ");
  return [
    entered === "" ? "" : `${entered}.`,
    card === null
      ? ""
      : `Laptop at ${nameOf(index, "port", card.port)}, ${laptopText(card)}; opens ${opensText(card)}.`,
    isBlind ? why : "",
    caution,
  ].filter((part) => part !== "");
}

/** The runbook on paper: every step with its values, where the laptop is, and a box to tick. */
export function PrintedSteps({ index, steps }: { index: PlanIndex; steps: readonly Step[] }) {
  return (
    <ol className="hidden px-4 text-12 print:block" aria-label="Steps, printed">
      {steps.map((step, number) => (
        <li key={number} className="break-inside-avoid border-b border-hair py-1">
          <b>
            ☐ {number + 1}. {step.title}
          </b>
          {step.device === null ? "" : `, ${nameOf(index, "device", step.device)}`}
          {step.needsConsole ? ", by console cable" : ""}
          <br />
          {sentences(index, step).join(" ")}
        </li>
      ))}
    </ol>
  );
}
