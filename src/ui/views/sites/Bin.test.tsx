import { act, render, screen, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { Bin } from "./Bin";

const mockAsked: unknown[] = [];
let mockRefusal: string | null = null;
jest.mock("@/ui/plan-store/api", () => ({
  call: (...asked: unknown[]) => {
    mockAsked.push(asked);
    return Promise.resolve(
      mockRefusal === null ? { ok: true, value: {} } : { ok: false, refused: { sentence: mockRefusal } },
    );
  },
}));
const mockRefresh = jest.fn();
jest.mock("next/navigation", () => ({ useRouter: () => ({ refresh: mockRefresh }) }));

const site = {
  ...{ id: "one", name: "Boathouse", deletedBy: "Marek", isOver: false },
  ...{ deletedAt: "2026-11-03T14:05:00.000Z", endsAt: "2026-12-03T14:05:00.000Z" },
};
beforeEach(() => {
  mockAsked.length = 0;
  mockRefusal = null;
  mockRefresh.mockClear();
});
const press = async (name: string) => {
  await userEvent.click(screen.getByRole("button", { name }));
  await act(async () => Promise.resolve());
};

test("with nothing in it there is no bin", () => {
  render(<Bin sites={[]} />);
  expect(screen.queryByRole("region", { name: "Bin" })).toBeNull();
});

test("who deleted it and until when is said; it is brought back by one click", async () => {
  render(<Bin sites={[site]} />);
  const bin = within(screen.getByRole("region", { name: "Bin" }));
  expect(bin.getByRole("listitem").textContent).toMatch(
    /^Boathouse deleted by Marek, 3 Nov 2026.*until 3 Dec 2026/,
  );
  await press("Bring back Boathouse");
  expect(mockAsked).toEqual([["/api/bin", "POST", { site: "one", do: "bringBack" }]]);
  expect(mockRefresh).toHaveBeenCalledTimes(1);
});

test("for good it goes only when that is said twice", async () => {
  render(<Bin sites={[site]} />);
  await press("Delete Boathouse for good");
  expect(mockAsked).toEqual([]);
  const dialog = screen.getByRole("dialog", { name: "Delete Boathouse for good?" });
  await userEvent.click(within(dialog).getByRole("button", { name: "Delete Boathouse for good" }));
  await act(async () => Promise.resolve());
  expect(mockAsked).toEqual([["/api/bin", "POST", { site: "one", do: "forget" }]]);
  expect(screen.queryByRole("dialog")).toBeNull();
});

test("that somebody was quicker is said, and what is there now is asked for", async () => {
  mockRefusal = "It is not in the bin any more.";
  const { rerender } = render(<Bin sites={[site]} />);
  await press("Bring back Boathouse");
  rerender(<Bin sites={[]} />);
  expect(screen.getByRole("alert").textContent).toBe("It is not in the bin any more.");
  expect(mockRefresh).toHaveBeenCalledTimes(1);
});
