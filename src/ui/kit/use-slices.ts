import { useEffect, useState } from "react";

/** How far a long list of questions has come, with the answers so far. */
export interface Sliced<T, A> {
  readonly done: number;
  readonly all: number;
  readonly answers: readonly (readonly [T, A])[];
}

/** As long as nobody notices a wait (RAIL's 50 ms, less what drawing takes). */
const SLICE_MS = 25;

/**
 * Asks something of every item, a slice at a time, so that the page answers meanwhile; begins anew when the
 * items or the question change, which have to stay the same values in between.
 */
export function useSlices<T, A>(items: readonly T[], ask: (item: T) => A): Sliced<T, A> {
  const [state, setState] = useState<{ of: unknown; answers: readonly (readonly [T, A])[] }>({
    of: ask,
    answers: [],
  });
  useEffect(() => {
    const answers: (readonly [T, A])[] = [];
    let timer: ReturnType<typeof setTimeout> | null = null;
    const slice = () => {
      const end = performance.now() + SLICE_MS;
      while (answers.length < items.length && performance.now() < end) {
        const item = items[answers.length] as T;
        answers.push([item, ask(item)]);
      }
      setState({ of: ask, answers: [...answers] });
      timer = answers.length < items.length ? setTimeout(slice) : null;
    };
    timer = setTimeout(slice);
    return () => {
      if (timer !== null) clearTimeout(timer);
    };
  }, [items, ask]);
  const answers = state.of === ask ? state.answers : [];
  return { done: answers.length, all: items.length, answers };
}
