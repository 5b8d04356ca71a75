import { referencesOf, type Pin, type PlanEdits, type RuleSide } from "../../plan";

const isGone = (side: RuleSide, ids: ReadonlySet<string>): boolean =>
  (side.at === "zone" && ids.has(side.zone)) ||
  (side.at === "segment" && ids.has(side.segment)) ||
  (side.at === "host" && ids.has(side.host));

/**
 * An end of a rule that loses all it named would be anywhere: such a rule, which nothing can meet now, goes.
 */
function forgetInRules(edits: PlanEdits, ids: ReadonlySet<string>): void {
  for (const rule of edits.all("rule")) {
    const from = rule.from.filter((side) => !isGone(side, ids));
    const to = rule.to.filter((side) => !isGone(side, ids));
    const loses = (left: readonly RuleSide[], had: readonly RuleSide[]) =>
      left.length === 0 && had.length > 0;
    if (ids.has(rule.device) || loses(from, rule.from) || loses(to, rule.to)) edits.remove("rule", rule.id);
    else if (from.length < rule.from.length || to.length < rule.to.length)
      edits.patch("rule", rule.id, { from, to });
  }
}

const pinGone = (pin: Pin, ids: ReadonlySet<string>): boolean =>
  (pin.what === "segment" && ids.has(pin.segment)) || (pin.what === "host" && ids.has(pin.host));

/** Exceptions and wishes for what goes, what is pinned to a line and goes, and the lines of tunnels. */
function forgetOutside(edits: PlanEdits, ids: ReadonlySet<string>): void {
  for (const exception of edits.all("exception"))
    if (isGone(exception.from, ids) || isGone(exception.to, ids)) edits.remove("exception", exception.id);
  for (const wish of edits.all("wish")) if (ids.has(wish.host)) edits.remove("wish", wish.id);
  for (const line of edits.all("line"))
    if (line.pins.some((pin) => pinGone(pin, ids)))
      edits.patch("line", line.id, { pins: line.pins.filter((pin) => !pinGone(pin, ids)) });
  for (const { id, tunnel } of edits.all("segment"))
    if (tunnel !== null && tunnel.line !== null && ids.has(tunnel.line))
      edits.patch("segment", id, { tunnel: { ...tunnel, line: null } });
}

/** A window that may stop nothing any more goes: without a segment in it, it would be for everybody. */
function forgetInWindows(edits: PlanEdits, ids: ReadonlySet<string>): void {
  for (const { id, segments } of edits.all("window")) {
    const left = segments.filter((segment) => !ids.has(segment));
    if (left.length === segments.length) continue;
    if (left.length === 0) edits.remove("window", id);
    else edits.patch("window", id, { segments: left });
  }
}

/** Servers of sign-in profiles and of administrators, what is told of segments, bindings by hand. */
function forgetOnGear(edits: PlanEdits, ids: ReadonlySet<string>): void {
  for (const profile of edits.all("signIn"))
    if (profile.servers.some((id) => ids.has(id)))
      edits.patch("signIn", profile.id, { servers: profile.servers.filter((id) => !ids.has(id)) });
  for (const { id, adminSignIn } of edits.all("device"))
    if (adminSignIn.servers.some((server) => ids.has(server)))
      edits.patch("device", id, {
        adminSignIn: {
          ...adminSignIn,
          servers: adminSignIn.servers.filter((server) => !ids.has(server)),
        },
      });
  for (const { id, repeatsDiscovery } of edits.all("device"))
    if (repeatsDiscovery.some((segment) => ids.has(segment)))
      edits.patch("device", id, {
        repeatsDiscovery: repeatsDiscovery.filter((segment) => !ids.has(segment)),
      });
  for (const device of edits.all("device"))
    if (device.protections.bound.some((id) => ids.has(id)))
      edits.patch("device", device.id, {
        protections: { ...device.protections, bound: device.protections.bound.filter((id) => !ids.has(id)) },
      });
}

/**
 * Takes what only points at entities off before they go: kept probes, forwards, wishes, pins, rules, servers of
 * sign-in profiles and of administrators' sign-in, bindings by hand, what is told of segments, windows.
 */
export function forget(edits: PlanEdits, ids: ReadonlySet<string>): void {
  for (const forward of edits.all("forward"))
    if (ids.has(forward.host) || ids.has(forward.line)) edits.remove("forward", forward.id);
  forgetOutside(edits, ids);
  forgetInRules(edits, ids);
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
  forgetOnGear(edits, ids);
  forgetInWindows(edits, ids);
}
