import { must } from "../kernel";
import { PlanIndex, type Device, type Host, type Plan, type PlanEdits, type Port } from "../plan";
import { type ProbeGoal, type ProbeQuestion, type Segment } from "../plan";
import { asClient, probe, type Outcome } from "../probe";
import { afterEdit, donePlan } from "./after-edit";
import { testId } from "./build-plan";

// Questions of tests, asked by the names that people see.

export const newId = (): string => testId("new", "one");

const named = <T extends { readonly name: string }>(all: ReadonlyMap<string, T>, name: string): T =>
  must(
    [...all.values()].find((named) => named.name === name),
    name,
  );
export const hostOf = (plan: Plan, name: string): Host => named(plan.host, name);
export const deviceOf = (plan: Plan, name: string): Device => named(plan.device, name);
export const segmentOf = (plan: Plan, name: string): Segment => named(plan.segment, name);
export const portOf = (plan: Plan, device: string, label: string): Port =>
  must(
    [...plan.port.values()].find((port) => port.device === deviceOf(plan, device).id && port.label === label),
    `${device} ${label}`,
  );

/** The plan after some edits. */
export const edited = (plan: Plan, edit: (edits: PlanEdits) => void): Plan =>
  donePlan(afterEdit(plan, ({ edits }) => edit(edits)));

/** Sets guards of a port beside those it has. */
export function guard(
  edits: PlanEdits,
  device: string,
  label: string,
  guards: Partial<Port["guards"]>,
): void {
  const port = portOf(edits.plan, device, label);
  edits.patch("port", port.id, { guards: { ...edits.need("port", port.id).guards, ...guards } });
}

export const ask = (plan: Plan, question: ProbeQuestion): Outcome =>
  probe(PlanIndex.of(plan), question, newId);
export const fromHost = (plan: Plan, name: string, goal: ProbeGoal): Outcome =>
  ask(plan, asClient({ at: "host", host: hostOf(plan, name).id }, goal));
/** What somebody finds who is plugged into a port. */
export const atPort = (
  plan: Plan,
  device: string,
  label: string,
  part: Partial<ProbeQuestion> = {},
): Outcome =>
  ask(plan, {
    ...asClient({ at: "port", port: portOf(plan, device, label).id, tag: null }, { to: "address" }),
    ...part,
  });
