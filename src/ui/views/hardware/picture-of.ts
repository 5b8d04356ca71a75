import type { DrawnMark } from "@/core/comparison";
import type { PlanIndex } from "@/core/plan";
import { jacketOf } from "@/core/sheets";
import type { DrawnCable } from "./cable-ends";
import { drawingSvg } from "./drawing-svg";
import { laneOf, ORIGIN, type Placed } from "./nodes-edges";

export type Marks = ReadonlyMap<string, DrawnMark>;
export const NO_MARKS: Marks = new Map();

/** The drawing, whole, as a picture with nothing outside it; `colour` tells what a tape looks like. */
export function pictureOf(
  index: PlanIndex,
  { drawn, placed, marks }: { drawn: readonly DrawnCable[]; placed: Placed; marks: Marks },
  colour: (tape: string) => string,
) {
  const { at } = placed;
  return drawingSvg(
    {
      title: `${index.plan.site.name}: cabling`,
      devices: [...index.plan.device.values()].map((device) => ({
        device,
        at: at.get(device.id) ?? ORIGIN,
        lane: laneOf(placed, device),
        mark: marks.get(device.id) ?? null,
      })),
      cables: drawn.map(({ id, first, last, route, tapeAt }) => ({
        label: index.plan.link.get(id)?.label ?? "",
        from: first.label,
        to: last.label,
        fromAt: at.get(first.device) ?? ORIGIN,
        toAt: at.get(last.device) ?? ORIGIN,
        route,
        tapeAt,
        jacket: jacketOf(index, first),
        mark: marks.get(id) ?? null,
      })),
    },
    colour,
  );
}
