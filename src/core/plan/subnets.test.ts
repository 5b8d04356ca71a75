import fc from "fast-check";
import { containsAddress, parsePrefix, type Ipv4 } from "../address";
import { must } from "../kernel";
import { aSegment, planWith, aZone, testId } from "../testing/build-plan";
import { ip, ip6 } from "../testing/written";
import { holdsAddress, prefixesOf, segmentHolding, subnetHolding } from "./subnets";
import type { Plan } from "./plan";
import type { Segment } from "./schema/separation";

const net = (text: string) => must(parsePrefix(text), text);
function segment(name: string, ...subnets: readonly string[]): Segment {
  const prefixes = subnets.map(net);
  return aSegment({
    id: testId("segment", name),
    name,
    prefixes4: prefixes.flatMap((prefix) => (prefix.family === 4 ? [prefix] : [])),
    prefixes6: prefixes.flatMap((prefix) => (prefix.family === 6 ? [prefix] : [])),
  });
}
const planOf = (...segments: readonly Segment[]): Plan => planWith({ zone: [aZone()], segment: segments });

test("the subnets of one family, and the one an address lies in", () => {
  const both = segment("Staff", "10.24.20.0/24", "10.24.21.0/24", "fd00:24::/64");
  expect(prefixesOf(both, 4)).toEqual([net("10.24.20.0/24"), net("10.24.21.0/24")]);
  expect(prefixesOf(both, 6)).toEqual([net("fd00:24::/64")]);
  expect(subnetHolding(both, ip("10.24.21.9"))).toEqual(net("10.24.21.0/24"));
  expect(subnetHolding(both, ip6("fd00:24::9"))).toEqual(net("fd00:24::/64"));
  expect(subnetHolding(both, ip("10.24.22.9"))).toBeUndefined();
  expect([holdsAddress(both, ip("10.24.20.9")), holdsAddress(both, ip("10.24.22.9"))]).toEqual([true, false]);
});

test("of two segments that hold an address the first of the plan, whichever subnet is the smaller", () => {
  const [wide, narrow] = [segment("Wide", "10.0.0.0/8", "fd00::/16"), segment("Narrow", "10.24.20.0/24")];
  const name = (plan: Plan, address: Parameters<typeof segmentHolding>[1]) =>
    segmentHolding(plan, address)?.name ?? null;
  expect(name(planOf(wide, narrow), ip("10.24.20.9"))).toBe("Wide");
  expect(name(planOf(narrow, wide), ip("10.24.20.9"))).toBe("Narrow");
  expect(name(planOf(narrow, wide), ip("10.24.21.9"))).toBe("Wide");
  expect(name(planOf(narrow, wide), ip6("fd00:24::9"))).toBe("Wide");
  expect(name(planOf(narrow, wide), ip("192.168.0.1"))).toBeNull();
  expect(name(planOf(), ip("10.24.20.9"))).toBeNull();
});

test("it is the one that is found by looking through them all", () => {
  const lengths = fc.array(fc.tuple(fc.nat(15), fc.integer({ min: 26, max: 30 })), { maxLength: 12 });
  fc.assert(
    fc.property(lengths, fc.nat(255), (subnets, last) => {
      const segments = subnets.map(([at, length], i) =>
        segment(`S${i}`, `10.0.0.${at * 16 - ((at * 16) % 2 ** (32 - length))}/${length}`),
      );
      const plan = planOf(...segments);
      const address = ip(`10.0.0.${last}`) as Ipv4;
      const first = segments.find(({ prefixes4 }) =>
        prefixes4.some((prefix) => containsAddress(prefix, address)),
      );
      expect(segmentHolding(plan, address)?.id).toBe(first?.id);
      // Asked again of the same plan, and of one that has them in another order.
      expect(segmentHolding(plan, address)?.id).toBe(first?.id);
      const back = planOf(...segments.toReversed());
      expect(segmentHolding(back, address)).toBe(
        segments.findLast((one) => holdsAddress(one, address)) ?? null,
      );
    }),
    { numRuns: 100 },
  );
});
