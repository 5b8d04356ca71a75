import type { Ipv4 } from "../address";
import type { PlanIndex } from "./plan-index";
import type { Device } from "./schema/hardware";
import type { Leaflet } from "./schema/leaflet";

/**
 * What the leaflet of a device's model says, of several the first by its id; undefined where nobody has read
 * it.
 */
export function leafletFor(index: PlanIndex, { model }: Pick<Device, "model">): Leaflet | undefined {
  return index.groups("leafletsByModel").get(model)?.[0];
}

/** The address that a device has before anything is entered on it. */
export interface FirstAddress {
  readonly address: Ipv4;
  /** Null where nobody knows. */
  readonly length: number | null;
  /** Whether it gives addresses itself: a laptop by DHCP is its neighbour. */
  readonly gives: boolean;
}

/** As the survey found it on this very device, or as the leaflet of its model says; null where nobody knows. */
export function firstAddressOf(index: PlanIndex, device: Device): FirstAddress | null {
  for (const gear of index.plan.gear.values()) {
    if (gear.device !== device.id || gear.fate !== "keep") continue;
    const address = gear.addresses.find((address): address is Ipv4 => typeof address === "number");
    if (address === undefined) continue;
    const prefix = gear.prefixes.find((prefix) => prefix.family === 4);
    return { address, length: prefix?.length ?? null, gives: gear.dhcp === "on" };
  }
  const leaflet = leafletFor(index, device);
  return leaflet === undefined || leaflet.address4 === null
    ? null
    : { address: leaflet.address4, length: leaflet.length4, gives: leaflet.gives === "yes" };
}
