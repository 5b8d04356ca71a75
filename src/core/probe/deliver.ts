import { patchGuards, setAccess } from "../planners";
import { nameOf, type PlanIndex, type Port, vid as asVid } from "../plan";
import { classify, dropReason, egressTag } from "../fabric";
import type { Flood } from "../forwarding";
import type { Repair, Subject } from "../repairs";
import type { ProbeRun } from "./run";
import { guardShuts, portOff } from "./gap";
import { passHops, stopOnTheWay, tagText, vlanWords } from "./hops";
import { mendArrival } from "./mend-port";
import { deviceAt, entryOf, type Hearing, type Party, type Place } from "../places";
import type { Cause } from "./step";

/** Adds the steps of a frame's way to where it was heard. */
export function passTo(run: ProbeRun, flood: Flood, hearing: Hearing): void {
  if (!run.showsFirst(flood, hearing)) return;
  if (hearing.arrival >= 0) {
    passHops(run.index, run.journey, { result: flood, arrival: hearing.arrival, lastOut: undefined });
    return;
  }
  const emission = flood.emission(hearing.emission);
  if (emission !== undefined && emission.after >= 0)
    passHops(run.index, run.journey, {
      result: flood,
      arrival: emission.after,
      lastOut: run.fabric.ports[emission.port],
    });
}

/**
 * The port an end device is plugged into does not let it talk: off, shut by a guard, or dropping what it
 * sends. Null when it does.
 */
export function portRefuses(
  run: ProbeRun,
  port: Port,
  {
    tag,
    wanted,
    shut,
  }: { readonly tag: number | null; readonly wanted: number | null; readonly shut: boolean },
): Cause | null {
  const { index } = run;
  if (!port.enabled) return portOff(index, port);
  if (shut) return guardShuts(index, port);
  if (index.plan.device.get(port.device)?.bridging !== "vlan" || classify(port, tag) !== null) return null;
  return {
    sentence: `${nameOf(index, "port", port.id)} drops the frame (${tagText(tag)}): ${dropReason(port, tag)}.`,
    subjects: [{ kind: "port", id: port.id }],
    repairs: wanted === null ? [] : memberRepairs(index, port, tag, wanted),
  };
}

/** Puts a port into the VLAN that what is plugged in belongs to, in the form in which it sends. */
export function memberRepairs(index: PlanIndex, port: Port, tag: number | null, wanted: number): Repair[] {
  const name = vlanWords(index, port.device, wanted);
  const number = asVid(wanted);
  if (number === null) return [];
  if (tag !== null) return mendArrival(index, port, { tag: wanted, vid: wanted, vlanName: name });
  const access: Repair = {
    label: `Make ${nameOf(index, "port", port.id)} an access port in ${name}`,
    planner: "paint-access",
    args: { port: port.id, vid: wanted },
    edit: (edits) => setAccess(edits, [port.id], number),
  };
  return port.tagged.length === 0
    ? [access]
    : [...mendArrival(index, port, { tag: null, vid: wanted, vlanName: name }), access];
}

/** What a finding about somebody points at: the leg of a device, or the host; nothing for a stranger. */
function partySubjects({ leg, host }: Party): Subject[] {
  if (leg !== null) return [{ kind: "interface", id: leg.id }];
  return host === null ? [] : [{ kind: "host", id: host.id }];
}

/**
 * Says why what one sends does not come to the other: where on the way it stops, or what the last port does
 * with it.
 */
export function explain(run: ProbeRun, from: Party, to: Party): void {
  const { index, journey } = run;
  const flood = run.flood(from.place);
  const entry = entryOf(index, flood);
  const start =
    entry === null
      ? { device: deviceAt(index, from.place), port: undefined, tag: null, vid: vidOf(run, from.place) }
      : {
          device: entry.device,
          port: run.fabric.ports[entry.port],
          tag: flood.emission(flood.arrivals[0]?.emission ?? -1)?.tag ?? null,
          vid: entry.vid,
        };
  const goal = deviceAt(index, to.place);
  if (goal !== start.device && stopOnTheWay(run, goal, start)) return;
  const last = keptApart(run, flood, to.place) ?? lastPort(run, to.place, start.vid);
  journey.stop(
    {
      title: to.name,
      place: last === null ? `VLAN ${start.vid}` : nameOf(index, "port", last.port.id),
      says: "does not hear it",
      device: to.leg?.device ?? null,
      ports: last === null ? [] : [last.port.id],
    },
    last?.cause ?? {
      sentence: `${to.name} is not in VLAN ${start.vid}.`,
      subjects: partySubjects(to),
      repairs: [],
    },
  );
}

/** The VLAN of a place as its own port or device sees it. */
function vidOf(run: ProbeRun, place: Place): number {
  if (place.at === "inside") return place.vid;
  const port = run.index.plan.port.get(place.port);
  return (port === undefined ? null : classify(port, place.tag)) ?? 0;
}

/** An isolated port that what came in at another of its switch does not go out at; null where none is. */
function keptApart(run: ProbeRun, { arrivals }: Flood, place: Place): { port: Port; cause: Cause } | null {
  const { index, fabric } = run;
  const port = place.at === "inside" ? undefined : index.plan.port.get(place.port);
  if (port?.guards.isolated !== true) return null;
  const came = arrivals
    .map((arrival) => fabric.ports[arrival.port])
    .find((bridgePort) => bridgePort?.device === port.device && bridgePort.guards.isolated);
  if (came === undefined) return null;
  const name = nameOf(index, "port", port.id);
  return {
    port,
    cause: {
      sentence: `${nameOf(index, "port", came.id)} and ${name} are isolated: they send nothing to one another.`,
      subjects: [
        { kind: "port", id: came.id },
        { kind: "port", id: port.id },
      ],
      repairs: [
        {
          label: `Isolate ${name} no longer`,
          planner: "set-guard",
          args: { port: port.id, guard: "isolated" },
          edit: (edits) => patchGuards(edits, port.id, { isolated: false }),
        },
      ],
    },
  };
}

/** What the port of an end device or a routed leg does with frames of the VLAN that are for it. */
function lastPort(run: ProbeRun, place: Place, vid: number): { port: Port; cause: Cause } | null {
  const { index, fabric } = run;
  if (place.at === "inside") return null;
  const port = fabric.ports[fabric.portNumber.get(place.port) ?? -1];
  if (port === undefined) return null;
  if (!port.enabled) return { port, cause: portOff(index, port) };
  // The bridge port that faces it: its own, or the one at the other end of its cable when it hangs on gear
  // without VLANs or is routed.
  const wire = fabric.wires[fabric.wireOf[fabric.portNumber.get(place.port) ?? -1] ?? -1];
  const facing =
    wire?.bridgePorts
      .map((number) => fabric.ports[number])
      .find((bridgePort) => bridgePort !== undefined && egressTag(bridgePort, vid) !== place.tag) ?? port;
  const tag = egressTag(facing, vid);
  const name = vlanWords(index, facing.device, vid);
  const says =
    tag === undefined
      ? `does not give ${name} to it`
      : `gives it ${name} ${tagText(tag)}, and it wants it ${tagText(place.tag)}`;
  return {
    port: facing,
    cause: {
      sentence: `${nameOf(index, "port", facing.id)} ${says}.`,
      subjects: [{ kind: "port", id: facing.id }],
      repairs: memberRepairs(index, facing, place.tag, vid),
    },
  };
}
