"use client";

import { wrap } from "comlink";
import { useEffect, useState } from "react";
import type { PlanIndex } from "@/core/plan";
import { BOX } from "./cable-ends";
import type { LayoutBox, LayoutCable, LayoutWorker, Laid } from "@/workers/layout.worker";

let worker: ReturnType<typeof wrap<LayoutWorker>> | null = null;
const layoutWorker = () => (worker ??= wrap<LayoutWorker>(new Worker(new URL("../../../workers/layout.worker.ts", import.meta.url), { type: "module" })));

/** What the layout depends on, as text: the same text needs no new layout. */
function shapeOf({ plan }: PlanIndex): { boxes: LayoutBox[]; cables: LayoutCable[] } {
  const boxes = [...plan.device.values()].map((device): LayoutBox => ({ id: device.id, ...BOX, group: device.place }));
  const deviceOf = (port: string) => plan.port.get(port)?.device ?? "";
  const rank = (id: string) => ["gateway", "switch", "accessPoint"].indexOf(plan.device.get(id)?.kind ?? "");
  const cables = [...plan.link.values()].map((link): LayoutCable => {
    const [a, b] = [deviceOf(link.a), deviceOf(link.b)];
    return rank(a) <= rank(b) ? { id: link.id, from: a, to: b } : { id: link.id, from: b, to: a };
  });
  return { boxes, cables };
}

/** The layered layout of the gear; null until the first one is there. Where a person put a device is not its matter. */
export function useLayout(index: PlanIndex): Laid | null {
  const [made, setMade] = useState<{ key: string; laid: Laid } | null>(null);
  const shape = shapeOf(index);
  const key = JSON.stringify([shape.boxes.map((b) => [b.id, b.group]), shape.cables.map((c) => [c.from, c.to])]);
  useEffect(() => {
    let isCurrent = true;
    const { boxes, cables } = JSON.parse(JSON.stringify(shape)) as typeof shape;
    void layoutWorker().layout(boxes, cables).then((laid) => { if (isCurrent) setMade({ key, laid }); });
    return () => { isCurrent = false; };
  // The key stands for the shape: a new object with the same content needs no new layout.
  // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [key]);
  return made?.laid ?? null;
}
