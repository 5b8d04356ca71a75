import { act, render, screen, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { fennelStreet } from "../../../demo/fennel-street";
import { scene } from "../../../tests/support/plan-scene";
import { encodeChanges } from "@/core/formats";
import { must } from "@/core/kernel";
import type { Change } from "@/core/plan";
import { WhySo } from "./WhySo";

type Support = typeof import("../../../tests/support/plan-scene");
jest.mock(
  "@/ui/plan-store/use-plan",
  () => jest.requireActual<Support>("../../../tests/support/plan-scene").scene.planModule,
);
const mockAsked: string[] = [];
let mockAnswers: (readonly unknown[] | null)[] = [];
jest.mock("@/ui/plan-store/api", () => ({
  call: (path: string) => {
    mockAsked.push(path);
    const value = mockAnswers.shift();
    return Promise.resolve(
      value === undefined || value === null
        ? { ok: false, refused: { sentence: "The server is not there." } }
        : { ok: true, value },
    );
  },
}));

const plan = fennelStreet();
const port = must(
  [...plan.port.values()].find(({ pvid }) => pvid !== null),
  "a port with a PVID",
);
const other = must([...plan.host.values()][0], "a host");
const line = (revision: number, changes: readonly Change[]) => ({
  ...{ revision, id: `id ${revision}`, author: "a", authorName: "Marek", planner: "test" },
  ...{ madeAt: "2026-11-03T14:05:00.000Z", summary: `Change ${revision}`, undoes: null, redoes: null },
  ...{ changeCount: changes.length, changes: encodeChanges(changes) },
});
const noted = (before: string, after: string): Change => ({
  ...{ kind: "port", id: port.id },
  ...{ before: { ...port, note: before }, after: { ...port, note: after } },
});
const open = async (about: readonly string[]) => {
  render(<WhySo about={about} />);
  await userEvent.click(screen.getByRole("button", { name: /^Why is .* like this\?$/ }));
  await act(async () => Promise.resolve());
};

beforeEach(() => {
  mockAsked.length = 0;
  scene.show(plan);
});

test("each batch that touched it is told: who, when, both values; nothing is asked before", async () => {
  mockAnswers = [[line(6, [noted("", "spare")]), line(1, [{ ...noted("", ""), before: null }])]];
  render(<WhySo about={[port.id]} />);
  expect(mockAsked).toEqual([]);
  await userEvent.click(screen.getByRole("button", { name: /^Why is .* port .* like this\?$/ }));
  await act(async () => Promise.resolve());
  const list = within(screen.getByRole("list", { name: "What touched it" }));
  expect(list.getAllByRole("listitem").map(({ textContent }) => textContent)).toEqual([
    "3 Nov 14:05, Marek, revision 6: Change 6note: none became spare",
    "3 Nov 14:05, Marek, revision 1: Change 1is new",
  ]);
  expect(mockAsked[0]).toMatch(new RegExp(`/touched\\?before=\\d+&about=${port.id}$`));
  expect(screen.queryByRole("button", { name: "Older ones" })).toBeNull();
});

test("of several things each is named, and what is older comes when it is asked for", async () => {
  const newest = Array.from({ length: 40 }, (_, at) => line(90 - at, [noted("a", "b")]));
  mockAnswers = [newest, [line(2, [{ kind: "host", id: other.id, before: null, after: other }])]];
  await open([port.id, other.id]);
  await userEvent.click(screen.getByRole("button", { name: "Older ones" }));
  await act(async () => Promise.resolve());
  expect(mockAsked[1]).toMatch(/\/touched\?before=51&/);
  const items = within(screen.getByRole("list", { name: "What touched it" })).getAllByRole("listitem");
  expect(items).toHaveLength(41);
  expect(items.at(-1)?.textContent).toContain(`${other.name}: is new`);
  expect(screen.queryByRole("button", { name: "Older ones" })).toBeNull();
});

test("that the server is not there is said, and that it is not saved yet", async () => {
  mockAnswers = [null];
  await open([port.id]);
  expect(screen.getByRole("alert").textContent).toBe("The server is not there.");
});
test("what was only just made has no history yet", async () => {
  mockAnswers = [[]];
  await open([port.id]);
  expect(screen.getByText("What made it is not saved yet.")).toBeTruthy();
});
