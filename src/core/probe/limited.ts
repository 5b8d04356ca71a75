import { nameOf, type Service } from "../plan";
import type { Limited } from "./port-state";
import type { ProbeRun } from "./run";

/** Stops what a port with sign-in does not let pass yet. */
export function stopLimited(run: ProbeRun, limited: Limited, what: string): void {
  const { port } = limited;
  const subjects = [{ kind: "port" as const, id: port }];
  run.journey.stop(
    {
      title: nameOf(run.index, "device", run.index.plan.port.get(port)?.device ?? ""),
      place: "802.1X, before a sign-in",
      says: `does not let ${what} pass`,
      why: limited.why,
      subjects,
      ports: [port],
    },
    { ...limited.cause, sentence: `${limited.cause.sentence} Until then ${what} does not pass there.` },
  );
}

/** Whether what somebody sends is among the services that pass before a sign-in. */
export const passesBefore = (
  only: readonly Service[],
  { protocol, dport }: { readonly protocol: string; readonly dport: number | null },
): boolean =>
  only.some(
    (service) =>
      service.protocol === protocol &&
      (service.ports.length === 0 ||
        (dport !== null && service.ports.some(([low, high]) => low <= dport && dport <= high))),
  );
