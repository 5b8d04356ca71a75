import { cableWay } from "../../forwarding";
import { nameOf, type Device, type Host, type PlanIndex, type Port, type Scope, type Vid } from "../../plan";

/** The device that answers for a scope in its segment: its relay, its server, or what its server hangs on. */
function answersAt(index: PlanIndex, scope: Scope): { readonly device?: string; readonly plugged?: Port } {
  const relay = index.interfacesIn(scope.segment).find((leg) => leg.relayTo !== null);
  if (relay !== undefined) return { device: relay.device };
  if (scope.serverDevice !== null) return { device: scope.serverDevice };
  const host = index.plan.host.get(scope.serverHost ?? "");
  const plugged = host?.attachment.at === "port" ? index.plan.port.get(host.attachment.port) : undefined;
  return plugged === undefined ? {} : { device: plugged.device, plugged };
}

/** Whether a device itself answers for a scope: no port leads to its server then. */
export function answersItself(index: PlanIndex, device: Device, scope: Scope): boolean {
  const at = answersAt(index, scope);
  return at.device === device.id && at.plugged === undefined;
}

/**
 * The port of a device that answers of a scope's server come in by, and who answers; null where no cable leads
 * there, or the device answers itself.
 */
export function serverPort(
  index: PlanIndex,
  device: Device,
  scope: Scope,
  vid: number,
): { readonly port: Port; readonly server: string } | null {
  const { device: at, plugged } = answersAt(index, scope);
  if (at === undefined) return null;
  if (at !== device.id) {
    const port = cableWay(index, device.id, at, vid)?.[0]?.near;
    return port === undefined ? null : { port, server: nameOf(index, "device", at) };
  }
  const host = index.plan.host.get(scope.serverHost ?? "");
  return plugged === undefined ? null : { port: plugged, server: host?.name ?? "" };
}

/** The ports of a device with a cable to other gear. */
const cabled = (index: PlanIndex, device: string): { port: Port; far: string }[] =>
  index.portsOf(device).flatMap((port) => {
    const far = index.peerOf(port.id);
    return far === undefined ? [] : [{ port, far: far.device }];
  });

/** Whether cables lead from one device to another without passing a third. */
function isJoined(index: PlanIndex, from: string, to: string, without: string): boolean {
  const seen = new Set([without, from]);
  const open = [from];
  for (let at = open.pop(); at !== undefined; at = open.pop()) {
    if (at === to) return true;
    for (const { far } of cabled(index, at))
      if (!seen.has(far)) {
        seen.add(far);
        open.push(far);
      }
  }
  return false;
}

/**
 * The other ports of a device by which answers of a scope's server may come in one day: in a ring they come
 * from the other side while a cable is down. Those that carry the VLAN.
 */
export function otherServerPorts(index: PlanIndex, device: Device, scope: Scope, vid: Vid): Port[] {
  const { device: at } = answersAt(index, scope);
  if (at === undefined || at === device.id) return [];
  return cabled(index, device.id)
    .filter(({ port, far }) => {
      const carries = port.untagged.includes(vid) || port.tagged.includes(vid);
      return carries && isJoined(index, far, at, device.id);
    })
    .map(({ port }) => port);
}

/**
 * Who is behind a port where nothing but end devices can be: on it, or on a switch without VLANs that leads
 * nowhere else. To trust such a port would let whoever sits there say anything. Null where other gear is
 * behind it.
 */
export function endDevicesBehind(index: PlanIndex, port: Port): Host[] | null {
  const far = index.peerOf(port.id);
  if (far === undefined) return [...index.hostsAt(port.id)];
  const beyond = index.plan.device.get(far.device);
  const ports = beyond === undefined ? [] : index.portsOf(beyond.id);
  if (
    beyond?.bridging !== "plain" ||
    ports.some((port) => port.id !== far.id && index.linkAt(port.id) !== undefined)
  )
    return null;
  return ports.flatMap((port) => [...index.hostsAt(port.id)]);
}
