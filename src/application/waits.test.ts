import { waitAfter } from "./waits";

test("a few tries are free, then each wait is twice the one before, and none shuts anybody out", () => {
  expect([0, 4, 5, 6, 9, 13, 14, 1_000_000].map((failed) => waitAfter("account", failed))).toEqual([
    0, 0, 1, 2, 16, 256, 300, 300,
  ]);
  expect([9, 10, 15, 16, 90].map((failed) => waitAfter("browser", failed))).toEqual([0, 1, 32, 60, 60]);
  expect([29, 30, 38, 39].map((failed) => waitAfter("address", failed))).toEqual([0, 1, 256, 300]);
});
