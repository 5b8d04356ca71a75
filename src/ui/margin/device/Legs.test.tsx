import { act, fireEvent, render, screen } from "@testing-library/react";
import { fennelStreet } from "../../../../demo/fennel-street";
import { scene } from "../../../../tests/support/plan-scene";
import { must } from "@/core/kernel";
import { Legs } from "./Legs";
import { useIndex } from "../../plan-store/use-plan";

type Support = typeof import("../../../../tests/support/plan-scene");
jest.mock(
  "@/ui/plan-store/use-plan",
  () => jest.requireActual<Support>("../../../../tests/support/plan-scene").scene.planModule,
);
const mockToasts: string[] = [];
jest.mock("sonner", () => ({ toast: { error: (text: string) => mockToasts.push(text) } }));

function Of({ name }: { name: string }) {
  const { plan } = useIndex();
  const device = [...plan.device.values()].find((device) => device.name === name);
  return <Legs device={must(device ?? null, name)} />;
}

test("a way back in is kept in one act, said with its port and addresses, and undone in one", async () => {
  scene.show(fennelStreet());
  render(<Of name="Upper switch" />);
  fireEvent.click(screen.getByRole("button", { name: "Keep a way back in" }));
  expect(scene.written.at(-1)?.batch?.summary).toBe("Kept a way back into Upper switch");
  const said = screen.getByText(/^Way back in: port/).textContent;
  expect(said).toBe(
    "Way back in: port 22; it answers at 10.24.0.17, the laptop takes 10.24.0.30/28, no gateway.",
  );
  await act(() => scene.store.getState().undo());
  expect(await screen.findByRole("button", { name: "Keep a way back in" })).not.toBeNull();
});

test("a device without a port to spare says so and writes nothing", () => {
  scene.show(fennelStreet());
  render(<Of name="Office AP" />);
  fireEvent.click(screen.getByRole("button", { name: "Keep a way back in" }));
  expect(mockToasts).toEqual([expect.stringContaining("has no port to spare")]);
  expect(scene.written.filter(({ batch }) => batch !== null)).toEqual([]);
});
