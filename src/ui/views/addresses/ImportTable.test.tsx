import { fireEvent, render, screen, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { fennelStreet } from "../../../../demo/fennel-street";
import { runOrder, type Order } from "@/core/commands";
import { PlanIndex, type ChangeBatch } from "@/core/plan";
import { testId } from "@/core/testing/build-plan";
import { ImportTable } from "./ImportTable";

const mockIndex = PlanIndex.of(fennelStreet());
const mockDone: (ChangeBatch | null)[] = [];
let made = 0;
const mockEdit = (order: Order) => {
  const { batch, refusal } = runOrder(mockIndex, () => testId("import", `${(made += 1)}`), order);
  mockDone.push(batch);
  return refusal;
};
jest.mock("../../plan-store/use-plan", () => ({
  useIndex: () => mockIndex,
  usePlan: (select: (state: unknown) => unknown) => select({ edit: mockEdit }),
}));
const mockSelect = jest.fn();
jest.mock("../../frame/use-ui", () => ({
  useUi: (select: (state: unknown) => unknown) => select({ select: mockSelect }),
}));

const paste = (text: string) =>
  fireEvent.paste(screen.getByRole("textbox"), { clipboardData: { getData: () => text } });
const closed = jest.fn();
beforeEach(() => {
  mockDone.length = 0;
  closed.mockReset();
  render(<ImportTable segment={null} close={closed} />);
});

test("good and bad rows are counted, the bad ones say why, and only the good ones are written", async () => {
  paste("Name\tMAC\tSegment\nTill\t02:5a:10:77:00:01\tStaff\nScale\tnot a MAC\tStaff\n");
  expect(screen.getByRole("status").textContent).toContain("1 new");
  expect(screen.getByRole("status").textContent).toContain("1 bad row");
  expect(
    within(screen.getByRole("table", { name: "Rows read" })).getByText(/is not a MAC address/),
  ).toBeTruthy();
  await userEvent.click(screen.getByRole("button", { name: "Skip 1, import 1" }));
  expect(mockDone).toHaveLength(1);
  expect(mockDone[0]).toMatchObject({
    planner: "import-hosts",
    summary: "Imported 1 row into the register",
    args: { rows: 1, skipped: 1 },
    changes: [{ kind: "host", before: null, after: { name: "Till", mac: "02:5a:10:77:00:01" } }],
  });
  expect(closed).toHaveBeenCalledTimes(1);
});

test("a column that was guessed wrong is set right, and the rows are read again", async () => {
  paste("Till\tDesk\n");
  await userEvent.selectOptions(screen.getByRole("combobox", { name: "Column 1 holds" }), "Name");
  await userEvent.selectOptions(screen.getByRole("combobox", { name: "Column 2 holds" }), "Place");
  const heads = screen.getByRole("checkbox", { name: "first row is heads" });
  if ((heads as HTMLInputElement).checked) await userEvent.click(heads);
  await userEvent.click(screen.getByRole("button", { name: "Import 1 row" }));
  expect(mockDone[0]?.changes).toMatchObject([{ after: { name: "Till", place: "Desk" } }]);
});

test("an empty table is refused with a sentence, and nothing is written", () => {
  paste("\n\n");
  expect(screen.getByRole("alert").textContent).toMatch(/no row in it/);
  expect(mockDone).toHaveLength(0);
});

test("another table begins anew", async () => {
  paste("Name\nTill\n");
  await userEvent.click(screen.getByRole("button", { name: "Another table" }));
  expect(screen.getByRole("textbox")).toBeTruthy();
  expect(screen.queryByRole("table")).toBeNull();
});
