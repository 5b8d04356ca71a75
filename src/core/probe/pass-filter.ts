import { formatAddress } from "../address";
import { keepsState, nameOf, type Device, type Segment, type Service } from "../plan";
import { openDoor } from "../planners";
import {
  decide,
  endOf,
  FOUND_LISTS,
  type FoundList,
  INTERNET,
  judge,
  networkOfSegment,
  wallRulesAt,
  type Network,
  type Packet,
  type WallSide,
} from "../policy";
import { capital, type Repair, type Subject } from "../repairs";
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
  readonly subject: Subject | null;
}

/** The filter of a gateway; false after a stop. */
export function passFilter(trip: Trip, at: AtFilter, to: WallSide): boolean {
  const { run, shows } = trip;
  const standing = standingAt(run, at.device);
  if (at.isAnswer && keepsState(at.device)) {
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
  const service = trip.service ?? serviceOf(at.packet);
  const crossing = { device: at.device, from, to, service };
  const verdict =
    standing === null
      ? verdictOfWalls(trip, at.packet, crossing)
      : verdictOfList(trip, standing, at.packet, crossing);
  if (!verdict.accepts) {
    stopAtWall(trip, { ...crossing, ...verdict });
    return false;
  }
  if (shows)
    run.journey.pass({
      title: "Wall",
      place: `${sideWords(from)} to ${sideWords(to)}`,
      says: "lets it through",
      why: verdict.reason,
      subjects: verdict.subject === null ? [] : [verdict.subject],
    });
  return true;
}

/** The list that stands on a device, where it filters by that; null: by what its walls need. */
const standingAt = ({ index }: Trip["run"], { id, filter }: Device): FoundList | null =>
  filter.list === "found" ? (index.derived(FOUND_LISTS).get(id) ?? null) : null;

/** What a filter does with a packet, and why. */
interface FilterVerdict {
  readonly accepts: boolean;
  readonly reason: string;
  /** The wall or the rule that decides; null where none is named. */
  readonly subject: Subject | null;
}

const isWithin = ({ from, to }: Pick<Crossing, "from" | "to">): boolean =>
  typeof from !== "string" && typeof to !== "string" && from.id === to.id;

/** What the walls say; within one segment nothing is asked. */
function verdictOfWalls(
  { run }: Trip,
  packet: Packet,
  crossing: Pick<Crossing, "device" | "from" | "to" | "service">,
): FilterVerdict {
  const { device, from, to, service } = crossing;
  const rules = wallRulesAt(run.index, device);
  const { action, by } = judge(rules, { from: networkOf(from), to: networkOf(to), packet });
  const rule = typeof by === "number" ? rules.rules[by] : undefined;
  const wall = rule?.wall ?? null;
  const own = rule !== undefined && wall === null && !isWithin(crossing);
  return {
    accepts: isWithin(crossing) || action === "accept",
    reason: own ? `${capital(rule.why)}.` : decide(run.index, from, to, service).reason,
    subject: wall === null ? null : { kind: "wall", id: wall.id },
  };
}

/** What the list that stands on the device says, by the number that its rule has there. */
function verdictOfList(
  { run }: Trip,
  standing: FoundList,
  packet: Packet,
  crossing: Pick<Crossing, "device" | "from" | "to">,
): FilterVerdict {
  const { device, from, to } = crossing;
  const { action, by } = judge(standing, { from: networkOf(from), to: networkOf(to), packet });
  const rule = typeof by === "number" ? standing.rules[by]?.rule : undefined;
  const accepts = isWithin(crossing) || action === "accept";
  if (rule === undefined)
    return {
      accepts,
      reason:
        `No rule of the list that stands on ${device.name} takes it; ` +
        `what none takes is ${accepts ? "let through" : PAST[action]}.`,
      subject: null,
    };
  const name = nameOf(run.index, "rule", rule.id);
  const note = rule.note === "" ? "" : ` (${rule.note})`;
  return {
    accepts,
    reason: `${capital(name)}${note} ${DOES[action]}.`,
    subject: { kind: "rule", id: rule.id },
  };
}

const DOES = { accept: "lets it through", drop: "drops it", reject: "rejects it" } as const;
const PAST = { accept: "let through", drop: "dropped", reject: "rejected" } as const;

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
  const { device, from, to, service, reason, subject } = crossing;
  const { wall } = decide(trip.run.index, from, to, service);
  const isBetween = typeof to !== "string" && typeof from !== "string";
  const zone = isBetween ? [zoneOf(to)] : [];
  const named = wall === null ? zone : [{ kind: "wall" as const, id: wall.id }];
  const byList = device.filter.list === "found";
  trip.run.journey.stop(
    {
      title: "Wall",
      place: `${sideWords(from)} to ${sideWords(to)}`,
      says: "closed",
      why: reason,
      subjects: byList ? listSubjects(device, subject) : named,
    },
    byList ? listCause(trip, crossing) : wallCause(trip, crossing, wall?.id ?? null),
  );
}

const listSubjects = (device: Device, subject: Subject | null): readonly Subject[] => [
  subject ?? { kind: "device", id: device.id },
];

/** A list that stands on a device closes what the walls open, or does as they say. */
function listCause({ run }: Trip, { device, from, to, service, reason, subject }: Crossing): Cause {
  const intended = decide(run.index, from, to, service);
  return {
    sentence: intended.passes
      ? `${reason} The walls mean it to pass: ${intended.reason}`
      : `${reason} That is what the walls mean, too.`,
    subjects: listSubjects(device, subject),
    repairs: intended.passes ? [byWalls(device)] : [],
  };
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

/** The device filters by the rules that its walls need; the list that stands on it stays in the plan. */
const byWalls = (device: Device): Repair => ({
  label: `Let ${device.name} filter by the rules that its walls need`,
  planner: "filter-by",
  args: { device: device.id, list: "planned" },
  edit: (edits) => {
    edits.patch("device", device.id, { filter: { ...device.filter, list: "planned" } });
  },
});

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
