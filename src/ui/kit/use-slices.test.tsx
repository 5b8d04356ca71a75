import { act, renderHook } from "@testing-library/react";
import { useSlices } from "./use-slices";

const numbers = Array.from({ length: 40 }, (_, at) => at);

/** A clock that goes on by 10 ms each time it is looked at, and timers that run when they are told to. */
beforeEach(() => {
  jest.useFakeTimers({ doNotFake: ["performance"] });
  let now = 0;
  jest.spyOn(performance, "now").mockImplementation(() => (now += 10));
});
afterEach(() => {
  jest.useRealTimers();
  jest.restoreAllMocks();
});
const slice = () => act(() => jest.runOnlyPendingTimers());

test("many questions are asked a slice at a time, in their order, and begin anew when they change", () => {
  const [twice, thrice] = [(item: number) => item * 2, (item: number) => item * 3];
  const { result, rerender } = renderHook(({ ask }) => useSlices(numbers, ask), {
    initialProps: { ask: twice },
  });
  expect(result.current).toEqual({ done: 0, all: 40, answers: [] });
  slice();
  // Two looks at the clock lie within a slice of 25 ms: then the page has its turn.
  expect(result.current.done).toBe(2);
  slice();
  expect(result.current.done).toBe(4);
  rerender({ ask: thrice });
  expect(result.current.done).toBe(0);
  for (let i = 0; i < 20; i += 1) slice();
  expect(result.current.answers).toEqual(numbers.map((item) => [item, item * 3]));
  expect(jest.getTimerCount()).toBe(0);
});

test("nothing is asked once nobody looks", () => {
  const asked: number[] = [];
  const ask = (item: number) => asked.push(item);
  const { unmount } = renderHook(() => useSlices(numbers, ask));
  unmount();
  slice();
  expect(asked).toEqual([]);
});
