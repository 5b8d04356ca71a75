import type { Failure } from "../failure";
import { must } from "../kernel";
import { applyChanges, Draft, offers, PlanIndex, type Plan } from "../plan";

/**
 * The plan with everything of a failure switched off, for asking it with probes: the slow way to what the
 * failure study finds.
 */
export function broken(plan: Plan, failure: Failure): Plan {
  const draft = new Draft(plan);
  const off = (port: string) => draft.patch("port", port, { enabled: false });
  if (failure.what === "cable") draft.remove("link", failure.id);
  if (failure.what === "line")
    for (const leg of plan.interface.values())
      if (leg.line === failure.id && leg.port !== null) off(leg.port);
  for (const device of plan.device.values()) {
    const isDark =
      failure.what === "device"
        ? device.id === failure.id
        : failure.what === "feed" && device.feed === failure.feed && device.backupFeed === "";
    if (!isDark) continue;
    for (const port of plan.port.values()) if (port.device === device.id) off(port.id);
    if (device.kind === "accessPoint") silence(draft, device.id);
  }
  const applied = applyChanges(plan, draft.changes());
  return must(applied.ok ? applied.value : null, "applies");
}

/** An access point that is dark offers no name: stations go to another, as long as there is one. */
function silence(draft: Draft, point: string): void {
  const index = PlanIndex.of(draft.plan);
  for (const ssid of draft.all("ssid")) {
    const at = [...index.plan.device.values()]
      .filter((device) => device.id !== point && offers(index, device, ssid))
      .map((device) => device.id);
    if (at.length > 0) draft.patch("ssid", ssid.id, { at });
  }
}
