import { act, fireEvent, render, screen, waitFor } from "@testing-library/react";
import { useRef, useState } from "react";
import { flushSync } from "react-dom";
import type { Column, GridActions } from "./column";
import { EditGrid } from "./EditGrid";

interface Gear {
  readonly id: string;
  readonly name: string;
  readonly place: string;
}
type ColumnId = "name" | "place";
const COLUMNS: Column<Gear, ColumnId>[] = [
  { id: "name", head: "Name", text: (row) => row.name },
  { id: "place", head: "Place", text: (row) => row.place },
];
const gear = (...names: string[]): Gear[] =>
  names.map((name) => ({ id: `id of ${name}`, name, place: "Hall" }));

/** A table over rows that this test changes as somebody else's edits would; `calls` is what was asked for. */
function scene(first: readonly Gear[], columns = () => COLUMNS) {
  const calls: unknown[][] = [];
  let change: (work: (rows: readonly Gear[]) => readonly Gear[]) => void = () => {};
  const set = (id: string, column: ColumnId, text: string) =>
    change((rows) => rows.map((row) => (row.id === id ? { ...row, [column]: text } : row)));
  function Table() {
    const [rows, setRows] = useState(first);
    const scroller = useRef<HTMLDivElement>(null);
    change = setRows;
    const actions: GridActions<ColumnId> = {
      edit: (id, column, text) => {
        calls.push(["edit", id, column, text]);
        if (id === null) setRows([...rows, { id: `id of ${text}`, name: text, place: "" }]);
        else set(id, column, text);
        return null;
      },
      paste: (texts, from, onto) => {
        calls.push(["paste", texts, from, onto]);
        return null;
      },
      clear: (cells) => {
        calls.push(["clear", cells]);
        return null;
      },
      remove: (ids) => {
        calls.push(["remove", ids]);
      },
      select: () => {},
    };
    return (
      <div ref={scroller}>
        <EditGrid<Gear, ColumnId>
          label="Gear"
          rows={rows}
          idOf={(row) => row.id}
          columns={columns()}
          actions={actions}
          selected={null}
          newRow={{ name: "New" }}
          scroller={scroller}
        />
      </div>
    );
  }
  render(<Table />);
  type Work = (rows: readonly Gear[]) => readonly Gear[];
  return { calls, change: (work: Work) => change(work), others: (work: Work) => act(() => change(work)) };
}

const cell = (name: string) => screen.getByRole("gridcell", { name });
const openCell = (name: string) => {
  fireEvent.mouseDown(cell(name));
  fireEvent.doubleClick(cell(name));
};
const editor = () => screen.getByRole<HTMLInputElement>("textbox");
const type = (text: string) => fireEvent.change(editor(), { target: { value: text } });
const key = (name: string, more: object = {}) =>
  fireEvent.keyDown(document.activeElement ?? document.body, { key: name, ...more });

test("a row that comes in above an open cell does not move it: what is typed goes where begun", () => {
  const { calls, others } = scene(gear("Mill", "Barn"));
  openCell("Barn");
  type("Barn switch");
  others((rows) => [...gear("Attic"), ...rows]);
  expect(editor().value).toBe("Barn switch");
  key("Enter");
  expect(calls).toEqual([["edit", "id of Barn", "name", "Barn switch"]]);
  expect(cell("Attic")).toBeTruthy();
});

test("a row that goes while one writes in it: nothing is written elsewhere, and what was typed is said", () => {
  const { calls, others } = scene(gear("Mill", "Barn", "Kiln"));
  openCell("Barn");
  type("Barn switch");
  others((rows) => rows.filter((row) => row.name !== "Barn"));
  expect(screen.getByRole("alert").textContent).toMatch(/removed the row.*You had typed: Barn switch/);
  expect([screen.queryByRole("textbox"), calls]).toEqual([null, []]);
});

test("somebody's value that came into the open cell meanwhile is shown before mine is written over it", () => {
  const { calls, others } = scene(gear("Mill", "Barn"));
  openCell("Barn");
  type("Barn switch");
  others((rows) => rows.map((row) => (row.name === "Barn" ? { ...row, name: "Byre" } : row)));
  key("Enter");
  expect([screen.getByRole("alert").textContent, calls]).toEqual([
    expect.stringContaining('changed this to "Byre"'),
    [],
  ]);
  key("Enter");
  expect(calls).toEqual([["edit", "id of Barn", "name", "Barn switch"]]);
});

test("an open cell that nothing was typed into writes nothing, whatever came in meanwhile", () => {
  const { calls, others } = scene(gear("Mill", "Barn"));
  openCell("Barn");
  others((rows) => rows.map((row) => (row.name === "Barn" ? { ...row, name: "Byre" } : row)));
  key("Enter");
  expect([calls, cell("Byre")]).toEqual([[], expect.anything()]);
});

test("the chosen block stays on its rows, for Delete, paste and removing, each in one step", () => {
  const { calls, others } = scene(gear("Mill", "Barn", "Kiln"));
  fireEvent.mouseDown(cell("Barn"));
  fireEvent.mouseDown(cell("Kiln"), { shiftKey: true });
  others((rows) => [...gear("Attic"), ...rows]);
  key("Delete");
  key("Delete", { ctrlKey: true });
  fireEvent.paste(document.activeElement ?? document.body, { clipboardData: { getData: () => "One\nTwo" } });
  expect(calls).toEqual([
    [
      "clear",
      [
        { row: "id of Barn", column: "name" },
        { row: "id of Kiln", column: "name" },
      ],
    ],
    ["remove", ["id of Barn", "id of Kiln"]],
    ["paste", [["One"], ["Two"]], "name", ["id of Barn", "id of Kiln"]],
  ]);
});

test("a row that comes in between the chosen ones is not chosen, and re-ordering keeps the choice", () => {
  const { calls, others } = scene(gear("Mill", "Barn", "Kiln"));
  fireEvent.mouseDown(cell("Mill"));
  fireEvent.mouseDown(cell("Kiln"), { shiftKey: true });
  others(([a, b, c]) => [c, ...gear("Theirs"), b, a].flatMap((row) => row ?? []));
  key("d", { ctrlKey: true });
  key("Delete");
  expect(calls).toEqual([
    ["paste", [["Kiln"], ["Kiln"]], "name", ["id of Barn", "id of Mill"]],
    [
      "clear",
      [
        { row: "id of Kiln", column: "name" },
        { row: "id of Barn", column: "name" },
        { row: "id of Mill", column: "name" },
      ],
    ],
  ]);
});

test("a row written at the end: Tab goes on in it, Enter in the next, also with others at work", () => {
  const { calls, others } = scene(gear("Mill"));
  const newCell = () => screen.getByRole("gridcell", { name: "New" });
  fireEvent.mouseDown(newCell());
  key("C");
  type("Cart shed");
  others((rows) => [...rows, ...gear("Theirs")]);
  key("Tab");
  expect(calls).toEqual([["edit", null, "name", "Cart shed"]]);
  key("x");
  type("Yard");
  key("Enter");
  expect(calls.at(-1)).toEqual(["edit", "id of Cart shed", "place", "Yard"]);
});

test("sorting, filtering by words in any column, empty cells last either way", () => {
  const rows: Gear[] = [
    { id: "a", name: "Mill 10", place: "" },
    { id: "b", name: "Mill 9", place: "Yard" },
    { id: "c", name: "Barn", place: "Hall" },
  ];
  scene(rows);
  const names = () =>
    screen
      .getAllByRole("row")
      .slice(1, -1)
      .map((row) => row.firstElementChild?.textContent);
  fireEvent.click(screen.getByRole("button", { name: "Name" }));
  expect(names()).toEqual(["Barn", "Mill 9", "Mill 10"]);
  fireEvent.click(screen.getByRole("button", { name: /^Place/ }));
  expect(names()).toEqual(["Barn", "Mill 9", "Mill 10"]);
  fireEvent.click(screen.getByRole("button", { name: /^Place/ }));
  expect(names()).toEqual(["Mill 9", "Barn", "Mill 10"]);
  fireEvent.click(screen.getByRole("button", { name: /^Place/ }));
  expect(names()).toEqual(["Mill 10", "Mill 9", "Barn"]);
});

test("an edit draws the row that it changes and leaves the others as they are", () => {
  const drawn: string[] = [];
  const Told = ({ name }: { readonly name: string }) => {
    drawn.push(name);
    return name;
  };
  // Made anew at every drawing, as the views make them.
  const { others } = scene(gear("Mill", "Barn", "Yard"), () => [
    { id: "name", head: "Name", text: (row) => row.name, show: (row) => <Told name={row.name} /> },
    { id: "place", head: "Place", text: (row) => row.place },
  ]);
  expect(drawn).toEqual(["Mill", "Barn", "Yard"]);
  drawn.length = 0;
  others((rows) => rows.map((row) => (row.name === "Barn" ? { ...row, name: "Byre" } : { ...row })));
  expect(drawn).toEqual(["Byre"]);
  openCell("Mill");
  type("Mill 2");
  expect(drawn.filter((name) => name !== "Mill")).toEqual(["Byre"]);
  key("Enter");
  expect(screen.getAllByRole("gridcell").map((hTMLElement) => hTMLElement.textContent)).toEqual(
    expect.arrayContaining(["Mill 2", "Byre", "Yard"]),
  );
});

test("the row that an edit changes is drawn first; the others are asked later what it means", async () => {
  let said = "before";
  const { change } = scene(gear("Mill", "Barn", "Yard"), () => [
    { id: "name", head: "Name", text: (row) => row.name },
    { id: "place", head: "Place", text: () => said },
  ]);
  const places = () =>
    screen.getAllByRole("gridcell").flatMap(({ textContent }, i) => (i % 2 === 1 ? textContent : []));
  expect(places()).toEqual(["before", "before", "before", ""]);
  said = "after";
  const isActing = Reflect.get(globalThis, "IS_REACT_ACT_ENVIRONMENT");
  Reflect.set(globalThis, "IS_REACT_ACT_ENVIRONMENT", false);
  try {
    flushSync(() =>
      change((rows) => rows.map((row) => (row.name === "Barn" ? { ...row, name: "Byre" } : row))),
    );
    expect(cell("Byre")).toBeTruthy();
    expect(places()).toEqual(["before", "after", "before", ""]);
    await waitFor(() => expect(places()).toEqual(["after", "after", "after", ""]));
  } finally {
    Reflect.set(globalThis, "IS_REACT_ACT_ENVIRONMENT", isActing);
  }
});

test("a handler that a row had before is not called on what has come since", () => {
  const { calls, others } = scene(gear("Mill", "Barn"));
  others((rows) => [{ id: "id of Yard", name: "Yard", place: "Hall" }, ...rows]);
  openCell("Barn");
  type("Byre");
  key("Enter");
  expect(calls).toEqual([["edit", "id of Barn", "name", "Byre"]]);
});
