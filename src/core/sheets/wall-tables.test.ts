import { bramblewick } from "../../../demo/bramblewick";
import { fennelStreet } from "../../../demo/fennel-street";
import { must } from "../kernel";
import { PlanIndex, type Plan } from "../plan";
import { pasteConduits, pasteServices } from "../planners";
import { afterEdit, donePlan } from "../testing/after-edit";
import { conduitTable, doorTable, serviceTable, zoneTable } from "./wall-tables";

const works = PlanIndex.of(bramblewick());
const practice = PlanIndex.of(fennelStreet());
const without = (plan: Plan, kind: "conduit" | "service"): Plan =>
  donePlan(
    afterEdit(plan, ({ edits }) => {
      for (const kind of ["wall", "exception"] as const)
        for (const { id } of edits.all(kind)) edits.patch(kind, id, { conduit: null });
      for (const { id } of edits.all(kind)) edits.remove(kind, id);
    }),
  );

test("doors come with their services by name and their conduit; exceptions follow, with their hours", () => {
  const [heads, ...rows] = doorTable(works);
  const width = must(heads, "heads").length;
  expect(rows.every((row) => row.length === width)).toBe(true);
  expect(rows).toContainEqual([
    "Tanks",
    "Cold",
    "modbus",
    "always",
    "",
    "",
    "",
    "cooling demand",
    "Cooling demand",
  ]);
  expect(rows.at(-1)?.at(3)).toBe("Tue, Thu 08:00-12:00");
  expect(rows.at(-1)?.at(-1)).toBe("Vendors to a line");
  const record = doorTable(practice).find(([from, to]) => from === "Practice" && to === "Servers");
  expect(record?.[2]).toBe("dns, records");
});

test("zones have their levels in words", () => {
  expect(zoneTable(works)).toContainEqual([
    "Plant DMZ",
    "Plant DMZ",
    "kept apart",
    "between 3 and 4, plant DMZ",
    "2",
  ]);
  expect(
    zoneTable(practice)
      .slice(1)
      .every((row) => row.at(-1) === "none"),
  ).toBe(true);
});

test("conduits and services written out are pasted again the same", () => {
  const [, ...conduits] = conduitTable(works);
  expect(conduits.find(([name]) => name === "Operations to the cells")?.[4]).toBe(
    "Operations to Press; Operations to Tanks; Operations to Bottling; " +
      "Operations to Filling; Operations to Cold",
  );
  const again = donePlan(
    afterEdit(without(bramblewick(), "conduit"), (context) => pasteConduits(context, conduits, "name", [])),
  );
  expect(conduitTable(PlanIndex.of(again)).map((row) => row.slice(0, 4))).toEqual(
    conduitTable(works).map((row) => row.slice(0, 4)),
  );
  const [, ...services] = serviceTable(practice);
  expect(services).toEqual([["records", "files, https", expect.any(String), "records, TCP 443 and 445"]]);
  const copied = donePlan(
    afterEdit(without(fennelStreet(), "service"), (context) =>
      pasteServices(
        context,
        services.map((row) => row.slice(0, 3)),
        "name",
        [],
      ),
    ),
  );
  expect(serviceTable(PlanIndex.of(copied))).toEqual(serviceTable(practice));
});
