import type { Subject } from "../checks";
import { vid as asVid, type Device, type PlanIndex, type Port } from "../plan";
import { carryOn } from "../planners/carry-vlan";
import { cableWay, classify, dropReason, egressTag, FABRIC, wayTo, type Flood, type Tag } from "../switching";
import type { Journey, Step } from "./step";

export const tagText = (tag: Tag): string => (tag === null ? "untagged" : `tag ${tag}`);

const portSubject = (port: Port | undefined): Subject[] => (port === undefined ? [] : [{ kind: "port", id: port.id }]);

function hopStep(device: Device | undefined, inPort: Port | undefined, outPort: Port | undefined, vid: number, arrived: Tag, left: Tag | undefined): Omit<Step, "passed"> {
  const place = [inPort === undefined ? "" : `${inPort.label} in`, outPort === undefined ? "" : `${outPort.label} out`].filter((t) => t !== "").join(", ");
  const joins = inPort === undefined ? `starts in VLAN ${vid}` : arrived === null ? `untagged: joins ${vid}` : `tag ${arrived}: stays in ${vid}`;
  const goes = outPort === undefined || left === undefined ? "" : left === null ? ", leaves untagged" : `, leaves with tag ${left}`;
  const pvidText = inPort !== undefined && arrived === null ? `${inPort.label} puts untagged frames into VLAN ${vid} (its PVID).` : "";
  const memberText = inPort !== undefined && arrived !== null ? `${inPort.label} carries VLAN ${vid}.` : "";
  return {
    title: device?.name ?? "", place: place === "" ? "inside" : `port ${place}`, says: `${joins}${goes}`,
    why: `${pvidText}${memberText}${outPort === undefined ? "" : ` ${outPort.label} carries VLAN ${vid} ${left === null ? "untagged" : "tagged"}.`}`.trim(),
    tag: left === undefined ? arrived : left, subjects: [...portSubject(inPort), ...portSubject(outPort)], device: device?.id ?? null,
    ports: [inPort, outPort].filter((p) => p !== undefined).map((p) => p.id),
  };
}

/** Adds a step for each device on the way to `arrival`; the last one shows only how the frame came in. */
export function passHops(index: PlanIndex, journey: Journey, result: Flood, arrival: number, lastOut: Port | undefined): void {
  const fabric = index.derived(FABRIC);
  const way = wayTo(result, arrival);
  for (const [i, at] of way.entries()) {
    const next = way[i + 1];
    const outEmission = next === undefined ? undefined : result.emissions[next.emission];
    const out = outEmission === undefined ? lastOut : fabric.ports[outEmission.port];
    const left = outEmission?.tag ?? (outEmission === undefined && lastOut !== undefined ? (egressTag(lastOut, at.vid) ?? null) : outEmission?.tag);
    const arrived = result.emissions[at.emission]?.tag ?? null;
    journey.pass(hopStep(fabric.devices[at.device], fabric.ports[at.port], out, at.vid, arrived, left));
  }
}

/**
 * Follows the frame by cable towards `goal` and stops at the port that drops it or doesn't let it out. False when the whole
 * way carries it, so that the failure has another cause.
 */
export function stopOnTheWay(index: PlanIndex, journey: Journey, from: string, goal: string, startPort: Port | undefined, startTag: Tag, vid: number): boolean {
  const way = cableWay(index, from, goal);
  const goalName = index.plan.device.get(goal)?.name ?? "";
  if (way === null) {
    const here = index.plan.device.get(from);
    journey.stop(
      { ...hopStep(here, startPort, undefined, vid, startTag, undefined), says: `no cable leads from here to ${goalName}` },
      { sentence: `No cable joins ${here?.name ?? "this device"} to ${goalName}.`, subjects: [{ kind: "device", id: from }], repairs: [] },
    );
    return true;
  }
  let inPort = startPort;
  let arrived = startTag;
  let current = vid;
  for (const { near, far } of way) {
    const device = index.plan.device.get(near.device);
    const tag = egressTag(near, current);
    if (tag === undefined) {
      stopAt(index, journey, { ...hopStep(device, inPort, near, current, arrived, undefined), says: `${near.label} does not carry ${current}: not sent` }, near, current, `does not carry it, so the frame never leaves ${device?.name ?? ""}`);
      return true;
    }
    journey.pass(hopStep(device, inPort, near, current, arrived, tag));
    const joined = classify(far, tag);
    if (joined === null) {
      const there = index.plan.device.get(far.device);
      stopAt(index, journey, { ...hopStep(there, far, undefined, current, tag, undefined), says: `${dropReason(far, tag)}: dropped` }, far, current, `the frame arrives ${tagText(tag)} and ${dropReason(far, tag)}`);
      return true;
    }
    inPort = far;
    arrived = tag;
    current = joined;
  }
  if (current !== vid) {
    const last = index.plan.device.get(goal);
    journey.stop(
      { ...hopStep(last, inPort, undefined, current, arrived, undefined), says: `it is in VLAN ${current} by now, not ${vid}` },
      { sentence: `On its way VLAN ${vid} turned into VLAN ${current}: the untagged VLANs at the two ends of a cable differ.`, subjects: portSubject(inPort), repairs: [] },
    );
    return true;
  }
  return false;
}

function carriedText(port: Port): string {
  const tagged = port.tagged.length === 0 ? "no tagged VLAN" : `${port.tagged.join(", ")} tagged`;
  return `${tagged} and ${port.pvid === null ? "nothing" : port.pvid} untagged`;
}

function stopAt(index: PlanIndex, journey: Journey, step: Omit<Step, "passed">, port: Port, vid: number, reason: string): void {
  const device = index.plan.device.get(port.device);
  const vlan = index.vlanOf(device?.domain ?? null, vid);
  const name = vlan === undefined ? `VLAN ${vid}` : `${vlan.name} (${vid})`;
  const number = asVid(vid);
  journey.stop({ ...step, why: `${device?.name ?? ""} port ${port.label} carries ${carriedText(port)}.` }, {
    sentence: `${name} stops at ${device?.name ?? ""} port ${port.label}: ${reason}.`,
    subjects: portSubject(port),
    repairs: number === null ? [] : [{
      label: `Add ${name} to ${device?.name ?? ""} port ${port.label}`, planner: "carry-vlan", args: { vid, ports: [port.id] },
      edit: (draft) => carryOn(draft, [port.id], number),
    }],
  });
}
