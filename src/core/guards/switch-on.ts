import { must } from "../kernel";
import { applyChanges, PlanEdits, type Host, type PlanIndex } from "../plan";
import { switchOn, type SafeGuard, type SwitchedOn } from "../planners";
import type { Repair } from "../repairs";
import { hasNetwork, reachesGateway } from "./way-there";

/** What switching a guard on comes to. */
export interface Ahead extends SwitchedOn {
  readonly guard: SafeGuard;
  /** Who has its address now and would not have it then. */
  readonly loses: readonly Host[];
  /** Does it; null where nothing is left to do. */
  readonly repair: Repair | null;
}

export const SAFE_GUARDS: Readonly<Record<SafeGuard, string>> = {
  snooping: "DHCP snooping",
  inspection: "ARP inspection",
  macLimits: "MAC limits",
  edges: "edge and BPDU guard",
};

/** Hosts with an address or a way to their gateway before, and without it after. */
const losing = (before: PlanIndex, after: PlanIndex): Host[] =>
  [...before.plan.host.values()].filter(
    (host) =>
      host.attachment.at !== "unplaced" &&
      [hasNetwork, reachesGateway].some((has) => !has(after, host) && has(before, host)),
  );

/** What switching a guard on all over the site would set, leave out and take from whom. */
export function switchOnAhead(index: PlanIndex, guard: SafeGuard): Ahead {
  const edits = new PlanEdits(index.plan);
  const { sets, leaves } = switchOn(index, edits, guard);
  const changes = edits.changes();
  if (changes.length === 0) return { guard, sets, leaves, loses: [], repair: null };
  const applied = applyChanges(index.plan, changes);
  const after = index.derive(must(applied.ok ? applied.value : null, "guards can be set"), changes);
  return {
    guard,
    sets,
    leaves,
    loses: losing(index, after),
    repair: {
      label: `Switch ${SAFE_GUARDS[guard]} on`,
      planner: "switch-on",
      args: { guard },
      edit: (now) => {
        switchOn(index, now, guard);
      },
    },
  };
}
