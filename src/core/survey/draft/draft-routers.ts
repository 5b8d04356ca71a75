import { isGateway, type Device, type Room } from "../../plan";
import { placeDevice } from "../../planners";
import { byGroup, groupKey, groupTitle, type Group } from "../groups";
import { isSafety, neededGear, switchesFor, type PlaceNeed } from "../gear-needed";
import type { Need } from "../read-needs";
import { AddressGiver } from "./address-giver";
import { gearGroup, MANAGEMENT } from "../router-gear";
import { frontOf, homeGroup, isLinePort, segmentOf, standsApart, type Frame } from "./frame";
import {
  model,
  freeName,
  keep,
  freePorts,
  join,
  uplink,
  reached,
  pointGroupsOf,
  pointsMissingIn,
  domainOfVlan,
} from "./gear-parts";

/** Separate gear for groups without a link to the rest: switches of their own, no gateway. */
export function draftApart(frame: Frame): void {
  for (const { group } of frame.groups.filter((tally) => standsApart(frame, tally.group))) {
    const segment = segmentOf(frame.edits, group);
    const domain = domainOfVlan(frame.edits, segment);
    if (domain === undefined) continue;
    const belongs = (need: Parameters<typeof isSafety>[0]) => need.kind.purpose === group.purpose;
    for (const place of neededGear(frame.index, domain, belongs)) {
      const at = place.cabinet?.name ?? "";
      for (const deviceModel of place.missing)
        placeDevice(frame.edits, frame.ids, deviceModel, {
          name: freeName(frame, `${at} ${groupTitle(frame.edits.plan.site, group)} switch`.trim()),
          place: at,
          domain,
        });
    }
    const switches = frame.edits
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
export function draftRouters(frame: Frame, gateway: Device | undefined): void {
  const front = frontOf(frame);
  const frontSegment = front === null ? undefined : segmentOf(frame.edits, front);
  if (front === null || gateway === undefined) return;
  const giver = new AddressGiver(frame.edits);
  for (const { group } of [...frame.groups].sort((a, b) => byGroup(a.group, b.group))) {
    if (groupKey(group) === groupKey(front) || standsApart(frame, group)) continue;
    const segment = segmentOf(frame.edits, group);
    const domain = domainOfVlan(frame.edits, segment);
    const isServed = frame.edits
      .all("device")
      .some((device) => isGateway(device) && device.domain === domain);
    if (domain === undefined || isServed) continue;
    const { device, ports } = placeDevice(frame.edits, frame.ids, model("gateway-4"), {
      name: freeName(frame, `${groupTitle(frame.edits.plan.site, group)} router`),
      place: gateway.place,
      domain,
    });
    const outside = ports.find(isLinePort);
    const address = frontSegment === undefined ? null : giver.next(frontSegment, "typed");
    if (outside !== undefined && frontSegment !== undefined) {
      frame.edits.put("interface", {
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
    groupKey(gearGroup(frame.index, points, { room, need, home: homeGroup(frame, MANAGEMENT) })) ===
      groupKey(group);
  const places = neededGear(frame.index, domain, belongs);
  const extra = pointsMissingIn(frame).filter(
    (missing) => groupKey(missing.group) === groupKey(group),
  ).length;
  const wired = places.reduce((total, { now }) => total + now, extra);
  const unclaimed = (place: PlaceNeed) =>
    place.kept.filter((gear) => frame.edits.need("gear", gear.id).device === null);
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
      (deviceModel) =>
        placeDevice(frame.edits, frame.ids, deviceModel, {
          name: freeName(frame, `${at} ${groupTitle(frame.edits.plan.site, group)} switch`.trim()),
          place: at,
          domain,
        }).device,
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
