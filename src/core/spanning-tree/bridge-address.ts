import type { Mac } from "../address";
import type { Device, PlanIndex } from "../plan";

/** Stands for a MAC address nobody has entered: higher than any there is. */
export const UNKNOWN_ADDRESS = 2 ** 48;

/**
 * A device's bridge address (IEEE 802.1Q section 14.2.5) as far as the plan knows it: the one entered, else
 * the lowest of its interfaces; null when none is known.
 */
export function bridgeAddress(index: PlanIndex, device: Device): Mac | null {
  const [lowest] = index
    .interfacesOf(device.id)
    .flatMap((leg) => leg.mac ?? [])
    .sort();
  return device.bridgeMac ?? lowest ?? null;
}

/** A bridge address as a number, for comparing; UNKNOWN_ADDRESS when nobody knows it. */
export function addressNumber(index: PlanIndex, device: Device): number {
  const known = bridgeAddress(index, device);
  return known === null ? UNKNOWN_ADDRESS : Number.parseInt(known.replaceAll(":", ""), 16);
}
