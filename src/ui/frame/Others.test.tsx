import { render, screen } from "@testing-library/react";
import { NOBODY, liveStore, othersIn, TAB } from "../live/live-store";
import { OthersAtThis, OthersHere, OthersMarks, OthersThere, thingsOf } from "./Others";

const ID = "01900000-0000-7000-8000-000000000001";
const someone = (name: string, sheet: string, things: readonly string[] = [], tab = `${name} ${sheet}`) => ({
  tab,
  name,
  sheet,
  things,
});
const present = (...all: ReturnType<typeof someone>[]) =>
  liveStore.setState({ isOpen: true, revision: 1, record: 0, present: all });
afterEach(() => liveStore.setState(NOBODY));

test("one's own tab is nobody else; a person with two tabs on one sheet is there once", () => {
  const all = [
    someone("Ruth", "ports", [], TAB),
    someone("Marek", "ports", [], "a"),
    someone("Marek", "ports", [], "b"),
  ];
  expect(othersIn(all, TAB).map(({ tab }) => tab)).toEqual(["a"]);
});

test("the title block says who is where; of more than two how many", () => {
  present(someone("Ruth", "ports", [], TAB));
  const { rerender } = render(<OthersHere />);
  expect(screen.queryByText("Also here")).toBeNull();
  present(someone("Ruth", "ports", [], TAB), someone("Marek", "walls"), someone("Ines", "somewhere"));
  rerender(<OthersHere />);
  expect(screen.getByText("Marek on Walls, Ines")).toBeTruthy();
  present(someone("Marek", "walls"), someone("Ines", "ports"), someone("Liv", "ports"));
  rerender(<OthersHere />);
  expect(screen.getByTitle("Marek on Walls, Ines on Ports, Liv on Ports").textContent).toBe(
    "Also here3 others",
  );
});

test("a view in the work order has the initials of whoever is there, or their number", () => {
  present(someone("Marek Vale", "walls"), someone("Ines", "ports"), someone("Liv", "ports"));
  render(
    <>
      <OthersThere view="walls" />
      <OthersThere view="ports" />
      <OthersThere view="survey" />
    </>,
  );
  const signs = screen.getAllByRole("img");
  expect(signs.map((sign) => [sign.textContent, sign.getAttribute("aria-label")])).toEqual([
    ["MV", "Also there: Marek Vale"],
    ["2", "Also there: Ines, Liv"],
  ]);
});

test("what somebody else has selected is marked, and said in the margin; only ids become a selector", () => {
  present(someone("Marek", "ports", [ID, "]{} * {display:none"]), someone("Ruth", "ports", [ID], TAB));
  const { container } = render(
    <>
      <OthersMarks />
      <OthersAtThis selection={{ what: "device", id: ID }} />
    </>,
  );
  expect(container.querySelector("style")?.textContent).toBe(
    `[data-id="${ID}"]{box-shadow:inset -3px 0 0 var(--ink2)}`,
  );
  expect(screen.getByRole("status").textContent).toBe("Marek has this selected, too.");
});

test("what is selected is told by its ids: ports with their device, at most 48", () => {
  const ids = Array.from({ length: 60 }, (_, at) => ID.slice(0, -2) + String(at).padStart(2, "0"));
  expect(thingsOf({ what: "ports", device: ID, ids })).toHaveLength(48);
  expect(thingsOf({ what: "ports", device: ID, ids: [] })).toEqual([ID]);
  expect(thingsOf({ what: "host", id: ID })).toEqual([ID]);
  expect(thingsOf({ what: "finding", key: "a" })).toEqual([]);
  expect(thingsOf(null)).toEqual([]);
});
