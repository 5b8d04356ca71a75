import { referencesOf, type Draft } from "../../plan";

/**
 * Takes what only points at entities off before they go: kept probes, forwards, servers of sign-in profiles,
 * bindings by hand.
 */
export function forget(draft: Draft, ids: ReadonlySet<string>): void {
  for (const forward of draft.all("forward"))
    if (ids.has(forward.host) || ids.has(forward.line)) draft.remove("forward", forward.id);
  const kept = new Set(draft.all("forward").map((forward) => forward.id));
  for (const expectation of draft.all("expectation")) {
    const { goal } = expectation.question;
    const lost = referencesOf("expectation", expectation).filter((reference) => ids.has(reference.id));
    if (
      lost.some((reference) => reference.field !== "segment") ||
      (goal.to === "forward" && !kept.has(goal.forward))
    )
      draft.remove("expectation", expectation.id);
    else if (lost.length > 0) draft.patch("expectation", expectation.id, { segment: null });
  }
  for (const profile of draft.all("signIn"))
    if (profile.servers.some((id) => ids.has(id)))
      draft.patch("signIn", profile.id, { servers: profile.servers.filter((id) => !ids.has(id)) });
  for (const device of draft.all("device"))
    if (device.protections.bound.some((id) => ids.has(id)))
      draft.patch("device", device.id, {
        protections: { ...device.protections, bound: device.protections.bound.filter((id) => !ids.has(id)) },
      });
}
