import type { Device } from "../plan";
import type { Packet } from "../policy";
import { allLinesOf, linesOf, pinnedLine, routeFrom, sharingLines, type RouteChoice } from "../routing";
import type { ProbeRun } from "./run";
import type { Flow, Trip } from "./trip";

const asksOf = ({ src, protocol, dport }: Packet) => ({ src, service: { protocol, port: dport } });

/**
 * Where a device sends a packet: by its routes, of several lines by the one that carries the sender's traffic;
 * an answer leaves by the line that its question came in at. Null without a way.
 */
export function routeOf(
  { run }: Trip,
  device: Device,
  packet: Packet,
  flow: Flow | null,
): RouteChoice | null {
  const route = routeFrom(run.index, device, packet.dst, asksOf(packet));
  if (flow === null || route?.line === null || route === null) return route;
  const back = linesOf(run.index, device.id).find(({ leg }) => leg.id === flow.leg.id);
  return back === undefined ? route : { ...route, ...back };
}

/** Why a packet takes this way, in a sentence. */
export function routeWhy(run: ProbeRun, device: Device, route: RouteChoice, packet: Packet): string {
  if (route.how === "connected") return "The address lies in a segment of its own.";
  if (route.how === "entered") return "A route entered by hand holds it.";
  if (route.line === null) return "Nothing nearer holds it: by its default.";
  const all = allLinesOf(run.index, device.id);
  if (all.length < 2) return "Nothing inside holds it.";
  const pinned = pinnedLine(run.index, all, asksOf(packet));
  if (pinned?.own.line.id === route.line.id)
    return `Nothing inside holds it; it is pinned to ${route.line.name}.`;
  const sharing = sharingLines(linesOf(run.index, device.id));
  const shares = sharing.map(({ line }) => `${line.share} % by ${line.name}`).join(", ");
  if (sharing.length > 1) return `Nothing inside holds it; lines share what goes out: ${shares}.`;
  return all[0]?.line.id === route.line.id
    ? "Nothing inside holds it; this is the first line in the order."
    : `Nothing inside holds it; ${all[0]?.line.name ?? "the first line"} does not work.`;
}

/** The line that keeps a packet inside: pinned to it, down, and not to go by another; null when none does. */
export function keptInside(run: ProbeRun, device: Device, packet: Packet): string | null {
  const pinned = pinnedLine(run.index, allLinesOf(run.index, device.id), asksOf(packet));
  const works = linesOf(run.index, device.id).some(({ line }) => line.id === pinned?.own.line.id);
  return pinned === null || works || pinned.pin.orElse !== "stays" ? null : pinned.own.line.id;
}
