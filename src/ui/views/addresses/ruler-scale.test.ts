import { bramblewick } from "../../../../demo/bramblewick";
import { fennelStreet } from "../../../../demo/fennel-street";
import { must } from "@/core/kernel";
import { PlanIndex } from "@/core/plan";
import { rulerOf, segmentsInOrder } from "@/core/sheets";
import { layoutOf, numberStep, offsetLabel, placeOf, shownPart } from "./ruler-scale";

const RULERS = [fennelStreet(), bramblewick()].flatMap((plan) => {
  const index = PlanIndex.of(plan);
  return segmentsInOrder(index).flatMap((segment) => rulerOf(index, segment) ?? []);
});
const WIDTHS = [420, 740, 1200, 2000];

test.each(WIDTHS)(
  "at %i px every ruler and its glass stay on the page, the glass beside the ruler and larger",
  (width) => {
    const largest = Math.max(256, ...RULERS.map((ruler) => ruler.size));
    for (const ruler of RULERS) {
      const { whole, glass } = layoutOf(ruler, width, largest);
      const end = placeOf(whole, ruler.size);
      expect(end).toBeLessThanOrEqual(width);
      if (glass === null) continue;
      expect(glass.x).toBeGreaterThanOrEqual(end);
      expect(placeOf(glass, glass.to + 1)).toBeLessThanOrEqual(width);
      expect(glass.px).toBeGreaterThan(whole.px);
      expect([glass.from, glass.to < ruler.size]).toEqual([0, true]);
    }
  },
);

test("a stretch is shown as wide as it is, and cut where the scale ends", () => {
  const scale = { x: 100, px: 2, from: 10, to: 19 };
  expect(shownPart(scale, { first: 12, last: 14, count: 3 })).toEqual({ x: 104, width: 6 });
  expect(shownPart(scale, { first: 0, last: 12, count: 13 })).toEqual({ x: 100, width: 6 });
  expect(shownPart(scale, { first: 20, last: 30, count: 11 })).toBeNull();
});

test("numbers keep their distance and name the last octet, or the last two in a larger subnet", () => {
  for (const px of [0.01, 0.3, 2.2, 7, 30]) expect(numberStep(px) * px).toBeGreaterThanOrEqual(26);
  const ruler = must(RULERS[1], "a ruler");
  expect(offsetLabel(ruler, 40)).toBe("40");
  expect(offsetLabel({ ...ruler, size: 1024 }, 300)).toBe("21.44");
});
