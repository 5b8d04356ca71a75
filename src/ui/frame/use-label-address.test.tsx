import { act, renderHook } from "@testing-library/react";
import { fennelStreet } from "../../../demo/fennel-street";
import { scene } from "../../../tests/support/plan-scene";
import { labelAddress } from "@/core/labels";
import { must } from "@/core/kernel";
import { useLabelAddress } from "./use-label-address";
import { viewIn } from "./views";

type Support = typeof import("../../../tests/support/plan-scene");
const mockSaid: string[] = [];
jest.mock(
  "@/ui/plan-store/use-plan",
  () => jest.requireActual<Support>("../../../tests/support/plan-scene").scene.planModule,
);
jest.mock(
  "@/ui/frame/use-ui",
  () => jest.requireActual<Support>("../../../tests/support/plan-scene").scene.uiModule,
);
jest.mock("sonner", () => ({ toast: { error: (text: string) => mockSaid.push(text) } }));

const plan = fennelStreet();
const [port] = plan.port.values();
const arrive = (kind: "port" | "device", id: string) => {
  const address = new URL(labelAddress(window.location.origin, plan.site.id, { kind, id }));
  window.history.pushState(null, "", address.pathname + address.hash);
};

beforeEach(() => {
  mockSaid.length = 0;
  act(() => scene.show(plan));
});

test("a label's address opens what it is on, and leaves nothing behind in the address", () => {
  const { id, device } = must(port, "a port");
  arrive("port", id);
  renderHook(() => useLabelAddress());
  expect([viewIn(window.location.pathname), window.location.hash]).toEqual(["ports", ""]);
  expect(scene.ui.getState().selection).toEqual({ what: "ports", device, ids: [id] });
  expect(mockSaid).toEqual([]);
});

test("one that is read while the site is open works, too; what is gone is said", () => {
  renderHook(() => useLabelAddress());
  arrive("device", "01a00000-0000-7000-8000-000000000000");
  act(() => {
    window.dispatchEvent(new HashChangeEvent("hashchange"));
  });
  expect([window.location.hash, scene.ui.getState().selection]).toEqual(["", null]);
  expect(mockSaid).toEqual([expect.stringMatching(/^What this label is on is no longer in the plan/)]);
});
