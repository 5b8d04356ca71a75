"use client";

import { useEffect, useState } from "react";
import type { PlanIndex, Wish } from "@/core/plan";
import { waysIn, type WayIn } from "@/core/ways-in";

const known = new WeakMap<PlanIndex, Map<string, readonly WayIn[]>>();

/** The ways in for a wish, tried once for each state of the plan. */
export function waysOf(index: PlanIndex, wish: Wish): readonly WayIn[] {
  const before = known.get(index)?.get(wish.id);
  if (before !== undefined) return before;
  const ways = waysIn(index, wish);
  const all = known.get(index) ?? new Map<string, readonly WayIn[]>();
  known.set(index, all.set(wish.id, ways));
  return ways;
}

/** Wishes that are tried at once; more are tried one after the other behind the sheet. */
const AT_ONCE = 4;

/** How each wish fares, by its id; a wish that has not been tried yet is not in it. */
export function useWays(index: PlanIndex, wishes: readonly Wish[]): ReadonlyMap<string, readonly WayIn[]> {
  const [, setTried] = useState(0);
  const isLarge = index.plan.device.size > 200;
  const tried = new Map<string, readonly WayIn[]>();
  for (const [at, wish] of wishes.entries()) {
    const before = known.get(index)?.get(wish.id);
    if (before !== undefined || (!isLarge && at < AT_ONCE)) tried.set(wish.id, before ?? waysOf(index, wish));
  }
  const next = wishes.find(({ id }) => !tried.has(id));
  useEffect(() => {
    if (next === undefined) return undefined;
    const timer = setTimeout(() => {
      waysOf(index, next);
      setTried((count) => count + 1);
    }, 20);
    return () => clearTimeout(timer);
  }, [index, next]);
  return tried;
}
