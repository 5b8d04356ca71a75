import type { Subject } from "../repairs";
import { nameOf, type Device, type PlanIndex, type Port } from "../plan";
import { cableWay, wayTo, type Flood } from "../forwarding";
import { classify, dropReason, egressTag, FABRIC, type Tag } from "../fabric";
import type { ProbeRun } from "./run";
import { gapBetween } from "./gap";
import { mendArrival } from "./mend-port";
import type { Cause, Journey, Told } from "./step";

export const tagText = (tag: Tag): string => (tag === null ? "untagged" : `tag ${tag}`);

const portSubject = (port: Port | undefined): Subject[] =>
  port === undefined ? [] : [{ kind: "port", id: port.id }];

// eslint-disable-next-line complexity -- in and out, each with or without a port and a tag
function hopStep(
  device: Device | undefined,
  {
    inPort,
    outPort,
    vid,
    arrived,
    left,
  }: {
    readonly inPort: Port | undefined;
    readonly outPort: Port | undefined;
    readonly vid: number;
    readonly arrived: Tag;
    readonly left: Tag | undefined;
  },
): Told {
  const place = [
    inPort === undefined ? "" : `${inPort.label} in`,
    outPort === undefined ? "" : `${outPort.label} out`,
  ]
    .filter((t) => t !== "")
    .join(", ");
  const stays = arrived === null ? `untagged: joins ${vid}` : `tag ${arrived}: stays in ${vid}`;
  const joins = inPort === undefined ? `starts in VLAN ${vid}` : stays;
  const tagged = left === null ? ", leaves untagged" : `, leaves with tag ${left}`;
  const goes = outPort === undefined || left === undefined ? "" : tagged;
  const pvidText =
    inPort !== undefined && arrived === null
      ? `${inPort.label} puts untagged frames into VLAN ${vid} (its PVID).`
      : "";
  const memberText = inPort !== undefined && arrived !== null ? `${inPort.label} carries VLAN ${vid}.` : "";
  const leaves =
    outPort === undefined
      ? ""
      : ` ${outPort.label} carries VLAN ${vid} ${left === null ? "untagged" : "tagged"}.`;
  return {
    title: device?.name ?? "",
    place: place === "" ? "inside" : `port ${place}`,
    says: `${joins}${goes}`,
    why: `${pvidText}${memberText}${leaves}`.trim(),
    tag: left === undefined ? arrived : left,
    subjects: [...portSubject(inPort), ...portSubject(outPort)],
    device: device?.id ?? null,
    ports: [inPort, outPort].filter((p) => p !== undefined).map((p) => p.id),
  };
}

/** Adds a step for each device on the way to `arrival`; the last one shows only how the frame came in. */
export function passHops(
  index: PlanIndex,
  journey: Journey,
  {
    result,
    arrival,
    lastOut,
  }: { readonly result: Flood; readonly arrival: number; readonly lastOut: Port | undefined },
): void {
  const fabric = index.derived(FABRIC);
  const way = wayTo(result, arrival);
  for (const [i, at] of way.entries()) {
    const next = way[i + 1];
    const outEmission = next === undefined ? undefined : result.emission(next.emission);
    const out = outEmission === undefined ? lastOut : fabric.ports[outEmission.port];
    const left =
      outEmission?.tag ??
      (outEmission === undefined && lastOut !== undefined
        ? (egressTag(lastOut, at.vid) ?? null)
        : outEmission?.tag);
    const arrived = result.emission(at.emission)?.tag ?? null;
    journey.pass(
      hopStep(fabric.devices[at.device], {
        inPort: fabric.ports[at.port],
        outPort: out,
        vid: at.vid,
        arrived,
        left,
      }),
    );
  }
}

/**
 * Follows the frame by cable towards `goal` and stops at the port that drops it or doesn't let it out. False
 * when the whole way carries it, so that the failure has another cause.
 */
// eslint-disable-next-line max-lines-per-function -- one step after the other along the way, each with its stop
export function stopOnTheWay(
  run: ProbeRun,
  goal: string,
  start: {
    readonly device: string;
    readonly port: Port | undefined;
    readonly tag: Tag;
    readonly vid: number;
  },
): boolean {
  const { index, journey } = run;
  const way = cableWay(index, start.device, goal, start.vid);
  const goalName = index.plan.device.get(goal)?.name ?? "";
  if (way === null) {
    const here = index.plan.device.get(start.device);
    const gap = gapBetween(index, start.device, goal, { vid: start.vid, ids: run.ids });
    journey.stop(
      {
        ...hopStep(here, {
          inPort: start.port,
          outPort: undefined,
          vid: start.vid,
          arrived: start.tag,
          left: undefined,
        }),
        says: `no way by cable leads from here to ${goalName}`,
      },
      gap ?? {
        sentence: `No cable joins ${here?.name ?? "this device"} to ${goalName}.`,
        subjects: [{ kind: "device", id: start.device }],
        repairs: [],
      },
    );
    return true;
  }
  let inPort = start.port;
  let arrived = start.tag;
  let current = start.vid;
  for (const { near, far } of way) {
    const device = index.plan.device.get(near.device);
    const tag = egressTag(near, current);
    if (tag === undefined) {
      stopAt(
        index,
        journey,
        {
          ...hopStep(device, { inPort, outPort: near, vid: current, arrived, left: undefined }),
          says: `${near.label} does not carry ${current}: not sent`,
        },
        {
          port: near,
          vid: current,
          tag: current,
          reason: `does not carry it, so the frame never leaves ${device?.name ?? ""}`,
        },
      );
      return true;
    }
    journey.pass(hopStep(device, { inPort, outPort: near, vid: current, arrived, left: tag }));
    const joined = classify(far, tag);
    if (joined === null) {
      const there = index.plan.device.get(far.device);
      stopAt(
        index,
        journey,
        {
          ...hopStep(there, { inPort: far, outPort: undefined, vid: current, arrived: tag, left: undefined }),
          says: `${dropReason(far, tag)}: dropped`,
        },
        {
          port: far,
          vid: current,
          tag,
          reason: `the frame arrives ${tagText(tag)} and ${dropReason(far, tag)}`,
        },
      );
      return true;
    }
    if (joined !== current) {
      turnedInto(
        index,
        journey,
        {
          ...hopStep(index.plan.device.get(far.device), {
            inPort: far,
            outPort: undefined,
            vid: joined,
            arrived: tag,
            left: undefined,
          }),
          says: `it is in VLAN ${joined} from here, not ${current}`,
        },
        { near, far, vid: current, joined },
      );
      return true;
    }
    inPort = far;
    arrived = tag;
    current = joined;
  }
  return false;
}

/** The untagged VLANs at the two ends of a cable differ: either end can be set to what the other has. */
function turnedInto(
  index: PlanIndex,
  journey: Journey,
  step: Told,
  {
    near,
    far,
    vid,
    joined,
  }: { readonly near: Port; readonly far: Port; readonly vid: number; readonly joined: number },
): void {
  journey.stop(step, crossing(index, { near, far, vid, joined }));
}

/** A VLAN that turns into another on a cable, as a cause. */
export function crossing(
  index: PlanIndex,
  {
    near,
    far,
    vid,
    joined,
  }: { readonly near: Port; readonly far: Port; readonly vid: number; readonly joined: number },
): Cause {
  const untag = (port: Port, to: number) =>
    mendArrival(index, port, { tag: null, vid: to, vlanName: vlanWords(index, port.device, to) });
  return {
    sentence:
      `VLAN ${vid} leaves ${nameOf(index, "port", near.id)} untagged and turns into VLAN ` +
      `${joined} at ${nameOf(index, "port", far.id)}: the untagged VLANs at the two ends differ.`,
    subjects: [...portSubject(near), ...portSubject(far)],
    repairs: [...untag(far, vid), ...untag(near, joined)],
  };
}

function carriedText(port: Port): string {
  const tagged = port.tagged.length === 0 ? "no tagged VLAN" : `${port.tagged.join(", ")} tagged`;
  return `${tagged} and ${port.pvid === null ? "nothing" : port.pvid} untagged`;
}

/** "Imaging (40)", or "VLAN 40" where the number has no name. */
export function vlanWords(index: PlanIndex, device: string, vid: number): string {
  const vlan = index.vlanOf(index.plan.device.get(device)?.domain ?? null, vid);
  return vlan === undefined ? `VLAN ${vid}` : `${vlan.name} (${vlan.vid})`;
}

function stopAt(
  index: PlanIndex,
  journey: Journey,
  step: Told,
  {
    port,
    vid,
    tag,
    reason,
  }: { readonly port: Port; readonly vid: number; readonly tag: Tag; readonly reason: string },
): void {
  const device = index.plan.device.get(port.device);
  const name = vlanWords(index, port.device, vid);
  journey.stop(
    { ...step, why: `${device?.name ?? ""} port ${port.label} carries ${carriedText(port)}.` },
    {
      sentence: `${name} stops at ${device?.name ?? ""} port ${port.label}: ${reason}.`,
      subjects: portSubject(port),
      repairs: mendArrival(index, port, { tag, vid, vlanName: name }),
    },
  );
}
