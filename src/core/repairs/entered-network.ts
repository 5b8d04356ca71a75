import { familyOf, formatAddress, type Address } from "../address";
import { holdsAddress, type Host, nameOf, type PlanIndex, type Segment, subnetHolding } from "../plan";
import { addressesOf } from "../routing";
import type { Repair, Subject } from "./repair";

/** What is entered on a host by hand and is not as its segment has it. */
export interface Entered {
  readonly host: string;
  readonly family: 4 | 6;
  readonly what: "mask" | "gateway";
  readonly own: string;
  readonly usual: string;
}

/** The own field of a static host, and where it belongs. */
function enteredOn(index: PlanIndex, host: Host): { readonly host: Host; readonly segment: Segment } | null {
  const segment =
    host.manner === "typed" && host.segment !== null ? index.plan.segment.get(host.segment) : undefined;
  return segment === undefined ? null : { host, segment };
}

function maskDiffers(
  { host, segment }: { readonly host: Host; readonly segment: Segment },
  family: 4 | 6,
): Entered[] {
  const [address, length] = family === 4 ? [host.ipv4, host.length4] : [host.ipv6, host.length6];
  if (address === null || length === null) return [];
  const home = subnetHolding(segment, address);
  return home === undefined || home.length === length
    ? []
    : [{ host: host.id, family, what: "mask", own: `/${length}`, usual: `/${home.length}` }];
}

/** An own gateway that no router of its segment has: whatever leaves the segment goes nowhere. */
function gatewayStrange(
  index: PlanIndex,
  { host, segment }: { readonly host: Host; readonly segment: Segment },
  family: 4 | 6,
): Entered[] {
  const own = family === 4 ? host.gateway4 : host.gateway6;
  if (own === null || (typeof own === "bigint" && !holdsAddress(segment, own))) return [];
  const legs = index
    .interfacesIn(segment.id)
    .map((leg): readonly Address[] => (family === 4 ? leg.addresses4 : leg.addresses6));
  if (legs.some((addresses) => addresses.includes(own))) return [];
  const leg = index.gatewayOf(segment);
  const [usual] = leg === undefined ? [] : addressesOf(leg, family);
  return [
    {
      host: host.id,
      family,
      what: "gateway",
      own: formatAddress(own),
      usual: usual === undefined ? "none" : formatAddress(usual),
    },
  ];
}

/** Whether a mask or a gateway was entered on a host by hand. */
export const hasEntered = ({ length4, gateway4, length6, gateway6 }: Host): boolean =>
  length4 !== null || gateway4 !== null || length6 !== null || gateway6 !== null;

/**
 * What is wrong with what is entered on a host; empty for one by DHCP, and where all of it is as its segment
 * has it.
 */
export function mistakesOn(index: PlanIndex, host: Host): Entered[] {
  const entered = hasEntered(host) ? enteredOn(index, host) : null;
  return entered === null
    ? []
    : ([4, 6] as const).flatMap((family) => [
        ...maskDiffers(entered, family),
        ...gatewayStrange(index, entered, family),
      ]);
}

export function mistakeWords({ host, family, what, own, usual }: Entered, index: PlanIndex): string {
  const [name, segment] = [
    nameOf(index, "host", host),
    nameOf(index, "segment", index.plan.host.get(host)?.segment ?? ""),
  ];
  return what === "mask"
    ? `${name} has ${own} entered as its ` +
        `${family === 4 ? "mask" : "IPv6 prefix length"}; ${segment} has ${usual}.`
    : `${name} has ${own} entered as its gateway, which no ` +
        `router in ${segment} has; the gateway there is ${usual}.`;
}

export function mistakeRepairs({ host, family, what, usual }: Entered, index: PlanIndex): Repair[] {
  const [length, gateway] =
    family === 4 ? (["length4", "gateway4"] as const) : (["length6", "gateway6"] as const);
  return [
    {
      label:
        `Enter ${usual === "none" ? "no gateway" : usual} on ` +
        `${nameOf(index, "host", host)}, as its segment has`,
      planner: "edit-host",
      args: { host, [what === "mask" ? length : gateway]: null },
      edit: (edits) => edits.patch("host", host, what === "mask" ? { [length]: null } : { [gateway]: null }),
    },
  ];
}

/**
 * Why a host looks for an address next door in vain, where what is entered on it is the reason; null where it
 * is not.
 */
export function enteredCause(
  index: PlanIndex,
  host: Host,
  address: Address,
): {
  readonly sentence: string;
  readonly subjects: readonly Subject[];
  readonly repairs: readonly Repair[];
} | null {
  const segment = host.segment === null ? undefined : index.plan.segment.get(host.segment);
  const family = familyOf(address);
  const isNear = segment !== undefined && holdsAddress(segment, address);
  const mistake = mistakesOn(index, host).find(
    (entered) =>
      entered.family === family &&
      (entered.what === "mask" ? !isNear : entered.own === formatAddress(address)),
  );
  if (mistake === undefined) return null;
  const so =
    mistake.what === "mask"
      ? ` So it takes ${formatAddress(address)} for a neighbour and asks nobody who could send it on.`
      : "";
  return {
    sentence: `${mistakeWords(mistake, index)}${so}`,
    subjects: [{ kind: "host", id: host.id }],
    repairs: mistakeRepairs(mistake, index),
  };
}
