import { byNaturalText } from "../../kernel";
import { BLANK_LINE, isGateway, type Device, type Room, type Segment } from "../../plan";
import { indexOf, placeDevice } from "../../planners";
import { groupKey, groupTitle, roomsInOrder, surveyed, type Group } from "../groups";
import { cabinetOf, isSafety, neededGear, switchesAt } from "../gear-needed";
import type { Need } from "../read-needs";
import { AddressGiver } from "./address-giver";
import { networkOf } from "./network-of";
import { gearGroup, MANAGEMENT } from "../router-gear";
import { frontOf, homeGroup, isLinePort, segmentOf, sharedDomain, standsApart, type Frame } from "./frame";
import { draftApart, draftRouters } from "./draft-routers";
import {
  model,
  freeName,
  keep,
  portsOf,
  freePorts,
  join,
  uplink,
  reached,
  pointGroupsOf,
  pointsMissingIn,
} from "./gear-parts";

function draftGateway(frame: Frame, domain: string): Device | undefined {
  const known = frame.edits
    .all("device")
    .filter((device) => isGateway(device))
    .sort((a, b) => byNaturalText(a.id, b.id))[0];
  if (known !== undefined) return known;
  const lines = frame.edits.all("line");
  const rooms = roomsInOrder(frame.index);
  const place = rooms.find((room) => room.kind === "cabinet")?.name ?? rooms[0]?.name ?? "";
  const stays = [...frame.index.plan.gear.values()].find(
    (gear) => gear.kind === "gateway" && gear.fate === "keep" && gear.device === null,
  );
  const kept = stays === undefined ? null : keep(frame, stays, place, domain);
  const device =
    kept ??
    placeDevice(
      frame.edits,
      frame.ids,
      model(lines.length > 1 || frame.school.school === "routers" ? "gateway-8" : "gateway-4"),
      { name: freeName(frame, "Gateway"), place, domain },
    ).device;
  const all =
    lines.length > 0
      ? lines
      : [frame.edits.put("line", { ...BLANK_LINE, id: frame.ids(), name: "Internet line" })];
  const sockets = portsOf(frame, device.id).filter(isLinePort);
  for (const [i, line] of all.entries()) {
    const port = sockets[i];
    if (port === undefined)
      frame.notes.push(`${device.name} has no port for ${line.name}; a gateway with more lines is needed.`);
    else if (!frame.edits.all("interface").some((leg) => leg.line === line.id)) {
      frame.edits.put("interface", {
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
  const index = indexOf(frame.edits);
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
      groupKey(gearGroup(frame.index, points, { room, need, home: homeGroup(frame, MANAGEMENT) })) ===
        groupKey(front));
  for (const place of neededGear(frame.index, domain, inFront)) {
    const at = place.cabinet?.name ?? "";
    for (const gear of place.kept) keep(frame, gear, at, domain);
    for (const deviceModel of place.missing)
      placeDevice(frame.edits, frame.ids, deviceModel, {
        name: freeName(frame, place.cabinet === null ? "Switch" : `${at} switch`),
        place: at,
        domain,
      });
  }
  if (gateway !== undefined) joinSwitches(frame, domain, gateway);
}

/** Access points room by room, each at a port with power of its room's cabinet. */
function draftPoints(frame: Frame, domain: string): void {
  const rooms = roomsInOrder(frame.index);
  for (const { room, need } of surveyed(frame.index).filter(({ need: need }) => need.kind.role === "point")) {
    const there = frame.edits
      .all("device")
      .filter((device) => device.kind === "accessPoint" && device.place === room.name).length;
    const own = domainFor(frame, domain, pointGroupsOf(frame).get(room.id) ?? null);
    for (let i = there; i < need.count; i += 1) placePoint(frame, own, room.name, cabinetOf(rooms, room));
  }
  for (const { group, room } of pointsMissingIn(frame)) {
    const own = domainFor(frame, domain, group);
    if (frame.edits.all("device").some((device) => device.kind === "accessPoint" && device.domain === own))
      continue;
    const name = groupTitle(frame.edits.plan.site, group);
    const point = placePoint(frame, own, `${room.name} ${name}`, cabinetOf(rooms, room));
    frame.edits.patch("device", point.id, {
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

/** The domain of a group's gear where routers separate, else the shared one. */
function domainFor(frame: Frame, shared: string, group: Group | null): string {
  const segment = group === null || frontOf(frame) === null ? undefined : segmentOf(frame.edits, group);
  return (
    (segment?.vlan === null || segment === undefined
      ? undefined
      : frame.edits.get("vlan", segment.vlan)?.domain) ?? shared
  );
}

function placePoint(frame: Frame, domain: string, at: string, cabinet: Room | null): Device {
  const index = indexOf(frame.edits);
  const routers =
    frontOf(frame) === null
      ? []
      : [...index.plan.device.values()].filter((device) => isGateway(device) && device.domain === domain);
  const apart = frontOf(frame) !== null;
  const near = [
    ...switchesAt(index, cabinet).filter(
      (device) =>
        device.domain === domain ||
        (device.domain === null && (!apart || networkOf(index, device) === domain)),
    ),
    ...routers,
  ];
  const { device, ports } = placeDevice(frame.edits, frame.ids, model("access-point"), {
    name: freeName(frame, `${at} AP`.slice(0, 76)),
    place: at,
    domain,
  });
  const free = near.flatMap((device) =>
    freePorts(frame, device.id).filter((port) => port.medium === "copper"),
  );
  join(frame, free.find((port) => port.poeMw > 0) ?? free[0], ports[0], device.name);
  return device;
}

/**
 * The gear's own addresses, typed in, in the segment for them; behind a router in the network that it serves.
 */
function draftManagement(frame: Frame, domain: string, home: Group): void {
  const segment: Segment | undefined = segmentOf(frame.edits, home);
  if (segment === undefined) return;
  const giver = new AddressGiver(frame.edits);
  const gear = frame.edits
    .all("device")
    .filter(
      (device) =>
        (device.kind === "switch" || device.kind === "accessPoint") &&
        device.bridging === "vlan" &&
        device.domain === domain,
    );
  for (const device of gear) {
    if (frame.edits.all("interface").some((leg) => leg.device === device.id && leg.segment === segment.id))
      continue;
    const address = giver.next(segment, "typed");
    if (address === null) {
      frame.notes.push(`${device.name} gets no address of its own: ${segment.name} is full.`);
      continue;
    }
    frame.edits.put("interface", {
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
