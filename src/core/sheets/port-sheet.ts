import type { Address } from "../address";
import { byNaturalText, runsWords, putInto } from "../kernel";
import { nameOf, type Device, type PlanIndex, type Port } from "../plan";
import { modeOf } from "../fabric";
import { DEVICE_KIND_WORDS } from "./register-sheet";

/** What is at the other end of a port's cable, in words; empty when nothing is. */
export function pluggedIn(index: PlanIndex, port: Port): string {
  const peer = index.peerOf(port.id);
  if (peer !== undefined) return nameOf(index, "port", peer.id).replace(" port ", " ");
  const leg = index.groups("interfacesByPort").get(port.id)?.[0];
  if (leg !== undefined && leg.line !== null) return index.plan.line.get(leg.line)?.name ?? "internet line";
  const hosts = index.hostsAt(port.id);
  const [first, ...behind] = hosts;
  if (first === undefined) return port.note;
  return behind.length === 0
    ? first.name
    : `${first.name}, behind it ${behind.map((host) => host.name).join(", ")}`;
}

/**
 * Whether a port's membership says nothing: it has an interface of its own, or its device passes every tag
 * untouched.
 */
export const isDecidedElsewhere = (index: PlanIndex, port: Port): boolean =>
  (index.groups("interfacesByPort").get(port.id)?.length ?? 0) > 0 ||
  index.plan.device.get(port.device)?.bridging !== "vlan";

/** How many ports are set, still to decide and off. */
export interface PortCounts {
  readonly all: number;
  readonly set: number;
  readonly undecided: number;
  readonly off: number;
}

/** A port that routes, or whose device knows no VLANs, has nothing to decide. */
export function portCounts(index: PlanIndex, ports: readonly Port[]): PortCounts {
  const modes = ports.map((port) => (isDecidedElsewhere(index, port) && port.enabled ? "set" : modeOf(port)));
  const count = (mode: string) => modes.filter((m) => m === mode).length;
  return {
    all: ports.length,
    undecided: count("undecided"),
    off: count("off"),
    set: ports.length - count("undecided") - count("off"),
  };
}

/** "13 to 17", "4, 11 to 12": printed labels of ports that follow one another on the case, said as runs. */
export function runText(ports: readonly Port[], onDevice: readonly Port[]): string {
  const place = new Map(onDevice.map((port, i) => [port.id, i]));
  return runsWords(
    ports.map((port) => place.get(port.id) ?? 0),
    (at) => onDevice[at]?.label ?? "",
  );
}

/**
 * "Upper switch 1 to 4, Switch B 3": such runs of ports on several devices; the device is left out where
 * there is one only.
 */
export function runsByDevice(index: PlanIndex, ports: readonly Port[]): string {
  const byDevice = new Map<string, Port[]>();
  for (const port of ports) putInto(byDevice, port.device, port);
  return [...byDevice]
    .map(
      ([device, own]) =>
        (byDevice.size === 1 ? "" : `${index.plan.device.get(device)?.name ?? ""} `) +
        `${runText(own, index.portsOf(device))}`,
    )
    .join("; ");
}

const KIND_ORDER: readonly Device["kind"][] = [
  "gateway",
  "firewall",
  "switch",
  "accessPoint",
  "providerBox",
  "converter",
  "server",
];

/**
 * Devices in the order of the work: gateway, switches, access points, the rest; each by name as a person
 * counts.
 */
export const devicesInOrder = (index: PlanIndex): Device[] =>
  [...index.plan.device.values()].sort(
    (a, b) => KIND_ORDER.indexOf(a.kind) - KIND_ORDER.indexOf(b.kind) || byNaturalText(a.name, b.name),
  );

/** "24-port PoE switch, 2 uplinks, Cabinet A": what a device is and where. */
export const deviceLine = (device: Device): string =>
  [device.model === "" ? DEVICE_KIND_WORDS[device.kind] : device.model, device.place]
    .filter((t) => t !== "")
    .join(", ");

/** Ports of a device with nothing in them: no cable, no end device, no line. */
export const freePorts = (index: PlanIndex, device: string): Port[] =>
  index
    .portsOf(device)
    .filter(
      (port) =>
        index.linkAt(port.id) === undefined &&
        index.hostsAt(port.id).length === 0 &&
        (index.groups("interfacesByPort").get(port.id)?.length ?? 0) === 0,
    );

/**
 * The address a device is managed at: its leg in the management segment, else its first inside. Null without
 * any.
 */
export function ownAddress(index: PlanIndex, device: string): Address | null {
  const legs = index.interfacesOf(device).filter((leg) => leg.line === null && leg.addresses4.length > 0);
  const managed = legs.find(
    (leg) => leg.segment !== null && index.plan.segment.get(leg.segment)?.management === true,
  );
  return (managed ?? legs[0])?.addresses4[0] ?? null;
}
