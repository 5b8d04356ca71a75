import type { Outcome } from "./probe";

/**
 * How two probes part: the first step, counted from 1, that differs; null when one goes exactly the way of
 * the other.
 */
export interface Parting {
  readonly at: number | null;
  readonly sentence: string;
}

const stepWords = (outcome: Outcome, n: number): string => {
  const step = outcome.steps[n];
  return step === undefined ? "is at its end" : `${step.title} ${step.says}`;
};

/** Lays two probes side by side. The first step says who asks, so it does not count as a difference. */
export function compareOutcomes(a: Outcome, b: Outcome): Parting {
  const most = Math.max(a.steps.length, b.steps.length);
  for (let n = 1; n < most; n += 1) {
    const [one, other] = [a.steps[n], b.steps[n]];
    if (one?.title === other?.title && one?.says === other?.says && one?.passed === other?.passed) continue;
    return {
      at: n + 1,
      sentence: `They part at step ${n + 1}: here ${stepWords(a, n)}; there ${stepWords(b, n)}.`,
    };
  }
  return { at: null, sentence: "Both go the same way, step by step." };
}
