import {
  rangeCount,
  step,
  usableRange,
  type Address,
  type AddressRange,
  type Ipv4,
  type Prefix4,
} from "../../address";
import type { Site } from "../../plan";

type Conventions = Site["conventions"];

export function gatewayIn(conventions: Conventions, prefix: Prefix4): Ipv4 {
  const usable = usableRange(prefix);
  return (conventions.gatewayAt === "first" ? usable.first : usable.last) as Ipv4;
}

/**
 * The run of addresses kept for static devices by the site's convention: `size` of them at the beginning or
 * the end of what the gateway leaves. Null when nothing is kept, or the subnet has only the gateway.
 */
export function staticBlockIn(
  conventions: Conventions,
  prefix: Prefix4,
  size: number = conventions.staticSize,
): AddressRange | null {
  const usable = usableRange(prefix);
  const gateway = gatewayIn(conventions, prefix);
  const first = gateway === usable.first ? step<Address>(usable.first, 1) : usable.first;
  const last = gateway === usable.last ? step<Address>(usable.last, -1) : usable.last;
  if (size < 1 || first === null || last === null || first > last) return null;
  const whole = Number(rangeCount({ first, last }));
  const kept = Math.min(size, whole);
  const cut =
    conventions.staticAt === "start"
      ? { first, last: step<Address>(first, kept - 1) }
      : { first: step<Address>(last, 1 - kept), last };
  return cut.first === null || cut.last === null ? null : { first: cut.first, last: cut.last };
}
