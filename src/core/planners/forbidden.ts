import type { Prefix } from "../address";
import type { Plan } from "../plan";

export interface Forbidden { readonly prefix: Prefix; readonly reason: string }

/**
 * Ranges that no subnet of the site may meet: those the site keeps clear of, the range inside the provider's box, and the subnets of
 * gear that stays and is no device of the plan.
 */
export function forbiddenRanges(plan: Plan): Forbidden[] {
  const boxes = [...plan.line.values()].flatMap((line) => (line.boxPrefix === null || line.providerBox === "bridges" || line.providerBox === "none"
    ? [] : [{ prefix: line.boxPrefix, reason: `inside the provider's box of ${line.name}` }]));
  const gear = [...plan.gear.values()].flatMap((found) => (found.fate !== "keep" || found.device !== null
    ? [] : found.prefixes.map((prefix) => ({ prefix, reason: `used by ${found.name}, which stays` }))));
  return [...plan.site.keepClear, ...boxes, ...gear];
}
