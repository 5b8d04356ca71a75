import { bramblewick } from "../../../demo/bramblewick";
import { fennelStreet } from "../../../demo/fennel-street";
import { lockkeepersHouse } from "../../../demo/lockkeepers-house";
import { must } from "../kernel";
import { emptyPlan, PlanIndex, type Plan } from "../plan";
import { afterEdit, donePlan } from "../testing/after-edit";
import { wallsProven } from "./walls-proven";

const proven = (plan: Plan) => wallsProven(PlanIndex.of(plan));

test.each([lockkeepersHouse(), bramblewick()])("$site.name: its walls are proven", (plan) => {
  expect(proven(plan)).toEqual({ proven: true, wrong: 0, past: 0 });
});

test("by the list that somebody left, past a VLAN, or without a filter they are not", () => {
  const office = fennelStreet();
  expect(proven(office)).toEqual({ proven: false, wrong: 2, past: 0 });
  const gateway = must(
    [...office.device.values()].find(({ kind }) => kind === "gateway"),
    "the gateway",
  );
  const left = donePlan(
    afterEdit(office, ({ edits }) =>
      edits.patch("device", gateway.id, { filter: { ...gateway.filter, list: "found" } }),
    ),
  );
  // Two pairs by the list; what gets past it is Practice's two segments to Building's two.
  expect(proven(left)).toEqual({ proven: false, wrong: 2, past: 4 });
  const works = bramblewick();
  const isTrunk = (id: string) => {
    const port = works.port.get(id);
    return works.device.get(port?.device ?? "")?.kind === "switch" && (port?.tagged.length ?? 0) > 2;
  };
  const cables = [...works.link.values()].filter(({ a, b }) => isTrunk(a) && isTrunk(b));
  const verdicts = cables.map(({ a, b }) => {
    const [one, other] = must(works.port.get(a), "its end").tagged;
    const joined = afterEdit(works, ({ edits }) => {
      for (const [id, vid] of [
        [a, must(one, "a VLAN")],
        [b, must(other, "another")],
      ] as const) {
        const { tagged } = edits.need("port", id);
        edits.patch("port", id, {
          admit: "all",
          pvid: vid,
          untagged: [vid],
          tagged: tagged.filter((own) => own !== vid),
        });
      }
    });
    return must(proven(donePlan(joined)), "a verdict");
  });
  // A cable of the ring that stands by joins nothing; the others do.
  expect(verdicts.filter((verdict) => !verdict.proven && verdict.wrong === 0).length).toBeGreaterThan(2);
  expect(verdicts.every(({ proven: holds, past }) => holds === (past === 0))).toBe(true);
  expect(proven(emptyPlan(works.site))).toBeNull();
});
