import { formatAddress } from "../address";
import { type Device, isGateway, type Line, nameOf, type Segment, segmentHolding } from "../plan";
import type { Packet } from "../policy";
import type { Repair, Subject } from "../repairs";
import { forwardsPackets } from "../routing";
import { keptInside } from "./choose-route";
import type { ProbeRun } from "./run";
import { portOff } from "./gap";
import { deviceName, subjectOf } from "./resolve";
import type { Station } from "./station";

// Why a packet gets no further, where no wall and no cable is the reason.

/** An end device that has nobody to send to what is not next door. */
export function noGateway(run: ProbeRun, { party, segment }: Station): void {
  const name = segment?.name ?? "its segment";
  const subjects = segment === null ? subjectOf(party) : [{ kind: "segment" as const, id: segment.id }];
  run.journey.stop(
    {
      title: name,
      place: "gateway",
      says: "has no gateway to send to",
      subjects,
    },
    {
      sentence: `${segment === null ? party.name : name} has no gateway, so nothing leaves the segment.`,
      subjects,
      repairs: segment === null ? [] : gatewayRepairs(run, segment),
    },
  );
}

/** Names a leg in the segment as its gateway: one of a device that routes. */
function gatewayRepairs(run: ProbeRun, segment: Segment): Repair[] {
  return run.index
    .interfacesIn(segment.id)
    .filter((leg) => {
      const device = run.index.plan.device.get(leg.device);
      return (
        device !== undefined && forwardsPackets(device) && leg.addresses4.length + leg.addresses6.length > 0
      );
    })
    .map((leg) => ({
      label: `Let ${deviceName(run, leg.device)} be the gateway of ${segment.name}`,
      planner: "set-gateway",
      args: { segment: segment.id, leg: leg.id },
      edit: (edits) => edits.patch("segment", segment.id, { gatewayInterface: leg.id }),
    }));
}

/** What is pinned to a line that is down, and may not go by another. */
function keptByPin({ index, journey }: ProbeRun, device: Device, line: string): void {
  const name = nameOf(index, "line", line);
  const subjects = [{ kind: "line" as const, id: line }];
  journey.stop(
    {
      title: device.name,
      place: "line",
      says: `keeps it for ${name}, which is down`,
      subjects,
      device: device.id,
    },
    {
      sentence: `${name} does not work, and what is pinned to it may not go out by another line.`,
      subjects,
      repairs: [],
    },
  );
}

/** A device that knows no way for a packet. */
export function noRoute(run: ProbeRun, device: Device, packet: Packet): void {
  const to = packet.dst;
  const line = keptInside(run, device, packet);
  if (line !== null) return keptByPin(run, device, line);
  if (isGateway(device) && segmentHolding(run.index.plan, to) === null) return noLine(run, device);
  const subjects = [{ kind: "device" as const, id: device.id }];
  const own: Repair[] =
    device.defaultRoute === "none"
      ? [
          {
            label: `Give ${device.name} the gateway of its management segment`,
            planner: "set-default-route",
            args: { device: device.id },
            edit: (edits) => edits.patch("device", device.id, { defaultRoute: "asSegment" }),
          },
        ]
      : [];
  run.journey.stop(
    {
      title: device.name,
      place: "route",
      says: `has no way to ${formatAddress(to)}`,
      why:
        device.defaultRoute === "none"
          ? "It has no default gateway."
          : "No segment, route or line of it leads there.",
      subjects,
      device: device.id,
    },
    {
      sentence:
        device.defaultRoute === "none"
          ? `${device.name} has no default gateway: it hears what comes from other segments and cannot answer.`
          : `${device.name} has no route to ${formatAddress(to)}.`,
      subjects,
      repairs: own,
    },
  );
}

/** A line without an IPv6 address. */
export function noLine6({ journey }: ProbeRun, device: Device, line: Line): void {
  const subjects = [{ kind: "line" as const, id: line.id }];
  journey.stop(
    {
      title: line.name,
      place: "line",
      says: "has no IPv6",
      subjects,
      device: device.id,
    },
    {
      sentence: `${device.name} has no IPv6 address on ${line.name}, so nothing leaves by IPv6.`,
      subjects,
      repairs: [],
    },
  );
}

/** A gateway without a working line: its port is off, or there is none. */
function noLine(run: ProbeRun, device: Device): void {
  const { index, journey } = run;
  const off = index
    .interfacesOf(device.id)
    .flatMap((leg) => (leg.line === null ? [] : (index.plan.port.get(leg.port ?? "") ?? [])))
    .find((port) => !port.enabled);
  const subjects = [{ kind: "device" as const, id: device.id }];
  journey.stop(
    {
      title: device.name,
      place: "line",
      says: "has no internet line that works",
      subjects,
      device: device.id,
      ports: off === undefined ? [] : [off.id],
    },
    off === undefined
      ? {
          sentence:
            `${device.name} has no leg on an internet line. ` + "Add the line and its interface on Hardware.",
          subjects,
          repairs: [],
        }
      : portOff(index, off),
  );
}

/** Something that gets a packet for somebody else and keeps it. */
export function notARouter(
  run: ProbeRun,
  { name, subjects }: { readonly name: string; readonly subjects: readonly Subject[] },
  packet: Packet,
): void {
  run.journey.stop(
    {
      title: name,
      place: "route",
      says: "does not send it on",
      why: "It is no router.",
      subjects,
    },
    {
      sentence:
        `${name} gets a packet for ${formatAddress(packet.dst)} ` +
        "and does not send it on: it is no router.",
      subjects,
      repairs: [],
    },
  );
}

export const MOST_HOPS = 16;

/** Routers that send a packet to one another without an end. */
export function goesRound({ journey }: ProbeRun, device: Device): void {
  const subjects = [{ kind: "device" as const, id: device.id }];
  journey.stop(
    {
      title: device.name,
      place: "route",
      says: "sends it round and round",
      why: "Each router on the way takes the next one for nearer.",
      subjects,
      device: device.id,
    },
    {
      sentence:
        `The packet goes round: after ${MOST_HOPS} routers it is at ` +
        `${device.name} again. A route entered by hand leads back.`,
      subjects,
      repairs: [],
    },
  );
}
