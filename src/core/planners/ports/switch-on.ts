import { ascending } from "../../kernel";
import { classify } from "../../fabric";
import type { Device, Host, PlanEdits, PlanIndex, Port, Vid } from "../../plan";
import { Doing, endPorts, switches, vidsOn, vidsText, type SwitchedOn } from "./switching";
import {
  checkSources,
  guardIpv6,
  isolateGuests,
  limitStorms,
  tellPhones,
  untaggedOnly,
} from "./switch-on-ports";
import { answersItself, endDevicesBehind, otherServerPorts, serverPort } from "./towards-server";

/** Guards that are switched on for the whole site at once. */
export type SafeGuard =
  | "snooping"
  | "inspection"
  | "sources"
  | "ipv6"
  | "macLimits"
  | "storms"
  | "edges"
  | "untagged"
  | "isolation"
  | "voice";

/** What keeps a switch from snooping in a VLAN, else the ports to trust there; null where nothing is given. */
function snoopingIn(
  index: PlanIndex,
  device: Device,
  vid: Vid,
): { readonly trust: readonly Port[] } | { readonly why: string } | null {
  const segment = index.segmentOn(device.domain, vid);
  const scopes = (segment === undefined ? [] : index.scopesOf(segment.id)).filter(
    ({ family }) => family === 4,
  );
  if (scopes.length === 0) return null;
  const trust: Port[] = [];
  for (const scope of scopes) {
    if (answersItself(index, device, scope)) continue;
    const towards = serverPort(index, device, scope, vid);
    if (towards === null) return { why: `no cable leads to the server of VLAN ${vid}` };
    const behind = endDevicesBehind(index, towards.port);
    if (behind !== null && behind.some(({ id }) => id !== scope.serverHost))
      return {
        why: `behind the port to the server of VLAN ${vid} there are others, who would be trusted, too`,
      };
    trust.push(towards.port, ...otherServerPorts(index, device, scope, vid));
  }
  return { trust };
}

function switchOnSnooping(doing: Doing): void {
  const { index } = doing;
  for (const device of switches(index)) {
    if (!device.abilities.snooping) {
      doing.leave(device.name, "is not known to have DHCP snooping");
      continue;
    }
    const vids: Vid[] = [];
    for (const vid of vidsOn(index, device)) {
      const found = snoopingIn(index, device, vid);
      if (found === null) continue;
      if ("why" in found) doing.leave(device.name, found.why);
      else {
        vids.push(vid);
        for (const port of found.trust)
          doing.guard(port, { dhcpTrust: true }, `is trusted: it leads to the server of VLAN ${vid}`);
      }
    }
    const known = device.protections.snooping;
    const all = [...new Set([...known, ...vids])].sort(ascending);
    if (all.length > known.length)
      doing.protect(device, { snooping: all }, `snoops in ${vidsText(all)}, once its ports are trusted`);
  }
  dropNoMarks(doing);
}

/**
 * Questions that bear a relay agent's information are dropped at the untrusted ports of the next switch that
 * snoops (RFC 3046 section 2.1): who asks through such a one adds none.
 */
function dropNoMarks(doing: Doing): void {
  const { index, edits } = doing;
  for (const device of edits.all("device").filter(({ protections }) => protections.option82)) {
    const stopped = device.protections.snooping.flatMap((vid) => {
      const segment = index.segmentOn(device.domain, vid);
      return (segment === undefined ? [] : index.scopesOf(segment.id)).flatMap((scope) => {
        const near = serverPort(index, device, scope, vid)?.port;
        const far = near === undefined ? undefined : index.peerOf(near.id);
        const next = far === undefined ? undefined : edits.need("device", far.device);
        const drops =
          far !== undefined &&
          next?.protections.snooping.includes(vid) === true &&
          !edits.need("port", far.id).guards.dhcpTrust;
        return drops ? [next.name] : [];
      });
    });
    const [next] = stopped;
    if (next !== undefined)
      doing.protect(device, { option82: false }, `adds no option 82: ${next} would drop what bears it`);
  }
}

/** Hosts at ports of a switch that snooping learns nothing of in its VLANs: those with a static address. */
const unlearned = (index: PlanIndex, port: Port, vids: ReadonlySet<number>): Host[] =>
  (endDevicesBehind(index, port) ?? [...index.hostsAt(port.id)]).filter((host) => {
    const vid = classify(port, host.tag);
    return vid !== null && vids.has(vid) && host.manner === "typed";
  });

const bindingsText = (count: number): string => {
  if (count === 0) return "";
  return count === 1 ? ", once a binding is entered" : `, once ${count} bindings are entered`;
};

function switchOnInspection(doing: Doing): void {
  const { index } = doing;
  for (const device of switches(index)) {
    const vids = device.protections.snooping;
    if (!device.abilities.arpInspection) {
      doing.leave(device.name, "is not known to have ARP inspection");
      continue;
    }
    if (vids.length === 0) {
      doing.leave(device.name, "does not snoop: it would know nobody's address");
      continue;
    }
    const inspected = new Set<number>(vids);
    const hosts: Host[] = [];
    for (const port of index.portsOf(device.id)) {
      if (!port.enabled) continue;
      const carries = [...port.untagged, ...port.tagged].some((vid) => inspected.has(vid));
      if (endDevicesBehind(index, port) === null && carries)
        doing.guard(port, { arpTrust: true }, "is trusted: other gear is behind it");
      hosts.push(...unlearned(index, port, inspected));
    }
    const bound = [...new Set([...device.protections.bound, ...hosts.map(({ id }) => id)])];
    const all = [...new Set([...device.protections.arpInspection, ...vids])].sort(ascending);
    if (
      all.length > device.protections.arpInspection.length ||
      bound.length > device.protections.bound.length
    )
      doing.protect(
        device,
        { arpInspection: all, bound },
        `inspects ARP in ${vidsText(all)}${bindingsText(bound.length)}`,
      );
  }
}

function limitMacs(doing: Doing): void {
  const { index } = doing;
  for (const device of switches(index))
    for (const port of endPorts(index, device)) {
      const hosts = index.hostsAt(port.id);
      const phones = hosts.filter(({ kind, tag }) => kind === "phone" && tag !== null).length;
      // A phone is heard in both VLANs while it starts.
      const limit = hosts.length + phones;
      // Who has chosen a limit had a reason for it.
      if (port.guards.macLimit !== null) continue;
      const said = hosts.map(({ name }) => name).join(", ");
      doing.guard(port, { macLimit: limit }, `takes ${limit} MAC address${limit === 1 ? "" : "es"}: ${said}`);
    }
}

function guardEdges(doing: Doing): void {
  const { index } = doing;
  for (const device of switches(index)) {
    if (device.tree.kind === "none") {
      doing.leave(device.name, "runs no spanning tree");
      continue;
    }
    for (const port of endPorts(index, device))
      doing.guard(
        port,
        { edge: true, bpduGuard: true },
        "is an edge, and shuts where a bridge is plugged in",
      );
  }
}

const DOES: Readonly<Record<SafeGuard, (doing: Doing) => void>> = {
  snooping: switchOnSnooping,
  inspection: switchOnInspection,
  macLimits: limitMacs,
  edges: guardEdges,
  sources: checkSources,
  ipv6: guardIpv6,
  storms: limitStorms,
  untagged: untaggedOnly,
  isolation: isolateGuests,
  voice: tellPhones,
};

/**
 * Switches a guard on wherever it can be without cutting anybody off, on all switches of the site: what it
 * needs first is set with it. Says what is set and what is left out, each with its reason.
 */
export function switchOn(index: PlanIndex, edits: PlanEdits, guard: SafeGuard): SwitchedOn {
  const doing = new Doing(index, edits);
  DOES[guard](doing);
  return { sets: doing.sets, leaves: doing.leaves };
}
