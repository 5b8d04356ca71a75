import type { Device, PlanIndex } from "../../plan";

/**
 * The domain of the first gear with VLANs that a switch without them leads to, over others of its kind: whose
 * network it is. Null when it leads to none.
 */
export function networkOf(index: PlanIndex, plain: Device): string | null {
  const seen = new Set([plain.id]);
  for (const id of seen) {
    for (const port of index.portsOf(id)) {
      const beyond = index.plan.device.get(index.peerOf(port.id)?.device ?? "");
      if (beyond === undefined) continue;
      if (beyond.bridging !== "plain") return beyond.domain;
      seen.add(beyond.id);
    }
  }
  return null;
}
