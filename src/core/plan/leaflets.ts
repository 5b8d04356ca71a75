import type { Ipv4 } from "../address";
import { byText } from "../kernel";
import type { PlanIndex } from "./plan-index";
import type { Device } from "./schema/hardware";
import type { Leaflet } from "./schema/leaflet";

/** What the leaflet of a device's model says; undefined where nobody has read it. */
export function leafletFor(index: PlanIndex, { model }: Pick<Device, "model">): Leaflet | undefined {
  const found = index.groups("leafletsByModel").get(model) ?? [];
  return found.length < 2 ? found[0] : [...found].sort((a, b) => byText(a.id, b.id))[0];
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
  const found = [...index.plan.gear.values()]
    .filter((gear) => gear.device === device.id && gear.fate === "keep")
    .sort((a, b) => byText(a.id, b.id))
    .find(({ addresses }) => addresses.some((address) => typeof address === "number"));
  const own = found?.addresses.find((address): address is Ipv4 => typeof address === "number");
  if (found !== undefined && own !== undefined) {
    const prefix = found.prefixes.find((prefix) => prefix.family === 4);
    return { address: own, length: prefix?.length ?? null, gives: found.dhcp === "on" };
  }
  const leaflet = leafletFor(index, device);
  return leaflet === undefined || leaflet.address4 === null
    ? null
    : { address: leaflet.address4, length: leaflet.length4, gives: leaflet.gives === "yes" };
}
