import { v7 } from "uuid";
import { useStore } from "zustand";
import { createStore } from "zustand/vanilla";
import type { LiveAnswer } from "@/http/contracts/answers";

/** This tab, among all that have the site open. */
export const TAB = v7();

export interface LiveState {
  /** Whether the stream is open: then nothing has to be asked for. */
  readonly isOpen: boolean;
  readonly revision: number;
  readonly record: number;
  readonly present: LiveAnswer["present"];
}
export const NOBODY: LiveState = { isOpen: false, revision: 0, record: 0, present: [] };

export const liveStore = createStore<LiveState>()(() => NOBODY);
export const useLiveState = <T>(select: (state: LiveState) => T): T => useStore(liveStore, select);

/** Those in other tabs, each person once for each sheet. */
export function othersIn(present: LiveAnswer["present"], tab: string): LiveAnswer["present"] {
  const seen = new Set<string>();
  return present.filter((present) => {
    const key = `${present.name} ${present.sheet}`;
    const isNew = present.tab !== tab && !seen.has(key);
    seen.add(key);
    return isNew;
  });
}
