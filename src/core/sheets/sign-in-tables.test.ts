import { fennelStreet } from "../../../demo/fennel-street";
import { whoGetsIn } from "../guards";
import { must } from "../kernel";
import { PlanIndex } from "../plan";
import { asClient, probe } from "../probe";
import { formatAddress } from "../address";
import { answerTable, bindingTable, signInTable, whoTable } from "./sign-in-tables";

const index = PlanIndex.of(fennelStreet());
const rowOf = (table: string[][], name: string) =>
  must(
    table.find((row) => row.includes(name)),
    name,
  );

test("every row has a cell for each head", () => {
  for (const table of [
    bindingTable(index),
    answerTable(index),
    signInTable(index),
    whoTable(index, whoGetsIn(index)),
  ])
    for (const row of table) expect(row.length).toBe(table[0]?.length);
});

test("bindings are what a switch learns: the address that each really gets", () => {
  const table = bindingTable(index);
  expect(rowOf(table, "Office printer").slice(0, 6)).toEqual([
    "Upper switch",
    "18",
    "Office printer",
    "02:5a:10:53:00:2e",
    "10.24.20.23",
    "20",
  ]);
  expect(rowOf(table, "X-ray panel").slice(6)).toEqual(["static", "no"]);
  let asked = 0;
  for (const [, , name = "", , address = "", , lease = ""] of table.slice(1)) {
    const host = must(
      [...index.plan.host.values()].find((host) => host.name === name),
      name,
    );
    const got = probe(index, asClient({ at: "host", host: host.id }, { to: "address" }), () => "").lease;
    if (got === null || lease === "static") continue;
    asked += 1;
    expect([name, address]).toEqual([name, formatAddress(got.address)]);
  }
  expect(asked).toBeGreaterThan(25);
});

test("a server is given the VLAN of each device's segment by number", () => {
  const table = answerTable(index);
  expect(rowOf(table, "Card terminal 1").slice(2)).toEqual(["no, by MAC address", "13", "6", "50"]);
  expect(rowOf(table, "PC Reception 1").slice(2)).toEqual(["yes", "13", "6", "20"]);
});
