import { act, renderHook } from "@testing-library/react";
import { bramblewick } from "../../../demo/bramblewick";
import { fennelStreet } from "../../../demo/fennel-street";
import { lockkeepersHouse } from "../../../demo/lockkeepers-house";
import { scene } from "../../../tests/support/plan-scene";
import { useGoTo } from "./go-to";
import { viewIn } from "./views";

type Support = typeof import("../../../tests/support/plan-scene");
jest.mock(
  "@/ui/plan-store/use-plan",
  () => jest.requireActual<Support>("../../../tests/support/plan-scene").scene.planModule,
);
jest.mock(
  "@/ui/frame/use-ui",
  () => jest.requireActual<Support>("../../../tests/support/plan-scene").scene.uiModule,
);
jest.mock("@/ui/plan-store/api", () => ({
  call: () => Promise.resolve({ ok: false, status: 0, refused: { code: "no-answer", sentence: "Away." } }),
}));

const here = () => viewIn(window.location.pathname);

test.each([fennelStreet(), lockkeepersHouse(), bramblewick()])(
  "$site.name: every finding is looked at on its own sheet",
  (plan) => {
    act(() => scene.show(plan));
    const { result } = renderHook(() => useGoTo());
    for (const finding of scene.store.getState().list) {
      act(() => result.current.finding(finding));
      expect([finding.code, here()]).toEqual([finding.code, finding.family]);
    }
  },
);

test("a rule is at home on Walls and a forward on Gateway, each selected", () => {
  act(() => scene.show(fennelStreet()));
  const { result } = renderHook(() => useGoTo());
  const { plan } = scene.store.getState().held.index;
  const [rule] = plan.rule.keys();
  act(() => result.current.entity({ kind: "rule", id: rule ?? "" }));
  expect([here(), scene.ui.getState().selection]).toEqual(["walls", { what: "rule", id: rule }]);
  act(() => scene.show(lockkeepersHouse()));
  const [forward] = scene.store.getState().held.index.plan.forward.keys();
  act(() => result.current.entity({ kind: "forward", id: forward ?? "" }));
  expect([here(), scene.ui.getState().selection]).toEqual(["gateway", { what: "forward", id: forward }]);
});
