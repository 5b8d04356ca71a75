import { act, render, screen, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { fennelStreet } from "../../../../demo/fennel-street";
import { scene } from "../../../../tests/support/plan-scene";
import { must } from "@/core/kernel";
import { dayStart } from "./day-start";
import { HistoryView } from "./HistoryView";

type Support = typeof import("../../../../tests/support/plan-scene");
const mockAsked: URLSearchParams[] = [];
jest.mock(
  "@/ui/plan-store/use-plan",
  () => jest.requireActual<Support>("../../../../tests/support/plan-scene").scene.planModule,
);
jest.mock(
  "@/ui/frame/use-ui",
  () => jest.requireActual<Support>("../../../../tests/support/plan-scene").scene.uiModule,
);
jest.mock("./CompareRevisions", () => ({ CompareRevisions: () => null }));
jest.mock("./Visits", () => ({ Visits: () => null }));
jest.mock("@/ui/plan-store/api", () => ({
  call: (address: string) => {
    const asked = new URL(address, "http://x").searchParams;
    mockAsked.push(asked);
    const all = ["Ruth", "Marek"].map((authorName, at) => ({
      ...{ revision: at + 1, id: `b${at}`, author: authorName, authorName, planner: "test" },
      ...{ madeAt: "2026-11-30T09:00:00.000Z", summary: `by ${authorName}` },
      ...{ undoes: null, redoes: null, changeCount: 1 },
    }));
    const by = asked.get("by");
    return Promise.resolve({
      ok: true,
      value: all.filter(({ authorName }) => by === null || by === authorName),
    });
  },
}));

const plan = fennelStreet();
const last = () => must(mockAsked.at(-1), "a question");

beforeEach(async () => {
  mockAsked.length = 0;
  scene.show(plan);
  render(<HistoryView />);
  await act(async () => Promise.resolve());
});

test("the history is asked for by whom, about a device with all its parts, and from day to day", async () => {
  const filter = within(screen.getByRole("search", { name: "History" }));
  await userEvent.selectOptions(filter.getByLabelText("By"), "Marek");
  expect(screen.queryByText("by Ruth")).toBeNull();
  expect(screen.getByText("by Marek")).not.toBeNull();
  // Who else there is can still be chosen.
  expect(filter.getAllByRole("option").map(({ textContent }) => textContent)).toEqual([
    "anybody",
    "Marek",
    "Ruth",
  ]);
  await userEvent.click(filter.getByRole("button", { name: "About: anything" }));
  await userEvent.type(screen.getByPlaceholderText("Type part of the name"), "Upper");
  await userEvent.keyboard("{Enter}");
  const device = must(
    [...plan.device.values()].find(({ name }) => name === "Upper switch"),
    "the switch",
  );
  const about = (last().get("about") ?? "").split(",");
  const ports = [...plan.port.values()].filter((port) => port.device === device.id).map(({ id }) => id);
  expect(about).toEqual(expect.arrayContaining([device.id, ...ports]));
  await userEvent.type(filter.getByLabelText("From"), "2026-07-01");
  await userEvent.type(filter.getByLabelText("To"), "2026-07-01");
  // Summer time in London: the day begins an hour earlier by UTC.
  expect([last().get("from"), last().get("until"), last().get("by")]).toEqual([
    "2026-06-30T23:00:00.000Z",
    "2026-07-01T23:00:00.000Z",
    "Marek",
  ]);
  await userEvent.click(filter.getByRole("button", { name: "Everything" }));
  expect([last().get("by"), last().get("about"), last().get("from")]).toEqual([null, null, null]);
  expect(screen.getByText("by Ruth")).not.toBeNull();
});

test("a day begins where the site is, and by UTC where nobody knows its time zone", () => {
  expect(dayStart("2026-12-31", "Europe/London", 1)).toBe("2027-01-01T00:00:00.000Z");
  expect(dayStart("2026-03-01", "Asia/Kolkata", 0)).toBe("2026-02-28T18:30:00.000Z");
  expect(dayStart("2026-03-01", "No/Where", 0)).toBe("2026-03-01T00:00:00.000Z");
});
