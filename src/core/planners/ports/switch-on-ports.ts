import { ascending } from "../../kernel";
import { cableWay } from "../../forwarding";
import { type Device, type Host, type PlanIndex, type Port, type Vid } from "../../plan";
import { Doing, endPorts, switches, vidsOn, vidsText } from "./switching";
import { endDevicesBehind, serverPort } from "./towards-server";
import { USUAL_VOICE } from "./voice-policy";

/** Part of a port's speed that flooded frames of one end device never need. */
const STORM_PERCENT = 5;

/** Able switches; the others are left out with the reason. */
function able(
  doing: Doing,
  ability: "sourceChecks" | "ipv6Guards" | "isolation" | "stormLimits",
  what: string,
) {
  return switches(doing.index).filter((device) => {
    if (!device.abilities[ability]) doing.leave(device.name, `is not known to have ${what}`);
    return device.abilities[ability];
  });
}

/** Only bound addresses at ports of end devices, of VLANs that are snooped; static ones are bound first. */
export function checkSources(doing: Doing): void {
  const { index } = doing;
  for (const device of able(doing, "sourceChecks", "source checks")) {
    const snooped = new Set<number>(device.protections.snooping);
    if (snooped.size === 0) {
      doing.leave(device.name, "does not snoop: it would know nobody's address");
      continue;
    }
    const ports = endPorts(index, device).filter((port) => {
      const vids = [...port.untagged, ...port.tagged];
      return vids.length > 0 && vids.every((vid) => snooped.has(vid));
    });
    const fixed = ports.flatMap((port) => index.hostsAt(port.id)).filter(({ manner }) => manner === "typed");
    const known = device.protections.bound;
    const bound = [...new Set([...known, ...fixed.map(({ id }) => id)])];
    if (bound.length > known.length)
      doing.protect(device, { bound }, `knows ${fixed.map(({ name }) => name).join(", ")} by hand`);
    for (const port of ports)
      doing.guard(port, { sourceCheck: true }, "lets pass what comes from bound addresses only");
  }
}

/**
 * The port by which a device hears the router of a segment; null where it is the router, or no cable leads
 * there.
 */
export function routerPort(index: PlanIndex, device: Device, router: string, vid: Vid): Port | null {
  return device.id === router ? null : (cableWay(index, device.id, router, vid)?.[0]?.near ?? null);
}

interface Ipv6Ways {
  readonly vids: Vid[];
  readonly served: Vid[];
  readonly routers: Port[];
  readonly servers: Port[];
}

/** The VLANs of a switch that a router advertises in, and the ports by which it and the servers are heard. */
function ipv6Ways(doing: Doing, device: Device): Ipv6Ways {
  const { index } = doing;
  const ways: Ipv6Ways = { vids: [], served: [], routers: [], servers: [] };
  for (const vid of vidsOn(index, device)) {
    const segment = index.segmentOn(device.domain, vid);
    const leg = segment === undefined ? undefined : index.gatewayOf(segment);
    if (segment === undefined || leg === undefined || segment.advertise === "none") continue;
    const port = routerPort(index, device, leg.device, vid);
    if (port === null && leg.device !== device.id) {
      doing.leave(device.name, `no cable leads to the router of VLAN ${vid}`);
      continue;
    }
    if (port !== null && endDevicesBehind(index, port) !== null) {
      doing.leave(device.name, `behind the port to the router of VLAN ${vid} there are end devices`);
      continue;
    }
    ways.vids.push(vid);
    if (port !== null) ways.routers.push(port);
    if (segment.advertise !== "stateful") continue;
    ways.served.push(vid);
    for (const scope of index.scopesOf(segment.id).filter(({ family }) => family === 6)) {
      const server = serverPort(index, device, scope, vid);
      if (server !== null) ways.servers.push(server.port);
    }
  }
  return ways;
}

const merged = (a: readonly Vid[], b: readonly Vid[]): Vid[] => [...new Set([...a, ...b])].sort(ascending);

/** Router advertisements and answers of DHCPv6 servers from where the router and the server are only. */
export function guardIpv6(doing: Doing): void {
  for (const device of able(doing, "ipv6Guards", "guards of IPv6")) {
    const { vids, served, routers, servers } = ipv6Ways(doing, device);
    for (const port of routers) doing.guard(port, { raTrust: true }, "is trusted: it leads to the router");
    for (const port of servers)
      doing.guard(port, { dhcpTrust: true }, "is trusted: it leads to the DHCPv6 server");
    const { routerGuard, dhcp6Guard } = device.protections;
    const [all, shielded] = [merged(routerGuard, vids), merged(dhcp6Guard, served)];
    if (all.length > routerGuard.length || shielded.length > dhcp6Guard.length)
      doing.protect(
        device,
        { routerGuard: all, dhcp6Guard: shielded },
        `guards IPv6 in ${vidsText(all)}, once its ports are trusted`,
      );
  }
}

/** A limit for flooded frames at ports of end devices. */
export function limitStorms(doing: Doing): void {
  for (const device of able(doing, "stormLimits", "storm limits"))
    for (const port of endPorts(doing.index, device))
      if (port.guards.stormPercent === null)
        doing.guard(
          port,
          { stormPercent: STORM_PERCENT },
          `lets flooded frames fill ${STORM_PERCENT} % of its speed`,
        );
}

/** Ports of end devices that send no tags take none (IEEE 802.1Q section 6.9). */
export function untaggedOnly(doing: Doing): void {
  const { index } = doing;
  for (const device of switches(index))
    for (const port of endPorts(index, device))
      if (port.tagged.length === 0 && index.hostsAt(port.id).every(({ tag }) => tag === null))
        doing.port(port, { admit: "untagged" }, "takes untagged frames only");
}

const guestsOnly = (index: PlanIndex, hosts: readonly Host[]): boolean =>
  hosts.every(({ segment }) => index.plan.segment.get(segment ?? "")?.purpose === "guests");

/** Ports with nothing but visitors' devices send nothing to one another. */
export function isolateGuests(doing: Doing): void {
  const { index } = doing;
  for (const device of able(doing, "isolation", "isolated ports"))
    for (const port of endPorts(index, device))
      if (guestsOnly(index, index.hostsAt(port.id)))
        doing.guard(port, { isolated: true }, "is for visitors: it sends nothing to other visitors' ports");
}

/** Ports with a phone that sends a tag announce its VLAN (LLDP-MED). */
export function tellPhones(doing: Doing): void {
  const { index } = doing;
  for (const device of switches(index))
    for (const port of endPorts(index, device)) {
      const vid =
        index.hostsAt(port.id).find(({ kind, tag }) => kind === "phone" && tag !== null)?.tag ?? null;
      if (vid !== null && port.voicePolicy === null && port.tagged.includes(vid))
        doing.port(port, { voicePolicy: { vid, ...USUAL_VOICE } }, `tells phones VLAN ${vid}`);
    }
}
