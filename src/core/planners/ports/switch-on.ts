import { ascending, byNaturalText } from "../../kernel";
import { classify } from "../../fabric";
import {
  nameOf,
  type Device,
  type Host,
  type PlanEdits,
  type PlanIndex,
  type Port,
  type Vid,
} from "../../plan";
import { answersItself, endDevicesBehind, otherServerPorts, serverPort } from "./towards-server";

/** Guards that are switched on for the whole site at once. */
export type SafeGuard = "snooping" | "inspection" | "macLimits" | "edges";

/** What is done at a port or left out, in words with its reason. */
export interface Reason {
  readonly at: string;
  readonly why: string;
}

/** What switching a guard on would set, and what it leaves out. */
export interface SwitchedOn {
  readonly sets: readonly Reason[];
  readonly leaves: readonly Reason[];
}

/** Collects what is set; what is set already is not said again. */
class Doing {
  readonly sets: Reason[] = [];
  readonly leaves: Reason[] = [];
  readonly edits: PlanEdits;
  readonly index: PlanIndex;

  constructor(index: PlanIndex, edits: PlanEdits) {
    this.index = index;
    this.edits = edits;
  }

  guard(port: Port, guards: Partial<Port["guards"]>, why: string): void {
    const own = this.edits.need("port", port.id).guards;
    const isSet = Object.entries(guards).every(([name, value]) => own[name as keyof typeof own] === value);
    if (isSet) return;
    this.edits.patch("port", port.id, { guards: { ...own, ...guards } });
    this.sets.push({ at: nameOf(this.index, "port", port.id), why });
  }

  protect(device: Device, fields: Partial<Device["protections"]>, why: string): void {
    const own = this.edits.need("device", device.id).protections;
    this.edits.patch("device", device.id, { protections: { ...own, ...fields } });
    this.sets.push({ at: device.name, why });
  }

  leave(at: string, why: string): void {
    this.leaves.push({ at, why });
  }
}

const switches = ({ plan }: PlanIndex): Device[] =>
  [...plan.device.values()]
    .filter(({ bridging, kind }) => bridging === "vlan" && kind === "switch")
    .sort((a, b) => byNaturalText(a.name, b.name) || byNaturalText(a.id, b.id));

const vidsText = (vids: readonly number[]): string =>
  `VLAN${vids.length === 1 ? "" : "s"} ${vids.join(", ")}`;

/** The VLANs that a switch's ports carry, ascending. */
const vidsOn = (index: PlanIndex, device: Device): Vid[] =>
  [
    ...new Set(
      index
        .portsOf(device.id)
        .filter(({ enabled }) => enabled)
        .flatMap((port) => [...port.untagged, ...port.tagged]),
    ),
  ].sort(ascending);

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

/** Ports of switches with nothing but end devices behind them, which are planned there. */
const endPorts = (index: PlanIndex, device: Device): Port[] =>
  index
    .portsOf(device.id)
    .filter(
      (port) => port.enabled && index.linkAt(port.id) === undefined && index.hostsAt(port.id).length > 0,
    );

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
