import { byNaturalText } from "../../kernel";
import { isGateway, type Device, type PlanEdits } from "../../plan";

/**
 * The device that new segments get their gateway on: a gateway or firewall, else what routes; of several the
 * one that most have, then by name.
 */
export function usualGateway(edits: PlanEdits): Device | undefined {
  const routers = edits.all("device").filter((device) => isGateway(device));
  const candidates =
    routers.length > 0 ? routers : edits.all("device").filter((device) => device.abilities.routes);
  const used = new Map<string, number>();
  for (const segment of edits.all("segment")) {
    const leg =
      segment.gatewayInterface === null ? undefined : edits.get("interface", segment.gatewayInterface);
    if (leg !== undefined) used.set(leg.device, (used.get(leg.device) ?? 0) + 1);
  }
  return candidates.sort(
    (a, b) =>
      (used.get(b.id) ?? 0) - (used.get(a.id) ?? 0) ||
      byNaturalText(a.name, b.name) ||
      (a.id < b.id ? -1 : 1),
  )[0];
}
