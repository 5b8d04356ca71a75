import { byNaturalText, must } from "../kernel";
import { afterEdits, PlanEdits, signInPorts, type Host, type PlanIndex, type SignIn } from "../plan";
import { asClient, probe } from "../probe";

/** The stages that keep somebody out. */
const CLOSING = ["limited", "closed"] as const satisfies readonly SignIn["stage"][];

/** The three stages of a profile, and whom of those who are planned at its ports each leaves outside. */
export interface StagesAhead {
  readonly hosts: readonly Host[];
  /** The stages that would cut somebody off who gets in at the stage watch. */
  readonly cutOffAt: (host: Host) => readonly SignIn["stage"][];
}

function atStage(index: PlanIndex, profile: SignIn, stage: SignIn["stage"]): PlanIndex {
  if (profile.stage === stage) return index;
  const edits = new PlanEdits(index.plan);
  edits.patch("signIn", profile.id, { stage });
  return must(afterEdits(index, edits), "a stage can be set");
}

/** The hosts at the ports of a profile, each once, by name. */
export const hostsOfProfile = (index: PlanIndex, { id }: SignIn): Host[] =>
  [
    ...new Set(
      signInPorts(index).flatMap(({ port, profile }) =>
        profile?.id === id ? [...index.hostsAt(port.id)] : [],
      ),
    ),
  ].sort((a, b) => byNaturalText(a.name, b.name) || byNaturalText(a.id, b.id));

/** Whether a host gets the address that it should have. */
export function hasNetwork(index: PlanIndex, { id }: Host): boolean {
  const { cause, advice } = probe(index, asClient({ at: "host", host: id }, { to: "address" }), () => "");
  return cause === null && advice === null;
}

/** Whether a host gets as far as its gateway, and is answered. */
export function reachesGateway(index: PlanIndex, { id }: Host): boolean {
  const goal = { to: "gateway", service: null } as const;
  return probe(index, asClient({ at: "host", host: id }, goal), () => "").cause === null;
}

/** Whether a host gets an IPv6 address; false where its segment advertises nothing. */
export function hasNetwork6(index: PlanIndex, { id, segment }: Host): boolean {
  if ((index.plan.segment.get(segment ?? "")?.advertise ?? "none") === "none") return false;
  const question = asClient({ at: "host", host: id }, { to: "address" });
  return probe(index, { ...question, family: 6 }, () => "").cause === null;
}

/** What each stage of a profile comes to, beside the stage watch, where everybody passes. */
export function stagesOf(index: PlanIndex, profile: SignIn): StagesAhead {
  const open = atStage(index, profile, "watch");
  const then = CLOSING.map((stage) => ({ stage, index: atStage(index, profile, stage) }));
  return {
    hosts: hostsOfProfile(index, profile),
    cutOffAt: (host) =>
      hasNetwork(open, host)
        ? then.filter((state) => !hasNetwork(state.index, host)).map(({ stage }) => stage)
        : [],
  };
}
