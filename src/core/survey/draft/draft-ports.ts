import { byNaturalText } from "../../kernel";
import { isGateway, type Device, type Host, type Port, type Vid, type Link } from "../../plan";
import { carryOn, fieldsOf, indexOf, paintPorts, accessPointRole } from "../../planners";
import { modeOf } from "../../fabric";
import { portPowerMw, catalogueOf } from "../../catalogue";
import { cabinetOf, switchesAt } from "../gear-needed";
import { roomsInOrder, surveyed } from "../groups";
import { needsOf } from "../read-needs";
import { hostLines, hostsOfLine } from "./draft-hosts";
import { isLinePort, segmentOf, standsApart, type Frame } from "./frame";
import { networkOf } from "./network-of";

/** Free ports of one place, the power they can still give, and what is taken from them. */
class Sockets {
  readonly #ports: Port[];
  readonly #left: Map<string, number>;

  constructor(frame: Frame, switches: readonly Device[]) {
    const used = new Set([
      ...frame.edits.all("link").flatMap((l) => [l.a, l.b]),
      ...frame.edits.all("host").flatMap((h) => (h.attachment.at === "port" ? [h.attachment.port] : [])),
      ...frame.edits.all("interface").flatMap((leg) => leg.port ?? []),
    ]);
    const ids = new Map(switches.map((device, i) => [device.id, i]));
    this.#ports = frame.edits
      .all("port")
      .filter(
        (port) =>
          ids.has(port.device) &&
          port.medium === "copper" &&
          !used.has(port.id) &&
          !isLinePort(port) &&
          isFree(port) &&
          port.note === "",
      )
      .sort((a, b) => (ids.get(a.device) ?? 0) - (ids.get(b.device) ?? 0) || a.position - b.position);
    this.#left = new Map(switches.map((device) => [device.id, device.poeBudgetMw]));
  }

  /**
   * A port that gives the power, or for a device that needs none one that gives none as long as there is one.
   */
  take(mw: number): Port | null {
    const gives = (port: Port) => port.poeMw >= mw && (this.#left.get(port.device) ?? 0) >= mw;
    const port =
      mw > 0
        ? this.#ports.find((port) => port.poeMw > 0 && gives(port))
        : (this.#ports.find((port) => port.poeMw === 0) ?? this.#ports[0]);
    const chosen = port ?? (mw > 0 ? undefined : this.#ports[0]);
    if (chosen === undefined) return null;
    this.#ports.splice(this.#ports.indexOf(chosen), 1);
    this.#left.set(chosen.device, (this.#left.get(chosen.device) ?? 0) - mw);
    return chosen;
  }

  /** Sets power aside for what is plugged in already. */
  spend(device: string, mw: number): void {
    this.#left.set(device, (this.#left.get(device) ?? 0) - mw);
  }
}

/** Nothing has been decided for it, or it is parked. */
const isFree = (port: Port): boolean => ["undecided", "off"].includes(modeOf(port));

/** The number a segment has on the wire of a domain. */
function vidOf(frame: Frame, segmentId: string | null): Vid | null {
  const vlan = segmentId === null ? null : (frame.edits.get("segment", segmentId)?.vlan ?? null);
  return vlan === null ? null : (frame.edits.get("vlan", vlan)?.vid ?? null);
}

function draftSockets(frame: Frame): void {
  const { edits: edits } = frame;
  const index = indexOf(edits);
  const rooms = roomsInOrder(frame.index);
  const sockets = new Map<string, Sockets>();
  const socketsFor = (room: (typeof rooms)[number], domain: string | null): Sockets => {
    const cabinet = cabinetOf(rooms, room);
    const key = `${cabinet?.id ?? ""} ${domain ?? ""}`;
    const known = sockets.get(key);
    if (known !== undefined) return known;
    const apart = frame.school.school === "routers";
    const own = switchesAt(index, cabinet).filter(
      (device) =>
        device.domain === domain ||
        (device.domain === null && (!apart || networkOf(index, device) === domain)),
    );
    const gear =
      own.length > 0 && !apart
        ? own
        : [...own, ...edits.all("device").filter((device) => isGateway(device) && device.domain === domain)];
    const made = new Sockets(frame, gear);
    for (const point of edits.all("device").filter((device) => device.kind === "accessPoint")) {
      for (const port of edits.all("port").filter((p) => p.device === point.id)) {
        const far = index.peerOf(port.id);
        if (far !== undefined) made.spend(far.device, portPowerMw(4));
      }
    }
    sockets.set(key, made);
    return made;
  };
  const lines = hostLines(frame).filter(({ need }) => !need.wireless);
  // Powered devices first: ports with power are the scarce ones.
  for (const line of [...lines].sort((a, b) => portPowerMw(b.need.poeClass) - portPowerMw(a.need.poeClass))) {
    const behindPhones = line.need.kind.word === "PC" ? pairsIn(frame, line.room.id) : 0;
    for (const [i, host] of hostsOfLine(frame, line).entries()) {
      if (host.attachment.at !== "unplaced" || i < behindPhones) continue;
      const vid = vidOf(frame, host.segment);
      const domain = host.segment === null ? null : domainOfSegment(frame, host.segment);
      const port = socketsFor(line.room, domain).take(portPowerMw(line.need.poeClass));
      if (port === null || vid === null) {
        frame.notes.push(
          `${host.name} is left unplaced: no ${line.need.poeClass === null ? "" : "powered "}port ` +
            `is free at ${cabinetOf(rooms, line.room)?.name ?? "the switches"}.`,
        );
        continue;
      }
      plug(frame, host, { port, vid, room: line.room.id });
    }
  }
  for (const line of lines.filter(({ need }) => need.kind.word === "PC"))
    behind(frame, line.room.id, hostsOfLine(frame, line));
}

const domainOfSegment = (frame: Frame, segmentId: string): string | null => {
  const vlan = frame.edits.get("segment", segmentId)?.vlan ?? null;
  return vlan === null ? null : (frame.edits.get("vlan", vlan)?.domain ?? null);
};

/** How many phones of a room have a PC behind them. */
function pairsIn(frame: Frame, roomId: string): number {
  const room = frame.index.plan.room.get(roomId);
  return room === undefined
    ? 0
    : needsOf(catalogueOf(frame.index.plan), room.needs).reduce(
        (sum, need) => sum + (need.kind.role === "pair" ? need.count : 0),
        0,
      );
}

/**
 * Plugs a device in and paints its port: a phone's port carries data untagged and voice tagged, so that a PC
 * may stand behind it.
 */
function plug(
  frame: Frame,
  host: Host,
  { port, vid, room }: { readonly port: Port; readonly vid: Vid; readonly room: string },
): void {
  const { edits: edits } = frame;
  const plain = edits.need("device", port.device).bridging !== "vlan";
  const data = host.kind === "phone" && !plain ? dataVid(frame, room, port) : null;
  const tagged = data !== null && data !== vid;
  edits.patch("host", host.id, { attachment: { at: "port", port: port.id }, tag: tagged ? vid : null });
  if (!plain)
    edits.patch(
      "port",
      port.id,
      fieldsOf(tagged ? { role: "dataVoice", vid: data, voice: vid } : { role: "access", vid }),
    );
}

/**
 * The VLAN of the people in a room, on the domain of a port; the site's own people where the room has no
 * group.
 */
function dataVid(frame: Frame, roomId: string, port: Port): Vid | null {
  const group = surveyed(frame.index).find(
    (surveyed) => surveyed.room.id === roomId && surveyed.group.purpose === "people",
  )?.group ?? { purpose: "people" as const, name: "" };
  const segment = segmentOf(frame.edits, group);
  return segment === undefined ||
    domainOfSegment(frame, segment.id) !== frame.edits.need("device", port.device).domain
    ? null
    : vidOf(frame, segment.id);
}

/** PCs behind the phones of their room, one each. */
function behind(frame: Frame, roomId: string, pcs: readonly Host[]): void {
  const { edits: edits } = frame;
  const taken = new Set(
    edits.all("host").flatMap((host) => (host.attachment.at === "behind" ? [host.attachment.host] : [])),
  );
  const phones = edits
    .all("host")
    .filter(
      (host) =>
        host.kind === "phone" &&
        host.surveyed?.room === roomId &&
        host.attachment.at === "port" &&
        !taken.has(host.id),
    )
    .sort((a, b) => byNaturalText(a.name, b.name));
  for (const pc of pcs.slice(0, pairsIn(frame, roomId))) {
    const phone = pc.attachment.at === "unplaced" ? phones.shift() : undefined;
    if (phone !== undefined) edits.patch("host", pc.id, { attachment: { at: "behind", host: phone.id } });
  }
}

/** Wireless devices join the name of their segment. */
function draftStations(frame: Frame): void {
  for (const line of hostLines(frame).filter(({ need }) => need.wireless)) {
    for (const host of hostsOfLine(frame, line)) {
      const ssid = frame.edits.all("ssid").find((ssid) => ssid.segment === host.segment);
      if (host.attachment.at === "unplaced" && ssid !== undefined)
        frame.edits.patch("host", host.id, { attachment: { at: "ssid", ssid: ssid.id, accessPoint: null } });
    }
  }
}

/** A cable between two switches of one domain carries what has users on both of its sides. */
function trunkOver(frame: Frame, link: Link): void {
  const { edits: edits } = frame;
  const ports = [edits.need("port", link.a), edits.need("port", link.b)];
  const devices = ports.map((port) => edits.need("device", port.device));
  if (devices.some((device) => device.kind === "accessPoint" || device.bridging !== "vlan")) return;
  const domains = new Set(devices.map((device) => device.domain));
  const [domain = null] = domains;
  const wanted = domains.size === 1 ? vidsAcross(frame, link.id, domain) : null;
  if (wanted === null || wanted.length === 0) return;
  for (const port of ports) {
    if (isFree(port)) paintPorts(edits, [port.id], { role: "trunk", untagged: null, tagged: wanted });
    else for (const vid of wanted) carryOn(edits, [port.id], vid);
  }
}

/**
 * Cables between gear carry exactly what is used behind them: access points their names and their own
 * address, switches what hangs on them.
 */
function draftTrunks(frame: Frame): void {
  const { edits: edits } = frame;
  const index = indexOf(edits);
  for (const device of edits
    .all("device")
    .filter((device) => device.kind === "accessPoint" && device.bridging === "vlan")) {
    const own = accessPointRole(index, device.domain, device);
    for (const near of index.portsOf(device.id)) {
      const far = index.peerOf(near.id);
      if (far === undefined || edits.need("device", far.device).bridging !== "vlan") continue;
      for (const port of [near, far]) {
        if (isFree(port)) paintPorts(edits, [port.id], { role: "trunk", ...own });
        else for (const vid of own.tagged) carryOn(edits, [port.id], vid);
      }
    }
  }
  for (const link of edits.all("link")) trunkOver(frame, link);
}

/**
 * The VLANs with users on both sides of a cable; null when a second way joins the sides, so that the cable is
 * part of a ring.
 */
function vidsAcross(frame: Frame, linkId: string, domain: string | null): Vid[] | null {
  const { edits: edits } = frame;
  const deviceOf = new Map(edits.all("port").map((port) => [port.id, port.device]));
  const link = edits.need("link", linkId);
  const side = new Set([deviceOf.get(link.a) ?? ""]);
  const others = edits.all("link").filter((link) => link.id !== linkId);
  for (let before = 0; before !== side.size;) {
    before = side.size;
    for (const link of others) {
      const [a, b] = [deviceOf.get(link.a) ?? "", deviceOf.get(link.b) ?? ""];
      if (side.has(a)) side.add(b);
      if (side.has(b)) side.add(a);
    }
  }
  if (side.has(deviceOf.get(link.b) ?? "")) return null;
  const here = usedBy(frame, (device) => side.has(device), domain);
  const there = usedBy(frame, (device) => !side.has(device), domain);
  return [...here].filter((vid) => there.has(vid)).sort((x, y) => x - y);
}

/** The VLANs that ports, legs and wireless names on some devices of a domain use. */
function usedBy(frame: Frame, among: (device: string) => boolean, domain: string | null): Set<Vid> {
  const { edits: edits } = frame;
  const inDomain = new Set(
    edits
      .all("device")
      .filter((device) => device.domain === domain && among(device.id))
      .map((device) => device.id),
  );
  const used = new Set<Vid>();
  const attached = new Set(
    edits.all("host").flatMap((host) => (host.attachment.at === "port" ? [host.attachment.port] : [])),
  );
  for (const port of edits.all("port")) {
    if (!inDomain.has(port.device) || !attached.has(port.id)) continue;
    for (const vid of [...port.untagged, ...port.tagged]) used.add(vid);
  }
  for (const leg of edits.all("interface")) {
    const vid = inDomain.has(leg.device) && leg.port === null ? vidOf(frame, leg.segment) : null;
    if (vid !== null) used.add(vid);
  }
  const points = edits
    .all("device")
    .some((device) => device.kind === "accessPoint" && inDomain.has(device.id));
  if (points)
    for (const ssid of edits.all("ssid")) {
      const vid = vidOf(frame, ssid.segment);
      if (vid !== null && domainOfSegment(frame, ssid.segment) === domain) used.add(vid);
    }
  return used;
}

/**
 * Where routers separate: the ports towards another router are plain members of the front network, so are
 * those to plain switches.
 */
function draftRouterPorts(frame: Frame): void {
  const { edits: edits } = frame;
  for (const link of edits.all("link")) {
    for (const [near, far] of [
      [link.a, link.b],
      [link.b, link.a],
    ] as const) {
      const [port, other] = [edits.need("port", near), edits.need("port", far)];
      const device = edits.need("device", port.device);
      const beyond = edits.need("device", other.device);
      const routed = edits.all("interface").find((leg) => leg.port === other.id && leg.segment !== null);
      if (
        device.bridging !== "vlan" ||
        !isFree(port) ||
        edits.all("interface").some((leg) => leg.port === port.id)
      )
        continue;
      const segment =
        routed?.segment ??
        (beyond.bridging === "plain"
          ? (edits.all("segment").find((s) => domainOfSegment(frame, s.id) === device.domain)?.id ?? null)
          : null);
      const vid = vidOf(frame, segment);
      // A router or a switch behind it brings more than one address.
      if (vid === null) continue;
      const fields = fieldsOf({ role: "access", vid });
      edits.patch("port", port.id, {
        ...fields,
        guards: { ...port.guards, ...fields.guards, macLimit: null },
      });
    }
  }
}

/** Everything plugged in, painted, and what is left over switched off. */
export function draftPorts(frame: Frame): void {
  draftSockets(frame);
  draftStations(frame);
  draftTrunks(frame);
  if (frame.school.school === "routers") draftRouterPorts(frame);
  const { edits: edits } = frame;
  const used = new Set([
    ...edits.all("link").flatMap((l) => [l.a, l.b]),
    ...edits.all("host").flatMap((h) => (h.attachment.at === "port" ? [h.attachment.port] : [])),
    ...edits.all("interface").flatMap((leg) => (leg.port === null ? [] : [leg.port])),
  ]);
  const drafted = new Set(
    edits
      .all("device")
      .filter(
        (device) =>
          device.bridging === "vlan" &&
          edits.all("port").some((p) => p.device === device.id && modeOf(p) !== "undecided"),
      )
      .map((device) => device.id),
  );
  paintPorts(
    edits,
    edits
      .all("port")
      .filter(
        (port) =>
          drafted.has(port.device) && !used.has(port.id) && modeOf(port) === "undecided" && port.note === "",
      )
      .map((port) => port.id),
    { role: "park" },
  );
  for (const { group } of frame.groups)
    if (standsApart(frame, group) && segmentOf(edits, group) === undefined)
      frame.notes.push(`${group.purpose} has no segment yet; draft the segments first.`);
}
