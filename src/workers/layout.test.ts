import fc from "fast-check";
import { layout } from "./layout";
import type { LayoutBox, LayoutCable, LayoutPoint } from "./layout-model";
import { blocksOf } from "./layout-blocks";

const BOX = { width: 156, height: 50 };

interface Net {
  readonly parents: readonly number[];
  readonly groups: readonly number[];
  readonly extra: readonly (readonly [number, number])[];
}
/** Any tree of up to forty boxes most of them in one of three groups, some with a cable more. */
const anyNet: fc.Arbitrary<Net> = fc.integer({ min: 2, max: 40 }).chain((size) =>
  fc.record({
    parents: fc.array(fc.nat(2), { minLength: size, maxLength: size }),
    groups: fc.array(fc.constantFrom(0, 0, 0, 1, 2), { minLength: size, maxLength: size }),
    extra: fc.array(
      fc.tuple(fc.nat(size - 1), fc.nat(size - 1)).filter(([a, b]) => a !== b),
      { maxLength: 3 },
    ),
  }),
);

function made({ parents, groups, extra }: Net): { boxes: LayoutBox[]; cables: LayoutCable[] } {
  const boxes = groups.map((group, i): LayoutBox => ({ id: `b${i}`, ...BOX, group: `g${group}` }));
  const tree = parents
    .slice(1)
    .map((parent, i): LayoutCable => ({ id: `c${i}`, from: `b${parent % (i + 1)}`, to: `b${i + 1}` }));
  return {
    boxes,
    cables: [
      ...tree,
      ...extra.map(([a, b], i): LayoutCable => ({ id: `x${i}`, from: `b${a}`, to: `b${b}` })),
    ],
  };
}

const touches = (at: LayoutPoint, p: LayoutPoint) =>
  p.x >= at.x - 2 && p.x <= at.x + BOX.width + 2 && p.y >= at.y - 2 && p.y <= at.y + BOX.height + 2;

test("every box has a place of its own, every cable runs square from its first box to its second", async () => {
  let blocks = 0;
  await fc.assert(
    fc.asyncProperty(anyNet, async (net) => {
      const { boxes, cables } = made(net);
      blocks += blocksOf(boxes, cables).length;
      const { places, routes } = await layout(boxes, cables, () => undefined);
      expect(Object.keys(places).sort()).toEqual(boxes.map((box) => box.id).sort());
      for (const [i, a] of boxes.entries())
        for (const b of boxes.slice(i + 1)) {
          const [p, q] = [places[a.id] as LayoutPoint, places[b.id] as LayoutPoint];
          expect(Math.abs(p.x - q.x) >= BOX.width || Math.abs(p.y - q.y) >= BOX.height).toBe(true);
        }
      expect(Object.keys(routes).sort()).toEqual(cables.map((cable) => cable.id).sort());
      for (const { id, from, to } of cables) {
        const way = routes[id] ?? [];
        expect(touches(places[from] as LayoutPoint, way[0] as LayoutPoint)).toBe(true);
        expect(touches(places[to] as LayoutPoint, way.at(-1) as LayoutPoint)).toBe(true);
        for (const [k, p] of way.slice(1).entries())
          expect(
            Math.abs(p.x - (way[k] as LayoutPoint).x) < 2 || Math.abs(p.y - (way[k] as LayoutPoint).y) < 2,
          ).toBe(true);
      }
    }),
    { seed: 11, numRuns: 60 },
  );
  expect(blocks).toBeGreaterThan(20);
});

test("two hundred boxes on ten others stay in a shape that a sheet has", async () => {
  const boxes = Array.from({ length: 211 }, (_, i): LayoutBox => ({
    id: `b${i}`,
    ...BOX,
    group: i === 0 ? "core" : `house ${(i - 1) % 10}`,
  }));
  const cables = boxes
    .slice(1)
    .map((box, i): LayoutCable => ({ id: `c${i}`, from: i < 10 ? "b0" : `b${1 + (i % 10)}`, to: box.id }));
  const passes: number[] = [];
  const laid = await layout(boxes, cables, (pass) => passes.push(pass));
  expect(passes).toEqual([1]);
  expect(laid.width / laid.height).toBeLessThan(6);
});
