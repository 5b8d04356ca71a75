import { containsPrefix, type Prefix } from "../../address";
import { without } from "../../rules";
import type { Joined } from "./entries";

const takesIn = (wide: readonly (Prefix | null)[], narrow: Prefix | null): boolean =>
  wide.some((prefix) => prefix === null || (narrow !== null && containsPrefix(prefix, narrow)));

/** Whether an earlier entry decides everything of a later one that is for this address. */
const decides = (earlier: Joined, later: Joined, address: Prefix): boolean =>
  earlier.family === later.family &&
  takesIn(earlier.to, address) &&
  later.from.every((sender) => takesIn(earlier.from, sender)) &&
  without(later.services, earlier.services).length === 0;

/** Those of the device's own addresses in an entry's subnets that no entry before it has decided. */
export const undecidedOf = (own: readonly Prefix[], rule: Joined, before: readonly Joined[]): Prefix[] =>
  own.filter((address) => !before.some((earlier) => decides(earlier, rule, address)));
