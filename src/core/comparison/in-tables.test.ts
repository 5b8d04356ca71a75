import { bramblewick } from "../../../demo/bramblewick";
import { fennelStreet } from "../../../demo/fennel-street";
import { lockkeepersHouse } from "../../../demo/lockkeepers-house";
import { SITE_TABLES } from "../formats";
import { must } from "../kernel";
import { PlanIndex, type Plan } from "../plan";
import { tableApartTable, tablesApart } from "./in-tables";

const office = fennelStreet();
const named = <T extends { readonly name: string }>(all: ReadonlyMap<string, T>, name: string): T =>
  must(
    [...all.values()].find((named) => named.name === name),
    name,
  );
const apart = (before: Plan, after: Plan) => tablesApart(PlanIndex.of(before), PlanIndex.of(after));
const table = (title: string, before: Plan, after: Plan) =>
  must(
    apart(before, after).find((tableApart) => tableApart.title === title),
    `${title} differs`,
  );

test.each([
  ["the house", lockkeepersHouse()],
  ["the office", office],
  ["the plant", bramblewick()],
])("no table of %s differs from itself, whatever the order of rows", (_name, plan) => {
  const turned: Plan = { ...plan, host: new Map([...plan.host].reverse()) };
  expect(apart(plan, plan)).toEqual([]);
  expect(apart(plan, turned).map(({ title }) => title)).toEqual([]);
});

test("a cell has both of its values, and the rows that are alike are counted", () => {
  const staff = named(office.segment, "Staff");
  const after = { ...office, segment: new Map(office.segment).set(staff.id, { ...staff, planned: 99 }) };
  const { heads, rows, alike } = table("Segments", office, after);
  expect(rows).toHaveLength(1);
  expect(rows[0]?.what).toBe("changed");
  expect(rows[0]?.cells[heads.indexOf("Planned")]).toEqual({ before: String(staff.planned), after: "99" });
  expect(rows[0]?.cells[heads.indexOf("Segment")]).toEqual({ before: "Staff", after: "Staff" });
  expect(alike).toBe(office.segment.size - 1);
  // Which row it is and what differs stand in front: a table can be wider than a screen.
  expect(heads.slice(0, 3)).toEqual(["Segment", "Planned", "VLAN"]);
});

test("a device with another name is the same row, and so are its ports", () => {
  const upper = named(office.device, "Upper switch");
  const after = { ...office, device: new Map(office.device).set(upper.id, { ...upper, name: "Top switch" }) };
  const gear = table("Gear register", office, after);
  expect(gear.rows.map(({ what }) => what)).toEqual(["changed"]);
  expect(gear.rows[0]?.cells[0]).toEqual({ before: "Upper switch", after: "Top switch" });
  const ports = table("Port schedule", office, after);
  const own = [...office.port.values()].filter(({ device }) => device === upper.id).length;
  // Its own, and the far end of its cable, which says where it leads.
  expect(ports.rows.every(({ what }) => what === "changed")).toBe(true);
  expect(ports.rows.filter(({ cells: [device] }) => device?.before === "Upper switch")).toHaveLength(own);
});

test("a row that came and one that went are told, the latter where it stood", () => {
  const laptop = named(office.host, "Staff laptop 1");
  const host = new Map(office.host);
  host.delete(laptop.id);
  const without = { ...office, host };
  const left = table("Address register", office, without);
  const names = ({ heads, rows }: typeof left) =>
    rows.map(({ what, cells }) => [what, cells[heads.indexOf("Name")]]);
  expect(names(left)).toEqual([["gone", { before: "Staff laptop 1", after: null }]]);
  const back = table("Address register", without, office);
  expect(names(back)).toEqual([["new", { before: null, after: "Staff laptop 1" }]]);
  expect(back.alike).toBe(left.alike);
});

test("a spreadsheet gets what became of each row, and both values in one cell", () => {
  const staff = named(office.segment, "Staff");
  const after = { ...office, segment: new Map(office.segment).set(staff.id, { ...staff, planned: 99 }) };
  const [heads = [], row = []] = tableApartTable(table("Segments", office, after));
  expect([heads[0], row[0]]).toEqual(["became", "changed"]);
  expect(row[heads.indexOf("Planned")]).toBe(`${staff.planned} → 99`);
  expect(row[heads.indexOf("Segment")]).toBe("Staff");
});

const inOrder = (cells: readonly unknown[]): string[] => cells.map((cell) => JSON.stringify(cell)).sort();
test("a change of any cell of any table comes out as that cell in that row", () => {
  // The twin reads the tables themselves, cell by cell: each earlier text and each later one is told somewhere.
  const after = bramblewick();
  const device = must([...after.device.values()][0], "a device");
  const segment = must([...after.segment.values()][0], "a segment");
  const later: Plan = {
    ...after,
    device: new Map(after.device).set(device.id, { ...device, place: "Elsewhere", serial: "S-1" }),
    segment: new Map(after.segment).set(segment.id, { ...segment, domainName: "new.example" }),
  };
  const told = apart(after, later);
  for (const { title, make } of SITE_TABLES) {
    const [before, now] = [make(PlanIndex.of(after)), make(PlanIndex.of(later))];
    const differing = now.flatMap((row, r) =>
      row.flatMap((text, c) => (text === before[r]?.[c] ? [] : [[before[r]?.[c] ?? null, text]])),
    );
    const own = told.find((tableApart) => tableApart.title === title)?.rows ?? [];
    const cells = own.flatMap((row) =>
      row.cells.filter((cell) => cell.before !== cell.after).map((cell) => [cell.before, cell.after]),
    );
    expect(inOrder(cells)).toEqual(inOrder(differing));
  }
  expect(told.length).toBeGreaterThan(2);
});

test("the key of each table says which row it is, in the three sites", () => {
  for (const plan of [lockkeepersHouse(), office, bramblewick()])
    for (const { title, key, make } of SITE_TABLES) {
      const [heads = [], ...rows] = make(PlanIndex.of(plan));
      expect(key.every((at) => at < heads.length)).toBe(true);
      const keys = rows.map((row) => key.map((at) => row[at]).join(" | "));
      expect([title, keys.length - new Set(keys).size]).toEqual([title, 0]);
    }
});
