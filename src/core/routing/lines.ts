import { containsAddress, familyOf, type Address } from "../address";
import { byNaturalText, putInto } from "../kernel";
import {
  prefixesOf,
  type Derived,
  type Interface,
  type Line,
  type Pin,
  type PlanIndex,
  type Service,
} from "../plan";

/** A line that ends at a device. */
export interface OwnLine {
  readonly leg: Interface;
  readonly line: Line;
}

/** Whose traffic a line is chosen for: its sender as the device sees it, and what it asks for. */
export interface Asks {
  readonly src: Address;
  /** Null where the protocol has no ports, or the question is asked for no service. */
  readonly service: { readonly protocol: Service["protocol"]; readonly port: number | null } | null;
}

/** A leg works when its port does: a routed port that is switched off takes it along. */
export const works = (index: PlanIndex, leg: Interface): boolean =>
  leg.port === null || index.plan.port.get(leg.port)?.enabled === true;

const inOrder = (a: Line, b: Line): number =>
  a.place - b.place || byNaturalText(a.name, b.name) || byNaturalText(a.id, b.id);

/** The lines of a site, of a device or of a list in the order of failover; among equals by name. */
export const linesInOrder = (lines: Iterable<Line>): Line[] => [...lines].sort(inOrder);

/** The lines of each device: a router with thousands of legs is asked for them with every packet. */
const LINES: Derived<ReadonlyMap<string, readonly OwnLine[]>> = {
  reads: ["interface", "line"],
  make: ({ plan }) => {
    const lines = new Map<string, OwnLine[]>();
    for (const leg of plan.interface.values()) {
      const line = leg.line === null ? undefined : plan.line.get(leg.line);
      if (line !== undefined) putInto(lines, leg.device, { leg, line });
    }
    for (const own of lines.values()) own.sort((a, b) => inOrder(a.line, b.line));
    return lines;
  },
};
const NONE: readonly OwnLine[] = [];

/** All lines that end at a device in the order of failover, those whose port is off too. */
export const allLinesOf = (index: PlanIndex, device: string): readonly OwnLine[] =>
  index.derived(LINES).get(device) ?? NONE;

/** The lines a device has, in the order of failover; those whose port is off are left out. */
export const linesOf = (index: PlanIndex, device: string): OwnLine[] =>
  allLinesOf(index, device).filter(({ leg }) => works(index, leg));

/** A host's pin goes before a service's, and that before its segment's: the narrower wish holds. */
const NARROWEST = { host: 0, service: 1, segment: 2 } as const;

/** Whether a pin speaks of what somebody sends. */
function isPinned(index: PlanIndex, pin: Pin, { src, service }: Asks): boolean {
  switch (pin.what) {
    case "host": {
      const host = index.plan.host.get(pin.host);
      return host?.ipv4 === src || host?.ipv6 === src;
    }
    case "segment": {
      const segment = index.plan.segment.get(pin.segment);
      return (
        segment !== undefined &&
        prefixesOf(segment, familyOf(src)).some((prefix) => containsAddress(prefix, src))
      );
    }
    case "service":
      return (
        service !== null &&
        pin.service.protocol === service.protocol &&
        (pin.service.ports.length === 0 ||
          pin.service.ports.some(
            ([low, high]) => service.port !== null && low <= service.port && service.port <= high,
          ))
      );
  }
}

/** The line that a device's pins name for a sender, and what happens while it is down; null without one. */
export function pinnedLine(
  index: PlanIndex,
  lines: readonly OwnLine[],
  asks: Asks | null,
): { readonly own: OwnLine; readonly pin: Pin } | null {
  if (asks === null) return null;
  return (
    lines
      .flatMap((own) =>
        own.line.pins.filter((pin) => isPinned(index, pin, asks)).map((pin) => ({ own, pin })),
      )
      .sort((a, b) => NARROWEST[a.pin.what] - NARROWEST[b.pin.what])[0] ?? null
  );
}

/**
 * The lines that share what goes out, of those that work: the first in the order, and where it has a share all
 * others that have one; the greatest share first. None when no line works.
 */
export function sharingLines(working: readonly OwnLine[]): OwnLine[] {
  const [first] = working;
  if (first === undefined) return [];
  if (first.line.share === 0) return [first];
  return working.filter(({ line }) => line.share > 0).sort((a, b) => b.line.share - a.line.share);
}

/**
 * The line that carries what somebody sends out: what is pinned goes by its line while that works, and then by
 * the others or nowhere, as the pin says; the rest goes by the first that works, or the one with the greatest
 * share. `isUp` says which lines work. Null when nothing carries it.
 */
export function lineFor(
  index: PlanIndex,
  lines: readonly OwnLine[],
  asks: Asks | null,
  isUp: (own: OwnLine) => boolean,
): OwnLine | null {
  const pinned = pinnedLine(index, lines, asks);
  if (pinned !== null && (isUp(pinned.own) || pinned.pin.orElse === "stays"))
    return isUp(pinned.own) ? pinned.own : null;
  return sharingLines(lines.filter(isUp))[0] ?? null;
}

/**
 * Whether the device at a line's end notices that it carries nothing any more: by a target that stops
 * answering, or because the cable goes dark, which it does not while a box of the provider's stands between.
 */
export const noticesLoss = ({ watch, providerBox }: Line): boolean =>
  watch.by === "target" ? watch.targets.length > 0 : providerBox === "none";
