"use client";

import { useMemo } from "react";
import { counted } from "@/core/repairs";
import { reachOfHost } from "@/core/reach";
import type { ProbeGoal } from "@/core/plan";
import { useUi } from "../../frame/use-ui";
import { useIndex } from "../../plan-store/use-plan";

const GROUPS = {
  outside: "Outside",
  segment: "A device of each segment",
  pages: "The pages of the gear",
} as const;

/** From one device to everything: each line is a probe, and shows it when it is chosen. */
export function HostReachList({ host }: { host: string }) {
  const index = useIndex();
  const set = useUi((state) => state.set);
  const select = useUi((state) => state.select);
  const from = index.plan.host.get(host);
  const found = useMemo(() => (from === undefined ? [] : reachOfHost(index, from)), [index, from]);
  if (from === undefined) return null;
  const show = (goal: ProbeGoal) => {
    select(null);
    set({
      probeWay: "journey",
      probe: { from: { at: "host", host }, as: { as: "client" }, family: 4, goal },
    });
  };
  const passing = found.filter((hostReach) => hostReach.passes).length;
  return (
    <div className="min-h-0 flex-1 overflow-auto pb-6" tabIndex={-1}>
      <p role="status" className="px-4 py-2 text-13">
        {from.name} reaches {passing} of {counted(found.length, "goal", "goals")}.
      </p>
      {(["outside", "segment", "pages"] as const).map((group) => (
        <section key={group} aria-label={GROUPS[group]}>
          <h2 className="px-4 pt-2 text-14">{GROUPS[group]}</h2>
          <ul className="px-4 text-13">
            {found
              .filter((hostReach) => hostReach.group === group)
              .map((hostReach) => (
                <li key={hostReach.name} className="flex items-baseline gap-3 border-t border-hair py-1">
                  <button
                    type="button"
                    className="w-56 flex-none truncate text-left hover:underline"
                    onClick={() => show(hostReach.goal)}
                  >
                    {hostReach.name}
                  </button>
                  <span className={hostReach.passes ? "text-sound" : "text-ink2"}>
                    {hostReach.passes ? "✓ gets through" : hostReach.why}
                  </span>
                </li>
              ))}
          </ul>
        </section>
      ))}
    </div>
  );
}
