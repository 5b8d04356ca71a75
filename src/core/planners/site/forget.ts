import { referencesOf, type PlanEdits } from "../../plan";

/**
 * Takes what only points at entities off before they go: kept probes, forwards, servers of sign-in profiles,
 * bindings by hand.
 */
export function forget(edits: PlanEdits, ids: ReadonlySet<string>): void {
  for (const forward of edits.all("forward"))
    if (ids.has(forward.host) || ids.has(forward.line)) edits.remove("forward", forward.id);
  const kept = new Set(edits.all("forward").map((forward) => forward.id));
  for (const expectation of edits.all("expectation")) {
    const { goal } = expectation.question;
    const lost = referencesOf("expectation", expectation).filter((reference) => ids.has(reference.id));
    if (
      lost.some((reference) => reference.field !== "segment") ||
      (goal.to === "forward" && !kept.has(goal.forward))
    )
      edits.remove("expectation", expectation.id);
    else if (lost.length > 0) edits.patch("expectation", expectation.id, { segment: null });
  }
  for (const profile of edits.all("signIn"))
    if (profile.servers.some((id) => ids.has(id)))
      edits.patch("signIn", profile.id, { servers: profile.servers.filter((id) => !ids.has(id)) });
  for (const device of edits.all("device"))
    if (device.protections.bound.some((id) => ids.has(id)))
      edits.patch("device", device.id, {
        protections: { ...device.protections, bound: device.protections.bound.filter((id) => !ids.has(id)) },
      });
}
