"use client";

import { createContext, useContext, useEffect, useState, type ReactNode } from "react";
import { useStore } from "zustand";
import { must } from "@/core/kernel";
import type { PlanIndex } from "@/core/plan";
import type { Held } from "./held";
import { wouldBeLost } from "./kept-changes";
import type { PlanState } from "./plan-state";
import { createPlanStore, type PlanStoreApi } from "./store";

const Context = createContext<PlanStoreApi | null>(null);
const NEWS_EVERY_MS = 10_000;

/** Loads the plan of a site and keeps it in step with the server while it is open. */
export function PlanProvider({ site, person, children }: { site: string; person: string; children: ReactNode }) {
  const [store] = useState(() => createPlanStore(site, person));
  useEffect(() => {
    void store.getState().load();
    const ask = () => { if (document.visibilityState === "visible") void store.getState().refresh(); };
    const timer = setInterval(ask, NEWS_EVERY_MS);
    const warn = (event: BeforeUnloadEvent) => { if (wouldBeLost(site, store.getState().held?.pending ?? [])) event.preventDefault(); };
    document.addEventListener("visibilitychange", ask);
    window.addEventListener("beforeunload", warn);
    return () => {
      clearInterval(timer);
      document.removeEventListener("visibilitychange", ask);
      window.removeEventListener("beforeunload", warn);
    };
  }, [store, site]);
  return <Context value={store}>{children}</Context>;
}

export const usePlanStore = (): PlanStoreApi => must(useContext(Context), "a view stands inside a PlanProvider");
export const usePlan = <T,>(select: (state: PlanState) => T): T => useStore(usePlanStore(), select);

/** The plan as it is shown. Views are drawn only once it is there. */
export const useHeld = (): Held => must(usePlan((state) => state.held), "a view is drawn with a plan");
export const useIndex = (): PlanIndex => useHeld().index;
