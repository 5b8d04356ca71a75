import { byNaturalText, must } from "../../kernel";
import {
  BLANK_LINE,
  isGateway,
  type Device,
  type Gear,
  type Port,
  type Room,
  type Segment,
  Draft,
} from "../../plan";
import { connectPorts, indexOf, placeDevice } from "../../planners";
import { DEVICE_MODELS, type DeviceModel } from "../../catalogue";
import { byGroup, groupKey, groupTitle, roomsInOrder, surveyed, type Group } from "../groups";
import {
  cabinetOf,
  isSafety,
  modelOf,
  neededGear,
  switchesAt,
  switchesFor,
  type PlaceNeed,
} from "../gear-needed";
import type { Need } from "../read-needs";
import { AddressGiver } from "./address-giver";
import { networkOf } from "./network-of";
import { gearGroup, MANAGEMENT, pointGroups, pointsMissing } from "../router-gear";
import { frontOf, homeGroup, isLinePort, segmentOf, sharedDomain, standsApart, type Frame } from "./frame";

const model = (id: string): DeviceModel =>
  must(
    DEVICE_MODELS.find((one) => one.id === id),
    id,
  );

function freeName({ draft }: Frame, wanted: string): string {
  const taken = new Set(draft.all("device").map((device) => device.name.toLowerCase()));
  for (let n = 1; ; n += 1) {
    const name = n === 1 ? wanted : `${wanted} ${n}`;
    if (!taken.has(name.toLowerCase())) return name;
  }
}

/**
 * Gear that stays becomes a device of the model it is like; it keeps its name, its support date and its
 * notes.
 */
function keep(frame: Frame, gear: Gear, place: string, domain: string): Device | null {
  const like = modelOf(gear);
  if (like === undefined) return null;
  const { device } = placeDevice(frame.draft, frame.ids, like, freeName(frame, gear.name), place, domain);
  frame.draft.patch("device", device.id, { supportUntil: gear.supportUntil, notes: gear.notes });
  frame.draft.patch("gear", gear.id, { device: device.id });
  return device;
}

const portsOf = (frame: Frame, device: string): Port[] =>
  frame.draft
    .all("port")
    .filter((port) => port.device === device)
    .sort((a, b) => a.position - b.position);

/** Ports that no cable, device or leg uses. */
function freePorts(frame: Frame, device: string): Port[] {
  const used = new Set([
    ...frame.draft.all("link").flatMap((link) => [link.a, link.b]),
    ...frame.draft.all("interface").flatMap((leg) => (leg.port === null ? [] : [leg.port])),
    ...frame.draft
      .all("host")
      .flatMap((host) => (host.attachment.at === "port" ? [host.attachment.port] : [])),
  ]);
  return portsOf(frame, device).filter((port) => !used.has(port.id) && !isLinePort(port));
}

function join(frame: Frame, a: Port | undefined, b: Port | undefined, what: string): boolean {
  const refusal =
    a === undefined || b === undefined
      ? "no port is free"
      : connectPorts({ draft: frame.draft, index: frame.index, ids: frame.ids }, a.id, b.id);
  if (refusal !== null) frame.notes.push(`${what} is not cabled: ${refusal}`);
  return refusal === null;
}

/** The first port of one medium, the last ports first, as uplinks are plugged by custom. */
const uplink = (ports: readonly Port[], medium: "fibre" | "copper"): Port | undefined =>
  ports.filter((port) => port.medium === medium).at(-1);

function draftGateway(frame: Frame, domain: string): Device | undefined {
  const known = frame.draft
    .all("device")
    .filter((device) => isGateway(device))
    .sort((a, b) => byNaturalText(a.id, b.id))[0];
  if (known !== undefined) return known;
  const lines = frame.draft.all("line");
  const rooms = roomsInOrder(frame.index);
  const place = rooms.find((room) => room.kind === "cabinet")?.name ?? rooms[0]?.name ?? "";
  const stays = [...frame.index.plan.gear.values()].find(
    (gear) => gear.kind === "gateway" && gear.fate === "keep" && gear.device === null,
  );
  const kept = stays === undefined ? null : keep(frame, stays, place, domain);
  const device =
    kept ??
    placeDevice(
      frame.draft,
      frame.ids,
      model(lines.length > 1 || frame.school.school === "routers" ? "gateway-8" : "gateway-4"),
      freeName(frame, "Gateway"),
      place,
      domain,
    ).device;
  const all =
    lines.length > 0
      ? lines
      : [frame.draft.put("line", { ...BLANK_LINE, id: frame.ids(), name: "Internet line" })];
  const sockets = portsOf(frame, device.id).filter(isLinePort);
  for (const [i, line] of all.entries()) {
    const port = sockets[i];
    if (port === undefined)
      frame.notes.push(`${device.name} has no port for ${line.name}; a gateway with more lines is needed.`);
    else if (!frame.draft.all("interface").some((leg) => leg.line === line.id)) {
      frame.draft.put("interface", {
        id: frame.ids(),
        device: device.id,
        port: port.id,
        segment: null,
        line: line.id,
        name: line.name,
        mac: null,
        addresses4: [],
        addresses6: [],
        relayTo: null,
        translates: "asUsual",
      });
    }
  }
  return device;
}

/** Cables each switch that is not reached yet to one that is, by fibre where both have it. */
function joinSwitches(frame: Frame, domain: string, gateway: Device): void {
  const index = indexOf(frame.draft);
  const switches = [...roomsInOrder(index).filter((room) => room.kind === "cabinet"), null]
    .flatMap((cabinet) => switchesAt(index, cabinet))
    .filter((device) => device.domain === null || device.domain === domain);
  const joined = reached(frame, gateway.id);
  for (const device of switches) {
    if (joined.has(device.id)) continue;
    const own = freePorts(frame, device.id);
    const candidates = switches
      .filter((other) => joined.has(other.id))
      .sort((a, b) => Number(b.place === device.place) - Number(a.place === device.place));
    const fibres = candidates.map((other) => uplink(freePorts(frame, other.id), "fibre"));
    const fibre = fibres.find((port) => port !== undefined);
    const [nearest] = candidates;
    const copper =
      nearest === undefined
        ? freePorts(frame, gateway.id)[0]
        : uplink(freePorts(frame, nearest.id), "copper");
    const ownFibre = fibre === undefined ? undefined : uplink(own, "fibre");
    const laid =
      ownFibre === undefined
        ? join(frame, copper, uplink(own, "copper"), device.name)
        : join(frame, fibre, ownFibre, device.name);
    if (laid) for (const id of reached(frame, gateway.id)) joined.add(id);
  }
}

/** Switches by cabinet, each cabled towards the gateway: by fibre where both have it, else by copper. */
function draftSwitches(frame: Frame, domain: string, gateway: Device | undefined): void {
  const front = frontOf(frame);
  // Where routers separate, the switches are the front network's; the others plug into their router.
  const points = pointGroupsOf(frame);
  const inFront = (need: Need, room: Room) =>
    !isSafety(need) &&
    (front === null ||
      groupKey(gearGroup(frame.index, points, room, need, homeGroup(frame, MANAGEMENT))) === groupKey(front));
  for (const place of neededGear(frame.index, domain, inFront)) {
    const at = place.cabinet?.name ?? "";
    for (const gear of place.kept) keep(frame, gear, at, domain);
    for (const one of place.missing)
      placeDevice(
        frame.draft,
        frame.ids,
        one,
        freeName(frame, place.cabinet === null ? "Switch" : `${at} switch`),
        at,
        domain,
      );
  }
  if (gateway !== undefined) joinSwitches(frame, domain, gateway);
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
  for (const { room, need } of surveyed(frame.index).filter(({ need: one }) => one.kind.role === "point")) {
    const there = frame.draft
      .all("device")
      .filter((device) => device.kind === "accessPoint" && device.place === room.name).length;
    const own = domainFor(frame, domain, pointGroupsOf(frame).get(room.id) ?? null);
    for (let i = there; i < need.count; i += 1) placePoint(frame, own, room.name, cabinetOf(rooms, room));
  }
  for (const { group, room } of pointsMissingIn(frame)) {
    const own = domainFor(frame, domain, group);
    if (frame.draft.all("device").some((device) => device.kind === "accessPoint" && device.domain === own))
      continue;
    const name = groupTitle(frame.draft.plan.site, group);
    const point = placePoint(frame, own, `${room.name} ${name}`, cabinetOf(rooms, room));
    frame.draft.patch("device", point.id, {
      place: room.name,
      poe: "none",
      feed: point.feed === "" ? "an injector or a plug beside it" : point.feed,
    });
    frame.notes.push(
      `${name} gets an access point of its own in ${room.name}, beside those ` +
        "of the survey: one can't be in two networks that routers separate.",
    );
  }
}

const pointGroupsOf = (frame: Frame): ReadonlyMap<string, Group> =>
  frontOf(frame) === null ? new Map<string, Group>() : pointGroups(frame.index);
const pointsMissingIn = (frame: Frame) => (frontOf(frame) === null ? [] : pointsMissing(frame.index));

/** The domain of a group's gear where routers separate, else the shared one. */
function domainFor(frame: Frame, shared: string, group: Group | null): string {
  const segment = group === null || frontOf(frame) === null ? undefined : segmentOf(frame.draft, group);
  return (
    (segment?.vlan === null || segment === undefined
      ? undefined
      : frame.draft.get("vlan", segment.vlan)?.domain) ?? shared
  );
}

function placePoint(frame: Frame, domain: string, at: string, cabinet: Room | null): Device {
  const index = indexOf(frame.draft);
  const routers =
    frontOf(frame) === null
      ? []
      : [...index.plan.device.values()].filter((device) => isGateway(device) && device.domain === domain);
  const apart = frontOf(frame) !== null;
  const near = [
    ...switchesAt(index, cabinet).filter(
      (one) => one.domain === domain || (one.domain === null && (!apart || networkOf(index, one) === domain)),
    ),
    ...routers,
  ];
  const { device, ports } = placeDevice(
    frame.draft,
    frame.ids,
    model("access-point"),
    freeName(frame, `${at} AP`.slice(0, 76)),
    at,
    domain,
  );
  const free = near.flatMap((one) => freePorts(frame, one.id).filter((port) => port.medium === "copper"));
  join(frame, free.find((port) => port.poeMw > 0) ?? free[0], ports[0], device.name);
  return device;
}

const domainOfVlan = (draft: Draft, segment: Segment | undefined): string | undefined =>
  draft.get("vlan", segment?.vlan ?? "")?.domain;

/** Separate gear for groups without a link to the rest: switches of their own, no gateway. */
function draftApart(frame: Frame): void {
  for (const { group } of frame.groups.filter((tally) => standsApart(frame, tally.group))) {
    const segment = segmentOf(frame.draft, group);
    const domain = domainOfVlan(frame.draft, segment);
    if (domain === undefined) continue;
    const belongs = (need: Parameters<typeof isSafety>[0]) => need.kind.purpose === group.purpose;
    for (const place of neededGear(frame.index, domain, belongs)) {
      const at = place.cabinet?.name ?? "";
      for (const one of place.missing)
        placeDevice(
          frame.draft,
          frame.ids,
          one,
          freeName(frame, `${at} ${groupTitle(frame.draft.plan.site, group)} switch`.trim()),
          at,
          domain,
        );
    }
    const switches = frame.draft
      .all("device")
      .filter((device) => device.domain === domain && device.kind === "switch");
    for (const [i, device] of switches.entries()) {
      const before = switches[i - 1];
      if (before === undefined || reached(frame, before.id).has(device.id)) continue;
      const [a, b] = [freePorts(frame, before.id), freePorts(frame, device.id)];
      join(
        frame,
        uplink(a, "fibre") ?? uplink(a, "copper"),
        uplink(b, "fibre") ?? uplink(b, "copper"),
        device.name,
      );
    }
  }
}

/**
 * A router for every group but the one in front: its outside is a device of the front network, its inside the
 * group's gateway. It translates, since nothing in front knows a way back to what is behind it.
 */
function draftRouters(frame: Frame, gateway: Device | undefined): void {
  const front = frontOf(frame);
  const frontSegment = front === null ? undefined : segmentOf(frame.draft, front);
  if (front === null || gateway === undefined) return;
  const giver = new AddressGiver(frame.draft);
  for (const { group } of [...frame.groups].sort((a, b) => byGroup(a.group, b.group))) {
    if (groupKey(group) === groupKey(front) || standsApart(frame, group)) continue;
    const segment = segmentOf(frame.draft, group);
    const domain = domainOfVlan(frame.draft, segment);
    const isServed = frame.draft.all("device").some((one) => isGateway(one) && one.domain === domain);
    if (domain === undefined || isServed) continue;
    const { device, ports } = placeDevice(
      frame.draft,
      frame.ids,
      model("gateway-4"),
      freeName(frame, `${groupTitle(frame.draft.plan.site, group)} router`),
      gateway.place,
      domain,
    );
    const outside = ports.find(isLinePort);
    const address = frontSegment === undefined ? null : giver.next(frontSegment, "typed");
    if (outside !== undefined && frontSegment !== undefined) {
      frame.draft.put("interface", {
        id: frame.ids(),
        device: device.id,
        port: outside.id,
        segment: frontSegment.id,
        line: null,
        name: "Outside",
        mac: null,
        addresses4: address === null ? [] : [address],
        addresses6: [],
        relayTo: null,
        translates: "yes",
      });
    }
    join(frame, freePorts(frame, gateway.id)[0], outside, device.name);
    draftBehind(frame, group, device, domain);
  }
}

/**
 * Switches behind a group's router, place by place, where the router's own ports are too few for what the
 * survey names.
 */
function draftBehind(frame: Frame, group: Group, router: Device, domain: string): void {
  const points = pointGroupsOf(frame);
  const belongs = (need: Need, room: Room) =>
    !isSafety(need) &&
    groupKey(gearGroup(frame.index, points, room, need, homeGroup(frame, MANAGEMENT))) === groupKey(group);
  const places = neededGear(frame.index, domain, belongs);
  const extra = pointsMissingIn(frame).filter((one) => groupKey(one.group) === groupKey(group)).length;
  const wired = places.reduce((total, { now }) => total + now, extra);
  const unclaimed = (place: PlaceNeed) =>
    place.kept.filter((gear) => frame.draft.need("gear", gear.id).device === null);
  if (
    wired <= freePorts(frame, router.id).length &&
    places.every((place) => place.powered === 0 && unclaimed(place).length === 0)
  )
    return;
  let before = router;
  for (const place of places) {
    const at = place.cabinet?.name ?? "";
    // What stays and is not another network's already takes what it can; the rest comes new.
    const stays = unclaimed(place);
    const kept = stays.flatMap((gear) => keep(frame, gear, at, domain) ?? []);
    const missing =
      stays.length === place.kept.length
        ? place.missing
        : switchesFor(place.ports, place.powered, place.poeMw, true);
    const placed = missing.map(
      (one) =>
        placeDevice(
          frame.draft,
          frame.ids,
          one,
          freeName(frame, `${at} ${groupTitle(frame.draft.plan.site, group)} switch`.trim()),
          at,
          domain,
        ).device,
    );
    for (const device of [...kept, ...placed]) {
      const nearer = freePorts(frame, router.id);
      join(
        frame,
        nearer[0] ?? uplink(freePorts(frame, before.id), "copper"),
        uplink(freePorts(frame, device.id), "copper"),
        device.name,
      );
      before = device;
    }
  }
}

/**
 * The gear's own addresses, typed in, in the segment for them; behind a router in the network that it serves.
 */
function draftManagement(frame: Frame, domain: string, home: Group): void {
  const segment: Segment | undefined = segmentOf(frame.draft, home);
  if (segment === undefined) return;
  const giver = new AddressGiver(frame.draft);
  const gear = frame.draft
    .all("device")
    .filter(
      (device) =>
        (device.kind === "switch" || device.kind === "accessPoint") &&
        device.bridging === "vlan" &&
        device.domain === domain,
    );
  for (const device of gear) {
    if (frame.draft.all("interface").some((leg) => leg.device === device.id && leg.segment === segment.id))
      continue;
    const address = giver.next(segment, "typed");
    if (address === null) {
      frame.notes.push(`${device.name} gets no address of its own: ${segment.name} is full.`);
      continue;
    }
    frame.draft.put("interface", {
      id: frame.ids(),
      device: device.id,
      port: null,
      segment: segment.id,
      line: null,
      name: segment.name,
      mac: null,
      addresses4: [address],
      addresses6: [],
      relayTo: null,
      translates: "asUsual",
    });
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
  draftManagement(frame, domain, homeGroup(frame, MANAGEMENT));
  const front = frontOf(frame);
  for (const { group } of front === null ? [] : frame.groups) {
    const own = domainFor(frame, domain, group);
    if (own !== domain && !standsApart(frame, group)) draftManagement(frame, own, group);
  }
}
