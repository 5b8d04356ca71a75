"use client";

import { createContext, useContext, useEffect, useState, type ReactNode } from "react";
import { useStore } from "zustand";
import { must } from "@/core/kernel";
import type { PlanIndex } from "@/core/plan";
import type { Role } from "@/http/contracts/answers";
import { isJudged, type Held } from "./held";
import type { PlanState } from "./plan-state";
import { liveStore } from "../live/live-store";
import { ShownPlan } from "./shown";
import { createPlanStore, type PlanStoreApi } from "./store";

const Context = createContext<PlanStoreApi | null>(null);
const NEWS_EVERY_MS = 10_000;

/** Plans that were left while something of them waited: they go on sending, and are met again as they are. */
const LEFT = new Map<string, PlanStoreApi>();

/** Loads the plan of a site and keeps it in step with the server while it is open. */
export function PlanProvider({
  site,
  person,
  role,
  children,
}: {
  site: string;
  person: string;
  role: Role;
  children: ReactNode;
}) {
  const [store] = useState(() => LEFT.get(`${site} ${person}`) ?? createPlanStore(site, person, role));
  useEffect(() => {
    if (store.getState().held === null) void store.getState().load();
    else void store.getState().refresh();
    LEFT.delete(`${site} ${person}`);
    const ask = () => {
      if (document.visibilityState === "visible") void store.getState().refresh();
    };
    // As long as the server tells of news by itself, nobody has to ask.
    const timer = setInterval(() => {
      if (!liveStore.getState().isOpen) ask();
    }, NEWS_EVERY_MS);
    const warn = (event: BeforeUnloadEvent) => {
      if (store.wouldBeLost()) event.preventDefault();
    };
    document.addEventListener("visibilitychange", ask);
    window.addEventListener("beforeunload", warn);
    window.addEventListener("online", store.wake);
    return () => {
      if ((store.getState().held?.pending.length ?? 0) > 0) LEFT.set(`${site} ${person}`, store);
      clearInterval(timer);
      document.removeEventListener("visibilitychange", ask);
      window.removeEventListener("beforeunload", warn);
      window.removeEventListener("online", store.wake);
    };
  }, [store, site, person]);
  return <Context value={store}>{children}</Context>;
}

export const usePlanStore = (): PlanStoreApi =>
  must(useContext(Context), "a view stands inside a PlanProvider");
export const usePlan = <T,>(select: (state: PlanState) => T): T => {
  const store = usePlanStore();
  return useStore(useContext(ShownPlan) ?? store, select);
};

/** The plan as it is shown. Views are drawn only once it is there. */
export const useHeld = (): Held =>
  must(
    usePlan((state) => state.held),
    "a view is drawn with a plan",
  );
export const useIndex = (): PlanIndex => useHeld().index;

/** Whether the findings are those of the plan on the screen; a large one is shown before it is judged. */
export const useJudged = (): boolean => usePlan(({ held }) => held !== null && isJudged(held));

/** Whether there are findings: those of the plan on the screen, or of what it was a moment ago. */
export const useHasFindings = (): boolean => usePlan(({ held }) => held !== null && held.judged !== null);

/** The plan that the findings are of, in which they are put into words. */
export const useFoundIn = (): PlanIndex => {
  const { judged, index } = useHeld();
  return judged?.index ?? index;
};
