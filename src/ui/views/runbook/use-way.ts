"use client";

import { latestVisit } from "@/core/records";
import type { RunbookWay } from "../../frame/ui-state";
import { useUi } from "../../frame/use-ui";
import { useRecord } from "../../record-store/use-record";

export const WAYS = [
  ["order", "Order"],
  ["windows", "Windows"],
  ["visit", "On site"],
  ["rehearse", "Rehearse by hand"],
  ["standIns", "On stand-ins"],
  ["differences", "Differences"],
] as const satisfies readonly (readonly [RunbookWay, string])[];

/** How the runbook is looked at, and whether that is a visit that goes on. */
export function useWay(): { readonly way: RunbookWay; readonly isOnSite: boolean } {
  const { record } = useRecord();
  const chosen = useUi((state) => state.runbookWay);
  const isOpen = latestVisit(record)?.ended === null;
  const way = chosen ?? (isOpen ? "visit" : "order");
  return { way, isOnSite: isOpen && way === "visit" };
}
