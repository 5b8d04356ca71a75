"use client";

import { useEffect, useEffectEvent } from "react";
import { toast } from "sonner";
import { namedByLabel } from "@/core/labels";
import { entityOf } from "@/core/plan";
import { usePlan, usePlanStore } from "../plan-store/use-plan";
import { useGoTo } from "./go-to";

const GONE =
  "What this label is on is no longer in the plan of this site: print a new one, or look in History.";

/** Opens what the code of a label names, once the plan is here: the address says it after its #. */
export function useLabelAddress(): void {
  const isReady = usePlan((state) => state.phase) === "ready";
  const store = usePlanStore();
  const goTo = useGoTo();
  const open = useEffectEvent(() => {
    const named = namedByLabel(window.location.hash);
    const index = store.getState().held?.index;
    if (named === null || index === undefined) return;
    window.history.replaceState(null, "", window.location.pathname);
    if (entityOf(index.plan, named.kind, named.id) === undefined) toast.error(GONE);
    else goTo.entity(named);
  });
  useEffect(() => {
    if (!isReady) return undefined;
    const onChange = () => open();
    onChange();
    window.addEventListener("hashchange", onChange);
    return () => window.removeEventListener("hashchange", onChange);
  }, [isReady]);
}
