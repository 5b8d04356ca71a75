import { inRange, type Ipv4 } from "../../address";
import { offeredRanges } from "../../dhcp";
import { listedNames } from "../count-text";
import type { PlanEdits, Host, PlanIndex } from "../../plan";
import type { Refusal } from "../planner";
import { nextFreeFor } from "../addressing/next-free";

/**
 * Takes devices from one school of fixed addresses to the other. To reservations: each needs its MAC address,
 * the address stays. To typed in: an address inside a pool would meet a lease, so those move to the next free
 * one outside; the others stay. Refused whole when one of them can't.
 */
export function convertSchool(
  edits: PlanEdits,
  index: PlanIndex,
  hosts: readonly string[],
  to: "typed" | "reserved",
): Refusal {
  const chosen = hosts.flatMap((id) => edits.get("host", id) ?? []);
  const withoutMac = chosen.filter((host) => to === "reserved" && host.mac === null).map((host) => host.name);
  if (withoutMac.length > 0)
    return (
      `A reservation needs a MAC address; ${listedNames(withoutMac)} ` +
      `${withoutMac.length === 1 ? "has" : "have"} none yet.`
    );
  const homeless = chosen.filter((host) => host.segment === null).map((host) => host.name);
  if (homeless.length > 0)
    return `${listedNames(homeless)} ${homeless.length === 1 ? "is" : "are"} in no segment; choose one first.`;
  const given = new Set<Ipv4>();
  for (const host of chosen) {
    const address = addressFor(index, host, to, given);
    if (address === null)
      return (
        `${index.plan.segment.get(host.segment ?? "")?.name ?? "The segment"} ` +
        `has no address left for ${host.name}.`
      );
    given.add(address);
    edits.put("host", { ...host, manner: to, ipv4: address });
  }
  return null;
}

/** The address a device keeps or gets; null when its segment has none left. */
function addressFor(
  index: PlanIndex,
  host: Host,
  to: "typed" | "reserved",
  given: ReadonlySet<Ipv4>,
): Ipv4 | null {
  const segment = host.segment === null ? undefined : index.plan.segment.get(host.segment);
  if (segment === undefined) return null;
  const inPool = (address: Ipv4) =>
    index
      .scopesOf(segment.id)
      .some((scope) => scope.family === 4 && offeredRanges(scope).some((range) => inRange(range, address)));
  if (host.ipv4 !== null && (to === "reserved" || !inPool(host.ipv4))) return host.ipv4;
  return nextFreeFor(index, segment, to, given);
}
