import type { Dice } from "../kernel";
import { PlanEdits, PlanIndex, type EntityOf, type Host, type Plan, type Port, type Vid } from "../plan";

export { dice, type Dice } from "../kernel";

/** One thing gone wrong in a plan: what was done, what is to blame, and the hosts that are likely to notice. */
export interface Fault {
  readonly kind: string;
  readonly plan: Plan;
  readonly blame: readonly string[];
  readonly notice: readonly string[];
}

type Planted = Omit<Fault, "kind" | "plan"> | null;

type Plant = (edits: PlanEdits, index: PlanIndex, roll: Dice) => Planted;

const pick = <T>(items: readonly T[], roll: Dice): T | undefined =>
  items.length === 0 ? undefined : items[roll(items.length)];

const hostsIn = (index: PlanIndex, vids: readonly number[]): string[] =>
  [...index.plan.host.values()]
    .filter((host) => {
      const segment = index.plan.segment.get(host.segment ?? "");
      const vid = segment === undefined ? null : index.vidOf(segment);
      return vid !== null && vids.includes(vid);
    })
    .map((host) => host.id);

const hostsOfSegment = (index: PlanIndex, segment: string): string[] =>
  index.hostsIn(segment).map((host) => host.id);

const linked = (index: PlanIndex): Port[] =>
  [...index.plan.port.values()].filter((port) => index.linkAt(port.id) !== undefined && port.enabled);

const plugged = (index: PlanIndex): Port[] =>
  [...index.plan.port.values()].filter((port) => index.hostsAt(port.id).length > 0 && port.enabled);

const vids = (port: Port): Vid[] => [...port.untagged, ...port.tagged];

const guarded = (port: Port, guards: Partial<Port["guards"]>): Partial<Port> => ({
  guards: { ...port.guards, ...guards },
});

const segmentOf = (index: PlanIndex, roll: Dice, test: (segment: EntityOf<"segment">) => boolean) =>
  pick(
    [...index.plan.segment.values()].filter(
      (segment) => index.hostsIn(segment.id).length > 0 && test(segment),
    ),
    roll,
  );

const protectedBy = (edits: PlanEdits, device: string, fields: Partial<EntityOf<"device">["protections"]>) =>
  edits.patch("device", device, { protections: { ...edits.need("device", device).protections, ...fields } });

const typed = (index: PlanIndex, roll: Dice): Host | undefined =>
  pick(
    [...index.plan.host.values()].filter(
      (host) => host.manner === "typed" && host.ipv4 !== null && host.segment !== null,
    ),
    roll,
  );

/** The slips of the trade, one each. A plant gives null where the plan has nothing to do it to. */
export const PLANTS: Readonly<Record<string, Plant>> = {
  "a VLAN is taken off a trunk": (edits, index, roll) => {
    const port = pick(
      linked(index).filter((port) => port.tagged.length > 0),
      roll,
    );
    const vid = port === undefined ? undefined : pick(port.tagged, roll);
    if (port === undefined || vid === undefined) return null;
    edits.patch("port", port.id, { tagged: port.tagged.filter((carried) => carried !== vid) });
    return { blame: [port.id], notice: hostsIn(index, [vid]) };
  },
  "a port between gear is off": (edits, index, roll) => {
    const port = pick(linked(index), roll);
    if (port === undefined) return null;
    edits.patch("port", port.id, { enabled: false });
    return { blame: [port.id], notice: hostsIn(index, vids(port)) };
  },
  "a device's port is off": (edits, index, roll) => {
    const port = pick(plugged(index), roll);
    if (port === undefined) return null;
    edits.patch("port", port.id, { enabled: false });
    return { blame: [port.id], notice: index.hostsAt(port.id).map((host) => host.id) };
  },
  "an access port is in another VLAN": (edits, index, roll) => {
    const port = pick(
      plugged(index).filter((port) => port.pvid !== null),
      roll,
    );
    const other = pick(
      [...index.plan.vlan.values()].filter((vlan) => vlan.vid !== port?.pvid),
      roll,
    );
    if (port === undefined || other === undefined) return null;
    edits.patch("port", port.id, {
      pvid: other.vid,
      untagged: [other.vid],
      tagged: port.tagged.filter((vid) => vid !== other.vid),
    });
    return { blame: [port.id], notice: index.hostsAt(port.id).map((host) => host.id) };
  },
  "an access port is in no VLAN": (edits, index, roll) => {
    const port = pick(
      plugged(index).filter((port) => port.pvid !== null),
      roll,
    );
    if (port === undefined) return null;
    edits.patch("port", port.id, { pvid: null, untagged: [] });
    return { blame: [port.id], notice: index.hostsAt(port.id).map((host) => host.id) };
  },
  "the untagged VLAN differs at one end": (edits, index, roll) => {
    const port = pick(
      linked(index).filter((port) => port.pvid !== null),
      roll,
    );
    const other = port === undefined ? undefined : pick(port.tagged, roll);
    if (port === undefined || other === undefined) return null;
    edits.patch("port", port.id, {
      pvid: other,
      untagged: [other],
      tagged: port.tagged.filter((vid) => vid !== other),
    });
    return { blame: [port.id, index.peerOf(port.id)?.id ?? ""], notice: hostsIn(index, vids(port)) };
  },
  "a trunk admits untagged frames only": (edits, index, roll) => {
    const port = pick(
      linked(index).filter((port) => port.tagged.length > 0),
      roll,
    );
    if (port === undefined) return null;
    edits.patch("port", port.id, { admit: "untagged" });
    return { blame: [port.id], notice: hostsIn(index, port.tagged) };
  },
  "a cable is missing": (edits, index, roll) => {
    const link = pick([...index.plan.link.values()], roll);
    const ends = link === undefined ? [] : [link.a, link.b].flatMap((id) => index.plan.port.get(id) ?? []);
    if (link === undefined) return null;
    edits.remove("link", link.id);
    return {
      blame: [link.a, link.b, ...ends.map((port) => port.device)],
      notice: hostsIn(index, ends.flatMap(vids)),
    };
  },
  "a scope is missing": (edits, index, roll) => {
    const segment = segmentOf(index, roll, (segment) => index.scopesOf(segment.id).length > 0);
    if (segment === undefined) return null;
    for (const scope of index.scopesOf(segment.id)) edits.remove("scope", scope.id);
    return { blame: [segment.id], notice: hostsOfSegment(index, segment.id) };
  },
  "a pool is used up": (edits, index, roll) => {
    const segment = segmentOf(index, roll, (segment) => index.scopesOf(segment.id).length > 0);
    const scope = segment === undefined ? undefined : index.scopesOf(segment.id)[0];
    if (segment === undefined || scope === undefined) return null;
    edits.patch("scope", scope.id, { exclusions: scope.pools });
    return { blame: [scope.id, segment.id], notice: hostsOfSegment(index, segment.id) };
  },
  "a scope is at a server that is not there": (edits, index, roll) => {
    const segment = segmentOf(index, roll, (segment) => index.scopesOf(segment.id).length > 0);
    const scope = segment === undefined ? undefined : index.scopesOf(segment.id)[0];
    const other = pick(
      [...index.plan.device.values()].filter(
        (device) => !index.interfacesOf(device.id).some((leg) => leg.segment === segment?.id),
      ),
      roll,
    );
    if (segment === undefined || scope === undefined || other === undefined) return null;
    edits.patch("scope", scope.id, { serverDevice: other.id, serverHost: null });
    return { blame: [scope.id, segment.id, other.id], notice: hostsOfSegment(index, segment.id) };
  },
  "a segment has no gateway": (edits, index, roll) => {
    const segment = segmentOf(index, roll, (segment) => segment.gatewayInterface !== null);
    if (segment === undefined) return null;
    edits.patch("segment", segment.id, { gatewayInterface: null });
    return { blame: [segment.id], notice: hostsOfSegment(index, segment.id) };
  },
  "a static address is another's": (edits, index, roll) => {
    const host = typed(index, roll);
    const segment = host === undefined ? undefined : index.plan.segment.get(host.segment ?? "");
    const gateway = segment === undefined ? undefined : index.gatewayOf(segment)?.addresses4[0];
    if (host === undefined || gateway === undefined) return null;
    edits.patch("host", host.id, { ipv4: gateway });
    return {
      blame: [host.id],
      notice: hostsOfSegment(index, host.segment ?? "").filter((id) => id !== host.id),
    };
  },
  "a static address lies in another subnet": (edits, index, roll) => {
    const host = typed(index, roll);
    if (host?.ipv4 === null || host === undefined) return null;
    edits.patch("host", host.id, { ipv4: (host.ipv4 + 256 * 7) as typeof host.ipv4 });
    return { blame: [host.id], notice: [host.id] };
  },
  "snooping trusts no way to the server": (edits, index, roll) => {
    const device = pick(
      [...index.plan.device.values()].filter(
        (device) => device.kind === "switch" && device.bridging === "vlan",
      ),
      roll,
    );
    if (device === undefined) return null;
    const own = [...new Set(index.portsOf(device.id).flatMap(vids))];
    protectedBy(edits, device.id, { snooping: own });
    for (const port of index.portsOf(device.id))
      if (port.guards.dhcpTrust) edits.patch("port", port.id, guarded(port, { dhcpTrust: false }));
    return {
      blame: [device.id, ...index.portsOf(device.id).map((port) => port.id)],
      notice: hostsIn(index, own),
    };
  },
  "ARP inspection knows no static host": (edits, index, roll) => {
    const device = pick(
      [...index.plan.device.values()].filter(
        (device) => device.kind === "switch" && device.bridging === "vlan",
      ),
      roll,
    );
    if (device === undefined) return null;
    const own = [...new Set(index.portsOf(device.id).flatMap(vids))];
    protectedBy(edits, device.id, { arpInspection: own });
    return {
      blame: [device.id, ...index.portsOf(device.id).map((port) => port.id)],
      notice: hostsIn(index, own),
    };
  },
  "a door in a wall is shut": (edits, index, roll) => {
    const wall = pick(
      [...index.plan.wall.values()].filter((wall) => wall.from.at === "zone" && wall.to.at !== "gateway"),
      roll,
    );
    if (wall === undefined || wall.from.at !== "zone") return null;
    const from = wall.from.zone;
    edits.remove("wall", wall.id);
    return {
      blame: [wall.id, from, ...(wall.to.at === "zone" ? [wall.to.zone] : [])],
      notice: [...index.plan.segment.values()]
        .filter((segment) => segment.zone === from)
        .flatMap((segment) => hostsOfSegment(index, segment.id)),
    };
  },
  "a wireless name leads elsewhere": (edits, index, roll) => {
    const ssid = pick([...index.plan.ssid.values()], roll);
    const other = pick(
      [...index.plan.segment.values()].filter(
        (segment) => segment.id !== ssid?.segment && segment.vlan !== null,
      ),
      roll,
    );
    if (ssid === undefined || other === undefined) return null;
    edits.patch("ssid", ssid.id, { segment: other.id });
    return {
      blame: [ssid.id],
      notice: [...(index.groups("hostsBySsid").get(ssid.id) ?? [])].map((host) => host.id),
    };
  },
  "a phone sends without its tag": (edits, index, roll) => {
    const host = pick(
      [...index.plan.host.values()].filter((host) => host.tag !== null),
      roll,
    );
    if (host === undefined) return null;
    edits.patch("host", host.id, { tag: null });
    return { blame: [host.id, host.attachment.at === "port" ? host.attachment.port : ""], notice: [host.id] };
  },
  "a BPDU guard on an uplink": (edits, index, roll) => {
    const port = pick(
      linked(index).filter(
        (port) =>
          index.plan.device.get(port.device)?.tree.kind !== "none" &&
          index.plan.device.get(index.peerOf(port.id)?.device ?? "")?.tree.kind !== "none",
      ),
      roll,
    );
    if (port === undefined) return null;
    edits.patch("port", port.id, guarded(port, { bpduGuard: true }));
    return { blame: [port.id], notice: hostsIn(index, vids(port)) };
  },
  "a port takes too few MAC addresses": (edits, index, roll) => {
    const port = pick(
      plugged(index).filter((port) => index.hostsAt(port.id).length > 1),
      roll,
    );
    if (port === undefined) return null;
    edits.patch("port", port.id, guarded(port, { macLimit: 1 }));
    return { blame: [port.id], notice: index.hostsAt(port.id).map((host) => host.id) };
  },
  "the line's port is off": (edits, index, roll) => {
    const leg = pick(
      [...index.plan.interface.values()].filter((leg) => leg.line !== null && leg.port !== null),
      roll,
    );
    if (leg?.port === null || leg === undefined) return null;
    for (const leg of index.plan.interface.values())
      if (leg.line !== null && leg.port !== null) edits.patch("port", leg.port, { enabled: false });
    return {
      blame: [...index.plan.interface.values()].flatMap((leg) => (leg.line === null ? [] : [leg.port ?? ""])),
      notice: [...index.plan.host.keys()],
    };
  },
};
