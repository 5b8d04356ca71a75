import { must } from "../kernel";
import { afterEdits, PlanEdits, type Host, type PlanIndex } from "../plan";
import { switchOn, type SafeGuard, type SwitchedOn } from "../planners";
import type { Repair } from "../repairs";
import { hasNetwork, hasNetwork6, reachesGateway } from "./way-there";

/** What switching a guard on comes to. */
export interface Ahead extends SwitchedOn {
  readonly guard: SafeGuard;
  /** Everybody who is asked whether they lose something: those who are plugged in somewhere. */
  readonly hosts: readonly Host[];
  /** Whether somebody has an address or a way to its gateway now and would not have it then. */
  readonly loses: (host: Host) => boolean;
  /** Does it; null where nothing is left to do. */
  readonly repair: Repair | null;
}

export const SAFE_GUARDS: Readonly<Record<SafeGuard, string>> = {
  snooping: "DHCP snooping",
  inspection: "ARP inspection",
  sources: "source checks",
  ipv6: "guards of IPv6",
  macLimits: "MAC limits",
  storms: "storm limits",
  edges: "edge and BPDU guard",
  untagged: "untagged frames only",
  isolation: "isolated visitors",
  voice: "what phones are told",
};

/** Whether a host has an address of either family or a way to its gateway before, and not after. */
const losing =
  (before: PlanIndex, after: PlanIndex) =>
  (host: Host): boolean =>
    [hasNetwork, reachesGateway, hasNetwork6].some((has) => !has(after, host) && has(before, host));

/** What switching a guard on all over the site would set, leave out and take from whom. */
export function switchOnAhead(index: PlanIndex, guard: SafeGuard): Ahead {
  const edits = new PlanEdits(index.plan);
  const { sets, leaves } = switchOn(index, edits, guard);
  const hosts = [...index.plan.host.values()].filter(({ attachment }) => attachment.at !== "unplaced");
  if (edits.changes().length === 0) return { guard, sets, leaves, hosts, loses: () => false, repair: null };
  const after = must(afterEdits(index, edits), "guards can be set");
  return {
    guard,
    sets,
    leaves,
    hosts,
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
