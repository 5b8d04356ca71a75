import fc from "fast-check";
import { bramblewick } from "../../../../demo/bramblewick";
import { fennelStreet } from "../../../../demo/fennel-street";
import { must } from "../../kernel";
import { PlanEdits, PlanIndex, type Plan } from "../../plan";
import { cablesInOrder } from "../../sheets";
import { afterEdit, donePlan } from "../../testing/after-edit";
import {
  CABLE_COLUMNS,
  cableCellText,
  editCableCell,
  layCable,
  pasteCables,
  type CableColumn,
} from "./cable-cell";

const office = fennelStreet();
const rowsOf = (plan: Plan) =>
  cablesInOrder(PlanIndex.of(plan)).map(({ link }) =>
    CABLE_COLUMNS.map((column) => cableCellText(new PlanEdits(plan), link, column)),
  );
const ids = (plan: Plan) => cablesInOrder(PlanIndex.of(plan)).map(({ link }) => link.id);

test("what a cell shows, entered again, changes nothing; so does the whole table pasted", () => {
  for (const plan of [office, bramblewick()]) {
    for (const { link } of cablesInOrder(PlanIndex.of(plan)))
      for (const column of CABLE_COLUMNS) {
        expect(
          donePlan(
            afterEdit(plan, (context) =>
              editCableCell(context, link.id, column, cableCellText(context.edits, link, column)),
            ),
          ),
        ).toEqual(plan);
      }
    expect(
      donePlan(
        afterEdit(plan, (context) =>
          pasteCables(context, { rows: rowsOf(plan), from: "label", onto: ids(plan) }),
        ),
      ),
    ).toEqual(plan);
  }
});

test("the table of a site, pasted where all its cables have been taken out, lays them again", () => {
  const bare = donePlan(
    afterEdit(office, (context) => {
      for (const link of context.edits.all("link")) context.edits.remove("link", link.id);
    }),
  );
  const again = donePlan(
    afterEdit(bare, (context) => pasteCables(context, { rows: rowsOf(office), from: "label", onto: [] })),
  );
  expect(rowsOf(again)).toEqual(rowsOf(office));
});

const [first] = ids(office);
test.each<[CableColumn, string, RegExp]>([
  ["medium", "string", /is no medium/],
  ["cable", "cat9", /is no kind of cable/],
  ["cable", "OM3", /A copper cable is not of that kind/],
  ["length", "long", /is no length/],
  ["from", "Nowhere 1", /is no port here/],
  ["to", "Upper switch 1", /is plugged into Upper switch 1 already/],
  ["to", "Switch B 17", /has a cable already/],
  ["fromOptic", "10GBASE-XY", /is no optic/],
])("%s %j is refused", (column, text, refusal) => {
  const id = must(
    cablesInOrder(PlanIndex.of(office)).find(
      ({ link, fromPort, from, to, toPort }) =>
        link.medium === "copper" &&
        ![`${from.name} ${fromPort.label}`, `${to.name} ${toPort.label}`].includes("Switch B 17"),
    ),
    "a copper cable",
  ).link.id;
  expect(afterEdit(office, (context) => editCableCell(context, id, column, text))).toMatch(refusal);
});

test("kinds of cable and optics are read in the usual ways", () => {
  for (const text of ["cat6a", "Cat 6A", "Category 6A", "CAT6A"])
    expect(
      donePlan(
        afterEdit(
          office,
          (context) =>
            editCableCell(context, first ?? "", "medium", "Copper") ??
            editCableCell(context, first ?? "", "cable", text),
        ),
      ).link.get(first ?? "")?.cable,
    ).toBe("cat6a");
  expect(
    donePlan(
      afterEdit(office, (context) => editCableCell(context, first ?? "", "medium", "Direct attach")),
    ).link.get(first ?? "")?.medium,
  ).toBe("directAttach");
});

test("a line names both ends of a new cable or is refused; a bad row refuses the whole paste", () => {
  expect(afterEdit(office, (context) => layCable(context, "Switch B 5"))).toMatch(/write both ends/);
  expect(afterEdit(office, (context) => layCable(context, "Switch B 99 to Upper switch 14"))).toMatch(
    /"Switch B 99" is no port here/,
  );
  fc.assert(
    fc.property(fc.nat(2), (bad) => {
      const rows = [0, 1, 2].map((i) => [i === bad ? "wood" : "copper"]);
      expect(
        afterEdit(office, (context) =>
          pasteCables(context, { rows, from: "medium", onto: ids(office).slice(0, 3) }),
        ),
      ).toBe(`Row ${bad + 1}: "wood" is no medium; write copper, fibre or direct attach.`);
    }),
    { numRuns: 6 },
  );
});
