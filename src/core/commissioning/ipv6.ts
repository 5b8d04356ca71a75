import { formatPrefix } from "../address";
import type { PlanIndex, Segment } from "../plan";
import { asClient, probe } from "../probe";
import type { Fact, Line } from "./fact";
import { leaseExpected } from "./leases";
import type { Asker, SiteTest } from "./tests";

const ipv6Fact = (segment: string): string => `ipv6 ${segment}`;

/** Segments in which a router tells clients their IPv6 subnets (RFC 4861 section 4.2). */
const advertised = ({ plan }: PlanIndex): Segment[] =>
  [...plan.segment.values()].filter(
    ({ prefixes6, advertise }) => prefixes6.length > 0 && advertise !== "none",
  );

const prefixesText = ({ prefixes6 }: Segment): string => prefixes6.map(formatPrefix).join(", ");

/** That clients get IPv6 addresses of the segment they are in. */
export const ipv6Facts = (index: PlanIndex): Fact[] =>
  advertised(index).map((segment) => {
    const router = index.gatewayOf(segment)?.device;
    return {
      id: ipv6Fact(segment.id),
      kind: "ipv6",
      words: `IPv6 for ${segment.name}`,
      shownOn: router === undefined ? null : { device: router },
    };
  });

/** What a router's own pages show of it. */
export const ipv6Lines = (index: PlanIndex, device: string, wanted: ReadonlySet<string>): Line[] =>
  advertised(index)
    .filter((segment) => wanted.has(ipv6Fact(segment.id)) && index.gatewayOf(segment)?.device === device)
    .map((segment) => [`IPv6 for ${segment.name}`, prefixesText(segment)]);

const nobody = () => "";
/** From as many places of a segment it is tried. */
const MOST_TRIED = 4;

/** In each such segment a laptop that shows its IPv6 address, at the first place where it gets one. */
export function ipv6Tests(index: PlanIndex, askers: readonly Asker[]): SiteTest[] {
  return advertised(index).flatMap((segment): SiteTest[] => {
    const own = askers.filter((asker) => asker.segment === segment.id).slice(0, MOST_TRIED);
    for (const { spot } of own) {
      const question = { ...asClient(spot.from, { to: "address" }), family: 6 as const };
      const outcome = probe(index, question, nobody);
      if (outcome.cause !== null || outcome.lease?.segment !== segment.id) continue;
      return [
        {
          id: `ipv6 ${segment.id} ${spot.key}`,
          place: spot.place,
          at: spot.at,
          does: "Look on a laptop which IPv6 addresses it has.",
          question,
          pulled: null,
          expected: leaseExpected(index, outcome, null),
          proves: [ipv6Fact(segment.id)],
        },
      ];
    }
    return [];
  });
}
