import { act, render, screen, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { fennelStreet } from "../../../../demo/fennel-street";
import { lockkeepersHouse } from "../../../../demo/lockkeepers-house";
import { scene } from "../../../../tests/support/plan-scene";
import { compareStates, findingsApart, tablesApart } from "@/core/comparison";
import { readPlanFile, writePlanFile } from "@/core/formats";
import { must } from "@/core/kernel";
import { PlanIndex, type Plan } from "@/core/plan";
import { CompareRevisions } from "./CompareRevisions";

type Support = typeof import("../../../../tests/support/plan-scene");
const mockAsked: number[] = [];
jest.mock(
  "@/ui/plan-store/use-plan",
  () => jest.requireActual<Support>("../../../../tests/support/plan-scene").scene.planModule,
);
jest.mock(
  "@/ui/frame/use-ui",
  () => jest.requireActual<Support>("../../../../tests/support/plan-scene").scene.uiModule,
);
/** Each revision has the name of the segment Staff with its number. */
function mockAt(revision: number): Plan {
  const plan = fennelStreet();
  const staff = must(
    [...plan.segment.values()].find(({ name }) => name === "Staff"),
    "Staff",
  );
  return {
    ...plan,
    segment: new Map([...plan.segment, [staff.id, { ...staff, name: `Staff ${revision}` }]]),
  };
}
jest.mock("@/ui/plan-store/plan-at", () => ({
  planAt: (_site: string, _held: unknown, revision: number) => {
    mockAsked.push(revision);
    return Promise.resolve(mockAt(revision));
  },
}));
jest.mock("@/ui/plan-store/plan-worker", () => ({
  planWorker: () => ({
    compare: (before: Plan, after: Plan) => {
      const [was, is] = [PlanIndex.of(before), PlanIndex.of(after)];
      return Promise.resolve({ groups: compareStates(was, is), findings: findingsApart(was, is) });
    },
    inTables: (before: Plan, after: Plan) =>
      Promise.resolve(tablesApart(PlanIndex.of(before), PlanIndex.of(after))),
    readFile: (text: string) => Promise.resolve(readPlanFile(text)),
  }),
}));

const mockDrawn: [string, string][][] = [];
jest.mock("../hardware/save-drawing", () => ({
  drawingOf: (_index: unknown, marks: ReadonlyMap<string, string>) => {
    mockDrawn.push([...marks]);
    return Promise.resolve({ svg: "<svg/>", width: 1, height: 1 });
  },
}));

const region = () => within(screen.getByRole("region", { name: "Compare revisions" }));
const compare = async (from: string, to: string) => {
  if (from !== "") await userEvent.type(region().getByLabelText("Revision"), from);
  if (to !== "") await userEvent.type(region().getByLabelText("Later revision"), to);
  await userEvent.click(region().getByRole("button", { name: "Compare" }));
  await act(async () => Promise.resolve());
};

beforeEach(() => {
  mockAsked.length = 0;
  // Its revision is 7.
  scene.show(fennelStreet());
  render(<CompareRevisions />);
});

test("without a word the last change is told, and can be made as it was", async () => {
  await compare("", "");
  expect(mockAsked).toEqual([6]);
  expect(region().getByText("name: Staff 6 became Staff")).not.toBeNull();
  await userEvent.click(region().getByRole("button", { name: "As it was: Staff" }));
  await act(async () => Promise.resolve());
  expect(region().getByText("✓ Nothing has changed.")).not.toBeNull();
  expect(scene.written.at(-1)?.batch?.summary).toBe("As in revision 6: Staff");
});

test("two revisions of before are compared, and nothing of the plan is offered to be changed", async () => {
  await compare("2", "4");
  expect(mockAsked).toEqual([2, 4]);
  expect(region().getByText("name: Staff 2 became Staff 4")).not.toBeNull();
  expect(region().queryByRole("button", { name: /^As it was/ })).toBeNull();
});

test.each([
  ["5", "5"],
  ["9", "3"],
  ["0", ""],
  ["two", ""],
])("revision %s with %s is not asked for", async (from, to) => {
  await compare(from, to);
  expect(region().getByRole("alert").textContent).toBe("The first one has to be earlier: 1 to 6.");
  expect(mockAsked).toEqual([]);
});

const fileOf = (name: string, text: string) =>
  Object.assign(new File([text], name, { type: "application/json" }), { text: () => Promise.resolve(text) });

test("a plan file of an earlier day is compared, and what it has can be brought back", async () => {
  const input = region().getByLabelText("Plan file to compare with");
  await userEvent.upload(input, fileOf("march.json", writePlanFile(mockAt(3))));
  await act(async () => Promise.resolve());
  expect(await region().findByText("name: Staff 3 became Staff")).not.toBeNull();
  await userEvent.click(region().getByRole("button", { name: "As it was: Staff" }));
  expect(scene.written.at(-1)?.batch?.summary).toBe("As in march.json: Staff");
});

test("two plan files are compared, either way round, and nothing is offered to change", async () => {
  const choose = async (label: string, file: File) => {
    await userEvent.upload(region().getByLabelText(label), file);
    await act(async () => Promise.resolve());
  };
  expect(region().queryByLabelText("Later plan file")).toBeNull();
  // Of one name, as two of one day can be.
  await choose("Plan file to compare with", fileOf("plan.json", writePlanFile(mockAt(3))));
  await choose("Later plan file", fileOf("plan.json", writePlanFile(mockAt(5))));
  expect(await region().findByText("name: Staff 3 became Staff 5")).not.toBeNull();
  expect(region().queryByRole("button", { name: /^As it was/ })).toBeNull();
  await userEvent.click(region().getByRole("button", { name: "The other way round" }));
  expect(await region().findByText("name: Staff 5 became Staff 3")).not.toBeNull();
  // One that can't be read leaves the earlier one as it was.
  await choose("Later plan file", fileOf("notes.json", "{"));
  expect(await region().findByText(/JSON/)).not.toBeNull();
  expect(await region().findByText("name: Staff 3 became Staff")).not.toBeNull();
});

test("the site's own tables show the rows that differ, each cell with both of its values", async () => {
  await compare("2", "4");
  await userEvent.click(region().getByRole("button", { name: "In the tables" }));
  const segments = await region().findByRole("region", { name: "Table: Segments" });
  const [, row] = within(segments).getAllByRole("row");
  expect(row?.textContent).toMatch(/^changed.*Staff 2Staff 4/);
  expect(within(segments).getByText("Staff 2").tagName).toBe("DEL");
  const alike = fennelStreet().segment.size - 1;
  expect(within(segments).getByText(`1 row differs, ${alike} are alike.`)).not.toBeNull();
  expect(within(segments).getByRole("button", { name: "Save CSV: Segments" })).not.toBeNull();
});

test("a file of another site, or none at all, is refused in words and compares nothing", async () => {
  const input = region().getByLabelText("Plan file to compare with");
  await userEvent.upload(input, fileOf("house.json", writePlanFile(lockkeepersHouse())));
  expect((await region().findByRole("alert")).textContent).toMatch(/^house\.json is of another site/);
  await userEvent.upload(input, fileOf("notes.json", "{"));
  expect((await region().findByText(/JSON/)).textContent).not.toBe("");
  expect(region().queryByRole("button", { name: "Save CSV" })).toBeNull();
});

test("what differs of gear and cables is drawn on demand; where none does, that is said", async () => {
  await compare("", "");
  expect(region().getByText("No gear and no cable differs.")).not.toBeNull();
  expect(region().getByRole<HTMLButtonElement>("button", { name: "On the drawing" }).disabled).toBe(true);
  expect(mockDrawn).toEqual([]);
  const { held } = scene.store.getState();
  const device = must([...held.index.plan.device.values()][0], "a device");
  act(() => {
    scene.store.getState().commit({
      ...{ id: "moved", planner: "test", summary: "Moved", args: null },
      changes: [{ kind: "device", id: device.id, before: device, after: { ...device, place: "Attic" } }],
    });
  });
  await act(async () => Promise.resolve());
  expect(region().getByText("1 device or cable differs.")).not.toBeNull();
  await userEvent.click(region().getByRole("button", { name: "On the drawing" }));
  const picture = await region().findByRole("img", { name: /^Drawing of both states/ });
  expect(picture.getAttribute("src")).toMatch(/^data:image\/svg\+xml/);
  expect(mockDrawn).toEqual([[[device.id, "changed"]]]);
});
