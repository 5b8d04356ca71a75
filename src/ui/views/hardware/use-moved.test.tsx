import { act, renderHook } from "@testing-library/react";
import { lockkeepersHouse } from "../../../../demo/lockkeepers-house";
import { must } from "@/core/kernel";
import { PlanIndex } from "@/core/plan";
import { runOrder, type Order } from "@/core/commands";
import { useMoved } from "./use-moved";

const plan = lockkeepersHouse();
const mockEdits: { summary: string; moved: Record<string, unknown> }[] = [];
const mockState = {
  held: { index: PlanIndex.of(plan) },
  edit: (order: Order) => {
    const { batch } = runOrder(PlanIndex.of(plan), () => plan.site.id, order);
    mockEdits.push({
      summary: batch?.summary ?? "",
      moved: Object.fromEntries(
        (batch?.changes ?? []).map((change) => [
          change.id,
          (change.after as { position?: unknown }).position,
        ]),
      ),
    });
    return null;
  },
};
jest.mock("../../plan-store/use-plan", () => ({ usePlanStore: () => ({ getState: () => mockState }) }));

const [one, two] = [...plan.device.keys()].map((id) => must(id, "a device")) as [string, string];
beforeEach(() => {
  mockEdits.length = 0;
  jest.useFakeTimers();
});

test("two boxes moved within one rest are both kept, in one step", () => {
  const { result } = renderHook(() => useMoved());
  act(() => {
    result.current.move(one, { x: 10.4, y: 20 });
    jest.advanceTimersByTime(200);
    result.current.move(two, { x: 30, y: 40 });
  });
  expect(mockEdits).toEqual([]);
  act(() => {
    jest.advanceTimersByTime(600);
  });
  expect(mockEdits).toEqual([
    {
      summary: "Moved 2 devices on the drawing",
      moved: { [one]: { x: 10, y: 20 }, [two]: { x: 30, y: 40 } },
    },
  ]);
});

test("leaving the view keeps what was moved a moment ago", () => {
  const { result, unmount } = renderHook(() => useMoved());
  act(() => result.current.move(one, { x: 1, y: 2 }));
  unmount();
  expect(mockEdits).toMatchObject([{ moved: { [one]: { x: 1, y: 2 } } }]);
});

test("what has not come to rest is kept before something else is done, and only once", () => {
  const { result } = renderHook(() => useMoved());
  act(() => {
    result.current.move(one, { x: 5, y: 6 });
    result.current.keepNow();
  });
  expect(mockEdits).toHaveLength(1);
  act(() => {
    jest.advanceTimersByTime(1000);
  });
  expect(mockEdits).toHaveLength(1);
});
