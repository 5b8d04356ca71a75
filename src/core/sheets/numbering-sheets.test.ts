import { bramblewick } from "../../../demo/bramblewick";
import { fennelStreet } from "../../../demo/fennel-street";
import { lockkeepersHouse } from "../../../demo/lockkeepers-house";
import { formatAddress } from "../address";
import { must } from "../kernel";
import { applyChanges, PlanEdits, PlanIndex, type Plan } from "../plan";
import { nextFreeFor, renumber, renumberBlock, setConventions } from "../planners";
import { prefix as net } from "../testing/written";
import { renumberTable } from "./renumber-table";
import { rulerOf } from "./ruler";
import { useOfSubnets } from "./use-of-subnets";

const PLANS: readonly Plan[] = [fennelStreet(), lockkeepersHouse(), bramblewick()];

test("the parts of a subnet's use add up to what is usable, and none is negative", () => {
  for (const plan of PLANS) {
    const uses = useOfSubnets(PlanIndex.of(plan));
    expect(uses.length).toBe(plan.segment.size);
    for (const use of uses) {
      expect(use.fixed + use.pooled + use.free).toBe(use.usable);
      expect(Math.min(use.fixed, use.pooled, use.free)).toBeGreaterThanOrEqual(0);
    }
  }
  const staff = must(
    useOfSubnets(PlanIndex.of(fennelStreet())).find((use) => use.segment.name === "Staff"),
    "Staff",
  );
  expect(staff).toMatchObject({ usable: 126, fixed: 6, pooled: 60, free: 60 });
});

test("old and new of a move: every address that changes stands once, and nothing else", () => {
  const plan = fennelStreet();
  const edits = new PlanEdits(plan);
  const index = PlanIndex.of(plan);
  expect(renumberBlock(edits, index, net("10.24.0.0/17"), net("10.36.0.0/17"))).toBeNull();
  const [heads, ...rows] = renumberTable(index, edits.changes());
  expect(heads).toEqual(["What", "Name", "Segment", "Old", "New"]);
  expect(rows.every(([, , , old, fresh]) => old?.replaceAll("10.24.", "10.36.") === fresh)).toBe(true);
  const fixed =
    [...plan.host.values()].filter((host) => host.ipv4 !== null).length +
    [...plan.interface.values()].filter((leg) => leg.segment !== null).length;
  expect(rows.filter(([what]) => what === "device" || what === "gear").length).toBe(fixed);
  expect(rows.filter(([what]) => what === "subnet").length).toBe(plan.segment.size);
  const planEdits = new PlanEdits(plan);
  const cards = must(
    [...plan.segment.values()].find((s) => s.name === "Cards"),
    "Cards",
  );
  renumber(planEdits, [{ segment: cards.id, from: net("10.24.50.0/28"), to: net("10.24.51.0/28") }]);
  expect(
    renumberTable(index, planEdits.changes())
      .slice(1)
      .every(([, , segment]) => segment === "Cards"),
  ).toBe(true);
});

test("with the static block at the end the ruler draws it there; the next free one is from it", () => {
  const edits = new PlanEdits(fennelStreet());
  setConventions(
    { edits, index: PlanIndex.of(edits.plan), ids: () => "" },
    { staticAt: "end", gatewayAt: "last", staticSize: 10 },
  );
  const applied = applyChanges(edits.plan, edits.changes());
  const index = PlanIndex.of(must(applied.ok ? applied.value : null, "applies"));
  const guests = must(
    [...index.plan.segment.values()].find((s) => s.name === "Guests"),
    "Guests",
  );
  const ruler = must(rulerOf(index, guests), "a ruler");
  expect(ruler.staticBlock).toMatchObject({ first: 244, last: 253, count: 10 });
  expect(formatAddress(must(nextFreeFor(index, guests, "typed"), "an address"))).toBe("10.24.90.244");
});
