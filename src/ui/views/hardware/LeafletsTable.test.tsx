import { render, screen, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { fennelStreet } from "../../../../demo/fennel-street";
import { scene } from "../../../../tests/support/plan-scene";
import { LeafletsTable } from "./LeafletsTable";

type Support = typeof import("../../../../tests/support/plan-scene");
jest.mock(
  "@/ui/plan-store/use-plan",
  () => jest.requireActual<Support>("../../../../tests/support/plan-scene").scene.planModule,
);

test("leaflets are listed, pasted with a sentence where a row is wrong, and forgotten", async () => {
  scene.show(fennelStreet());
  render(<LeafletsTable />);
  const table = screen.getByRole("table", { name: "Leaflets" });
  expect(within(table).getAllByRole("row")).toHaveLength(5);
  await userEvent.click(screen.getByRole("button", { name: "Paste leaflets" }));
  const box = screen.getByRole("textbox");
  await userEvent.click(box);
  await userEvent.paste("Model\tWhich\n5-port unmanaged switch\t10.0.0.300\n");
  await userEvent.click(screen.getByRole("button", { name: "Take them" }));
  expect(screen.getByRole("alert").textContent).toMatch(
    /^5-port unmanaged switch: "10\.0\.0\.300" is no first address/,
  );
  expect(within(table).getAllByRole("row")).toHaveLength(5);
  await userEvent.clear(box);
  await userEvent.click(box);
  await userEvent.paste("Model\tWhich\tStarts in\n5-port unmanaged switch\t10.0.0.30/24\t1 min\n");
  await userEvent.click(screen.getByRole("button", { name: "Take them" }));
  expect(within(table).getAllByRole("row")).toHaveLength(6);
  expect(scene.written.at(-1)?.batch?.summary).toBe("Pasted 1 leaflet");
  await userEvent.click(
    screen.getByRole("button", { name: "Forget the leaflet of 5-port unmanaged switch" }),
  );
  expect(within(table).getAllByRole("row")).toHaveLength(5);
});
