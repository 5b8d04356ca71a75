import fc from "fast-check";
import { must } from "../kernel";
import { ip } from "../testing/written";
import { judge, type FilterRule, type Network } from "./filter";

const NETWORKS = ["staff", "guests", "cameras"] as readonly string[] as readonly Network[];
const network = fc.constantFrom<Network>(...NETWORKS);
const rules: fc.Arbitrary<FilterRule[]> = fc.array(
  fc.record({
    from: fc.array(
      fc.record({ network: fc.oneof(network, fc.constant("any" as const)), prefixes: fc.constant(null) }),
      { minLength: 1, maxLength: 2 },
    ),
    to: fc.tuple(fc.record({ network, prefixes: fc.constant(null) })),
    services: fc.constant([{ protocol: "any" as const, ports: null }]),
    action: fc.constantFrom("accept" as const, "drop" as const, "reject" as const),
  }),
  { maxLength: 12 },
);

test("the first rule that names where it comes from, or any, decides", () => {
  const packet = {
    family: 4,
    protocol: "tcp",
    src: ip("10.24.20.7"),
    dst: ip("10.24.30.7"),
    sport: 40_000,
    dport: 443,
  } as const;
  fc.assert(
    fc.property(rules, network, network, (list, from, to) => {
      const by = list.findIndex(
        (rule) =>
          rule.from.some((side) => side.network === from || side.network === "any") &&
          rule.to.some((side) => side.network === to),
      );
      const told = judge(
        { rules: list, established: true, forwardDefault: "drop", inputDefault: "reject" },
        { from, to, packet },
      );
      expect(told).toEqual(
        by < 0 ? { action: "drop", by: "default" } : { action: must(list[by], "a rule").action, by },
      );
    }),
  );
});
