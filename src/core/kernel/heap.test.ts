import fc from "fast-check";
import { Heap } from "./heap";

test("a heap gives back what was put in, smallest first, however puts and takes are mixed", () => {
  fc.assert(
    fc.property(
      fc.array(fc.oneof(fc.integer({ min: -50, max: 50 }), fc.constant(null)), { maxLength: 80 }),
      (steps) => {
        const heap = new Heap<number>((a, b) => a - b);
        const sorted: number[] = [];
        for (const step of steps) {
          if (step === null) expect(heap.pop()).toBe(sorted.shift());
          else {
            heap.push(step);
            sorted.push(step);
            sorted.sort((a, b) => a - b);
          }
        }
        for (const least of sorted) expect(heap.pop()).toBe(least);
        expect(heap.pop()).toBeUndefined();
      },
    ),
    { seed: 5, numRuns: 400 },
  );
});
