import { crossingsOf } from "../commissioning";
import { FABRIC } from "../fabric";
import { nameOf, pointsOf, segmentHolding, type PlanIndex, type ProbeQuestion } from "../plan";
import { probe } from "../probe";

/** What readings could have been touched by. A fault elsewhere changes none of them. */
export interface Sight {
  readonly vids: ReadonlySet<number>;
  /** Ports that what was tried passes on its way by the plan: only there what it needs can be missing. */
  readonly way: ReadonlySet<string>;
  /** Ports that something stands at which takes part. */
  readonly ports: ReadonlySet<string>;
  readonly segments: ReadonlySet<string>;
  readonly hosts: ReadonlySet<string>;
  readonly devices: ReadonlySet<string>;
}

/** Everything there is: what the narrower sight is held to. */
export const wholeSight = ({ plan }: PlanIndex): Sight => ({
  vids: new Set([...plan.vlan.values()].map(({ vid }) => vid)),
  way: new Set(plan.port.keys()),
  ports: new Set(plan.port.keys()),
  segments: new Set(plan.segment.keys()),
  hosts: new Set(plan.host.keys()),
  devices: new Set(plan.device.keys()),
});

interface Seeing {
  readonly vids: Set<number>;
  readonly way: Set<string>;
  readonly ports: Set<string>;
  readonly segments: Set<string>;
  readonly hosts: Set<string>;
  readonly devices: Set<string>;
}

function seeHost(index: PlanIndex, seen: Seeing, id: string): void {
  const host = index.plan.host.get(id);
  if (host === undefined || seen.hosts.has(id)) return;
  seen.hosts.add(id);
  if (host.segment !== null) seeSegment(index, seen, host.segment);
  const held = host.ipv4 === null ? null : segmentHolding(index.plan, host.ipv4);
  if (held !== null && held !== undefined) seeSegment(index, seen, held.id);
  const { attachment } = host;
  if (attachment.at === "port") seePort(index, seen, attachment.port);
  if (attachment.at === "behind") seeHost(index, seen, attachment.host);
  if (attachment.at === "ssid") seeSsid(index, seen, attachment.ssid);
}

function seeSsid(index: PlanIndex, seen: Seeing, id: string): void {
  const ssid = index.plan.ssid.get(id);
  if (ssid === undefined) return;
  for (const segment of [ssid.segment, ...ssid.moreSegments]) seeSegment(index, seen, segment);
  for (const { id: point } of pointsOf(index, ssid)) seen.devices.add(point);
}

function seePort(index: PlanIndex, seen: Seeing, id: string): void {
  const port = index.plan.port.get(id);
  if (port === undefined || seen.ports.has(id)) return;
  seen.ports.add(id);
  seen.devices.add(port.device);
  for (const vid of [...port.untagged, ...(port.pvid === null ? [] : [port.pvid])]) seen.vids.add(vid);
  if (index.linkAt(id) === undefined) for (const vid of port.tagged) seen.vids.add(vid);
  if (port.guards.signIn) seeSignIn(index, seen, port.device);
  seeRouted(index, seen, id);
  if (index.plan.device.get(port.device)?.bridging !== "vlan") seePlain(index, seen, port.device);
}

/** Where a port is a leg of its own, its segment is in sight with it. */
function seeRouted(index: PlanIndex, seen: Seeing, port: string): void {
  for (const { segment } of index.groups("interfacesByPort").get(port) ?? [])
    if (segment !== null) seeSegment(index, seen, segment);
}

/** What knows no VLANs is a part of the wire: whoever is on it is at every port of it. */
function seePlain(index: PlanIndex, seen: Seeing, device: string): void {
  for (const { id } of index.portsOf(device)) {
    seen.way.add(id);
    const peer = index.peerOf(id);
    if (peer === undefined) continue;
    seePort(index, seen, id);
    seen.way.add(peer.id);
    seePort(index, seen, peer.id);
  }
}

/** Ports that are legs of their own on gear on the way, as a router behind another has, and where they lead. */
function seeLegs(index: PlanIndex, seen: Seeing, device: string): void {
  if (index.plan.device.get(device)?.bridging !== "vlan") seePlain(index, seen, device);
  for (const { port } of index.interfacesOf(device)) {
    const peer = port === null ? undefined : index.peerOf(port);
    if (port === null || peer === undefined) continue;
    for (const id of [port, peer.id]) {
      seen.way.add(id);
      seePort(index, seen, id);
    }
  }
}

/** Whoever signs in is let in by servers that the device asks from its own address, over what lies between. */
function seeSignIn(index: PlanIndex, seen: Seeing, device: string): void {
  const own = index.interfacesOf(device).flatMap(({ segment }) => segment ?? []);
  const servers = [...index.plan.signIn.values()].flatMap((profile) => profile.servers);
  for (const server of servers) seeHost(index, seen, server);
  const theirs = servers.flatMap((id) => index.plan.host.get(id)?.segment ?? []);
  for (const id of [...own, ...theirs]) {
    seeSegment(index, seen, id);
    const segment = index.plan.segment.get(id);
    const vid = segment === undefined ? null : index.vidOf(segment);
    for (const { id: port, untagged, tagged } of index.plan.port.values())
      if (
        vid !== null &&
        [...untagged, ...tagged].some((carried) => carried === vid) &&
        index.linkAt(port) !== undefined
      )
        seen.way.add(port);
  }
}

/** A segment with who gives its addresses and who routes it. */
function seeSegment(index: PlanIndex, seen: Seeing, id: string): void {
  const segment = index.plan.segment.get(id);
  if (segment === undefined || seen.segments.has(id)) return;
  seen.segments.add(id);
  const vid = index.vidOf(segment);
  if (vid !== null) seen.vids.add(vid);
  for (const { device } of index.interfacesIn(id)) seen.devices.add(device);
  for (const { serverHost, serverDevice } of index.scopesOf(id)) {
    if (serverDevice !== null) seen.devices.add(serverDevice);
    if (serverHost !== null) seeHost(index, seen, serverHost);
  }
}

function seeStart(index: PlanIndex, seen: Seeing, { from }: ProbeQuestion): void {
  if (from.at === "host") seeHost(index, seen, from.host);
  if (from.at === "port") seePort(index, seen, from.port);
  if (from.at === "ssid") seeSsid(index, seen, from.ssid);
  if (from.at === "tunnel") seeSegment(index, seen, from.segment);
}

function seeGoal(index: PlanIndex, seen: Seeing, { goal }: ProbeQuestion): void {
  if (goal.to === "host") seeHost(index, seen, goal.host);
  if (goal.to === "port") seePort(index, seen, goal.port);
  if (goal.to !== "device") return;
  seen.devices.add(goal.device);
  for (const { segment } of index.interfacesOf(goal.device))
    if (segment !== null && index.plan.segment.get(segment)?.management === true)
      seeSegment(index, seen, segment);
}

function seeQuestion(index: PlanIndex, seen: Seeing, question: ProbeQuestion): void {
  seeStart(index, seen, question);
  seeGoal(index, seen, question);
  const { steps, lease } = probe(index, question, () => "");
  for (const { port, vid } of crossingsOf(index, steps)) {
    seen.vids.add(vid);
    seen.way.add(port);
    const device = index.plan.port.get(port)?.device;
    if (device !== undefined) seen.devices.add(device);
  }
  for (const { device, ports } of steps) {
    if (device !== null) seen.devices.add(device);
    for (const port of ports) {
      seen.way.add(port);
      seeRouted(index, seen, port);
    }
  }
  if (lease !== null && lease.segment !== null) seeSegment(index, seen, lease.segment);
}

/** What readings that were tried could have been touched by. */
export function sightOf(index: PlanIndex, questions: readonly ProbeQuestion[]): Sight {
  const seen: Seeing = {
    vids: new Set(),
    way: new Set(),
    ports: new Set(),
    segments: new Set(),
    hosts: new Set(),
    devices: new Set(),
  };
  for (const question of questions) seeQuestion(index, seen, question);
  for (const vid of seen.vids)
    for (const { id, vlan } of index.plan.segment.values())
      if (index.plan.vlan.get(vlan ?? "")?.vid === vid) seeSegment(index, seen, id);
  for (const id of seen.devices) seeLegs(index, seen, id);
  for (const id of seen.way) seePort(index, seen, id);
  // Of an aggregated link every port is on the way.
  for (const id of seen.way)
    for (const { id: other } of index.groups("portsByLag").get(index.plan.port.get(id)?.lag ?? "") ?? [])
      seen.way.add(other);
  return seen;
}

/** Ports between gear that carry one of the VLANs in sight, or lie between gear that does. */
export function trunksInSight(index: PlanIndex, { vids }: Sight): string[] {
  const fabric = index.derived(FABRIC);
  const between = fabric.wires.flatMap(({ bridgePorts }) => (bridgePorts.length < 2 ? [] : bridgePorts));
  return between.flatMap((number) => {
    const port = fabric.ports[number];
    if (port === undefined) return [];
    return [...port.untagged, ...port.tagged].some((vid) => vids.has(vid)) ? [port.id] : [];
  });
}

/** "VLAN 80 (Cameras)". */
export function vidWords(index: PlanIndex, port: string, vid: number): string {
  const device = index.plan.port.get(port)?.device ?? "";
  const segment = index.segmentOn(index.plan.device.get(device)?.domain ?? null, vid);
  return segment === undefined ? `VLAN ${vid}` : `VLAN ${vid} (${nameOf(index, "segment", segment.id)})`;
}
