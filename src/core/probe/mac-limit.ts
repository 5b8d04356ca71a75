import { patchGuards } from "../planners";
import { byNaturalText } from "../kernel";
import type { PlanEdits, Host, Port } from "../plan";
import type { ProbeRun } from "./run";
import type { Cause } from "./step";

/**
 * Everybody whose frames come to a port's wire, in the order in which they are counted: what is plugged in,
 * then what is behind it, each by name.
 */
export function hostsOnWire({ index, fabric }: ProbeRun, port: Port): Host[] {
  const wire = fabric.wires[fabric.wireOf[fabric.portNumber.get(port.id) ?? -1] ?? -1];
  const near = (wire?.hosts ?? [])
    .flatMap((id) => index.plan.host.get(id) ?? [])
    .sort(
      (a, b) =>
        Number(a.attachment.at === "behind") - Number(b.attachment.at === "behind") ||
        byNaturalText(a.name, b.name),
    );
  const behind = near.flatMap(({ id }) => index.groups("hostsByHost").get(id) ?? []);
  return [
    ...near,
    ...behind
      .filter((host) => !near.some(({ id }) => id === host.id))
      .sort((a, b) => byNaturalText(a.name, b.name)),
  ];
}

/**
 * The ports of gear that knows VLANs which a frame from this port's wire has to pass first: the port itself,
 * or those that face a switch without VLANs.
 */
function facing({ fabric }: ProbeRun, port: Port): Port[] {
  const wire = fabric.wires[fabric.wireOf[fabric.portNumber.get(port.id) ?? -1] ?? -1];
  return (wire?.bridgePorts ?? []).flatMap((number) => fabric.ports[number] ?? []);
}

/**
 * A port that takes a number of MAC addresses only, with no room for this host (null: something that is in no
 * register); null where there is room.
 */
export function macLimitStops(run: ProbeRun, at: Port, host: Host | null, more = 1): Cause | null {
  const { index } = run;
  for (const port of facing(run, at)) {
    const limit = port.guards.macLimit;
    if (limit === null) continue;
    const there = hostsOnWire(run, port);
    const place = host === null ? more : there.findIndex((other) => other.id === host.id) + 1;
    if (place <= limit) continue;
    const needed = Math.max(place, there.length);
    return {
      sentence:
        `${index.plan.device.get(port.device)?.name ?? ""} port ${port.label} ` +
        `takes ${limit === 1 ? "one MAC address" : `${limit} MAC addresses`} ` +
        `at once, and ${host?.name ?? "this"} is number ${place} there.`,
      subjects: [{ kind: "port", id: port.id }],
      repairs: [
        {
          label: `Let it take ${needed}`,
          planner: "set-mac-limit",
          args: { port: port.id, limit: needed },
          edit: (edits: PlanEdits) => patchGuards(edits, port.id, { macLimit: needed }),
        },
      ],
    };
  }
  return null;
}
