import { bramblewick } from "../../../demo/bramblewick";
import { fennelStreet } from "../../../demo/fennel-street";
import { PlanIndex } from "../plan";
import { gearTable, lineTable } from "./gear-tables";

const record = (table: readonly (readonly string[])[], name: string) => {
  const [heads = []] = table;
  const row = table.find(([first]) => first === name) ?? [];
  return Object.fromEntries(heads.map((head, i) => [head, row[i]]));
};

test("the gear with its own bridge and where it asks from; a row as long as the heads", () => {
  const table = gearTable(PlanIndex.of(fennelStreet()));
  expect(new Set(table.map((row) => row.length)).size).toBe(1);
  expect(table.length).toBe(9);
  expect(record(table, "Upper switch")).toMatchObject({
    Kind: "switch",
    Place: "Cabinet A",
    "Bridge MAC": "02:5a:10:0a:02:01",
    "Asks from": "",
    "Own addresses": "Kit 10.24.10.2",
  });
  expect(record(table, "Gateway")).toMatchObject({
    "Asks from": "Kit",
    "Credentials kept": "practice safe, envelope 1",
  });
});

test("a line with all that the provider has told", () => {
  expect(record(lineTable(PlanIndex.of(bramblewick())), "Fibre line")).toMatchObject({
    "Ends at": "Gateway port Line 1",
    "Address by": "fixed",
    "Outside addresses": "203.0.113.90",
    Mask: "/29",
    "Next hop": "203.0.113.89",
    "DNS servers": "203.0.113.53",
    "VLAN tag": "",
  });
});
