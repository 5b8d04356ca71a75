"use client";

import { proxy, wrap } from "comlink";
import { useEffect, useState } from "react";
import type { PlanIndex } from "@/core/plan";
import type { LayoutBox, Laid } from "@/workers/layout-model";
import type { LayoutWorker } from "@/workers/layout.worker";
import { BOX } from "./cable-ends";
import { shapeOf } from "./drawing-shape";

const ROW = 8;
const GAP = { x: 40, y: 70 } as const;

/** Boxes in plain rows, those of one place together: what is drawn when the layout has been called off. */
function plainRows(boxes: readonly LayoutBox[]): Laid {
  const places: Record<string, { x: number; y: number }> = {};
  const groups = [...new Set(boxes.map((box) => box.group))];
  let row = 0;
  for (const group of groups) {
    const own = boxes.filter((box) => box.group === group);
    for (const [i, box] of own.entries())
      places[box.id] = {
        x: (i % ROW) * (BOX.width + GAP.x),
        y: (row + Math.floor(i / ROW)) * (BOX.height + GAP.y),
      };
    row += Math.ceil(own.length / ROW);
  }
  return {
    places,
    routes: {},
    shared: {},
    width: ROW * (BOX.width + GAP.x),
    height: row * (BOX.height + GAP.y),
  };
}

/** Layouts that have been made, so that coming back to the drawing makes none anew. */
const KEPT = new Map<string, Laid>();
const MOST_KEPT = 6;

export interface Progress {
  readonly pass: number;
  readonly most: number;
  readonly devices: number;
  readonly cables: number;
  readonly cancel: () => void;
}

const keyOf = ({ boxes, cables }: ReturnType<typeof shapeOf>): string =>
  JSON.stringify([boxes.map((b) => [b.id, b.group]), cables.map((c) => [c.from, c.to])]);

function keep(key: string, laid: Laid): void {
  KEPT.set(key, laid);
  for (const old of [...KEPT.keys()].slice(0, -MOST_KEPT)) KEPT.delete(old);
}

/** A worker for each layout: one that has become pointless is stopped in the middle of its work. */
const layoutWorker = (): Worker =>
  new Worker(new URL("../../../workers/layout.worker.ts", import.meta.url), { type: "module" });

/** The layered layout of the gear of any plan, once; in plain rows where none can be made. */
export async function layoutOf(index: PlanIndex): Promise<Laid> {
  const shape = shapeOf(index);
  const key = keyOf(shape);
  const known = KEPT.get(key);
  if (known !== undefined) return known;
  const worker = layoutWorker();
  try {
    const laid = await wrap<LayoutWorker>(worker).layout(
      shape.boxes,
      shape.cables,
      proxy(() => {}),
    );
    keep(key, laid);
    return laid;
  } catch {
    return plainRows(shape.boxes);
  } finally {
    worker.terminate();
  }
}

/**
 * The layered layout of the gear, made off the page's thread; null until the first one is there. Where a
 * person put a device is not its matter.
 */
export function useLayout(index: PlanIndex): {
  readonly laid: Laid | null;
  readonly progress: Progress | null;
} {
  const shape = shapeOf(index);
  const key = keyOf(shape);
  const [made, setMade] = useState<Laid | null>(null);
  const [progress, setProgress] = useState<Progress | null>(null);
  useEffect(() => {
    if (KEPT.has(key)) return undefined;
    const { boxes, cables } = JSON.parse(JSON.stringify(shape)) as typeof shape;
    const worker = layoutWorker();
    const show = (laid: Laid) => {
      worker.terminate();
      setMade(laid);
      setProgress(null);
    };
    const finish = (laid: Laid) => {
      keep(key, laid);
      show(laid);
    };
    // Not kept: whoever comes back to the drawing gets a layout.
    const cancel = () => show(plainRows(boxes));
    void wrap<LayoutWorker>(worker)
      .layout(
        boxes,
        cables,
        proxy((pass, most) =>
          setProgress({ pass, most, devices: boxes.length, cables: cables.length, cancel }),
        ),
      )
      .then(finish, () => cancel());
    return () => {
      worker.terminate();
      setProgress(null);
    };
    // The key stands for the shape: a new object with the same content needs no new layout.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [key]);
  return { laid: KEPT.get(key) ?? made, progress };
}
