import { formatAddress } from "../address";
import type { Subject } from "../checks";
import { nameOf, pointsOf, type Host, type PlanIndex, type Segment, type Service } from "../plan";
import { openDoor } from "../planners/set-wall";
import { decide, endOf, type Party } from "../policy";
import { FABRIC, flood } from "../switching";
import { passHops, stopOnTheWay } from "./hops";
import type { Lease } from "./lease";
import type { Started } from "./start";
import type { Journey } from "./step";

/** Asks the gateway; false after a stop. */
export function reachGateway(index: PlanIndex, journey: Journey, started: Started, lease: Lease): boolean {
  const segment = index.plan.segment.get(lease.segment) ?? started.segment;
  const leg = index.gatewayOf(segment);
  const subjects: Subject[] = [{ kind: "segment", id: segment.id }];
  if (leg === undefined || leg.addresses4[0] === undefined) {
    journey.stop(
      { title: segment.name, place: "gateway", says: "has no gateway to send to", why: "", tag: undefined, subjects, device: null, ports: [] },
      { sentence: `${segment.name} has no gateway, so nothing leaves the segment.`, subjects, repairs: [] },
    );
    return false;
  }
  const fabric = index.derived(FABRIC);
  const number = fabric.deviceNumber.get(leg.device);
  const hears = started.result.arrivals.some((a) => a.device === number && a.vid === started.vid)
    || started.result.routed.some((r) => fabric.ports[r.port]?.id === leg.port);
  if (!hears) {
    if (!stopOnTheWay(index, journey, started.device, leg.device, started.port, started.tag, started.vid)) {
      const name = nameOf(index, "device", leg.device);
      journey.stop(
        { title: name, place: "gateway", says: "does not hear it", why: "", tag: undefined, subjects, device: leg.device, ports: [] },
        { sentence: `${name} has no leg in VLAN ${started.vid}.`, subjects, repairs: [] },
      );
    }
    return false;
  }
  journey.pass({
    title: nameOf(index, "device", leg.device), place: formatAddress(leg.addresses4[0]), says: "the gateway answers", why: `${segment.name} is told to use it.`,
    tag: undefined, subjects: [{ kind: "interface", id: leg.id }], device: leg.device, ports: [],
  });
  return true;
}

/** The wall between two parties; false after a stop. */
export function passWall(index: PlanIndex, journey: Journey, from: Party, to: Party, service: Service | null, ids: () => string): boolean {
  const decision = decide(index, from, to, service);
  const name = (party: Party) => (typeof party === "string" ? (party === "internet" ? "the internet" : "the gateway") : party.name);
  const subjects: Subject[] = decision.wall === null ? [] : [{ kind: "wall", id: decision.wall.id }];
  const step = { title: "Wall", place: `${name(from)} to ${name(to)}`, says: decision.passes ? "lets it through" : "closed", why: decision.reason, tag: undefined, subjects, device: null, ports: [] };
  if (decision.passes) {
    journey.pass(step);
    return true;
  }
  const repairs = service === null || typeof from === "string" ? [] : [{
    label: `Open ${service.name} from ${name(from)} to ${name(to)}`, planner: "open-door", args: { service: service.name },
    edit: (draft: Parameters<typeof openDoor>[0]) => openDoor(draft, ids, endOf(from), endOf(to), service),
  }];
  journey.stop(step, { sentence: `${decision.reason} If that is what you want, the wall does its job.`, subjects, repairs });
  return false;
}

/** From the gateway out by the line. */
export function reachInternet(index: PlanIndex, journey: Journey, lease: Lease): void {
  const segment = index.plan.segment.get(lease.segment);
  const leg = segment === undefined ? undefined : index.gatewayOf(segment);
  const outside = leg === undefined ? undefined : index.interfacesOf(leg.device).find((i) => i.line !== null);
  const line = outside?.line === null || outside === undefined ? undefined : index.plan.line.get(outside.line);
  const device = leg?.device ?? null;
  const name = device === null ? "The gateway" : nameOf(index, "device", device);
  if (line === undefined) {
    journey.stop(
      { title: name, place: "line", says: "has no internet line", why: "", tag: undefined, subjects: device === null ? [] : [{ kind: "device", id: device }], device, ports: [] },
      { sentence: `${name} has no leg on an internet line. Add the line and its interface on Hardware.`, subjects: device === null ? [] : [{ kind: "device", id: device }], repairs: [] },
    );
    return;
  }
  const nat = line.carrierNat === "yes" ? " It is behind the provider's carrier-grade NAT: answers come back, but nobody can start from outside." : "";
  journey.pass({ title: line.name, place: "line", says: "out to the internet", why: `${name} puts its own outside address in place of the inside one (NAT).${nat}`, tag: undefined, subjects: [{ kind: "line", id: line.id }], device, ports: [] });
  journey.pass({ title: name, place: "way back", says: "the answer returns", why: "What was let out may be answered.", tag: undefined, subjects: [], device, ports: [] });
}

/** From the gateway into the target's segment, and back. */
export function reachHost(index: PlanIndex, journey: Journey, started: Started, lease: Lease, target: Host): void {
  const home = target.segment === null ? undefined : index.plan.segment.get(target.segment);
  const vid = home === undefined ? null : index.vidOf(home);
  const subjects: Subject[] = [{ kind: "host", id: target.id }];
  if (home === undefined || vid === null) {
    journey.stop(
      { title: target.name, place: "segment", says: "has no segment yet", why: "", tag: undefined, subjects, device: null, ports: [] },
      { sentence: `${target.name} is in no segment on a VLAN, so there is no way to it.`, subjects, repairs: [] },
    );
    return;
  }
  const same = home.id === lease.segment;
  const leg = index.gatewayOf(home);
  const origin = same ? started.device : leg?.device;
  if (origin === undefined) {
    journey.stop(
      { title: home.name, place: "gateway", says: "has no gateway", why: "", tag: undefined, subjects: [{ kind: "segment", id: home.id }], device: null, ports: [] },
      { sentence: `${home.name} has no gateway, so nothing comes in from other segments.`, subjects: [{ kind: "segment", id: home.id }], repairs: [] },
    );
    return;
  }
  const onward = same ? started.result : flood(index, { at: "device", device: origin, vid });
  if (!arriveAt(index, journey, onward, origin, target, home, vid, same)) return;
  const back = wayBack(index, target, home, vid, same ? started.device : origin);
  if (back === null) {
    journey.pass({ title: target.name, place: "way back", says: "the answer returns", why: same ? "Both are in one segment." : "It answers by its gateway, and what was let through may be answered.", tag: undefined, subjects, device: null, ports: [] });
    return;
  }
  journey.stop(
    { title: target.name, place: "way back", says: "the answer does not return", why: back, tag: undefined, subjects, device: null, ports: [] },
    { sentence: `${target.name} hears the question, but its answer does not come back: ${back}`, subjects, repairs: [] },
  );
}

function arriveAt(index: PlanIndex, journey: Journey, onward: Started["result"], origin: string, target: Host, home: Segment, vid: number, same: boolean): boolean {
  const subjects: Subject[] = [{ kind: "host", id: target.id }];
  const fabric = index.derived(FABRIC);
  if (target.attachment.at === "ssid") {
    const ssid = index.plan.ssid.get(target.attachment.ssid);
    const points = new Set(ssid === undefined ? [] : pointsOf(index, ssid).map((device) => device.id));
    const point = onward.arrivals.findIndex((a) => points.has(fabric.devices[a.device]?.id ?? "") && a.vid === vid);
    if (point >= 0) {
      if (!same) passHops(index, journey, onward, point, undefined);
      journey.pass({ title: target.name, place: "wireless", says: "hears it", why: "", tag: null, subjects, device: null, ports: [] });
      return true;
    }
  }
  const heard = onward.heard.find((h) => h.host.id === target.id && h.tag === target.tag);
  if (heard !== undefined) {
    const emission = onward.emissions[heard.emission];
    if (emission !== undefined && emission.after >= 0) passHops(index, journey, onward, emission.after, fabric.ports[emission.port]);
    journey.pass({ title: target.name, place: target.place === "" ? home.name : target.place, says: "hears it", why: "", tag: target.tag, subjects, device: null, ports: [] });
    return true;
  }
  const port = target.attachment.at === "port" ? index.plan.port.get(target.attachment.port) : undefined;
  if (port !== undefined && port.device !== origin && stopOnTheWay(index, journey, origin, port.device, undefined, null, vid)) return false;
  const where = port === undefined ? "It is not plugged in anywhere." : `${nameOf(index, "port", port.id)} does not give VLAN ${vid} to it.`;
  journey.stop(
    { title: target.name, place: home.name, says: "does not hear it", why: where, tag: undefined, subjects, device: port?.device ?? null, ports: port === undefined ? [] : [port.id] },
    { sentence: `${target.name} can't be reached in ${home.name}. ${where}`, subjects, repairs: [] },
  );
  return false;
}

/** Why the answer of a wired target doesn't come to `goal`, or null when it does. */
function wayBack(index: PlanIndex, target: Host, home: Segment, vid: number, goal: string): string | null {
  if (target.attachment.at !== "port") return null;
  const back = flood(index, { at: "port", port: target.attachment.port, tag: target.tag, host: target.id });
  const number = index.derived(FABRIC).deviceNumber.get(goal);
  if (back.arrivals.some((a) => a.device === number && a.vid === vid)) return null;
  return `what it sends does not join ${home.name} (VLAN ${vid}) on the way to ${nameOf(index, "device", goal)}.`;
}
