import type { StoreApi } from "zustand/vanilla";

/** What can be read of a store, and not written. */
export type Shown<T> = Pick<StoreApi<T>, "getState" | "getInitialState" | "subscribe">;

/** A store that can stay behind: what is drawn from it shows what was, until it is let go. */
export interface Trailing<T> {
  readonly shown: Shown<T>;
  /** From now on what is shown is what is there now, whatever comes. */
  readonly hold: () => void;
  readonly release: () => void;
}

export function makeTrailing<T>(store: Shown<T>): Trailing<T> {
  let kept: { readonly state: T } | null = null;
  const waiting = new Set<() => void>();
  const getState = () => (kept === null ? store.getState() : kept.state);
  return {
    shown: {
      getState,
      getInitialState: () => store.getInitialState(),
      subscribe: (listener) => {
        let before = getState();
        const tell = () => {
          const state = getState();
          if (state === before) return;
          const was = before;
          before = state;
          listener(state, was);
        };
        waiting.add(tell);
        const leave = store.subscribe(tell);
        return () => {
          waiting.delete(tell);
          leave();
        };
      },
    },
    hold: () => {
      kept ??= { state: store.getState() };
    },
    release: () => {
      kept = null;
      for (const tell of waiting) tell();
    },
  };
}
