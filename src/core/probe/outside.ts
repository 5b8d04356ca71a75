import { formatAddress, type Address, type Family } from "../address";
import type { Repair } from "../checks/check";
import { nameOf, type Host, type Line, type PlanIndex, type ProbeGoal, type Service } from "../plan";
import { openDoor } from "../planners/set-wall";
import { answerTo } from "../policy";
import { facingAddresses } from "../routing";
import type { ProbeBench } from "./bench";
import {
  comeIn,
  hostAddress,
  stationOf,
  travel,
  travelFromDevice,
  type Conversation,
  type Topic,
} from "./travel";

/** Somebody out there (RFC 5737, RFC 3849). */
const SOMEBODY: Readonly<Record<Family, Address>> = {
  4: 0xcb007132 as Address,
  6: (0x20010db8n * 2n ** 96n + 0x32n) as Address,
};

/** What somebody on the internet gets when asking this line: a forwarded port, the gateway itself, or nothing. */
export function fromOutside(bench: ProbeBench, lineId: string, goal: ProbeGoal, family: Family): void {
  const { index, journey } = bench;
  const line = index.plan.line.get(lineId);
  const leg = [...index.plan.interface.values()].find((one) => one.line === lineId);
  const device = leg === undefined ? undefined : index.plan.device.get(leg.device);
  if (line === undefined) return;
  const subjects = [{ kind: "line" as const, id: line.id }];
  const stop = (says: string, sentence: string, repairs: readonly Repair[] = []) =>
    journey.stop(
      {
        title: line.name,
        place: "line",
        says,
        why: "",
        tag: undefined,
        subjects,
        device: device?.id ?? null,
        ports: [],
      },
      { sentence, subjects, repairs },
    );
  journey.pass({
    title: "Somebody outside",
    place: formatAddress(SOMEBODY[family]),
    says: `asks from the internet, by ${line.name}`,
    why: "",
    tag: undefined,
    subjects,
    device: null,
    ports: [],
  });
  if (leg === undefined || device === undefined)
    return stop("ends nowhere", `${line.name} ends at no device of the plan.`);
  if (family === 4 && line.carrierNat === "yes")
    return stop(
      "nobody can start from outside",
      `${line.name} is behind the provider's carrier-grade NAT: nothing that starts outside comes in, whatever is forwarded here. A tunnel out, another line or IPv6 can do it.`,
    );
  if (family === 4 && line.providerBox !== "none" && line.providerBox !== "bridges")
    return stop(
      "the provider's box keeps it",
      `The provider's box on ${line.name} routes (double NAT): it would have to forward the port as well. ${line.providerBox === "cannotBridge" ? "It can't bridge." : "Set it to bridge, or forward the port there, too."}`,
      line.providerBox === "routes"
        ? [
            {
              label: `Let the provider's box on ${line.name} bridge`,
              planner: "edit-line",
              args: { line: line.id },
              edit: (draft) => draft.patch("line", line.id, { providerBox: "bridges" }),
            },
          ]
        : [],
    );
  const asked = askedFor(bench, line, goal, family);
  if (family === 6 && asked.host !== null && asked.address === null) {
    return stop(
      "there is no address to ask",
      `${asked.host.name} has no IPv6 address in the plan, so nobody outside can name it by IPv6. Write it into the register.`,
    );
  }
  const to = asked.address ?? facingAddresses(index, leg, family)[0];
  if (to === undefined)
    return stop(
      "has no address",
      `${line.name} has no outside ${family === 4 ? "IPv4" : "IPv6"} address in the plan.`,
    );
  const packet = {
    family,
    protocol: asked.service.protocol,
    src: SOMEBODY[family],
    dst: to,
    sport: asked.service.protocol === "icmp" ? null : 50_000,
    dport: asked.service.protocol === "icmp" ? null : (asked.service.ports[0]?.[0] ?? 443),
  };
  const conversation: Conversation = [];
  const topic: Topic = { service: asked.service, shows: true, answers: null };
  const arrived = comeIn(bench, device, leg, packet, topic, conversation);
  if (arrived === null) {
    (family === 6 ? offerDoor : offerForward)(bench, line, asked);
    return;
  }
  if (arrived.at === "internet") return stop("goes back out", "The packet leaves by the line it came in at.");
  if (asked.host !== null && (arrived.at !== "host" || arrived.party.host?.id !== asked.host.id)) {
    stop(
      "is not for it",
      `What comes in there at port ${packet.dport ?? 0} ends at ${arrived.at === "device" ? arrived.device.name : arrived.party.name}, not at ${asked.host.name}.`,
      forwardRepair(index, bench, line, asked),
    );
    return;
  }
  const name = arrived.at === "device" ? arrived.device.name : arrived.party.name;
  journey.delivered = true;
  journey.pass({
    title: name,
    place: formatAddress(arrived.packet.dst),
    says: "hears it",
    why: "",
    tag: null,
    subjects:
      arrived.at === "host" && arrived.party.host !== null
        ? [{ kind: "host", id: arrived.party.host.id }]
        : [],
    device: arrived.at === "device" ? arrived.device.id : null,
    ports: [],
  });
  const answer = answerTo(arrived.packet);
  const back =
    arrived.at === "device"
      ? travelFromDevice(bench, arrived.device, answer, { ...topic, shows: false, answers: conversation }, [])
      : travel(
          bench,
          stationOf(bench, arrived.party, answer.src),
          answer,
          { ...topic, shows: false, answers: conversation },
          [],
        );
  if (back !== null)
    journey.pass({
      title: "Somebody outside",
      place: "way back",
      says: "the answer returns",
      why: "What was let in may be answered.",
      tag: undefined,
      subjects: [],
      device: null,
      ports: [],
    });
}

interface Asked {
  readonly host: Host | null;
  readonly service: Service;
  /** The host's own address, which the outside can name with IPv6. */ readonly address: Address | null;
}

function askedFor(bench: ProbeBench, line: Line, goal: ProbeGoal, family: Family): Asked {
  const { index } = bench;
  const web: Service = { name: "https", protocol: "tcp", ports: [[443, 443]] };
  if (goal.to === "forward") {
    const forward = index.plan.forward.get(goal.forward);
    return forward === undefined
      ? { host: null, service: web, address: null }
      : {
          host: index.plan.host.get(forward.host) ?? null,
          service: { name: "forward", protocol: forward.protocol, ports: [forward.ports] },
          address: null,
        };
  }
  if (goal.to === "host") {
    const host = index.plan.host.get(goal.host) ?? null;
    const forward = [...index.plan.forward.values()].find(
      (one) => one.host === goal.host && one.line === line.id,
    );
    const service =
      goal.service ??
      (forward === undefined ? web : { name: "forward", protocol: forward.protocol, ports: [forward.ports] });
    const inside = host === null ? null : hostAddress(bench, host, family);
    return {
      host,
      service:
        family === 4 && forward !== undefined
          ? { ...service, protocol: forward.protocol, ports: [forward.ports] }
          : service,
      address: family === 6 ? inside : null,
    };
  }
  return {
    host: null,
    service:
      goal.to === "address"
        ? web
        : ((goal.to === "internet" || goal.to === "gateway" || goal.to === "device" ? goal.service : null) ??
          web),
    address: null,
  };
}

const isPortService = (service: Service): service is Service & { protocol: "tcp" | "udp" } =>
  service.protocol !== "icmp" && service.ports.length > 0;

function forwardRepair(index: PlanIndex, bench: ProbeBench, line: Line, { host, service }: Asked): Repair[] {
  if (host === null || !isPortService(service)) return [];
  const { protocol, ports } = service;
  const first = ports[0] ?? [443, 443];
  return [
    {
      label: `Forward ${protocol.toUpperCase()} ${first[0]} on ${line.name} to ${nameOf(index, "host", host.id)}`,
      planner: "add-forward",
      args: { line: line.id, host: host.id },
      edit: (draft) => {
        draft.put("forward", {
          id: bench.ids(),
          name: `${service.name} to ${host.name}`.slice(0, 80),
          line: line.id,
          protocol,
          ports: [...first],
          host: host.id,
          toPort: null,
          hairpin: false,
        });
      },
    },
  ];
}

/** By IPv6 nothing is forwarded: the host is asked by its own address, and the wall needs a door for it. */
function offerDoor(bench: ProbeBench, _line: Line, { host, service }: Asked): void {
  const { journey, index } = bench;
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
            edit: (draft) =>
              openDoor(draft, bench.ids, { at: "internet" }, { at: "zone", zone: segment.zone }, service),
          },
        ];
  journey.stop(last, { ...cause, repairs: [...cause.repairs, ...repairs] });
}

function offerForward(bench: ProbeBench, line: Line, asked: Asked): void {
  const { journey } = bench;
  const { cause } = journey;
  const last = journey.steps.pop();
  if (cause === null || last === undefined) return;
  const repairs = [...cause.repairs, ...forwardRepair(bench.index, bench, line, asked)];
  journey.stop(last, {
    ...cause,
    sentence:
      asked.host === null
        ? cause.sentence
        : `Nothing is forwarded to ${asked.host.name} from ${line.name}. ${cause.sentence}`,
    repairs,
  });
}
