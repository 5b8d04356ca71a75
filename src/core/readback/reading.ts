import type { Ipv4, Ipv6 } from "../address";
import type { Device, PlanIndex, Port, Vid } from "../plan";
import { PORT_FIELDS, type Seen } from "../records";

/** What was read of a port; what is not in it was not read. */
export type PortReading = Partial<Pick<Port, (typeof PORT_FIELDS)[number]>>;

/** An address of its own that a device shows, and where. */
export interface LegReading {
  /** The VLAN it is in; null for a port of its own, or where no VLAN is said. */
  readonly vid: Vid | null;
  /** The id of the port that it is at; null for none. */
  readonly port: string | null;
  /** What the device calls it. */
  readonly name: string;
  /** Null where addresses of the family were not read. */
  readonly addresses4: readonly Ipv4[] | null;
  readonly addresses6: readonly Ipv6[] | null;
}

/** What was read off one device. */
export interface Reading {
  /** By the port's id. */
  readonly ports: ReadonlyMap<string, PortReading>;
  /** All VLANs that the device has; null where they were not read. */
  readonly vlans: readonly { readonly vid: Vid; readonly name: string }[] | null;
  /** All addresses that the device has; null where they were not read. */
  readonly legs: readonly LegReading[] | null;
  /** What could not be read, in sentences. */
  readonly missed: readonly string[];
}

/** A list of VLANs without any twice, ascending: as a port keeps it. */
export const vidSet = (vids: Iterable<Vid>): Vid[] => [...new Set(vids)].sort((a, b) => a - b);

/** Why a name was left out, with the names that are known. */
export function noSuchPort(name: string, index: PlanIndex, device: Device): string {
  const ports = index.portsOf(device.id);
  const [first, last] = [ports[0], ports.at(-1)];
  if (first === undefined || last === undefined) return `${name}: ${device.name} has no ports.`;
  const labels = `they are ${first.label} to ${last.label}`;
  const software =
    first.softwareName === "" ? "" : `, in its software ${first.softwareName} to ${last.softwareName}`;
  return `${name}: no port of ${device.name} is surely meant; ${labels}${software}.`;
}

/** What a reading shows at all. */
export const seenIn = ({ ports, legs, vlans }: Reading): Seen => ({
  ports: Object.fromEntries(
    [...ports].map(([id, port]) => [id, PORT_FIELDS.filter((field) => port[field] !== undefined)]),
  ),
  legs: legs !== null,
  vlans: vlans !== null,
});
