import { must } from "../../kernel";
import { type Device, type Gear, type Port, type Segment, PlanEdits } from "../../plan";
import { connectPorts, placeDevice } from "../../planners";
import { DEVICE_MODELS, type DeviceModel } from "../../catalogue";
import { type Group } from "../groups";
import { modelOf } from "../gear-needed";
import { pointGroups, pointsMissing } from "../router-gear";
import { frontOf, isLinePort, type Frame } from "./frame";

export const model = (id: string): DeviceModel =>
  must(
    DEVICE_MODELS.find((deviceModel) => deviceModel.id === id),
    id,
  );

export function freeName({ edits: edits }: Frame, wanted: string): string {
  const taken = new Set(edits.all("device").map((device) => device.name.toLowerCase()));
  for (let n = 1; ; n += 1) {
    const name = n === 1 ? wanted : `${wanted} ${n}`;
    if (!taken.has(name.toLowerCase())) return name;
  }
}

/**
 * Gear that stays becomes a device of the model it is like; it keeps its name, its support date and its
 * notes.
 */
export function keep(frame: Frame, gear: Gear, place: string, domain: string): Device | null {
  const like = modelOf(gear);
  if (like === undefined) return null;
  const { device } = placeDevice(frame.edits, frame.ids, like, {
    name: freeName(frame, gear.name),
    place,
    domain,
  });
  frame.edits.patch("device", device.id, { supportUntil: gear.supportUntil, notes: gear.notes });
  frame.edits.patch("gear", gear.id, { device: device.id });
  return device;
}

export const portsOf = (frame: Frame, device: string): Port[] =>
  frame.edits
    .all("port")
    .filter((port) => port.device === device)
    .sort((a, b) => a.position - b.position);

/** Ports that no cable, device or leg uses. */
export function freePorts(frame: Frame, device: string): Port[] {
  const used = new Set([
    ...frame.edits.all("link").flatMap((link) => [link.a, link.b]),
    ...frame.edits.all("interface").flatMap((leg) => (leg.port === null ? [] : [leg.port])),
    ...frame.edits
      .all("host")
      .flatMap((host) => (host.attachment.at === "port" ? [host.attachment.port] : [])),
  ]);
  return portsOf(frame, device).filter((port) => !used.has(port.id) && !isLinePort(port));
}

export function join(frame: Frame, a: Port | undefined, b: Port | undefined, what: string): boolean {
  const refusal =
    a === undefined || b === undefined
      ? "no port is free"
      : connectPorts({ edits: frame.edits, index: frame.index, ids: frame.ids }, a.id, b.id);
  if (refusal !== null) frame.notes.push(`${what} is not cabled: ${refusal}`);
  return refusal === null;
}

/** The first port of one medium, the last ports first, as uplinks are plugged by custom. */
export const uplink = (ports: readonly Port[], medium: "fibre" | "copper"): Port | undefined =>
  ports.filter((port) => port.medium === medium).at(-1);

/** The devices that cables lead to from one. */
export function reached(frame: Frame, start: string): Set<string> {
  const deviceOf = new Map(frame.edits.all("port").map((port) => [port.id, port.device]));
  const links = frame.edits.all("link");
  const found = new Set([start]);
  for (let before = 0; before !== found.size;) {
    before = found.size;
    for (const link of links) {
      const [a, b] = [deviceOf.get(link.a) ?? "", deviceOf.get(link.b) ?? ""];
      if (found.has(a)) found.add(b);
      if (found.has(b)) found.add(a);
    }
  }
  return found;
}

export const pointGroupsOf = (frame: Frame): ReadonlyMap<string, Group> =>
  frontOf(frame) === null ? new Map<string, Group>() : pointGroups(frame.index);

export const pointsMissingIn = (frame: Frame) => (frontOf(frame) === null ? [] : pointsMissing(frame.index));

export const domainOfVlan = (edits: PlanEdits, segment: Segment | undefined): string | undefined =>
  edits.get("vlan", segment?.vlan ?? "")?.domain;
