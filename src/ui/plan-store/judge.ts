import { recheckByCheck } from "@/core/checks";
import { diff, KINDS, type Plan } from "@/core/plan";
import { findingsOf, isJudged, type Held, type Judged } from "./held";

/** Above this many entities the checks after an edit take longer than a frame. */
const MOST_AT_ONCE = 5000;
/** How long the page works at a stretch; between two stretches it answers keys and draws. */
const STRETCH_MS = 12;
/** A tab that nobody sees draws no frames. */
const NO_FRAME_MS = 100;

export const isLarge = (plan: Plan): boolean =>
  KINDS.reduce((count, kind) => count + (kind === "site" ? 1 : plan[kind].size), 0) > MOST_AT_ONCE;

/** What is shown with its findings, worked out now. */
export const judgedNow = (held: Held): Held =>
  held.judged === null || isJudged(held)
    ? held
    : { ...held, judged: { index: held.index, findings: findingsOf(held) } };

const later = (): Promise<void> => new Promise((resolve) => setTimeout(resolve));

/** Once the page has drawn what it has to draw. */
export const afterFrame = async (): Promise<void> => {
  await new Promise<void>((resolve) => {
    const waited = setTimeout(resolve, NO_FRAME_MS);
    requestAnimationFrame(() => {
      clearTimeout(waited);
      resolve();
    });
  });
  await later();
};

/** The findings of what is shown, from those of before, in short stretches. */
async function judgedLater({ index: known, findings }: Judged, index: Judged["index"]): Promise<Judged> {
  const steps = recheckByCheck(findings, index, diff(known.plan, index.plan));
  for (let began = performance.now(); ;) {
    const { done, value } = steps.next();
    if (done === true) return { index, findings: value };
    if (performance.now() - began < STRETCH_MS) continue;
    await later();
    began = performance.now();
  }
}

/**
 * Judges a large plan after the frame that shows it, and again as long as it was edited meanwhile; one at a
 * time. What was loaded anew meanwhile has findings of its own and is left alone.
 */
export function makeJudge(get: () => Held | null, take: (judged: Judged) => void): () => void {
  let isUnderWay = false;
  const judge = async (): Promise<void> => {
    try {
      await afterFrame();
      for (let held = get(); held !== null && held.judged !== null && !isJudged(held); held = get()) {
        const judged = await judgedLater(held.judged, held.index);
        if (get()?.judged === held.judged) take(judged);
      }
    } finally {
      // With the last look, and not a turn later: an edit in between would be judged by nobody.
      isUnderWay = false;
    }
  };
  return () => {
    if (isUnderWay) return;
    isUnderWay = true;
    void judge();
  };
}
