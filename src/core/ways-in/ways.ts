import type { PlanIndex, Wish } from "../plan";
import { setUpWay, WAY_WORDS, type Way } from "../planners";
import type { Repair } from "../repairs";
import { tryLines, type Tried } from "./try-way";

/** The ways in, in the order in which they stand on the sheet. */
export const WAYS: readonly Way[] = ["forward", "vpn", "push", "ipv6"];
export const WAY_HEADS: Readonly<Record<Way, string>> = {
  forward: "Forward",
  vpn: "VPN at the gateway",
  push: "Push out",
  ipv6: "IPv6 with a pinhole",
};

/** One way in for a wish: by the line by which it works best, and by each line. */
export interface WayIn {
  readonly way: Way;
  /** Null on a site without lines. */
  readonly best: Tried | null;
  readonly byLine: readonly Tried[];
}

/** All ways in for a wish, each tried with a packet by each line. */
export const waysIn = (index: PlanIndex, wish: Wish): WayIn[] =>
  WAYS.map((way) => {
    const byLine = tryLines(index, wish, way);
    return { way, best: byLine[0] ?? null, byLine };
  });

/** Sets a way up by the line by which it works best; null where it works by none. */
export function wayRepair(wish: Wish, { way, best }: WayIn): Repair | null {
  if (best === null || best.verdict === "cannot") return null;
  const args = { wish: wish.id, way, line: best.line.id };
  return {
    label: `Set up ${wish.name} by ${WAY_WORDS[way]}, ${best.line.name}`,
    planner: "set-up-way",
    args,
    // What the sheet shows was worked out on the plan as it is: the edits look it up anew.
    edit: (edits, ids) => setUpWay({ edits, ids }, args),
  };
}
