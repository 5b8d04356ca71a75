import type { Failure } from "../failure";
import { must } from "../kernel";
import { applyChanges, PlanEdits, offers, PlanIndex, type Plan } from "../plan";

/**
 * The plan with everything of a failure switched off, for asking it with probes: the slow way to what the
 * failure study finds.
 */
export function broken(plan: Plan, failure: Failure): Plan {
  const edits = new PlanEdits(plan);
  const off = (port: string) => edits.patch("port", port, { enabled: false });
  if (failure.what === "cable") edits.remove("link", failure.id);
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
    if (device.kind === "accessPoint") silence(edits, device.id);
  }
  const applied = applyChanges(plan, edits.changes());
  return must(applied.ok ? applied.value : null, "applies");
}

/** An access point that is dark offers no name: stations go to another, as long as there is one. */
function silence(edits: PlanEdits, point: string): void {
  const index = PlanIndex.of(edits.plan);
  for (const ssid of edits.all("ssid")) {
    const at = [...index.plan.device.values()]
      .filter((device) => device.id !== point && offers(index, device, ssid))
      .map((device) => device.id);
    if (at.length > 0) edits.patch("ssid", ssid.id, { at });
  }
}
