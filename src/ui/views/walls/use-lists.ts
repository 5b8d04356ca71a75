"use client";

import { useEffect, useState } from "react";
import type { Device, PlanIndex } from "@/core/plan";
import { must } from "@/core/kernel";
import {
  PLANNED_LISTS,
  joinedProof,
  provePlanned,
  STANDING_LISTS,
  STANDING_PROOFS,
  type PlannedList,
  type Proof,
  type StandingList,
} from "@/core/walls";

/** The two lists of a device, each with its proof. */
export interface DeviceLists {
  readonly planned: PlannedList;
  readonly plannedProof: Proof;
  /** Null where no rule is noted that stands on it. */
  readonly standing: StandingList | null;
  readonly standingProof: Proof | null;
}

/** Above this many segments the sheet is drawn first and the lists are worked out behind it. */
const AT_ONCE = 150;

const known = new WeakMap<PlanIndex, Map<string, DeviceLists>>();

function listsOf(index: PlanIndex, device: string): DeviceLists | null {
  const before = known.get(index)?.get(device);
  if (before !== undefined) return before;
  const planned = index.derived(PLANNED_LISTS).get(device);
  if (planned === undefined) return null;
  const standing = index.derived(STANDING_LISTS).get(device) ?? null;
  const lists = {
    planned,
    plannedProof: must(joinedProof(provePlanned(index, planned)), "a proof outside all hours"),
    standing,
    standingProof: index.derived(STANDING_PROOFS).get(device) ?? null,
  };
  const all = known.get(index) ?? new Map<string, DeviceLists>();
  known.set(index, all.set(device, lists));
  return lists;
}

/** A device's lists with their proofs; null while a large site's are being worked out. */
export function useLists(index: PlanIndex, { id }: Device): DeviceLists | null {
  const [late, setLate] = useState<{ readonly of: PlanIndex; readonly lists: DeviceLists | null } | null>(
    null,
  );
  const isSmall = index.plan.segment.size <= AT_ONCE;
  useEffect(() => {
    if (isSmall) return undefined;
    const timer = setTimeout(() => setLate({ of: index, lists: listsOf(index, id) }), 100);
    return () => clearTimeout(timer);
  }, [index, id, isSmall]);
  if (isSmall) return listsOf(index, id);
  return late?.of === index ? late.lists : null;
}
