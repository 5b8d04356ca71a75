import { render, screen, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { fennelStreet } from "../../../../demo/fennel-street";
import { scene } from "../../../../tests/support/plan-scene";
import { Margin } from "../../margin/Margin";
import { FindingsView } from "./FindingsView";

type Support = typeof import("../../../../tests/support/plan-scene");
jest.mock(
  "@/ui/plan-store/use-plan",
  () => jest.requireActual<Support>("../../../../tests/support/plan-scene").scene.planModule,
);
jest.mock(
  "@/ui/frame/use-ui",
  () => jest.requireActual<Support>("../../../../tests/support/plan-scene").scene.uiModule,
);
jest.mock(
  "@/ui/record-store/use-record",
  () => jest.requireActual<Support>("../../../../tests/support/plan-scene").scene.recordModule,
);
jest.mock("@/ui/plan-store/api", () => ({
  call: () => Promise.resolve({ ok: false, status: 0, refused: { code: "no-answer", sentence: "Away." } }),
}));
jest.mock("next/navigation", () => ({ useRouter: () => ({ push: () => {} }), usePathname: () => "/" }));
jest.mock("next/dynamic", () => () => () => null);

test("a finding is accepted with a reason and a day, stays in sight, and is opened again", async () => {
  scene.show(fennelStreet());
  render(
    <>
      <FindingsView />
      <Margin view="findings" />
    </>,
  );
  const open = scene.store.getState().list.length;
  const stops = screen.getByRole("region", { name: /^Stops/ });
  const [first] = within(stops).getAllByRole("button", { pressed: false });
  await userEvent.click(first as HTMLElement);
  await userEvent.click(screen.getByRole("button", { name: "Accept it" }));
  expect(screen.getByRole("alert").textContent).toMatch(/^Say why/);
  await userEvent.type(screen.getByRole("textbox", { name: "Reason" }), "mended in spring");
  await userEvent.type(screen.getByRole("textbox", { name: "Until" }), "2030-04-30{Enter}");
  const { list, accepted } = scene.store.getState();
  expect([list.length, accepted.length]).toEqual([open - 1, 1]);
  const group = screen.getByRole("region", { name: "Accepted" });
  expect(within(group).getByText("Accepted: mended in spring (Ruth, until 2030-04-30)")).toBeTruthy();
  await userEvent.click(screen.getByRole("button", { name: "Open it again" }));
  expect(scene.store.getState().list).toHaveLength(open);
  expect(screen.queryByRole("region", { name: "Accepted" })).toBeNull();
});
