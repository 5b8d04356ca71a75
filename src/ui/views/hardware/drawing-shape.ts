import type { PlanIndex } from "@/core/plan";
import type { LayoutBox, LayoutCable } from "@/workers/layout-model";
import { BOX } from "./cable-ends";

/** What the layout depends on, as text: the same text needs no new layout. */
export function shapeOf({ plan }: PlanIndex): { boxes: LayoutBox[]; cables: LayoutCable[] } {
  const boxes = [...plan.device.values()].map((device): LayoutBox => ({
    id: device.id,
    ...BOX,
    group: device.place,
  }));
  const deviceOf = (port: string) => plan.port.get(port)?.device ?? "";
  const rank = (id: string) =>
    ["gateway", "firewall", "switch", "accessPoint"].indexOf(plan.device.get(id)?.kind ?? "");
  const cables = [...plan.link.values()].map((link): LayoutCable => {
    const [a, b] = [deviceOf(link.a), deviceOf(link.b)];
    return rank(a) <= rank(b) ? { id: link.id, from: a, to: b } : { id: link.id, from: b, to: a };
  });
  return { boxes, cables };
}
