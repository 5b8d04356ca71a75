import type { PlanIndex, Window } from "../plan";
import type { Step } from "./step";
import { slotsOf, timeText } from "./windows";

/** `reaches` is what the laptop reaches where it is then: signing changes nothing of that. */
function permitStep(window: Window, reaches: Step["reaches"]): Step {
  const { permit, consent, minutes } = window;
  return {
    kind: "permit",
    title: `Before ${window.name}: have it signed`,
    device: null,
    values: [
      ["Window", `${timeText(window, 0)}, ${minutes} min`],
      ...(permit === "" ? [] : [["Permit", permit] as const]),
      ...(consent === "" ? [] : [["Agrees", consent] as const]),
    ],
    why: "No step of the window is begun before. Write down who signed, and when it ends.",
    card: null,
    needsConsole: false,
    isBlind: false,
    cuts: [],
    mends: [],
    stops: [],
    minutes: 0,
    reaches,
    back: "",
    caution:
      "A network change can move or stop a machine: permit, lock-out and the process owner's consent first; " +
      "emergency stop and safety functions never depend on this.",
    operation: null,
  };
}

/** What is signed, as text: another day, permit or person is to be signed anew. */
export const signatureOf = ({ title, values }: Pick<Step, "title" | "values">): string =>
  JSON.stringify([title, values]);

/**
 * The steps with what has to be signed before each window's first one. What was signed in this visit, by its
 * signature, is not asked for again.
 */
export function withPermits(index: PlanIndex, steps: readonly Step[], signed: readonly string[]): Step[] {
  const asked = new Set(signed);
  const before = new Map<number, Step>();
  for (const { window, from } of slotsOf(index, steps)) {
    if (window === null || (window.permit === "" && window.consent === "")) continue;
    const step = permitStep(window, steps[from - 1]?.reaches ?? new Set());
    if (asked.has(signatureOf(step))) continue;
    asked.add(signatureOf(step));
    before.set(from, step);
  }
  return steps.flatMap((step, at) => {
    const permit = before.get(at);
    return permit === undefined ? [step] : [permit, step];
  });
}
