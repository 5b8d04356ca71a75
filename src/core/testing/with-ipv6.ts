import { asPrefix6, parseAddress, parsePrefix } from "../address";
import { must } from "../kernel";
import { afterEdits, PlanEdits, PlanIndex, type Plan } from "../plan";

/** A site with IPv6 in each segment that has a gateway; clients make their own addresses. */
export function withIpv6(plan: Plan): PlanIndex {
  const index = PlanIndex.of(plan);
  const edits = new PlanEdits(plan);
  let number = 0;
  for (const segment of plan.segment.values()) {
    const leg = index.gatewayOf(segment);
    number += 1;
    const [net, router] = [`2001:db8:24:${number}::/64`, `2001:db8:24:${number}::1`];
    const prefix = must(asPrefix6(parsePrefix(net)), net);
    const address = must(parseAddress(router), router);
    if (leg === undefined || typeof address !== "bigint") continue;
    edits.patch("segment", segment.id, { prefixes6: [prefix], advertise: "slaac" });
    edits.patch("interface", leg.id, { addresses6: [address] });
  }
  return must(afterEdits(index, edits), "the site with IPv6");
}
