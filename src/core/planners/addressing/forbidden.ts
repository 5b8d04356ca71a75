import { prefixOf, type Address, type Prefix } from "../../address";
import type { Plan } from "../../plan";

export interface Forbidden {
  readonly prefix: Prefix;
  readonly reason: string;
}

/**
 * Ranges that no subnet of the site may meet: those the site keeps clear of, the range inside the provider's
 * box, that of a line outside, and the subnets of gear that stays and is no device of the plan.
 */
export function forbiddenRanges(plan: Plan): Forbidden[] {
  const boxes = [...plan.line.values()].flatMap((line) =>
    line.boxPrefix === null || line.providerBox === "bridges" || line.providerBox === "none"
      ? []
      : [{ prefix: line.boxPrefix, reason: `inside the provider's box of ${line.name}` }],
  );
  const gear = [...plan.gear.values()].flatMap((found) =>
    found.fate !== "keep" || found.device !== null
      ? []
      : found.prefixes.map((prefix) => ({ prefix, reason: `used by ${found.name}, which stays` })),
  );
  const outside = [...plan.interface.values()].flatMap(({ line, addresses4, addresses6 }) => {
    const known = line === null ? undefined : plan.line.get(line);
    const of = (address: Address, length: number | null) => {
      const prefix = length === null ? null : prefixOf(address, length);
      return prefix === null ? [] : [{ prefix, reason: `the range of ${known?.name ?? "a line"}, outside` }];
    };
    return known === undefined
      ? []
      : [
          ...addresses4.flatMap((ipv4) => of(ipv4, known.length4)),
          ...addresses6.flatMap((ipv6) => of(ipv6, known.length6)),
        ];
  });
  return [...plan.site.keepClear, ...boxes, ...gear, ...outside];
}
