import { ascending, equal } from "../kernel";
import {
  hasRadios,
  offers,
  signInVids,
  vidsOfSsid,
  type Change,
  type Derived,
  type Host,
  type PlanIndex,
  type Port,
} from "../plan";
import { FABRIC, type Fabric, modeOf } from "../fabric";

/** A device that uses a VLAN; `gateway` marks the one that the VLAN's clients are given as their gateway. */
export interface User {
  readonly device: number;
  readonly gateway: boolean;
}
/** The users of each VLAN by its number, by device; a VLAN whose users stay the same keeps its list. */
export type Uses = ReadonlyMap<number, readonly User[]>;

/** By VLAN and device, how many ports of the device use it for end devices. */
type Counts = ReadonlyMap<number, ReadonlyMap<number, number>>;
interface PortUses {
  readonly fabric: Fabric;
  readonly counts: Counts;
}

/** The VLANs that a port uses for what is plugged in: its data and voice VLANs, tags that its hosts send. */
// eslint-disable-next-line complexity -- the ways in which a port uses a VLAN, one line each
function vidsAt(index: PlanIndex, fabric: Fabric, number: number, port: Port): readonly number[] {
  const wire = fabric.wires[fabric.wireOf[number] ?? -1];
  if (wire === undefined || wire.bridgePorts.length > 1) return [];
  if (fabric.devices[fabric.deviceOf[number] ?? 0]?.bridging !== "vlan") return [];
  const mode = modeOf(port);
  const vids: number[] = [];
  const isUsed = wire.hosts.length > 0 || port.guards.edge;
  if (port.pvid !== null && mode !== "trunk" && isUsed) vids.push(port.pvid);
  // Only what the port has a tag for can come tagged.
  if (port.tagged.length === 0) return vids;
  if (mode === "dataVoice") vids.push(...port.tagged);
  for (const id of wire.hosts) {
    const tag = index.plan.host.get(id)?.tag ?? null;
    if (tag !== null && port.tagged.includes(tag)) vids.push(tag);
  }
  return [...new Set(vids)];
}

function countPortUses(index: PlanIndex): PortUses {
  const fabric = index.derived(FABRIC);
  const counts = new Map<number, Map<number, number>>();
  for (const [number, port] of fabric.ports.entries()) {
    const device = fabric.deviceOf[number] ?? 0;
    for (const vid of vidsAt(index, fabric, number, port)) {
      const devices = counts.get(vid) ?? new Map<number, number>();
      devices.set(device, (devices.get(device) ?? 0) + 1);
      counts.set(vid, devices);
    }
  }
  return { fabric, counts };
}

/** Whether a host that has changed still uses the same VLAN at the same place. */
function usesTheSame({ before, after }: Change): boolean {
  if (before === null || after === null) return false;
  const [was, is] = [before, after] as [Host, Host];
  return was.tag === is.tag && equal(was.attachment, is.attachment);
}

/**
 * Takes changed ports out as they were and puts them in as they are. What moves a cable or a host's tag is
 * counted anew.
 */
function followPortUses(previous: PortUses, index: PlanIndex, changes: readonly Change[]): PortUses | null {
  const fabric = index.derived(FABRIC);
  if (fabric.wires !== previous.fabric.wires) return null;
  const counts = new Map(previous.counts);
  const put = (vid: number, device: number, by: number) => {
    const devices = new Map(counts.get(vid));
    const count = (devices.get(device) ?? 0) + by;
    if (count > 0) devices.set(device, count);
    else devices.delete(device);
    counts.set(vid, devices);
  };
  const ports = new Set<number>();
  for (const change of changes) {
    if (change.kind === "host" && !usesTheSame(change)) return null;
    if (change.kind === "port") ports.add(fabric.portNumber.get(change.id) ?? -1);
  }
  for (const number of ports) {
    const [was, is] = [previous.fabric.ports[number], fabric.ports[number]];
    if (was === undefined || is === undefined) return null;
    const device = fabric.deviceOf[number] ?? 0;
    for (const vid of vidsAt(index, previous.fabric, number, was)) put(vid, device, -1);
    for (const vid of vidsAt(index, fabric, number, is)) put(vid, device, 1);
  }
  return { fabric, counts };
}

const PORT_USES: Derived<PortUses> = { reads: FABRIC.reads, make: countPortUses, follow: followPortUses };

/** What a sign-in may put somebody into is used at the switch that asks for it. */
function usesOfSignIn(
  index: PlanIndex,
  fabric: Fabric,
  use: (vid: number, device: number, gateway: boolean) => void,
): void {
  if (index.plan.signIn.size === 0) return;
  for (const [number, port] of fabric.ports.entries()) {
    const device = fabric.deviceOf[number] ?? 0;
    if (!port.guards.signIn || fabric.devices[device]?.bridging !== "vlan") continue;
    for (const vid of signInVids(index, port)) use(vid, device, false);
  }
}

/**
 * Users that are no ports: legs of the gear, with the gateway's marked, and access points with their wireless
 * names.
 */
function usesOfGear(index: PlanIndex, fabric: Fabric): Map<number, Map<number, boolean>> {
  const uses = new Map<number, Map<number, boolean>>();
  const use = (vid: number, device: number, gateway: boolean) => {
    const devices = uses.get(vid) ?? new Map<number, boolean>();
    devices.set(device, gateway || (devices.get(device) ?? false));
    uses.set(vid, devices);
  };
  for (const leg of index.plan.interface.values()) {
    const segment = leg.segment === null ? undefined : index.plan.segment.get(leg.segment);
    const vid = segment === undefined ? null : index.vidOf(segment);
    const device = fabric.deviceNumber.get(leg.device);
    if (
      vid === null ||
      device === undefined ||
      leg.port !== null ||
      fabric.devices[device]?.bridging !== "vlan"
    )
      continue;
    use(vid, device, segment?.gatewayInterface === leg.id);
  }
  usesOfSignIn(index, fabric, use);
  const points =
    index.plan.ssid.size === 0
      ? []
      : fabric.devices.flatMap((device, number) =>
          hasRadios(device) && device.bridging === "vlan" ? [{ device, number }] : [],
        );
  for (const ssid of index.plan.ssid.values()) {
    const vids = vidsOfSsid(index, ssid);
    for (const { device, number } of points)
      if (offers(index, device, ssid)) for (const vid of vids) use(vid, number, false);
  }
  return uses;
}

function unite(index: PlanIndex, previous: Uses): Uses {
  const { fabric, counts } = index.derived(PORT_USES);
  const gear = usesOfGear(index, fabric);
  const united = new Map<number, readonly User[]>();
  // A parked VLAN and a rescue port lead nowhere on purpose: ports in them on several devices need not meet.
  const aside = new Set(
    [...index.plan.vlan.values()]
      .filter((vlan) => vlan.purpose === "parked" || vlan.purpose === "wayBack")
      .map((vlan) => `${vlan.domain}/${vlan.vid}`),
  );
  const isAside = (vid: number, device: number) =>
    aside.size > 0 && aside.has(`${fabric.devices[device]?.domain ?? ""}/${vid}`);
  for (const vid of new Set([...counts.keys(), ...gear.keys()])) {
    const legs = gear.get(vid);
    const devices = new Set(
      [...(counts.get(vid)?.keys() ?? []), ...(legs?.keys() ?? [])].filter((device) => !isAside(vid, device)),
    );
    const users = [...devices]
      .sort(ascending)
      .map((device): User => ({ device, gateway: legs?.get(device) ?? false }));
    const known = previous.get(vid);
    const isKnown =
      known?.length === users.length &&
      known.every((user, i) => user.device === users[i]?.device && user.gateway === users[i]?.gateway);
    if (users.length > 0) united.set(vid, isKnown && known !== undefined ? known : users);
  }
  return united;
}

/** Who uses which VLAN. */
export const USES: Derived<Uses> = {
  reads: [...FABRIC.reads, "segment", "vlan", "ssid", "signIn"],
  make: (index) => unite(index, new Map()),
  follow: (previous, index) => unite(index, previous),
};
