import fc from "fast-check";
import { amended } from "./amended";

const COUNT = 1200;
const idOf = (at: number) => `id ${at}`;
const whole = new Map(Array.from({ length: COUNT }, (_, at) => [idOf(at), { at, turn: 0 }]));

test("amended again and again it is what a copy would be: order, size, and all ways to read it", () => {
  const edits = fc.array(
    fc.array(fc.nat({ max: COUNT - 1 }), { size: "max", minLength: 1, maxLength: 150 }),
    {
      size: "max",
      minLength: 1,
      maxLength: 8,
    },
  );
  let copied = 0;
  fc.assert(
    fc.property(edits, (turns) => {
      const copy = new Map(whole);
      let all: ReadonlyMap<string, { at: number; turn: number }> = whole;
      for (const [turn, ids] of turns.entries()) {
        const replaced = new Map(ids.map((at) => [idOf(at), { at, turn: turn + 1 }]));
        for (const [id, value] of replaced) copy.set(id, value);
        const next = amended(all, replaced);
        if (next === null) copied += 1;
        all = next ?? new Map(copy);
        const heard: unknown[] = [];
        all.forEach((value, id) => heard.push([id, value]));
        expect([...all]).toEqual([...copy]);
        expect(heard).toEqual([...copy]);
        expect([[...all.keys()], [...all.values()], [...all.entries()]]).toEqual([
          [...copy.keys()],
          [...copy.values()],
          [...copy],
        ]);
        expect([all.size, all.has(idOf(3)), all.has("no"), all.get("no")]).toEqual([
          COUNT,
          true,
          false,
          undefined,
        ]);
        for (const id of replaced.keys()) expect(all.get(id)).toBe(copy.get(id));
      }
    }),
    { numRuns: 25 },
  );
  expect(copied).toBeGreaterThan(0);
  expect(whole.get(idOf(0))).toEqual({ at: 0, turn: 0 });
});

test("a small collection is copied, and one of which much is replaced", () => {
  const all = (count: number) =>
    new Map(Array.from({ length: count }, (_, at) => [idOf(at), { at, turn: 0 }]));
  const replaced = (count: number, from = 0) =>
    new Map(Array.from({ length: count }, (_, i) => [idOf(from + i), { at: i, turn: 1 }]));
  expect(amended(all(999), replaced(1))).toBeNull();
  expect(amended(all(1000), replaced(1))?.get(idOf(0))).toEqual({ at: 0, turn: 1 });
  expect(amended(all(1000), replaced(257))).toBeNull();
  const most = amended(all(1000), replaced(200)) ?? all(0);
  expect(most.get(idOf(199))?.turn).toBe(1);
  expect(amended(most, replaced(56, 300))?.get(idOf(355))?.turn).toBe(1);
  expect(amended(most, replaced(57, 300))).toBeNull();
});
