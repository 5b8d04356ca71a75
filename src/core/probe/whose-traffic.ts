import { containsAddress, familyOf, type Address } from "../address";
import { nameOf, type Device, type Interface, type Segment } from "../plan";
import type { Packet, Party as WallParty } from "../policy";
import { linesOf, prefixesOf, routeFrom } from "../routing";
import type { ProbeBench } from "./bench";
import type { AtLeg } from "./trip";

/**
 * Whose traffic this is: the segment that holds the sender's address, if answers to it leave by the leg it
 * came in at; null when they do not.
 */
export function fromParty(bench: ProbeBench, { device, leg }: AtLeg, packet: Packet): WallParty | null {
  const back = routeFrom(bench.index, device, packet.src);
  if (leg.line !== null) return back?.line !== null && back !== null ? "internet" : null;
  if (back?.leg.id !== leg.id) return null;
  return segmentOf(bench, packet.src) ?? beyond(bench, device, leg);
}

/**
 * Whose an address is that no segment has: on a router with a line what lies behind that leg, on one without
 * everything that is not of the plan.
 */
export const beyond = (bench: ProbeBench, device: Device, leg: Interface): WallParty | null =>
  linesOf(bench.index, device.id).length === 0 ? "internet" : segmentOfLeg(bench, leg);

/** The segment whose subnet holds an address; null when it is none of the plan's. */
export function segmentOf(bench: ProbeBench, address: Address): Segment | null {
  const family = familyOf(address);
  return (
    [...bench.index.plan.segment.values()].find((segment) =>
      prefixesOf(segment, family).some((prefix) => containsAddress(prefix, address)),
    ) ?? null
  );
}

const segmentOfLeg = (bench: ProbeBench, leg: Interface): Segment | null =>
  leg.segment === null ? null : (bench.index.plan.segment.get(leg.segment) ?? null);
/** What a leg leads into, in words. */
export const segmentName = (bench: ProbeBench, leg: Interface): string =>
  segmentOfLeg(bench, leg)?.name ?? (leg.line === null ? leg.name : nameOf(bench.index, "line", leg.line));
