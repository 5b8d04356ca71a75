import { DisjointSet, equal, must } from "../kernel";
import type { Change, Derived, Device, Host, Interface, PlanIndex, Port } from "../plan";
import type { BridgePort, Tag } from "./member";

/**
 * One end at a wire: a bridge port (a port, or the first of a LAG's), a routed port, or an end device's
 * cable.
 */
export interface Wire {
  /** Bridge ports of gear that knows VLANs, by number. */
  readonly bridgePorts: readonly number[];
  /** Ports with an interface of their own: they don't bridge. */
  readonly routedPorts: readonly number[];
  /** End devices by id: their names and tags may change without the wire changing. */
  readonly hosts: readonly string[];
  /** Legs, by id, of gear without VLANs that has them at all its ports together. */
  readonly legs: readonly string[];
}

/**
 * The plan's gear with dense numbers: ports, devices and wires. Ports that are switched off belong to no
 * wire.
 */
export interface Fabric {
  readonly devices: readonly Device[];
  readonly deviceNumber: ReadonlyMap<string, number>;
  readonly ports: readonly BridgePort[];
  readonly portNumber: ReadonlyMap<string, number>;
  /** Port number to device number. */
  readonly deviceOf: Int32Array;
  /** Port number to wire number, -1 when the port is off or its cable ends at a port that is off. */
  readonly wireOf: Int32Array;
  readonly wires: readonly Wire[];
  /** The working bridge ports of a device that knows VLANs; empty for other gear. */
  readonly bridgePortsOf: readonly (readonly number[])[];
  /** What `membersAt` has found so far, by device. */
  readonly members: Map<number, ReadonlyMap<number, readonly Member[]>>;
}

const SHARED = new WeakMap<Fabric["wires"], readonly number[]>();

/**
 * The wires with more than one bridge port, by number: where gear meets gear. They stay the same as long as
 * no cable moves.
 */
export function sharedWires({ wires }: Pick<Fabric, "wires">): readonly number[] {
  const known = SHARED.get(wires);
  if (known !== undefined) return known;
  const found: number[] = [];
  for (let i = 0; i < wires.length; i += 1) if ((wires[i]?.bridgePorts.length ?? 0) > 1) found.push(i);
  SHARED.set(wires, found);
  return found;
}

/** By wire, 1 where somebody hears a frame on it that one of its bridge ports sends, else 0. */
export interface Hearers {
  /** Another bridge port, or a routed port: where neither is, only end devices hear it. */
  readonly onward: Uint8Array;
  /** Legs of gear without VLANs. */
  readonly legs: Uint8Array;
}
const HEARERS = new WeakMap<Fabric["wires"], Hearers>();

/** Who, beside end devices, hears on each wire; the same as long as no cable moves. */
export function hearersOn({ wires }: Pick<Fabric, "wires">): Hearers {
  const known = HEARERS.get(wires);
  if (known !== undefined) return known;
  const hearers = {
    onward: Uint8Array.from(wires, (wire) =>
      Number(wire.bridgePorts.length > 1 || wire.routedPorts.length > 0),
    ),
    legs: Uint8Array.from(wires, (wire) => Number(wire.legs.length > 0)),
  };
  HEARERS.set(wires, hearers);
  return hearers;
}

/** A bridge port that a VLAN leaves at, and its tag there. */
export interface Member {
  readonly port: number;
  readonly tag: Tag;
}
const NOBODY: readonly Member[] = [];

/**
 * The bridge ports of a device that a VLAN leaves at: what is in both lists leaves untagged (IEEE 802.1Q
 * section 8.8).
 */
export function membersAt(fabric: Fabric, device: number, vid: number): readonly Member[] {
  const known = fabric.members.get(device);
  if (known !== undefined) return known.get(vid) ?? NOBODY;
  const found = new Map<number, Member[]>();
  const add = (to: number, member: Member) => {
    const list = found.get(to);
    if (list === undefined) found.set(to, [member]);
    else if (list.at(-1)?.port !== member.port) list.push(member);
  };
  for (const port of fabric.bridgePortsOf[device] ?? []) {
    const entity = fabric.ports[port];
    for (const vid of entity?.untagged ?? []) add(vid, { port, tag: null });
    for (const vid of entity?.tagged ?? []) add(vid, { port, tag: vid });
  }
  fabric.members.set(device, found);
  return found.get(vid) ?? NOBODY;
}

const AMONG = new WeakMap<Fabric["wires"], WeakMap<readonly Member[], readonly Member[]>>();

/** Those of some members whose wire leads to more than end devices. */
export function gearAmong(fabric: Fabric, members: readonly Member[]): readonly Member[] {
  const known = AMONG.get(fabric.wires) ?? new WeakMap<readonly Member[], readonly Member[]>();
  AMONG.set(fabric.wires, known);
  const kept = known.get(members);
  if (kept !== undefined) return kept;
  const { onward, legs } = hearersOn(fabric);
  const found = members.filter(({ port }) => {
    const wire = fabric.wireOf[port] ?? -1;
    return onward[wire] === 1 || legs[wire] === 1;
  });
  known.set(members, found);
  return found;
}

function numbersOf(list: readonly { readonly id: string }[]): Map<string, number> {
  const numbers = new Map<string, number>();
  for (const { id } of list) numbers.set(id, numbers.size);
  return numbers;
}

/**
 * The working ports of a device that knows no VLANs are one wire, but for those with an interface of their own:
 * a router's line is no part of what its other ports switch.
 */
function joinPlain(index: PlanIndex, ports: readonly Port[], wires: DisjointSet): void {
  const plain = new Set(
    [...index.plan.device.values()]
      .filter((device) => device.bridging === "plain")
      .map((device) => device.id),
  );
  if (plain.size === 0) return;
  const routed = index.groups("interfacesByPort");
  const firstOf = new Map<string, number>();
  for (const [i, port] of ports.entries()) {
    if (!port.enabled || !plain.has(port.device) || routed.has(port.id)) continue;
    const first = firstOf.get(port.device);
    if (first === undefined) firstOf.set(port.device, i);
    else wires.join(first, i);
  }
}

/** Joins ports into wires: by cables, and through gear that knows no VLANs. */
function joinWires(
  index: PlanIndex,
  ports: readonly Port[],
  portNumber: ReadonlyMap<string, number>,
): DisjointSet {
  const wires = new DisjointSet(ports.length);
  const numberOf = (port: string) => must(portNumber.get(port), "the port of a cable");
  // A port takes one cable: one that is off leads nowhere further, and is on no wire itself.
  for (const { a, b } of index.plan.link.values()) wires.join(numberOf(a), numberOf(b));
  // The ports of a LAG are one bridge port (IEEE 802.1AX section 6.1).
  for (const members of index.groups("portsByLag").values()) {
    const working = members.filter((port) => port.enabled).flatMap((port) => portNumber.get(port.id) ?? []);
    for (const number of working) wires.join(working[0] ?? number, number);
  }
  joinPlain(index, ports, wires);
  return wires;
}

/** All ports as a frame meets them: with what their device does with a tag of the port's own VLAN. */
function portsAsMet({ plan }: PlanIndex, ports: readonly Port[]): readonly BridgePort[] {
  const otherwise = new Set(
    [...plan.device.values()].filter(({ abilities }) => abilities.ownTag === "drop").map(({ id }) => id),
  );
  if (otherwise.size === 0) return ports;
  return ports.map((port) => asMet(port, otherwise.has(port.device)));
}

/** Whether a port is its own bridge port, or the one that stands for its LAG. */
const leads = (lags: { get(lag: string): readonly Port[] | undefined }, port: Port): boolean =>
  port.lag === null || leadOf(lags.get(port.lag) ?? [])?.id === port.id;

/** A wire while it is made. Most have one port and nothing else: for these no lists are made. */
interface FreshWire {
  readonly bridgePorts: number[];
  routedPorts: readonly number[];
  hosts: readonly string[];
  legs: readonly string[];
}
const NONE: readonly never[] = [];

type Numbered = Pick<Fabric, "devices" | "deviceNumber" | "ports" | "portNumber">;

/** Devices and ports with the numbers that an earlier fabric has, in whatever order the plan has them. */
function numberedAs(index: PlanIndex, { devices, deviceNumber, ports, portNumber }: Fabric): Numbered {
  const { device, port } = index.plan;
  return {
    devices: devices.map(({ id }) => must(device.get(id), "a device stays")),
    deviceNumber,
    ports: portsAsMet(
      index,
      ports.map(({ id }) => must(port.get(id), "a port stays")),
    ),
    portNumber,
  };
}

/** Whether a change makes a port meet frames otherwise than its device did, or puts it on another device. */
function meetsOtherwise({ kind, before, after }: Change): boolean {
  if (before === null || after === null) return false;
  if (kind === "device") return before.abilities.ownTag !== after.abilities.ownTag;
  return kind === "port" && before.device !== after.device;
}

/** The same where only some devices and ports have changed: the others are not looked up. */
function numberedAfter(index: PlanIndex, previous: Fabric, changes: readonly Change[]): Numbered {
  if (changes.some(meetsOtherwise)) return numberedAs(index, previous);
  const { deviceNumber, portNumber } = previous;
  const [devices, ports] = [[...previous.devices], [...previous.ports]];
  for (const change of changes) {
    if (change.kind === "device" && change.after !== null)
      devices[deviceNumber.get(change.id) ?? -1] = change.after;
    if (change.kind !== "port" || change.after === null) continue;
    const number = portNumber.get(change.id) ?? -1;
    ports[number] = asMet(change.after, ports[number]?.dropsOwnTag === true);
  }
  return { devices, deviceNumber, ports, portNumber };
}

function numbered(index: PlanIndex): Numbered {
  const devices = [...index.plan.device.values()];
  const ports = portsAsMet(index, [...index.plan.port.values()]);
  return { devices, deviceNumber: numbersOf(devices), ports, portNumber: numbersOf(ports) };
}

/** `previous` has the same devices and ports: their numbers stay. */
function compile(index: PlanIndex, previous: Fabric | null, changes: readonly Change[]): Fabric {
  const numbers = previous === null ? numbered(index) : numberedAfter(index, previous, changes);
  const { devices, deviceNumber, ports, portNumber } = numbers;
  const sets = joinWires(index, ports, portNumber);
  const deviceOf = new Int32Array(ports.length);
  const wireOf = new Int32Array(ports.length).fill(-1);
  const wires: FreshWire[] = [];
  const wireOfRoot = new Int32Array(ports.length).fill(-1);
  const bridgePortsOf: number[][] = devices.map(() => []);
  const routed = index.groups("interfacesByPort");
  const hosts = index.groups("hostsByPort");
  const lags = index.groups("portsByLag");
  for (let i = 0; i < ports.length; i += 1) {
    const port = must(ports[i], "a port");
    const device = deviceNumber.get(port.device) ?? 0;
    deviceOf[i] = device;
    if (!port.enabled) continue;
    const root = sets.rootOf(i);
    if ((wireOfRoot[root] ?? -1) < 0) {
      wireOfRoot[root] = wires.length;
      wires.push({ bridgePorts: [], routedPorts: NONE, hosts: NONE, legs: NONE });
    }
    const number = wireOfRoot[root] ?? 0;
    wireOf[i] = number;
    const wire = must(wires[number], "the wire was just made");
    if (routed.has(port.id)) wire.routedPorts = [...wire.routedPorts, i];
    else if (devices[device]?.bridging === "vlan" && leads(lags, port)) {
      wire.bridgePorts.push(i);
      bridgePortsOf[device]?.push(i);
    }
    if (hosts.has(port.id)) wire.hosts = [...wire.hosts, ...index.hostsAt(port.id).map((host) => host.id)];
  }
  placeLegs(index, devices, (port) => wires[wireOf[portNumber.get(port) ?? -1] ?? -1]);
  const members = previous === null ? new Map() : membersKept(previous, bridgePortsOf, ports);
  return { ...numbers, deviceOf, wireOf, wires, bridgePortsOf, members };
}

/** What was found of devices all of whose bridge ports are as they were. */
function membersKept(
  previous: Fabric,
  bridgePortsOf: Fabric["bridgePortsOf"],
  ports: Fabric["ports"],
): Fabric["members"] {
  const kept: Fabric["members"] = new Map();
  for (const [device, found] of previous.members) {
    const [was, is] = [previous.bridgePortsOf[device] ?? [], bridgePortsOf[device] ?? []];
    const isSame = (port: number, at: number) => was[at] === port && previous.ports[port] === ports[port];
    if (was.length === is.length && is.every(isSame)) kept.set(device, found);
  }
  return kept;
}

/** Puts the legs that gear without VLANs has at all its ports together onto their wires. */
function placeLegs(
  index: PlanIndex,
  devices: readonly Device[],
  wireAt: (port: string) => FreshWire | undefined,
): void {
  for (const device of devices) {
    const port = device.bridging === "plain" ? ownPort(index, device) : null;
    const wire = port === null ? undefined : wireAt(port);
    if (wire === undefined) continue;
    const own = index.interfacesOf(device.id).flatMap((leg) => (leg.port === null ? [leg.id] : []));
    wire.legs = [...wire.legs, ...own];
  }
}

/**
 * The working port by which a device takes part in a wire: one with a cable, or, of gear without VLANs, whose
 * ports are one wire, any. Null where it has none.
 */
export function ownPort(index: PlanIndex, { id: device, bridging }: Device): string | null {
  const routed = index.groups("interfacesByPort");
  const ports = index.portsOf(device).filter(({ id, enabled }) => enabled && !routed.has(id));
  const cabled = ports.find(({ id }) => index.linkAt(id) !== undefined);
  return (cabled ?? (bridging === "plain" ? ports[0] : undefined))?.id ?? null;
}

/** A port with its device's own ways. */
const asMet = (port: Port, dropsOwnTag: boolean): BridgePort =>
  dropsOwnTag ? { ...port, dropsOwnTag } : port;

/** The port that stands for its LAG: the first working one on the case. */
const leadOf = (members: readonly Port[]): Port | undefined =>
  [...members]
    .filter((port) => port.enabled)
    .sort((a, b) => a.position - b.position || (a.id < b.id ? -1 : 1))[0];

/** Whether a host that has changed is still plugged in where it was. */
function staysPlugged({ before, after }: Change): boolean {
  if (before === null || after === null) return false;
  return equal((before as Host).attachment, (after as Host).attachment);
}

/** A port that has changed and is still on the same wire, with its number; null when it is not. */
function samePlace(previous: Fabric, { id, before, after }: Change): { number: number; port: Port } | null {
  if (before === null || after === null) return null;
  const [was, is] = [before, after] as [Port, Port];
  const number = previous.portNumber.get(id);
  const stays = was.enabled === is.enabled && was.device === is.device && was.lag === is.lag;
  return number === undefined || !stays ? null : { number, port: is };
}

/** Whether a leg is on no wire, before or after: that of gear that knows VLANs, with no port of its own. */
function isInside(previous: Fabric, { before, after }: Change): boolean {
  return [before, after].every((leg) => {
    if (leg === null) return true;
    const { device, port } = leg as Interface;
    return port === null && previous.devices[previous.deviceNumber.get(device) ?? -1]?.bridging === "vlan";
  });
}

/** Whether a change makes a device or port, or takes one away. */
const renumbers = ({ kind, before, after }: Change): boolean =>
  (kind === "port" || kind === "device") && (before === null || after === null);

/** What a fabric is after changes: compiled anew with the numbers it has, where those stay. */
const follow = (previous: Fabric, index: PlanIndex, changes: readonly Change[]): Fabric | null =>
  followPorts(previous, changes) ?? (changes.some(renumbers) ? null : compile(index, previous, changes));

/** A device that has changed, but not how its ports are joined or meet a frame; null for any other change. */
function sameWays({ kind, before, after }: Change): Device | null {
  if (kind !== "device" || before === null || after === null) return null;
  const stays = before.bridging === after.bridging && before.abilities.ownTag === after.abilities.ownTag;
  return stays ? after : null;
}

/**
 * An edit of a port that moves no cable and switches nothing on or off leaves all wires as they are, and so
 * does one of a device's settings.
 */
function followPorts(previous: Fabric, changes: readonly Change[]): Fabric | null {
  const read = changes.filter(({ kind }) => FABRIC.reads.includes(kind));
  const set: Device[] = [];
  const moved: { number: number; port: Port }[] = [];
  for (const change of read) {
    const device = sameWays(change);
    const port = change.kind === "port" ? samePlace(previous, change) : null;
    if (device !== null) set.push(device);
    else if (port !== null) moved.push(port);
    else if (change.kind === "host" && staysPlugged(change)) continue;
    else if (change.kind === "interface" && isInside(previous, change)) continue;
    else return null;
  }
  return withSet(withMoved(previous, moved), set);
}

function withSet(fabric: Fabric, set: readonly Device[]): Fabric {
  if (set.length === 0) return fabric;
  const devices = [...fabric.devices];
  for (const device of set) devices[fabric.deviceNumber.get(device.id) ?? -1] = device;
  return { ...fabric, devices };
}

function withMoved(fabric: Fabric, moved: readonly { number: number; port: Port }[]): Fabric {
  if (moved.length === 0) return { ...fabric };
  const [ports, members] = [[...fabric.ports], new Map(fabric.members)];
  for (const { number, port } of moved) {
    members.delete(fabric.deviceOf[number] ?? -1);
    ports[number] = asMet(port, fabric.ports[number]?.dropsOwnTag === true);
  }
  return { ...fabric, ports, members };
}

/** The compiled fabric of a plan, worked out once for each state of the gear. */
export const FABRIC: Derived<Fabric> = {
  reads: ["device", "port", "link", "interface", "host"],
  make: (index) => compile(index, null, []),
  follow,
};
