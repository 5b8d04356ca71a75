import { formatAddress, type Address, type Family } from "../address";
import {
  nameOf,
  type Device,
  type Forward,
  type Host,
  type Interface,
  type Line,
  type PlanIndex,
  type ProbeGoal,
  type Service,
} from "../plan";
import { openDoor } from "../planners";
import type { Packet } from "../policy";
import type { Repair } from "../repairs";
import { facingAddresses } from "../routing";
import type { ProbeRun } from "./run";
import { answerFrom } from "./exchange";
import { hostAddress } from "./station";
import { comeIn } from "./travel";
import { tripBack, tripOf } from "./trip";

/** Somebody out there (RFC 5737, RFC 3849). */
const SOMEBODY: Readonly<Record<Family, Address>> = {
  4: 0xcb007132 as Address,
  6: (0x20010db8n * 2n ** 96n + 0x32n) as Address,
};

/** A question from the internet at one line. */
interface FromOutside {
  readonly run: ProbeRun;
  readonly line: Line;
  /** Where the line ends; null when it ends at no device. */
  readonly end: { readonly device: Device; readonly leg: Interface } | null;
  readonly family: Family;
  readonly asked: Asked;
}

/** Why a question from outside ends at the line. */
interface Refused {
  readonly says: string;
  readonly sentence: string;
  readonly repairs?: readonly Repair[];
}

/**
 * What somebody on the internet gets when asking this line: a forwarded port, the gateway itself, or nothing.
 */
export function fromOutside(run: ProbeRun, lineId: string, goal: ProbeGoal, family: Family): void {
  const { index, journey } = run;
  const line = index.plan.line.get(lineId);
  if (line === undefined) return;
  const leg = [...index.plan.interface.values()].find((leg) => leg.line === lineId);
  const device = leg === undefined ? undefined : index.plan.device.get(leg.device);
  const end = leg === undefined || device === undefined ? null : { device, leg };
  const question: FromOutside = { run, line, end, family, asked: askedFor(run, line, goal, family) };
  journey.pass({
    title: "Somebody outside",
    place: formatAddress(question.asked.by ?? SOMEBODY[family]),
    says: `asks from the internet, by ${line.name}`,
    subjects: [{ kind: "line", id: line.id }],
  });
  const refused = REFUSALS.reduce<Refused | null>((found, refuses) => found ?? refuses(question), null);
  if (refused !== null) return stopAtLine(question, refused);
  if (end !== null) askInside(question, end);
}

/** What a line itself keeps out, asked in turn; null lets the next one look. */
const REFUSALS: readonly ((question: FromOutside) => Refused | null)[] = [
  ({ end, line }) =>
    end === null ? { says: "ends nowhere", sentence: `${line.name} ends at no device of the plan.` } : null,
  carrierKeepsOut,
  providerBoxKeepsOut,
  ({ family, asked }) =>
    family === 6 && asked.host !== null && asked.address === null
      ? {
          says: "there is no address to ask",
          sentence:
            `${asked.host.name} has no IPv6 address in the plan, so nobody ` +
            "outside can name it by IPv6. Write it into the register.",
        }
      : null,
  (question) =>
    addressAsked(question) === undefined
      ? {
          says: "has no address",
          sentence: `${question.line.name} has no outside IPv${question.family} address in the plan.`,
        }
      : null,
];

const addressAsked = ({ run, end, family, asked }: FromOutside): Address | undefined =>
  asked.address ?? (end === null ? undefined : facingAddresses(run.index, end.leg, family)[0]);

function carrierKeepsOut({ line, family }: FromOutside): Refused | null {
  if (family !== 4 || line.carrierNat !== "yes") return null;
  return {
    says: "nobody can start from outside",
    sentence:
      `${line.name} is behind the provider's carrier-grade NAT: nothing that starts outside ` +
      "comes in, whatever is forwarded here. A tunnel out, another line or IPv6 can do it.",
  };
}

/** Whether the provider's box keeps what comes in by IPv4: it routes, and sends nothing on. */
const boxKeeps = ({ providerBox, boxForwards }: Line): boolean =>
  (providerBox === "routes" || providerBox === "cannotBridge") && !boxForwards;

function providerBoxKeepsOut({ line, family }: FromOutside): Refused | null {
  if (family !== 4 || !boxKeeps(line)) return null;
  const bridge: Repair = {
    label: `Let the provider's box on ${line.name} bridge`,
    planner: "edit-line",
    args: { line: line.id },
    edit: (edits) => edits.patch("line", line.id, { providerBox: "bridges" }),
  };
  const sendsOn: Repair = {
    label: `Let the provider's box on ${line.name} send everything on`,
    planner: "arrange-box",
    args: { line: line.id, arrangement: "inFront" },
    edit: (edits) => edits.patch("line", line.id, { boxForwards: true }),
  };
  return {
    says: "the provider's box keeps it",
    sentence:
      `The provider's box on ${line.name} routes (double ` +
      "NAT): it would have to forward the port as well. " +
      (line.providerBox === "cannotBridge"
        ? "It can't bridge."
        : "Set it to bridge, or forward the port there, too."),
    repairs: [...(line.providerBox === "routes" ? [bridge] : []), sendsOn],
  };
}

function stopAtLine({ run, line, end }: FromOutside, { says, sentence, repairs = [] }: Refused): void {
  const subjects = [{ kind: "line" as const, id: line.id }];
  run.journey.stop(
    { title: line.name, place: "line", says, subjects, device: end?.device.id ?? null },
    { sentence, subjects, repairs },
  );
}

function packetOf(question: FromOutside, dst: Address): Packet {
  const { asked, family } = question;
  const { protocol, ports } = asked.service;
  const isEcho = protocol === "icmp";
  return {
    family,
    protocol,
    src: asked.by ?? SOMEBODY[family],
    dst,
    sport: isEcho ? null : 50_000,
    dport: isEcho ? null : (ports[0]?.[0] ?? 443),
  };
}

/** Lets the question in at the line and the answer out again. */
function askInside(question: FromOutside, end: { readonly device: Device; readonly leg: Interface }): void {
  const { run, line, asked, family } = question;
  const to = addressAsked(question);
  if (to === undefined) return;
  const packet = packetOf(question, to);
  const trip = tripOf(run, asked.service, true);
  const arrived = comeIn(trip, end, packet);
  if (arrived === null) return (family === 6 ? offerDoor : offerForward)(run, line, asked);
  if (arrived.at === "internet")
    return stopAtLine(question, {
      says: "goes back out",
      sentence: "The packet leaves by the line it came in at.",
    });
  const host = arrived.at === "host" ? arrived.party.host : null;
  const name = arrived.at === "host" ? arrived.party.name : arrived.device.name;
  if (asked.host !== null && host?.id !== asked.host.id)
    return stopAtLine(question, {
      says: "is not for it",
      sentence: `What comes in there at port ${packet.dport ?? 0} ends at ${name}, not at ${asked.host.name}.`,
      repairs: forwardRepair(run.index, run, line, asked),
    });
  run.journey.delivered = true;
  run.journey.pass({
    title: name,
    place: formatAddress(arrived.packet.dst),
    says: "hears it",
    tag: null,
    subjects: host === null ? [] : [{ kind: "host", id: host.id }],
    device: arrived.at === "host" ? null : arrived.device.id,
  });
  if (answerFrom(tripBack(trip), arrived) !== null)
    run.journey.pass({
      title: "Somebody outside",
      place: "way back",
      says: "the answer returns",
      why: "What was let in may be answered.",
    });
}

interface Asked {
  readonly host: Host | null;
  readonly service: Service;
  /** The host's own address, which the outside can name with IPv6. */
  readonly address: Address | null;
  /** Somebody whom the forward lets in, where it does not let in everybody; null for anybody. */
  readonly by: Address | null;
}

const WEB: Service = { name: "https", protocol: "tcp", ports: [[443, 443]] };

/** The first whom a forward lets in, of a family; null where that is anybody. */
const letIn = ({ sources }: Pick<Forward, "sources">, family: Family): Address | null =>
  sources.find((prefix) => prefix.family === family)?.network ?? null;

/** What somebody outside asks a host: at the port of its forward, where there is one. */
function askedOfHost(
  run: ProbeRun,
  line: Line,
  goal: Extract<ProbeGoal, { readonly to: "host" }>,
  family: Family,
): Asked {
  const { index } = run;
  const host = index.plan.host.get(goal.host) ?? null;
  const forward = [...index.plan.forward.values()].find(
    (forward) => forward.host === goal.host && forward.line === line.id,
  );
  const service = goal.service ?? (forward === undefined ? WEB : insideOf(forward));
  const inside = host === null ? null : hostAddress(run, host, family);
  return {
    host,
    service:
      family === 4 && forward !== undefined
        ? { ...service, protocol: forward.protocol, ports: [forward.ports] }
        : service,
    address: family === 6 ? inside : null,
    by: forward === undefined || family === 6 ? null : letIn(forward, family),
  };
}

function askedFor(run: ProbeRun, line: Line, goal: ProbeGoal, family: Family): Asked {
  const { index } = run;
  if (goal.to === "forward") {
    const forward = index.plan.forward.get(goal.forward);
    return forward === undefined
      ? { host: null, service: WEB, address: null, by: null }
      : {
          host: index.plan.host.get(forward.host) ?? null,
          service: { name: "forward", protocol: forward.protocol, ports: [forward.ports] },
          address: null,
          by: letIn(forward, family),
        };
  }
  if (goal.to === "host") return askedOfHost(run, line, goal, family);
  const service = goal.to === "address" ? null : goal.service;
  return { host: null, service: service ?? WEB, address: null, by: null };
}

/** What is asked of a forward's host by who needs no forward: the port inside. */
function insideOf({ protocol, ports, toPort }: Forward): Service {
  const [low, high] = toPort === null ? ports : [toPort, toPort];
  return { name: `${protocol} ${low}`, protocol, ports: [[low, high]] };
}

const isPortService = (service: Service): service is Service & { protocol: "tcp" | "udp" } =>
  service.protocol !== "icmp" && service.ports.length > 0;

function forwardRepair(index: PlanIndex, run: ProbeRun, line: Line, { host, service }: Asked): Repair[] {
  if (host === null || !isPortService(service)) return [];
  const { protocol, ports } = service;
  const first = ports[0] ?? [443, 443];
  return [
    {
      label:
        `Forward ${protocol.toUpperCase()} ${first[0]} on ` +
        `${line.name} to ${nameOf(index, "host", host.id)}`,
      planner: "add-forward",
      args: { line: line.id, host: host.id },
      edit: (edits) => {
        edits.put("forward", {
          id: run.ids(),
          name: `${service.name} to ${host.name}`.slice(0, 80),
          line: line.id,
          protocol,
          ports: [...first],
          host: host.id,
          sources: [],
          until: null,
          toPort: null,
          hairpin: false,
        });
      },
    },
  ];
}

/** By IPv6 nothing is forwarded: the host is asked by its own address, and the wall needs a door for it. */
function offerDoor(run: ProbeRun, _line: Line, { host, service }: Asked): void {
  const { journey, index } = run;
  const { cause } = journey;
  const last = journey.steps.pop();
  if (cause === null || last === undefined) return;
  const segment = host?.segment === null || host === null ? undefined : index.plan.segment.get(host.segment);
  const isWall = last.title === "Wall";
  const repairs: Repair[] =
    segment === undefined || !isWall
      ? []
      : [
          {
            label: `Open ${service.name} from the internet to ${nameOf(index, "zone", segment.zone)}`,
            planner: "open-door",
            args: { service: service.name, zone: segment.zone },
            edit: (edits) =>
              openDoor(edits, run.ids, {
                from: { at: "internet" },
                to: { at: "zone", zone: segment.zone },
                service,
              }),
          },
        ];
  journey.stop(last, { ...cause, repairs: [...cause.repairs, ...repairs] });
}

function offerForward(run: ProbeRun, line: Line, asked: Asked): void {
  const { journey } = run;
  const { cause } = journey;
  const last = journey.steps.pop();
  if (cause === null || last === undefined) return;
  const repairs = [...cause.repairs, ...forwardRepair(run.index, run, line, asked)];
  journey.stop(last, {
    ...cause,
    sentence:
      asked.host === null
        ? cause.sentence
        : `Nothing is forwarded to ${asked.host.name} from ${line.name}. ${cause.sentence}`,
    repairs,
  });
}
