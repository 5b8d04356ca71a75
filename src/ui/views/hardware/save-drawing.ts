import { toast } from "sonner";
import type { PlanIndex } from "@/core/plan";
import { download, downloadBlob, fileName, pngOf } from "../../kit/download";
import { drawCables, type DrawnCable } from "./cable-ends";
import { placedBy, type Placed } from "./nodes-edges";
import { NO_MARKS, pictureOf, type Marks } from "./picture-of";
import { layoutOf } from "./use-layout";

const onPage = (name: string): string =>
  getComputedStyle(document.documentElement).getPropertyValue(`--tape-${name}`).trim();

/**
 * The drawing of any plan, laid out beside the page, with what became of its gear and cables where that is
 * asked for; null where there is no gear.
 */
export async function drawingOf(index: PlanIndex, marks: Marks = NO_MARKS) {
  if (index.plan.device.size === 0) return null;
  const laid = await layoutOf(index);
  return pictureOf(index, { drawn: drawCables(index, laid), placed: placedBy(index, laid), marks }, onPage);
}

/** Saves the drawing as it stands on screen. */
export async function saveDrawing(
  kind: "svg" | "png",
  index: PlanIndex,
  drawn: readonly DrawnCable[],
  placed: Placed,
): Promise<void> {
  const { svg, width, height } = pictureOf(index, { drawn, placed, marks: NO_MARKS }, onPage);
  const name = fileName(index.plan.site.name, `cabling.${kind}`);
  if (kind === "svg") return download(name, "image/svg+xml", svg);
  const png = await pngOf(svg, width, height);
  if (png === null) toast.error("This browser can't make a PNG of the drawing; save it as SVG.");
  else downloadBlob(name, png);
}
