import { lockkeepersHouse } from "../../../../demo/lockkeepers-house";
import { formatPrefix, parseIpv6 } from "../../address";
import { must } from "../../kernel";
import { BLANK_EXCEPTION, PlanIndex, type Plan, type PlanEdits } from "../../plan";
import { afterEdit, donePlan } from "../../testing/after-edit";
import { net6 } from "../../testing/written";
import { repairsOf } from "..";
import { outsideDelegated } from "./delegated";

const segmentCalled = (edits: PlanEdits, name: string) =>
  must(
    edits.all("segment").find((segment) => segment.name === name),
    name,
  );

/** The house with the prefix that each of its lines delegates, and a subnet of IPv6 in some segments. */
const house = (
  delegated: Readonly<Record<string, string>>,
  subnets: Readonly<Record<string, string>>,
): Plan =>
  donePlan(
    afterEdit(lockkeepersHouse(), ({ edits }) => {
      for (const line of edits.all("line")) {
        const text = delegated[line.name];
        const prefix = text === undefined ? null : net6(text);
        edits.patch("line", line.id, { delegated: { length: prefix?.length ?? null, prefix, keeps: false } });
      }
      for (const segment of edits.all("segment")) edits.patch("segment", segment.id, { prefixes6: [] });
      for (const leg of edits.all("interface")) edits.patch("interface", leg.id, { addresses6: [] });
      for (const [name, text] of Object.entries(subnets))
        edits.patch("segment", segmentCalled(edits, name).id, { prefixes6: [net6(text)] });
      return null;
    }),
  );

const found = (plan: Plan) => {
  const index = PlanIndex.of(plan);
  return outsideDelegated.run(index).map((finding) => ({
    said: outsideDelegated.describe(finding, index),
    repairs: repairsOf(finding, index),
  }));
};
const labels = (plan: Plan) => found(plan).map(({ repairs }) => repairs.map(({ label }) => label));

test("lines are named in the order of failover, whatever that of the rows is", () => {
  const plan = house(
    { "Fibre line": "2001:db8:70::/56", "Mobile line": "2001:db8:80::/56" },
    { Household: "2001:db8:24:20::/64" },
  );
  const turned: Plan = { ...plan, line: new Map([...plan.line].reverse()) };
  for (const tried of [plan, turned])
    expect(found(tried).map(({ said }) => said)).toEqual([
      "Household has 2001:db8:24:20::/64, and Fibre line delegates 2001:db8:70::/56 and " +
        "Mobile line delegates 2001:db8:80::/56.",
    ]);
  expect(labels(turned)).toEqual(labels(plan));
  expect(labels(plan)[0]).toHaveLength(2);
});

test("what moves takes its exceptions along", () => {
  const plan = donePlan(
    afterEdit(
      house({ "Fibre line": "2001:db8:70::/56" }, { Household: "2001:db8:24:20::/64" }),
      ({ edits, ids }) => {
        const to = { at: "prefix", prefix: net6("2001:db8:24:20::7/128") } as const;
        edits.put("exception", { ...BLANK_EXCEPTION, id: ids(), name: "Kiln", from: { at: "internet" }, to });
        const leg = must(segmentCalled(edits, "Household").gatewayInterface, "a leg");
        edits.patch("interface", leg, { addresses6: [must(parseIpv6("2001:db8:24:20::1"), "an address")] });
        return null;
      },
    ),
  );
  const [repair] = must(found(plan)[0], "a finding").repairs;
  const after = donePlan(
    afterEdit(plan, ({ edits, ids }) => must(repair, "a repair").edit(edits, ids) ?? null),
  );
  expect(found(after)).toEqual([]);
  const ends = [...after.exception.values()].map(({ to }) =>
    to.at === "prefix" ? formatPrefix(to.prefix) : "",
  );
  expect(ends).toContain("2001:db8:70:20::7/128");
});

test("two subnets of different old prefixes that would meet in the new one are not moved", () => {
  const plan = house(
    { "Fibre line": "2001:db8:70::/56" },
    { Household: "2001:db8:24:20::/64", Studio: "2001:db8:99:20::/64" },
  );
  expect(labels(plan)).toEqual([[], []]);
});

test("a subnet is not moved onto one that is there already", () => {
  const plan = house(
    { "Fibre line": "2001:db8:70::/56" },
    { Household: "2001:db8:24:20::/64", Studio: "2001:db8:70:20::/64" },
  );
  expect(labels(plan)).toEqual([[]]);
});
