import { byNaturalText, must } from "../kernel";
import { applyChanges, PlanEdits, profileOf, type Host, type PlanIndex, type SignIn } from "../plan";
import { asClient, probe } from "../probe";

const STAGE_ORDER = ["watch", "limited", "closed"] as const satisfies readonly SignIn["stage"][];

/** A stage of a profile, and whom of those who are planned at its ports it leaves without a network. */
export interface StageAhead {
  readonly stage: SignIn["stage"];
  readonly cutOff: readonly Host[];
}

function atStage(index: PlanIndex, profile: SignIn, stage: SignIn["stage"]): PlanIndex {
  if (profile.stage === stage) return index;
  const edits = new PlanEdits(index.plan);
  edits.patch("signIn", profile.id, { stage });
  const changes = edits.changes();
  const applied = applyChanges(index.plan, changes);
  return index.derive(must(applied.ok ? applied.value : null, "a stage can be set"), changes);
}

/** The hosts at the ports of a profile, each once, by name. */
export const hostsOfProfile = (index: PlanIndex, profile: SignIn): Host[] =>
  [
    ...new Set(
      [...index.plan.port.values()]
        .filter(
          (port) =>
            port.guards.signIn &&
            port.enabled &&
            index.plan.device.get(port.device)?.bridging === "vlan" &&
            profileOf(index, port)?.id === profile.id,
        )
        .flatMap((port) => [...index.hostsAt(port.id)]),
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

/** The three stages of a profile, each with whom it would cut off of those who get in at the stage watch. */
export function stagesOf(index: PlanIndex, profile: SignIn): StageAhead[] {
  const hosts = hostsOfProfile(index, profile);
  const open = atStage(index, profile, "watch");
  const fine = hosts.filter((host) => hasNetwork(open, host));
  return STAGE_ORDER.map((stage) => {
    const then = atStage(index, profile, stage);
    return { stage, cutOff: stage === "watch" ? [] : fine.filter((host) => !hasNetwork(then, host)) };
  });
}
