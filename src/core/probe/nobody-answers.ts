import { nameOf, type Port, type PlanIndex, type Scope, type Segment } from "../plan";
import { deviceAt, entryOf, partyOfHost } from "../places";
import type { Tag } from "../fabric";
import {
  addScopeRepairs,
  gatewayLegRepairs,
  hearScopeRepairs,
  isUnheard,
  segmentsWithoutGateway,
  waitingWithoutServer,
  type Repair,
} from "../repairs";
import type { ProbeRun } from "./run";
import { stopOnTheWay } from "./hops";
import { misplaced } from "./misplaced";
import { wantedVid, type Started } from "./start";

/** A question for an address that nobody answered, and what it was meant for. */
interface Unanswered {
  readonly run: ProbeRun;
  readonly started: Started;
  /** The segment that the client belongs in, else the one it stands in; null for neither. */
  readonly meant: Segment | null;
  /** The port it is plugged into; undefined on the air. */
  readonly port: Port | undefined;
  readonly tag: Tag;
  readonly scope: Scope | undefined;
}

/** Says what stopped the question and answers true, or answers false and the next one is asked. */
type Explains = (asked: Unanswered) => boolean;

const EXPLANATIONS: readonly Explains[] = [standsElsewhere, nothingThere, stopsOnTheWay, nobodyServes];

/** Nobody answered: says how far the question came towards the server that should have. */
export function stopWithoutServer(run: ProbeRun, started: Started): void {
  const { index } = run;
  const { party, host } = started;
  const { place } = party;
  const meant = index.plan.segment.get(host?.segment ?? "") ?? started.segment;
  const asked: Unanswered = {
    run,
    started,
    meant,
    port: place.at === "inside" ? undefined : index.plan.port.get(place.port),
    tag: place.at === "inside" ? null : place.tag,
    scope: meant === null ? undefined : index.scopesOf(meant.id).find((scope) => scope.family === 4),
  };
  EXPLANATIONS.some((explains) => explains(asked));
}

const atPort = (index: PlanIndex, port: Port | undefined) => ({
  device: port?.device ?? null,
  ports: port === undefined ? [] : [port.id],
  title: port === undefined ? null : nameOf(index, "device", port.device),
});

/** It is plugged in, tagged or signed in where it does not belong. */
function standsElsewhere({ run, started, port, tag }: Unanswered): boolean {
  const wrong = misplaced(run, started);
  if (wrong === null) return false;
  const at = atPort(run.index, port);
  run.journey.stop(
    {
      ...at,
      title: at.title ?? started.party.name,
      place: port === undefined ? "wireless" : `port ${port.label} in`,
      says: `joins VLAN ${started.vid}, not ${wantedVid(run.index, started.host) ?? "its own"}`,
      tag,
      subjects: wrong.subjects,
    },
    wrong,
  );
  return true;
}

/** No segment is on the VLAN that it comes into. */
function nothingThere({ run, started, meant, port, tag }: Unanswered): boolean {
  if (meant !== null && started.segment !== null) return false;
  const at = atPort(run.index, port);
  const subjects = port === undefined ? [] : [{ kind: "port" as const, id: port.id }];
  run.journey.stop(
    {
      ...at,
      title: at.title ?? started.party.name,
      place: port === undefined ? "" : `port ${port.label} in`,
      says: `joins ${started.vid}, where nothing is`,
      tag,
      subjects,
    },
    {
      sentence:
        `${port === undefined ? "It" : nameOf(run.index, "port", port.id)} ` +
        `puts the frame into VLAN ${started.vid}, and no segment is on that VLAN.`,
      subjects,
      repairs: [],
    },
  );
  return true;
}

/** The device that the question should come to: the server in its own segment, a relay there, the server's. */
function goalOf(index: PlanIndex, segment: Segment, scope: Scope): string | null {
  const { serverDevice } = scope;
  if (serverDevice !== null && index.interfacesOf(serverDevice).some((leg) => leg.segment === segment.id))
    return serverDevice;
  const relay = index.interfacesIn(segment.id).find((leg) => leg.relayTo !== null);
  if (relay !== undefined) return relay.device;
  const server = index.plan.host.get(scope.serverHost ?? "");
  const place = server === undefined ? null : (partyOfHost(index, server)?.place ?? null);
  return place === null ? null : deviceAt(index, place);
}

/** The frame is dropped between the client and the server or its relay. */
function stopsOnTheWay({ run, started, meant, port, tag, scope }: Unanswered): boolean {
  const goal = meant === null || scope === undefined ? null : goalOf(run.index, meant, scope);
  if (goal === null) return false;
  const flood = run.flood(started.party.place);
  const entry = entryOf(run.index, flood);
  if (entry !== null) {
    if (goal === entry.device) return false;
    const left = flood.emission(flood.arrivals[0]?.emission ?? -1)?.tag ?? tag;
    return stopOnTheWay(run, goal, {
      device: entry.device,
      port: run.fabric.ports[entry.port],
      tag: left,
      vid: entry.vid,
    });
  }
  // On gear without VLANs that leads to none with them: the cable from there is what is missing.
  if (port === undefined || started.vid === null) return false;
  return stopOnTheWay(run, goal, { device: port.device, port, tag, vid: started.vid });
}

/** Nobody serves the segment, or its server never hears the question. */
function nobodyServes({ run, started, meant, tag, scope }: Unanswered): boolean {
  if (meant === null) return false;
  const why =
    scope === undefined
      ? `${meant.name} has no scope: nobody gives addresses there.`
      : `The server of ${meant.name} has no leg in VLAN ${started.vid}, so it never hears the question.`;
  const subjects = [{ kind: "segment" as const, id: meant.id }];
  run.journey.stop(
    { title: meant.name, place: `VLAN ${started.vid}`, says: "nobody answers", why, tag, subjects },
    { sentence: why, subjects, repairs: serverRepairs(run.index, meant) },
  );
  return true;
}

/** Makes somebody serve the segment, as the findings about it would. */
function serverRepairs(index: PlanIndex, segment: Segment): Repair[] {
  const isWithoutGateway = segmentsWithoutGateway(index).some(({ id }) => id === segment.id);
  return [
    ...index
      .scopesOf(segment.id)
      .filter((scope) => isUnheard(index, scope))
      .flatMap((scope) => hearScopeRepairs(index, scope.id)),
    ...(waitingWithoutServer(index, segment) > 0 ? addScopeRepairs(index, segment.id) : []),
    ...(isWithoutGateway ? gatewayLegRepairs(index, segment.id) : []),
  ];
}
