import { byNaturalText, must } from "../../kernel";
import { BLANK_LINE, isGateway, type Device, type Gear, type Port, type Room, type Segment } from "../../plan";
import { connectPorts, DEVICE_MODELS, indexOf, placeDevice, type DeviceModel } from "../../planners";
import { byGroup, groupKey, groupOf, groupTitle, roomsInOrder, surveyed, type Group } from "../groups";
import { cabinetOf, isSafety, modelOf, neededGear, switchesAt, switchesFor } from "../gear-needed";
import type { Need } from "../read-needs";
import { AddressGiver } from "./address-giver";
import { frontOf, homeGroup, segmentOf, sharedDomain, standsApart, type Frame } from "./frame";

const model = (id: string): DeviceModel => must(DEVICE_MODELS.find((one) => one.id === id), id);

function freeName({ draft }: Frame, wanted: string): string {
  const taken = new Set(draft.all("device").map((device) => device.name.toLowerCase()));
  for (let n = 1; ; n += 1) {
    const name = n === 1 ? wanted : `${wanted} ${n}`;
    if (!taken.has(name.toLowerCase())) return name;
  }
}

/** Gear that stays becomes a device of the model it is like; it keeps its name, its support date and its notes. */
function keep(frame: Frame, gear: Gear, place: string, domain: string): Device | null {
  const like = modelOf(gear);
  if (like === undefined) return null;
  const { device } = placeDevice(frame.draft, frame.ids, like, freeName(frame, gear.name), place, domain);
  frame.draft.patch("device", device.id, { supportUntil: gear.supportUntil, notes: gear.notes });
  frame.draft.patch("gear", gear.id, { device: device.id });
  return device;
}

const isLinePort = (port: Port): boolean => port.label.startsWith("Line");
const portsOf = (frame: Frame, device: string): Port[] => frame.draft.all("port").filter((port) => port.device === device).sort((a, b) => a.position - b.position);

/** Ports that no cable, device or leg uses. */
function freePorts(frame: Frame, device: string): Port[] {
  const used = new Set([
    ...frame.draft.all("link").flatMap((link) => [link.a, link.b]), ...frame.draft.all("interface").flatMap((leg) => (leg.port === null ? [] : [leg.port])),
    ...frame.draft.all("host").flatMap((host) => (host.attachment.at === "port" ? [host.attachment.port] : [])),
  ]);
  return portsOf(frame, device).filter((port) => !used.has(port.id) && !isLinePort(port));
}

function join(frame: Frame, a: Port | undefined, b: Port | undefined, what: string): boolean {
  const refusal = a === undefined || b === undefined ? "no port is free" : connectPorts({ draft: frame.draft, index: frame.index, ids: frame.ids }, a.id, b.id);
  if (refusal !== null) frame.notes.push(`${what} is not cabled: ${refusal}`);
  return refusal === null;
}

/** The first port of one medium, the last ports first, as uplinks are plugged by custom. */
const uplink = (ports: readonly Port[], medium: "fibre" | "copper"): Port | undefined => ports.filter((port) => port.medium === medium).at(-1);

function draftGateway(frame: Frame, domain: string): Device | undefined {
  const known = frame.draft.all("device").filter((device) => isGateway(device)).sort((a, b) => byNaturalText(a.id, b.id))[0];
  if (known !== undefined) return known;
  const lines = frame.draft.all("line");
  const rooms = roomsInOrder(frame.index);
  const place = rooms.find((room) => room.kind === "cabinet")?.name ?? rooms[0]?.name ?? "";
  const stays = [...frame.index.plan.gear.values()].find((gear) => gear.kind === "gateway" && gear.fate === "keep" && gear.device === null);
  const kept = stays === undefined ? null : keep(frame, stays, place, domain);
  const device = kept ?? placeDevice(frame.draft, frame.ids, model(lines.length > 1 || frame.school.school === "routers" ? "gateway-8" : "gateway-4"), freeName(frame, "Gateway"), place, domain).device;
  const all = lines.length > 0 ? lines : [frame.draft.put("line", { ...BLANK_LINE, id: frame.ids(), name: "Internet line" })];
  const sockets = portsOf(frame, device.id).filter(isLinePort);
  for (const [i, line] of all.entries()) {
    const port = sockets[i];
    if (port === undefined) frame.notes.push(`${device.name} has no port for ${line.name}; a gateway with more lines is needed.`);
    else if (!frame.draft.all("interface").some((leg) => leg.line === line.id)) {
      frame.draft.put("interface", { id: frame.ids(), device: device.id, port: port.id, segment: null, line: line.id, name: line.name, mac: null, addresses4: [], addresses6: [], relayTo: null, translates: "asUsual" });
    }
  }
  return device;
}

/** Switches by cabinet, each cabled towards the gateway: by fibre where both have it, else by copper. */
function draftSwitches(frame: Frame, domain: string, gateway: Device | undefined): void {
  const front = frontOf(frame);
  // Where routers separate, the switches are the front network's; the others plug into their router.
  const inFront = (need: Need, room: Room) => !isSafety(need) && (front === null || groupKey(homeGroup(frame, groupOf(frame.index.plan.site, room, need))) === groupKey(front));
  for (const place of neededGear(frame.index, domain, inFront)) {
    const at = place.cabinet?.name ?? "";
    for (const gear of place.kept) keep(frame, gear, at, domain);
    for (const one of place.missing) placeDevice(frame.draft, frame.ids, one, freeName(frame, place.cabinet === null ? "Switch" : `${at} switch`), at, domain);
  }
  if (gateway === undefined) return;
  const index = indexOf(frame.draft);
  const switches = [...roomsInOrder(index).filter((room) => room.kind === "cabinet"), null].flatMap((cabinet) => switchesAt(index, cabinet)).filter((device) => device.domain === null || device.domain === domain);
  const joined = reached(frame, gateway.id);
  for (const device of switches) {
    if (joined.has(device.id)) continue;
    const own = freePorts(frame, device.id);
    const candidates = switches.filter((other) => joined.has(other.id)).sort((a, b) => Number(b.place === device.place) - Number(a.place === device.place));
    const byFibre = candidates.find((other) => uplink(freePorts(frame, other.id), "fibre") !== undefined);
    const laid = candidates.length === 0
      ? join(frame, freePorts(frame, gateway.id)[0], uplink(own, "copper"), device.name)
      : byFibre !== undefined && uplink(own, "fibre") !== undefined
        ? join(frame, uplink(freePorts(frame, byFibre.id), "fibre"), uplink(own, "fibre"), device.name)
        : join(frame, uplink(freePorts(frame, candidates[0]?.id ?? ""), "copper"), uplink(own, "copper"), device.name);
    if (laid) for (const id of reached(frame, gateway.id)) joined.add(id);
  }
}

/** The devices that cables lead to from one. */
function reached(frame: Frame, start: string): Set<string> {
  const deviceOf = new Map(frame.draft.all("port").map((port) => [port.id, port.device]));
  const links = frame.draft.all("link");
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

/** Access points room by room, each at a port with power of its room's cabinet. */
function draftPoints(frame: Frame, domain: string): void {
  const rooms = roomsInOrder(frame.index);
  const index = indexOf(frame.draft);
  for (const { room, need } of surveyed(frame.index).filter(({ need: one }) => one.kind.role === "point")) {
    const there = frame.draft.all("device").filter((device) => device.kind === "accessPoint" && device.place === room.name).length;
    const switches = switchesAt(index, cabinetOf(rooms, room));
    for (let i = there; i < need.count; i += 1) {
      const { device, ports } = placeDevice(frame.draft, frame.ids, model("access-point"), freeName(frame, `${room.name} AP`.slice(0, 76)), room.name, domain);
      const free = switches.flatMap((one) => freePorts(frame, one.id).filter((port) => port.medium === "copper"));
      join(frame, free.find((port) => port.poeMw > 0) ?? free[0], ports[0], device.name);
    }
  }
}

/** Separate gear for groups without a link to the rest: switches of their own, no gateway. */
function draftApart(frame: Frame): void {
  for (const { group } of frame.groups.filter((tally) => standsApart(frame, tally.group))) {
    const segment = segmentOf(frame.draft, group);
    const domain = segment?.vlan === null || segment === undefined ? undefined : frame.draft.get("vlan", segment.vlan)?.domain;
    if (domain === undefined) continue;
    const belongs = (need: Parameters<typeof isSafety>[0]) => need.kind.purpose === group.purpose;
    for (const place of neededGear(frame.index, domain, belongs)) {
      const at = place.cabinet?.name ?? "";
      for (const one of place.missing) placeDevice(frame.draft, frame.ids, one, freeName(frame, `${at} ${groupTitle(frame.draft.plan.site, group)} switch`.trim()), at, domain);
    }
    const switches = frame.draft.all("device").filter((device) => device.domain === domain && device.kind === "switch");
    for (const [i, device] of switches.entries()) {
      const before = switches[i - 1];
      if (before === undefined || reached(frame, before.id).has(device.id)) continue;
      const [a, b] = [freePorts(frame, before.id), freePorts(frame, device.id)];
      join(frame, uplink(a, "fibre") ?? uplink(a, "copper"), uplink(b, "fibre") ?? uplink(b, "copper"), device.name);
    }
  }
}

/**
 * A router for every group but the one in front: its outside is a device of the front network, its inside the group's gateway. It translates, since nothing in
 * front knows a way back to what is behind it.
 */
function draftRouters(frame: Frame, gateway: Device | undefined): void {
  const front = frontOf(frame);
  const frontSegment = front === null ? undefined : segmentOf(frame.draft, front);
  if (front === null || gateway === undefined) return;
  const giver = new AddressGiver(frame.draft);
  for (const { group } of [...frame.groups].sort((a, b) => byGroup(a.group, b.group))) {
    if (groupKey(group) === groupKey(front) || standsApart(frame, group)) continue;
    const segment = segmentOf(frame.draft, group);
    const domain = segment?.vlan === null || segment === undefined ? undefined : frame.draft.get("vlan", segment.vlan)?.domain;
    if (domain === undefined || frame.draft.all("device").some((device) => isGateway(device) && device.domain === domain)) continue;
    const { device, ports } = placeDevice(frame.draft, frame.ids, model("gateway-4"), freeName(frame, `${groupTitle(frame.draft.plan.site, group)} router`), gateway.place, domain);
    const outside = ports.find(isLinePort);
    const address = frontSegment === undefined ? null : giver.next(frontSegment, "typed");
    if (outside !== undefined && frontSegment !== undefined) {
      frame.draft.put("interface", { id: frame.ids(), device: device.id, port: outside.id, segment: frontSegment.id, line: null, name: "Outside", mac: null, addresses4: address === null ? [] : [address], addresses6: [], relayTo: null, translates: "yes" });
    }
    join(frame, freePorts(frame, gateway.id)[0], outside, device.name);
    draftBehind(frame, group, device, domain);
  }
}

/** Switches behind a group's router, place by place, where the router's own ports are too few for what the survey names. */
function draftBehind(frame: Frame, group: Group, router: Device, domain: string): void {
  const belongs = (need: Need, room: Room) => !isSafety(need) && groupKey(homeGroup(frame, groupOf(frame.index.plan.site, room, need))) === groupKey(group);
  const places = neededGear(frame.index, domain, belongs);
  const wired = places.reduce((total, { now }) => total + now, 0);
  if (wired <= freePorts(frame, router.id).length && places.every(({ powered }) => powered === 0)) return;
  let before = router;
  for (const { cabinet, ports, powered, poeMw } of places) {
    const at = cabinet?.name ?? "";
    for (const one of switchesFor(ports, powered, poeMw, true)) {
      const { device } = placeDevice(frame.draft, frame.ids, one, freeName(frame, `${at} ${groupTitle(frame.draft.plan.site, group)} switch`.trim()), at, domain);
      const nearer = freePorts(frame, router.id);
      join(frame, nearer[0] ?? uplink(freePorts(frame, before.id), "copper"), uplink(freePorts(frame, device.id), "copper"), device.name);
      before = device;
    }
  }
}

/** The gear's own addresses, typed in, in the segment for them. */
function draftManagement(frame: Frame, domain: string): void {
  const home: Group = homeGroup(frame, { purpose: "management", name: "" });
  const segment: Segment | undefined = segmentOf(frame.draft, home);
  if (segment === undefined) return;
  const giver = new AddressGiver(frame.draft);
  const gear = frame.draft.all("device").filter((device) => (device.kind === "switch" || device.kind === "accessPoint") && device.bridging === "vlan" && device.domain === domain);
  for (const device of gear) {
    if (frame.draft.all("interface").some((leg) => leg.device === device.id && leg.segment === segment.id)) continue;
    const address = giver.next(segment, "typed");
    if (address === null) {
      frame.notes.push(`${device.name} gets no address of its own: ${segment.name} is full.`);
      continue;
    }
    frame.draft.put("interface", { id: frame.ids(), device: device.id, port: null, segment: segment.id, line: null, name: segment.name, mac: null, addresses4: [address], addresses6: [], relayTo: null, translates: "asUsual" });
  }
}

/** Gateway, switches by port count and power, access points, their cables and their own addresses. */
export function draftGear(frame: Frame): void {
  const domain = sharedDomain(frame);
  const shared = frame.groups.some(({ group }) => !standsApart(frame, group));
  const gateway = shared ? draftGateway(frame, domain) : undefined;
  if (shared) draftSwitches(frame, domain, gateway);
  draftRouters(frame, gateway);
  draftPoints(frame, domain);
  draftApart(frame);
  draftManagement(frame, domain);
}
