import { fireEvent, render, screen, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { lockkeepersHouse } from "../../../../demo/lockkeepers-house";
import { scene } from "../../../../tests/support/plan-scene";
import { removeLeg } from "@/core/commands";
import { emptyPlan } from "@/core/plan";
import { Margin } from "../../margin/Margin";
import { GatewayView } from "./GatewayView";

type Support = typeof import("../../../../tests/support/plan-scene");
jest.mock(
  "@/ui/plan-store/use-plan",
  () => jest.requireActual<Support>("../../../../tests/support/plan-scene").scene.planModule,
);
jest.mock(
  "@/ui/frame/use-ui",
  () => jest.requireActual<Support>("../../../../tests/support/plan-scene").scene.uiModule,
);
const mockWent: string[] = [];
jest.mock("@/ui/frame/go-to", () => ({
  ...jest.requireActual<object>("@/ui/frame/go-to"),
  useGoTo: () => ({ view: (view: string) => mockWent.push(view), subject: () => {}, device: () => {} }),
}));
jest.mock("@/ui/plan-store/api", () => ({
  call: () => Promise.resolve({ ok: false, status: 0, refused: { code: "no-answer", sentence: "Away." } }),
}));
jest.mock("next/navigation", () => ({ useRouter: () => ({ push: () => {} }), usePathname: () => "/" }));
jest.mock("next/dynamic", () => () => () => null);

const draw = () =>
  render(
    <>
      <GatewayView />
      <Margin view="gateway" />
    </>,
  );
const forwards = () => [...scene.store.getState().held.index.plan.forward.values()];
const pasteOn = (cell: HTMLElement, text: string) => {
  fireEvent.mouseDown(cell);
  fireEvent.paste(cell, { clipboardData: { getData: () => text } });
};

beforeEach(() => {
  mockWent.length = 0;
  scene.show(lockkeepersHouse());
});

test("lines and legs are drawn from the outside in; each opens its own margin", async () => {
  draw();
  const drawing = screen.getByRole("region", { name: "Lines and legs" });
  expect(within(drawing).getByText("main: everything")).toBeTruthy();
  expect(within(drawing).getByText("standby: when no main line works")).toBeTruthy();
  expect(within(within(drawing).getByRole("list", { name: "Legs" })).getAllByRole("listitem")).toHaveLength(
    6,
  );
  await userEvent.click(within(drawing).getByRole("button", { name: /^Fibre line/ }));
  expect(scene.ui.getState().selection).toMatchObject({ what: "line" });
  await userEvent.click(within(drawing).getByRole("button", { name: /Household/ }));
  expect(scene.ui.getState().selection).toMatchObject({ what: "interface" });
});

test("a leg is added where there is none, with the gateway's address by convention; the use of a line is chosen", async () => {
  const { index } = scene.store.getState().held;
  const leg = [...index.plan.interface.values()].find(
    ({ name, segment }) => segment !== null && name === "Visitors",
  );
  scene.store.getState().edit(removeLeg({ device: leg?.device ?? "", leg: leg?.id ?? "" }));
  draw();
  await userEvent.click(screen.getByRole("button", { name: "Add a leg, 172.19.60.1" }));
  expect(screen.queryByRole("button", { name: /^Add a leg/ })).toBeNull();
  await userEvent.click(screen.getByRole("button", { name: /^Mobile line/ }));
  await userEvent.selectOptions(screen.getByRole("combobox", { name: "Used as" }), "shared");
  expect(screen.getByText("shares with the main line")).toBeTruthy();
});

test("forwards are pasted; one that meets another is found and moved; from its margin it is probed and removed", async () => {
  draw();
  const had = forwards().length;
  const grid = screen.getByRole("grid", { name: "Forwards" });
  pasteOn(
    within(grid).getByText("New forward"),
    "Panel\tFibre line\ttcp 9443\t172.19.30.20\t443\t203.0.113.41\nSpare\tFibre line\ttcp 9443\t172.19.30.20\t80\t203.0.113.41",
  );
  expect(forwards()).toHaveLength(had + 2);
  expect(screen.getByText(/both want TCP 9443 on Fibre line/)).toBeTruthy();
  await userEvent.click(screen.getByRole("button", { name: "Move Spare to TCP 9444" }));
  await userEvent.click(screen.getByRole("button", { name: "Apply" }));
  expect(forwards().find(({ name }) => name === "Spare")?.ports).toEqual([9444, 9444]);
  fireEvent.mouseDown(within(grid).getByText("Spare"));
  await userEvent.click(screen.getByRole("button", { name: "Probe it from outside" }));
  expect(mockWent).toEqual(["probe"]);
  fireEvent.mouseDown(within(grid).getByText("Spare"));
  await userEvent.click(screen.getByRole("button", { name: "Remove" }));
  expect(forwards()).toHaveLength(had + 1);
});

test("routes are pasted and refused in place; a next hop that is no neighbour is found", () => {
  draw();
  const grid = screen.getByRole("grid", { name: "Routes on Gateway" });
  pasteOn(within(grid).getByText(/^New route/), "10.9.0.0/16\t10.8.0.1");
  expect(within(grid).getByText("10.9.0.0/16")).toBeTruthy();
  expect(screen.getByText(/which lies in no network that it has an address in/)).toBeTruthy();
  pasteOn(within(grid).getByText(/^New route/), "10.9.0.0/16\t172.19.20.7");
  expect(scene.written.at(-1)?.refusal).toMatch(/There is a route for 10\.9\.0\.0\/16 already/);
});

test("without anything that routes it says what belongs here and where to begin", async () => {
  scene.show(emptyPlan(lockkeepersHouse().site));
  draw();
  await userEvent.click(screen.getByRole("button", { name: "Go to Hardware" }));
  expect(mockWent).toEqual(["hardware"]);
});
