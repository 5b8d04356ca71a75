import { act, render, screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { fennelStreet } from "../../../../demo/fennel-street";
import { scene } from "../../../../tests/support/plan-scene";
import { must } from "@/core/kernel";
import { RemarksSection } from "./RemarksSection";

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

const plan = fennelStreet();
const called = (name: string) =>
  must(
    [...plan.device.values()].find((device) => device.name === name),
    name,
  ).id;
const write = async (text: string) => {
  await userEvent.click(screen.getByRole("button", { name: /^(Write a remark|Remark on the site)/ }));
  await userEvent.type(screen.getByLabelText("Remark"), text);
  await userEvent.click(screen.getByRole("button", { name: "Write it down" }));
};
const entries = () => scene.record.store.getState().record.map(({ entry }) => entry);

beforeEach(() => {
  scene.show(plan);
  render(<RemarksSection />);
});

test("a remark stands at the thing that it is about, ours unless somebody says otherwise", async () => {
  act(() => scene.ui.getState().select({ what: "device", id: called("Upper switch") }));
  await write("fan is loud");
  expect(entries()).toEqual([
    expect.objectContaining({
      do: "remark",
      about: { kind: "device", id: called("Upper switch"), name: "Upper switch" },
      for: "us",
      text: "fan is loud",
      isOpen: false,
      due: null,
    }),
  ]);
  expect(screen.getByText(/; ours$/)).not.toBeNull();
  act(() => scene.ui.getState().select({ what: "device", id: called("Lower switch") }));
  expect(screen.queryByText("fan is loud")).toBeNull();
  act(() => scene.ui.getState().select({ what: "device", id: called("Upper switch") }));
  await userEvent.click(screen.getByRole("button", { name: "Withdraw: fan is loud" }));
  expect(screen.queryByText("fan is loud")).toBeNull();
});

test("with nothing selected, or what is no one thing, it is about the site; a port is one thing", async () => {
  await write("keys are at the reception");
  const [port] = [...plan.port.values()].filter(({ device }) => device === called("Upper switch"));
  act(() =>
    scene.ui
      .getState()
      .select({ what: "ports", device: called("Upper switch"), ids: [must(port, "a port").id] }),
  );
  expect(screen.queryByText("keys are at the reception")).toBeNull();
  await write("clip is broken");
  expect(entries().map((entry) => (entry.do === "remark" ? (entry.about?.kind ?? null) : ""))).toEqual([
    null,
    "port",
  ]);
  act(() => scene.ui.getState().select({ what: "conventions" }));
  expect(screen.getByText("keys are at the reception")).not.toBeNull();
});
