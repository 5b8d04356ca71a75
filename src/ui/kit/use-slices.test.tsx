import { act, renderHook, waitFor } from "@testing-library/react";
import { useSlices } from "./use-slices";

const numbers = Array.from({ length: 40 }, (_, at) => at);
const slow = (by: number) => (item: number) => {
  const end = performance.now() + 3;
  while (performance.now() < end);
  return item * by;
};

test("many questions are asked a slice at a time, in their order, and begin anew when they change", async () => {
  const [twice, thrice] = [slow(2), slow(3)];
  const { result, rerender } = renderHook(({ ask }) => useSlices(numbers, ask), {
    initialProps: { ask: twice },
  });
  expect(result.current).toEqual({ done: 0, all: 40, answers: [] });
  await waitFor(() => expect(result.current.done).toBeGreaterThan(0));
  // The first slice is not all of it: the page answered in between.
  expect(result.current.done).toBeLessThan(40);
  rerender({ ask: thrice });
  expect(result.current.done).toBe(0);
  await waitFor(() => expect(result.current.done).toBe(40));
  expect(result.current.answers).toEqual(numbers.map((item) => [item, item * 3]));
});

test("nothing is asked once nobody looks", async () => {
  jest.useFakeTimers();
  const asked: number[] = [];
  const ask = (item: number) => asked.push(item);
  const { unmount } = renderHook(() => useSlices(numbers, ask));
  unmount();
  await act(() => jest.advanceTimersByTimeAsync(200));
  expect(asked).toEqual([]);
  jest.useRealTimers();
});
