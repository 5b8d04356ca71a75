import { formatAddress } from "../address";
import type { Device, Segment, Service } from "../plan";
import { openDoor } from "../planners";
import {
  decide,
  endOf,
  INTERNET,
  judge,
  networkOfSegment,
  WALL_RULES,
  type Network,
  type Packet,
  type WallSide,
} from "../policy";
import type { Repair, Subject } from "../repairs";
import type { Cause } from "./step";
import { PROTOCOL_WORDS, type AtLeg, type Trip } from "./trip";
import { fromParty, segmentName } from "./whose-traffic";

/** A packet at a gateway's filter: where it comes in, and what it asks. */
export interface AtFilter extends AtLeg {
  readonly packet: Packet;
  /** Whether it answers what the filter has let through. */
  readonly isAnswer: boolean;
}

/** A packet between two sides of a gateway's walls. */
interface Crossing {
  readonly device: Device;
  readonly from: WallSide;
  readonly to: WallSide;
  readonly service: Service;
  readonly reason: string;
}

/** The filter of a gateway; false after a stop. */
export function passFilter(trip: Trip, at: AtFilter, to: WallSide): boolean {
  const { run, shows } = trip;
  if (at.isAnswer) {
    if (shows)
      run.journey.pass({
        title: "Wall",
        place: at.device.name,
        says: "the answer passes",
        why: "What was let through may be answered.",
        device: at.device.id,
      });
    return true;
  }
  const from = fromParty(run, at, at.packet);
  if (from === null) {
    notBelieved(trip, at);
    return false;
  }
  const { accepts, rule } = verdictOn(trip, at.packet, from, to);
  const service = trip.service ?? serviceOf(at.packet);
  const reason =
    rule !== undefined && rule.wall === null
      ? `${rule.why[0]?.toUpperCase() ?? ""}${rule.why.slice(1)}.`
      : decide(run.index, from, to, service).reason;
  if (!accepts) {
    stopAtWall(trip, { device: at.device, from, to, service, reason });
    return false;
  }
  if (shows)
    run.journey.pass({
      title: "Wall",
      place: `${sideWords(from)} to ${sideWords(to)}`,
      says: "lets it through",
      why: reason,
      subjects: rule === undefined || rule.wall === null ? [] : [{ kind: "wall", id: rule.wall.id }],
    });
  return true;
}

/** What the list of rules says, and which rule; within one segment nothing is asked. */
function verdictOn({ run }: Trip, packet: Packet, from: WallSide, to: WallSide) {
  if (typeof from !== "string" && typeof to !== "string" && from.id === to.id)
    return { accepts: true, rule: undefined };
  const rules = run.index.derived(WALL_RULES);
  const { action, by } = judge(rules, { from: networkOf(from), to: networkOf(to), packet });
  return { accepts: action === "accept", rule: typeof by === "number" ? rules.rules[by] : undefined };
}

function networkOf(side: WallSide): Network | "router" {
  if (side === "internet") return INTERNET;
  return side === "gateway" ? "router" : networkOfSegment(side);
}

function sideWords(side: WallSide): string {
  if (side === "internet") return "the internet";
  return side === "gateway" ? "the gateway" : side.name;
}

/** A packet's own protocol and port, where nothing is said of the service. */
const serviceOf = ({ protocol, dport }: Packet): Service => ({
  name: PROTOCOL_WORDS[protocol],
  protocol,
  ports: dport === null ? [] : [[dport, dport]],
});

function notBelieved({ run }: Trip, { device, leg, packet }: AtFilter): void {
  const name = segmentName(run, leg);
  const subjects = [{ kind: "interface" as const, id: leg.id }];
  run.journey.stop(
    {
      title: device.name,
      place: `${formatAddress(packet.src)} at ${name}`,
      says: "source address is on the wrong interface (RFC 3704)",
      why: "Answers to that address would leave by another leg.",
      subjects,
      device: device.id,
    },
    {
      sentence:
        `${device.name} drops the packet: ${formatAddress(packet.src)} ` +
        `does not belong in ${name}, where it comes in.`,
      subjects,
      repairs: [],
    },
  );
}

const zoneOf = (segment: Segment): Subject => ({ kind: "zone", id: segment.zone });

function stopAtWall(trip: Trip, crossing: Crossing): void {
  const { from, to, service, reason } = crossing;
  const { wall } = decide(trip.run.index, from, to, service);
  const isBetween = typeof to !== "string" && typeof from !== "string";
  const zone = isBetween ? [zoneOf(to)] : [];
  trip.run.journey.stop(
    {
      title: "Wall",
      place: `${sideWords(from)} to ${sideWords(to)}`,
      says: "closed",
      why: reason,
      subjects: wall === null ? zone : [{ kind: "wall", id: wall.id }],
    },
    wallCause(trip, crossing, wall?.id ?? null),
  );
}

function wallCause(trip: Trip, { device, from, to, service, reason }: Crossing, wall: string | null): Cause {
  const zones = [from, to].flatMap((side) => (typeof side === "string" ? [] : [zoneOf(side)]));
  const subjects: readonly Subject[] = wall === null ? zones : [{ kind: "wall", id: wall }];
  if (trip.answers !== null)
    return {
      sentence:
        `The answer comes back through ${device.name}, which did ` +
        `not see the question and takes it for a new one: ${reason}`,
      subjects: [...subjects, { kind: "device", id: device.id }],
      repairs: [],
    };
  return {
    sentence: `${reason} If that is what you want, the wall does its job.`,
    subjects,
    repairs: typeof from === "string" ? [] : [doorRepair(trip, from, to, service)],
  };
}

function doorRepair({ run }: Trip, from: Segment, to: WallSide, service: Service): Repair {
  return {
    label: `Open ${service.name} from ${from.name} to ${sideWords(to)}`,
    planner: "open-door",
    args: { service: service.name },
    edit: (edits) => {
      if (typeof to !== "string" && to.zone === from.zone)
        edits.patch("zone", from.zone, { insideOpen: true });
      else
        openDoor(edits, run.ids, {
          from: endOf(from),
          to: endOf(to),
          service: {
            ...service,
            name: service.name.toLowerCase(),
          },
        });
    },
  };
}
