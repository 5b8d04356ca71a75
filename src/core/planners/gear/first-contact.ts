import { formatAddress } from "../../address";
import {
  firstAddressOf,
  leafletFor,
  type Device,
  type FirstAddress,
  type Leaflet,
  type PlanIndex,
} from "../../plan";
import { asLabel } from "../register/host-label";
import { leafletText } from "./leaflet-text";

const addressText = (first: FirstAddress | null): string =>
  first === null ? "" : formatAddress(first.address) + (first.length === null ? "" : `/${first.length}`);

/** What only a leaflet says. */
const leafletOnly = (leaflet: Leaflet): (readonly [string, string])[] => {
  const reset = leafletText(leaflet, "reset");
  return [
    ["Open first", leaflet.opens],
    ["Starts in", leafletText(leaflet, "start")],
    ["Ready when", leaflet.light],
    ["Reset", reset === "" ? "" : `button held for ${reset}`],
    ["New address", leaflet.restarts ? "only with a restart" : ""],
    ["Leaflet", leaflet.notes],
  ];
};

/** What is known of a device as it comes out of its box, in words; nothing of what nobody has read. */
export function firstContact(index: PlanIndex, device: Device): (readonly [name: string, value: string])[] {
  const leaflet = leafletFor(index, device);
  const first = firstAddressOf(index, device);
  const by = leaflet?.addressing === "dhcp" ? "by DHCP" : "";
  const isServer = first?.gives === true || leaflet?.gives === "yes";
  const values: (readonly [string, string])[] = [
    ["First address", [by, addressText(first)].filter((text) => text !== "").join(", else ")],
    ["DHCP server of its own", isServer ? "on: keep it off the site's network until it is off" : ""],
    ...(leaflet === undefined ? [] : leafletOnly(leaflet)),
  ];
  return values.filter(([, value]) => value !== "");
}

/** A device's name as it can be entered on it, by the rules of its model. */
export function nameOnDevice(index: PlanIndex, device: Device): string {
  const leaflet = leafletFor(index, device);
  const name = leaflet?.nameRule === "label" ? asLabel(device.name) : device.name;
  return leaflet === undefined || leaflet.nameMost === null ? name : name.slice(0, leaflet.nameMost);
}
