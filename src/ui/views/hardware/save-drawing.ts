import { toast } from "sonner";
import type { DrawnMark } from "@/core/comparison";
import type { PlanIndex } from "@/core/plan";
import { jacketOf } from "@/core/sheets";
import { download, downloadBlob, fileName, pngOf } from "../../kit/download";
import { drawCables, type DrawnCable } from "./cable-ends";
import { drawingSvg } from "./drawing-svg";
import { laneOf, ORIGIN, placedBy, type Placed } from "./nodes-edges";
import { layoutOf } from "./use-layout";

type Marks = ReadonlyMap<string, DrawnMark>;
const NO_MARKS: Marks = new Map();

/** The drawing, whole, as a picture with nothing outside it. */
function pictureOf(
  index: PlanIndex,
  { drawn, placed, marks }: { drawn: readonly DrawnCable[]; placed: Placed; marks: Marks },
) {
  const { at } = placed;
  const style = getComputedStyle(document.documentElement);
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
    (name) => style.getPropertyValue(`--tape-${name}`).trim(),
  );
}

/**
 * The drawing of any plan, laid out beside the page, with what became of its gear and cables where that is
 * asked for; null where there is no gear.
 */
export async function drawingOf(index: PlanIndex, marks: Marks = NO_MARKS) {
  if (index.plan.device.size === 0) return null;
  const laid = await layoutOf(index);
  return pictureOf(index, { drawn: drawCables(index, laid), placed: placedBy(index, laid), marks });
}

/** Saves the drawing as it stands on screen. */
export async function saveDrawing(
  kind: "svg" | "png",
  index: PlanIndex,
  drawn: readonly DrawnCable[],
  placed: Placed,
): Promise<void> {
  const { svg, width, height } = pictureOf(index, { drawn, placed, marks: NO_MARKS });
  const name = fileName(index.plan.site.name, `cabling.${kind}`);
  if (kind === "svg") return download(name, "image/svg+xml", svg);
  const png = await pngOf(svg, width, height);
  if (png === null) toast.error("This browser can't make a PNG of the drawing; save it as SVG.");
  else downloadBlob(name, png);
}
