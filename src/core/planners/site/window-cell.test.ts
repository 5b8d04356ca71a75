import { fennelStreet } from "../../../../demo/fennel-street";
import { must } from "../../kernel";
import { PlanIndex, type Plan, type Window } from "../../plan";
import { afterEdit, donePlan } from "../../testing/after-edit";
import { forget } from "./forget";
import { pasteWindows, WINDOW_COLUMNS, windowCellText, windowTable } from "./window-cell";

const practice = fennelStreet();
const segment = (name: string) =>
  must(
    [...practice.segment.values()].find((segment) => segment.name === name),
    name,
  ).id;
const ROW = ["Sunday", "2028-06-04 08:00", "4 h", "Phones, Staff", "14/26", "the manager", "gate is locked"];
const pasted = (plan: Plan, rows: readonly (readonly string[])[]) =>
  afterEdit(plan, (context) => pasteWindows(context, rows, "name", []));
const windows = (plan: Plan): Window[] => [...plan.window.values()];

test("a window is pasted with all it says, and its cells say it again", () => {
  const plan = donePlan(pasted(practice, [ROW, ["Monday", "2028-06-05T6"]]));
  const index = PlanIndex.of(plan);
  expect(windowTable(index)).toEqual([
    WINDOW_COLUMNS.map(([, word]) => word),
    ROW,
    ["Monday", "2028-06-05 06:00", "2 h", "everybody", "", "", ""],
  ]);
  const [sunday] = windows(plan);
  const own = must(sunday, "a window");
  for (const [column] of WINDOW_COLUMNS) {
    const text = windowCellText(index, own, column);
    expect(donePlan(afterEdit(plan, (context) => pasteWindows(context, [[text]], column, [own.id])))).toEqual(
      plan,
    );
  }
});

test.each([
  ["no name", [["", "2028-06-04 08:00"]], /needs its name and when it begins/],
  ["no begin", [["Sunday"]], /needs its name and when it begins/],
  ["a day that is none", [["Sunday", "2028-02-30 08:00"]], /"2028-02-30 08:00" is no day and time/],
  ["an hour that is none", [["Sunday", "2028-02-03 24:00"]], /is no day and time/],
  ["too short", [["Sunday", "2028-06-04 8:00", "4 min"]], /"4 min" is no length/],
  ["too long", [["Sunday", "2028-06-04 8:00", "8 d"]], /"8 d" is no length/],
  ["a segment that is none", [["Sunday", "2028-06-04 8:00", "", "Attic"]], /There is no segment Attic/],
  ["one name twice", [ROW, ["sunday", "2028-06-05 8:00"]], /Row 2: There is a window Sunday already/],
] as const)("%s is refused, and nothing is written", (_, rows, says) => {
  expect(pasted(practice, rows)).toMatch(says);
});

test("a segment that goes leaves windows; one that named only it goes, too, else it held for all", () => {
  const plan = donePlan(
    pasted(practice, [
      ROW,
      ["Phones only", "2028-06-05 08:00", "1 h", "Phones"],
      ["All", "2028-06-06 08:00"],
    ]),
  );
  const left = donePlan(
    afterEdit(plan, ({ edits }) => {
      forget(edits, new Set([segment("Phones")]));
      return null;
    }),
  );
  expect(windows(left).map(({ name, segments }) => [name, segments])).toEqual(
    expect.arrayContaining([
      ["Sunday", [segment("Staff")]],
      ["All", []],
    ]),
  );
  expect(windows(left)).toHaveLength(2);
});
