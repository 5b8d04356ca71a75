import { bramblewick } from "../../../demo/bramblewick";
import { fennelStreet } from "../../../demo/fennel-street";
import { must } from "../kernel";
import { PlanIndex } from "../plan";
import { carryExactly } from "../planners";
import { portCarries } from "../forwarding";
import { afterEdit, donePlan } from "../testing/after-edit";
import { cableScheduleTable } from "./cable-schedule";
import { pathCounts, vlanPaths } from "./vlan-paths";

const office = fennelStreet();
const index = PlanIndex.of(office);
const domain = must([...office.domain.keys()][0], "a domain");

test("each crossing says what the port has, and what is missing or needless is what carry says", () => {
  for (const which of ["between gear", "all"] as const) {
    const paths = vlanPaths(index, domain, which);
    const carries = portCarries(index);
    let wrong = 0;
    for (const { rows } of paths.devices)
      for (const { port, cells } of rows) {
        expect(cells.map((cell) => cell.vid)).toEqual(paths.tapes.map((tape) => tape.vid));
        for (const { vid, has, state } of cells) {
          const band = (port.tagged as readonly number[]).includes(vid) ? "band" : "none";
          expect(has).toBe(port.pvid === vid ? "tip" : band);
          const carry = carries.get(port.id);
          const needed = carry?.needless.includes(vid) === true ? "needless" : "right";
          expect(state).toBe(carry?.missing.includes(vid) === true ? "missing" : needed);
          if (state !== "right") wrong += 1;
        }
      }
    expect(wrong).toBeGreaterThan(3);
    const total = paths.tapes
      .map((tape) => pathCounts(paths, tape.vid))
      .reduce((sum, { missing, needless }) => sum + missing + needless, 0);
    expect(total).toBe(wrong);
  }
});

test("after the repair no crossing is missing or needless, on any of the sites", () => {
  for (const plan of [office, bramblewick()]) {
    const repaired = PlanIndex.of(
      donePlan(afterEdit(plan, (context) => carryExactly(context.edits, context.index))),
    );
    for (const domain of plan.domain.keys()) {
      const paths = vlanPaths(repaired, domain, "between gear");
      for (const { vid } of paths.tapes)
        expect(pathCounts(paths, vid)).toMatchObject({ missing: 0, needless: 0 });
    }
  }
});

test("the cable schedule has every cable once, by both ends", () => {
  const [heads, ...rows] = cableScheduleTable(index);
  expect(rows.length).toBe(office.link.size);
  for (const row of rows) expect(row.length).toBe(heads?.length);
  const ends = rows.map((row) => [`${row[1]} ${row[3]}`, `${row[5]} ${row[7]}`].sort().join(" - "));
  const truth = [...office.link.values()].map((link) =>
    [link.a, link.b]
      .map((id) => {
        const port = must(office.port.get(id), "a port");
        return `${office.device.get(port.device)?.name} ${port.label}`;
      })
      .sort()
      .join(" - "),
  );
  expect(ends.sort()).toEqual(truth.sort());
});
