import { must, putInto } from "../kernel";
import { PlanEdits, applyChanges, PlanIndex } from "../plan";
import type { Fabric } from "../fabric";
import type { Dark } from "./kinds";

/**
 * The part of a fabric that lies between gear: bridge ports whose wire has others. What faces end devices
 * only is left out, since no failure re-forms anything there.
 */
export function gearFabric(fabric: Fabric): Fabric {
  const shared = (port: number) => (fabric.wires[fabric.wireOf[port] ?? -1]?.bridgePorts.length ?? 0) > 1;
  return {
    ...fabric,
    bridgePortsOf: fabric.bridgePortsOf.map((ports) => ports.filter(shared)),
    wires: fabric.wires.map((wire) => (wire.bridgePorts.length > 1 ? wire : { ...wire, bridgePorts: [] })),
    members: new Map(),
  };
}

/** Whether a wire is one cable and nothing else, so that it can be cut by leaving it out. */
export interface Cuts {
  readonly plain: ReadonlySet<string>;
  readonly wireOfCable: ReadonlyMap<string, number>;
  readonly alone: ReadonlySet<string>;
}

/**
 * Which cables make up each wire, and which devices have no part in the wires of others (gear that knows no
 * VLANs does).
 */
export function cutsOf(index: PlanIndex, fabric: Fabric): Cuts {
  const cables = new Map<number, string[]>();
  const wireOfCable = new Map<string, number>();
  for (const link of index.plan.link.values()) {
    const wire = fabric.wireOf[fabric.portNumber.get(link.a) ?? -1] ?? -1;
    if (wire < 0) continue;
    wireOfCable.set(link.id, wire);
    putInto(cables, wire, link.id);
  }
  const plain = new Set(
    [...index.plan.device.values()]
      .filter((device) => device.bridging === "plain")
      .map((device) => device.id),
  );
  // A wire that reaches into gear without VLANs, or to a routed port, takes more along than what lies between
  // two bridges.
  const mixed = new Set(
    fabric.ports.flatMap((port, number) => (plain.has(port.device) ? [fabric.wireOf[number] ?? -1] : [])),
  );
  for (const [number, wire] of fabric.wires.entries()) if (wire.routedPorts.length > 0) mixed.add(number);
  return {
    wireOfCable,
    alone: new Set(
      [...cables].flatMap(([wire, list]) => (list.length === 1 && !mixed.has(wire) ? list : [])),
    ),
    plain,
  };
}

/** A fabric with devices and wires gone. Only for what `cutsOf` calls simple. */
export function without(fabric: Fabric, devices: ReadonlySet<string>, wires: ReadonlySet<number>): Fabric {
  const gone = (port: number) =>
    devices.has(fabric.devices[fabric.deviceOf[port] ?? -1]?.id ?? "") ||
    wires.has(fabric.wireOf[port] ?? -1);
  const touched = new Set<number>(wires);
  const bridgePortsOf = fabric.bridgePortsOf.map((ports) => {
    if (!ports.some(gone)) return ports;
    for (const port of ports) if (gone(port)) touched.add(fabric.wireOf[port] ?? -1);
    return ports.filter((port) => !gone(port));
  });
  const kept = [...fabric.wires];
  for (const number of touched) {
    const wire = kept[number];
    if (wire !== undefined)
      kept[number] = { ...wire, bridgePorts: wire.bridgePorts.filter((port) => !gone(port)) };
  }
  return { ...fabric, bridgePortsOf, wires: kept, members: new Map() };
}

/**
 * The plan with what is dark taken out, for what can't be cut out of the fabric: gear without VLANs, a cable
 * of several that are one wire.
 */
export function planWithout(index: PlanIndex, { devices, cables }: Dark): PlanIndex {
  const edits = new PlanEdits(index.plan);
  for (const id of devices)
    for (const port of index.portsOf(id)) if (port.enabled) edits.patch("port", port.id, { enabled: false });
  for (const id of cables) edits.remove("link", id);
  const applied = applyChanges(index.plan, edits.changes());
  return PlanIndex.of(must(applied.ok ? applied.value : null, "switching things off always applies"));
}
