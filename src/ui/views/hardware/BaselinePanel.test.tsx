import { fireEvent, render, screen, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { fennelStreet } from "../../../../demo/fennel-street";
import { scene } from "../../../../tests/support/plan-scene";
import { must } from "@/core/kernel";
import { BaselinePanel } from "./BaselinePanel";

type Support = typeof import("../../../../tests/support/plan-scene");
jest.mock(
  "@/ui/plan-store/use-plan",
  () => jest.requireActual<Support>("../../../../tests/support/plan-scene").scene.planModule,
);
jest.mock(
  "@/ui/frame/use-ui",
  () => jest.requireActual<Support>("../../../../tests/support/plan-scene").scene.uiModule,
);

const grid = (name: string) => within(screen.getByRole("grid", { name }));
/** The cells of a row by its first. */
const row = (table: string, name: string) =>
  within(must(grid(table).getByRole("gridcell", { name }).closest("tr"), name))
    .getAllByRole("gridcell")
    .map(({ textContent }) => textContent);
const write = (table: string, name: string, column: number, text: string) => {
  const cells = within(must(grid(table).getByRole("gridcell", { name }).closest("tr"), name)).getAllByRole(
    "gridcell",
  );
  const cell = must(cells[column], "a cell");
  fireEvent.mouseDown(cell);
  fireEvent.doubleClick(cell);
  const editor = screen.getByRole("textbox");
  fireEvent.change(editor, { target: { value: text } });
  fireEvent.keyDown(editor, { key: "Enter" });
};
const ADMINISTERED = "How it is administered";
const IDENTITY = "What it is and runs";

test("what is written for the whole site goes to all that followed; one apart is brought back", async () => {
  scene.show(fennelStreet());
  render(<BaselinePanel />);
  write(ADMINISTERED, "Switch B", 2, "30");
  expect(row(ADMINISTERED, "Switch B")[2]).toBe("30 min");
  write(ADMINISTERED, "Whole site", 2, "5 min");
  expect([row(ADMINISTERED, "Whole site")[2], row(ADMINISTERED, "Gateway")[2]]).toEqual(["5 min", "5 min"]);
  expect(row(ADMINISTERED, "Switch B")[2]).toBe("30 min");
  expect(grid(ADMINISTERED).getByTitle("The whole site: 5 min").textContent).toBe("30 min");
  await userEvent.click(screen.getByRole("button", { name: "Set 1 device as the whole site" }));
  expect(row(ADMINISTERED, "Switch B")[2]).toBe("5 min");
  expect(screen.queryByRole("button", { name: /as the whole site/ })).toBeNull();
});

test("what can't be read is refused beside the cell; what a device can't do says so", () => {
  scene.show(fennelStreet());
  render(<BaselinePanel />);
  const before = scene.store.getState().held?.index.plan;
  write(ADMINISTERED, "Switch B", 3, "hunter2!");
  expect(screen.getByRole("alert").textContent).toMatch(/The password itself is never written down here/);
  expect(scene.store.getState().held?.index.plan).toBe(before);
  fireEvent.keyDown(screen.getByRole("textbox"), { key: "Escape" });
  write(ADMINISTERED, "Switch B", 11, "time servers");
  write(ADMINISTERED, "Switch B", 6, "");
  expect(row(ADMINISTERED, "Switch B")[6]).toBe("can’t");
});

test("what stands on cases is pasted as a block, no further than the table goes", () => {
  scene.show(fennelStreet());
  render(<BaselinePanel />);
  const cell = must(
    within(
      must(grid(IDENTITY).getByRole("gridcell", { name: "Lower switch" }).closest("tr"), ""),
    ).getAllByRole("gridcell")[1],
    "a cell",
  );
  fireEvent.mouseDown(cell);
  fireEvent.paste(document.activeElement ?? document.body, {
    clipboardData: { getData: () => "SN 0041\tB2\t4.1.0\nSN 0042\tB2\t4.1.0" },
  });
  expect([row(IDENTITY, "Lower switch").slice(1, 4), row(IDENTITY, "Switch B").slice(1, 4)]).toEqual([
    ["SN 0041", "B2", "4.1.0"],
    ["SN 0042", "B2", "4.1.0"],
  ]);
  expect(scene.written.at(-1)?.batch?.summary).toMatch(/^Pasted 2 rows/);
});
