import { patchGuards } from "../planners";
import type { Repair, Subject } from "../repairs";
import { byNaturalText, byText, putInto } from "../kernel";
import { BLANK_LINK, nameOf, type PlanIndex, type Port } from "../plan";
import { TREE } from "../spanning-tree";
import { FABRIC, isMember, type Fabric } from "../fabric";

/** Why no cable leads from one device to another, as far as one thing explains it. */
export interface Gap {
  readonly sentence: string;
  readonly subjects: readonly Subject[];
  readonly repairs: readonly Repair[];
}

/** Devices that hang together by working cables, gear without VLANs among them. */
function together(
  fabric: Fabric,
  onWire: ReadonlyMap<number, readonly number[]>,
  start: number,
  isOpen: (port: number) => boolean,
): Set<number> {
  const found = new Set([start]);
  for (const at of found)
    for (const near of onWire.get(-1 - at) ?? []) {
      if (!isOpen(near)) continue;
      for (const far of onWire.get(fabric.wireOf[near] ?? 0) ?? [])
        if (isOpen(far)) found.add(fabric.deviceOf[far] ?? 0);
    }
  return found;
}

/** Working ports by their wire, and by their device under -1 less its number. */
function portsOnWires(fabric: Fabric): Map<number, number[]> {
  const found = new Map<number, number[]>();
  for (const [port, wire] of fabric.wireOf.entries())
    if (wire >= 0) {
      putInto(found, wire, port);
      putInto(found, -1 - (fabric.deviceOf[port] ?? 0), port);
    }
  return found;
}

/**
 * What parts two devices: a port that is off or shut by a guard at a cable between them, or a cable that is
 * not there; null when nothing of that kind is seen.
 */
export function gapBetween(
  index: PlanIndex,
  from: string,
  to: string,
  { vid, ids }: { readonly vid: number; readonly ids: () => string },
): Gap | null {
  const fabric = index.derived(FABRIC);
  const tree = index.derived(TREE);
  const [start, goal] = [fabric.deviceNumber.get(from), fabric.deviceNumber.get(to)];
  if (start === undefined || goal === undefined) return null;
  const isOpen = (port: number) => !tree.discards(port, vid);
  const onWire = portsOnWires(fabric);
  const [here, there] = [together(fabric, onWire, start, isOpen), together(fabric, onWire, goal, isOpen)];
  if (here.has(goal)) return null;
  const sideOf = (port: Port) => {
    const device = fabric.deviceNumber.get(port.device) ?? -1;
    if (here.has(device)) return "here";
    if (there.has(device)) return "there";
    return null;
  };
  for (const link of index.plan.link.values()) {
    const ends = [index.plan.port.get(link.a), index.plan.port.get(link.b)].filter(
      (port) => port !== undefined,
    );
    if (ends.length < 2 || !["here", "there"].every((side) => ends.some((port) => sideOf(port) === side)))
      continue;
    const off = ends.find((port) => !port.enabled);
    if (off !== undefined) return portOff(index, off);
    const shut = ends.find((port) => tree.shut.has(port.id));
    if (shut !== undefined) return guardShuts(index, shut);
  }
  return missingCable(index, sideOf, vid, ids);
}

export function portOff(index: PlanIndex, port: Port): Gap {
  const name = nameOf(index, "port", port.id);
  return {
    sentence: `${name} is switched off.`,
    subjects: [{ kind: "port", id: port.id }],
    repairs: [
      {
        label: `Switch ${name} on`,
        planner: "switch-on",
        args: { port: port.id },
        edit: (edits) => edits.patch("port", port.id, { enabled: true }),
      },
    ],
  };
}

export function guardShuts(index: PlanIndex, port: Port): Gap {
  const name = nameOf(index, "port", port.id);
  return {
    sentence: `${name} is shut by its BPDU guard: the gear at the other end takes part in a spanning tree.`,
    subjects: [{ kind: "port", id: port.id }],
    repairs: [
      {
        label: `Take the BPDU guard off ${name}`,
        planner: "set-guard",
        args: { port: port.id },
        edit: (edits) => patchGuards(edits, port.id, { bpduGuard: false, edge: false }),
      },
    ],
  };
}

/** Two free trunk ports, one on each side, that both carry the VLAN: where a cable was left out or pulled. */
function missingCable(
  index: PlanIndex,
  sideOf: (port: Port) => "here" | "there" | null,
  vid: number,
  ids: () => string,
): Gap | null {
  const isPlain = (port: Port) => index.plan.device.get(port.device)?.bridging === "plain";
  const free = [...index.plan.port.values()].filter(
    (port) =>
      port.enabled &&
      (isPlain(port) ||
        (isMember(port, vid) && (port.guards.bpduGuard === false || port.tagged.length === 0))) &&
      index.linkAt(port.id) === undefined &&
      index.hostsAt(port.id).length === 0 &&
      !index.groups("interfacesByPort").has(port.id),
  );
  // A trunk that was meant to carry it first, a port of gear without VLANs last: that takes anything, so it
  // says least.
  const rank = (port: Port) => {
    if (isPlain(port)) return 2;
    if (port.tagged.some((carried) => carried === vid)) return 0;
    return 1;
  };
  free.sort(
    (port, other) =>
      rank(port) - rank(other) ||
      byNaturalText(nameOf(index, "port", port.id), nameOf(index, "port", other.id)) ||
      byText(port.id, other.id),
  );
  const [a, b] = (["here", "there"] as const).map((side) => free.find((port) => sideOf(port) === side));
  if (a === undefined || b === undefined) return null;
  const names = [nameOf(index, "port", a.id), nameOf(index, "port", b.id)];
  return {
    sentence: `No cable joins ${names[0]} and ${names[1]}, though both are free and carry VLAN ${vid}.`,
    subjects: [
      { kind: "port", id: a.id },
      { kind: "port", id: b.id },
    ],
    repairs: [
      {
        label: `Cable ${names[0]} to ${names[1]}`,
        planner: "add-cable",
        args: { a: a.id, b: b.id },
        edit: (edits) => {
          edits.put("link", { ...BLANK_LINK, id: ids(), a: a.id, b: b.id });
        },
      },
    ],
  };
}
