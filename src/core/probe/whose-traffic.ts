import { type Device, type Interface, nameOf, type Segment, segmentHolding } from "../plan";
import type { Packet, WallSide } from "../policy";
import { linesOf, routeFrom } from "../routing";
import type { ProbeRun } from "./run";
import type { AtLeg } from "./trip";

/**
 * Whose traffic this is: the segment that holds the sender's address, if answers to it leave by the leg it
 * came in at; null when they do not.
 */
export function fromParty(run: ProbeRun, { device, leg }: AtLeg, packet: Packet): WallSide | null {
  const back = routeFrom(run.index, device, packet.src);
  if (leg.line !== null) return back?.line !== null && back !== null ? "internet" : null;
  if (back?.leg.id !== leg.id) return null;
  return segmentHolding(run.index.plan, packet.src) ?? beyond(run, device, leg);
}

/**
 * Whose an address is that no segment has: on a router with a line what lies behind that leg, on one without
 * everything that is not of the plan.
 */
export const beyond = (run: ProbeRun, device: Device, leg: Interface): WallSide | null =>
  linesOf(run.index, device.id).length === 0 ? "internet" : segmentOfLeg(run, leg);

const segmentOfLeg = (run: ProbeRun, leg: Interface): Segment | null =>
  leg.segment === null ? null : (run.index.plan.segment.get(leg.segment) ?? null);
/** What a leg leads into, in words. */
export const segmentName = (run: ProbeRun, leg: Interface): string =>
  segmentOfLeg(run, leg)?.name ?? (leg.line === null ? leg.name : nameOf(run.index, "line", leg.line));
