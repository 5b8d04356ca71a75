import type { Host, PlanIndex, Window } from "../plan";
import { minutesText } from "./minutes";
import type { Step } from "./step";
import { slotsOf, timeText, type Slot } from "./windows";
import { fewNames } from "./words";

// In a plant no step that stops somebody is begun unsigned, whether its window names who signs or not, and also
// where no window takes it.

/** What is signed before the work of a window. */
const beforeWindow = (window: Window): Pick<Step, "title" | "values"> => {
  const { permit, consent, minutes } = window;
  return {
    title: `Before ${window.name}: have it signed`,
    values: [
      ["Window", `${timeText(window, 0)}, ${minutesText(minutes)}`],
      ...(permit === "" ? [] : [["Permit", permit] as const]),
      ...(consent === "" ? [] : [["Agrees", consent] as const]),
      ...(permit === "" && consent === "" ? [NOBODY_NAMED] : []),
    ],
  };
};
const NOBODY_NAMED = ["Permit and consent", "nobody is named in the plan"] as const;

/** The same for all steps of a visit that no window takes: signed once. */
const OUTSIDE_WINDOWS: Pick<Step, "title" | "values"> = {
  title: "Before the first step that stops somebody: have it signed",
  values: [["Window", "none takes it"], NOBODY_NAMED],
};

/** What has to be signed before a piece of work; null where nothing has. */
function signedBefore({ plan }: PlanIndex, { window, stops }: Slot): Pick<Step, "title" | "values"> | null {
  const isPlant = plan.site.kind === "industrial";
  if (window === null) return isPlant && stops.length > 0 ? OUTSIDE_WINDOWS : null;
  return isPlant || window.permit !== "" || window.consent !== "" ? beforeWindow(window) : null;
}

/** `reaches` is what the laptop reaches where it is then: signing changes nothing of that. */
function permitStep(
  asked: Pick<Step, "title" | "values">,
  stops: readonly Host[],
  reaches: Step["reaches"],
): Step {
  return {
    kind: "permit",
    ...asked,
    device: null,
    why:
      `The work behind it stops ${fewNames(stops)}. No step of it is begun before. ` +
      "Write down who signed, and when it ends.",
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
 * The steps with what has to be signed before each window's first one; in a plant before the first one that
 * stops somebody outside every window, too. What was signed in this visit, by its signature, is not asked for
 * again; `now` as in `slotsOf`.
 */
export function withPermits(
  index: PlanIndex,
  steps: readonly Step[],
  { signed, now }: { readonly signed: readonly string[]; readonly now: string | null },
): Step[] {
  const done = new Set(signed);
  const before = new Map<number, Step>();
  const slots = slotsOf(index, steps, now);
  for (const slot of slots) {
    const asked = signedBefore(index, slot);
    if (asked === null || done.has(signatureOf(asked))) continue;
    done.add(signatureOf(asked));
    const stops = slots.flatMap((other) => (other.window?.id === slot.window?.id ? other.stops : []));
    before.set(slot.from, permitStep(asked, [...new Set(stops)], steps[slot.from - 1]?.reaches ?? new Set()));
  }
  return steps.flatMap((step, at) => {
    const permit = before.get(at);
    return permit === undefined ? [step] : [permit, step];
  });
}
