import { familyOf, formatAddress, type Address } from "../address";
import type { Repair } from "../repairs";
import {
  nameOf,
  type PlanIndex,
  type ProbeAs,
  type ProbeGoal,
  type ProbeQuestion,
  type ProbePlace,
} from "../plan";
import { catalogueOf } from "../catalogue";
import { addressFor, guestOf } from "./address-for";
import { actAsRouter, actAsServer, actAsSpoofer, type Attack } from "./attacks";
import type { ProbeRun } from "./run";
import { missing, openPage, reachGoal } from "./goals";
import type { Lease } from "./lease";
import { strayed } from "./strayed";
import type { Message } from "./message";
import { runOn } from "./really";
import { misplaced } from "./misplaced";
import { fromOutside } from "./outside";
import type { PortState } from "./port-state";
import { start, voiceOf, type Started } from "./start";
import type { Cause, Step } from "./step";
import { fromTunnel } from "./tunnel";

export interface Outcome {
  readonly question: ProbeQuestion;
  readonly steps: readonly Step[];
  /** The number of the step at which it stops, counted from 1; null when everything passes. */
  readonly stopsAt: number | null;
  readonly cause: Cause | null;
  /** Whether what was asked came where it was meant to, whatever became of the answer. */
  readonly delivered: boolean;
  readonly lease: Lease | null;
  /** How its port let it in, or not; null where that asks for no sign-in. */
  readonly signIn: PortState | null;
  /**
   * What is wrong although everything passes: it has the address of another segment than the one it belongs
   * in.
   */
  readonly advice: Cause | null;
  /** Where an address should have come from when none came. */
  readonly expected: { readonly segment: string; readonly scope: string | null } | null;
  /** The phone in front of a PC, asked for its own address. */
  readonly phone: Outcome | null;
  /** What a false server or a false sender comes to. */
  readonly attack: Attack | null;
  /** What would keep it out when it gets through and should not. */
  readonly guards: readonly Repair[];
  /** What was said on the wires, in order. */
  readonly exchange: readonly Message[];
}

/** What is plugged in, and where: a question without what is asked for. */
export type Plugged = Omit<ProbeQuestion, "goal">;

/** A question with nothing unusual: a client that asks for its address. */
export const asClient = (
  from: ProbeQuestion["from"],
  goal: ProbeGoal,
  mac: ProbeQuestion["mac"] = null,
): ProbeQuestion => ({ from, as: { as: "client" }, mac, family: 4, goal });

/**
 * Plugs something in and follows it: classification, sign-in, every hop with its tag, the server that
 * answers, the address; then the routers, the walls, the far side and the way back. `ids` names what a repair
 * would create.
 */
export function probe(index: PlanIndex, question: ProbeQuestion, ids: () => string): Outcome {
  const run = runOn(index, ids);
  return plugIn(run, question)(run, question.goal);
}

/**
 * Plugs something in once and answers everything that is asked there, each as `probe` answers it: getting
 * in and getting an address is more than half of the work of a question.
 */
export function pluggedIn(index: PlanIndex, who: Plugged, ids: () => string): (goal: ProbeGoal) => Outcome {
  const run = runOn(index, ids);
  const asks = plugIn(run, who);
  return (goal) => asks(run.branch(), goal);
}

const kindNamed = ({ plan }: PlanIndex, word: string) =>
  catalogueOf(plan).find((kind) => kind.word === word) ?? null;

/** Plugged in as a kind of device that asks no DHCP server, or that nobody knows. */
function asksNobody(run: ProbeRun, from: ProbePlace, word: string, known: boolean): void {
  missing(
    run,
    word === "" ? "This" : word,
    from.at === "port" ? { kind: "port", id: from.port } : { kind: "site", id: run.index.plan.site.id },
    known
      ? "asks nobody for an address; plug it in with a static address"
      : "is no kind that the catalogue or the site knows",
  );
}

/** How the phone fares that somebody is plugged in behind; that it gets no address stops a sound journey. */
function phoneAt({ index, journey, ids }: ProbeRun, id: string): Outcome | null {
  const port = index.plan.port.get(id);
  const voice = port === undefined ? null : voiceOf(port);
  if (voice === null) return null;
  const phone = probe(index, asClient({ at: "port", port: id, tag: voice }, { to: "address" }), ids);
  if (phone.cause !== null && journey.cause === null)
    journey.stop(
      {
        title: "Phone",
        place: `tag ${voice}`,
        says: "gets no address",
        why: phone.cause.sentence,
        tag: voice,
        subjects: phone.cause.subjects,
        ports: [id],
      },
      phone.cause,
    );
  return phone;
}

/** Something plugged in that asks for one thing; on the run that it was plugged in on, or a branch of that. */
type Asks = (run: ProbeRun, goal: ProbeGoal) => Outcome;

/** Plugs in what is asked from, as far as that is the same whatever it asks for then. */
function plugIn(run: ProbeRun, who: Plugged): Asks {
  const { from, as, family } = who;
  if (from.at === "internet")
    return (own, goal) => {
      fromOutside(own, from.line, goal, family);
      return outcomeOf(own, { ...who, goal }, NOTHING);
    };
  if (from.at === "tunnel")
    return (own, goal) => {
      fromTunnel(own, from.segment, goal, family);
      return outcomeOf(own, { ...who, goal }, NOTHING);
    };
  const kind = as.as === "kind" ? kindNamed(run.index, as.word) : null;
  if (as.as === "kind" && kind?.speaksDhcp !== true) {
    asksNobody(run, from, as.word, kind !== null);
    return (own, goal) => outcomeOf(own, { ...who, goal }, NOTHING);
  }
  const started = start(run, from, who.mac, {
    behindPhone: as.as === "behindPhone",
    asks: asks(as) ? family : null,
    kind,
  });
  if (started === null) return (own, goal) => outcomeOf(own, { ...who, goal }, NOTHING);
  const attack = attackBy(run, as, started);
  if (attack !== null)
    return (own, goal) => outcomeOf(own, { ...who, goal }, { started, lease: null, attack });
  return asClientAt(run, who, started);
}

/** What a false server, router or sender comes to; null of one that is none. */
function attackBy(run: ProbeRun, as: ProbeAs, started: Started): Attack | null {
  if (as.as === "falseServer") return actAsServer(run, started);
  if (as.as === "falseRouter") return actAsRouter(run, started);
  return as.as === "spoofer" ? actAsSpoofer(run, started, as.address) : null;
}

/** Gets an address where somebody is plugged in, and asks with that. */
function asClientAt(run: ProbeRun, who: Plugged, started: Started): Asks {
  const { from, as, family } = who;
  const lease = addressFor(run, started, as, family);
  const astray = lease === null ? null : strayed(run, started, lease);
  if (lease !== null && (started.host === null || family === 6))
    run.welcome(lease.address, guestOf(run.index, started, lease));
  return (own, goal) => {
    const { journey } = own;
    // Who asks which address it gets wants to know that; who asks further gets the answer with the address
    // that it really has.
    if (lease !== null && astray !== null && goal.to === "address") tellStrayed(own, started, lease, astray);
    else if (lease !== null) reachGoal(own, started, lease, goal);
    // One that is in the wrong VLAN may fail anywhere further on; that it is there comes first.
    const wrong = journey.cause === null ? null : misplaced(own, started);
    if (wrong !== null) journey.cause = wrong;
    const phone = as.as === "behindPhone" && from.at === "port" ? phoneAt(own, from.port) : null;
    return {
      ...outcomeOf(own, { ...who, goal }, { started, lease, attack: null }),
      phone,
      advice: journey.cause === null ? astray : null,
    };
  };
}

/** It got an address, but of another segment than the one it belongs in. */
function tellStrayed(
  { index, journey }: ProbeRun,
  { host, vid }: Started,
  lease: Lease,
  astray: Cause,
): void {
  const got = lease.segment === null ? "nobody" : nameOf(index, "segment", lease.segment);
  const belongs = host?.segment === null || host === null ? "" : nameOf(index, "segment", host.segment);
  journey.stop(
    {
      title: host?.name ?? "",
      place: got,
      says: `gets an address of ${got}, not of ${belongs}`,
      why: vid === 0 ? "" : `It is in VLAN ${vid}.`,
      subjects: astray.subjects,
    },
    astray,
  );
}

/** Whether something asks for its address. */
const asks = (as: ProbeAs): boolean => as.as === "client" || as.as === "behindPhone" || as.as === "kind";

/** How far somebody came before it asked for anything. */
interface Got {
  readonly started: Started | null;
  readonly lease: Lease | null;
  readonly attack: Attack | null;
}
const NOTHING: Got = { started: null, lease: null, attack: null };

function outcomeOf(run: ProbeRun, question: ProbeQuestion, { started, lease, attack }: Got): Outcome {
  const { index, journey, exchange } = run;
  const segment = started?.host?.segment ?? started?.segment?.id ?? null;
  return {
    question,
    steps: journey.steps,
    stopsAt: journey.cause === null ? null : journey.steps.length,
    cause: journey.cause,
    delivered: journey.delivered,
    lease,
    signIn: run.signedIn,
    expected:
      segment === null
        ? null
        : {
            segment,
            scope: index.scopesOf(segment).find((scope) => scope.family === question.family)?.id ?? null,
          },
    phone: null,
    advice: null,
    attack,
    guards: journey.guards,
    exchange,
  };
}

/** A laptop in hand: where it is plugged in, and what is entered on it. */
export interface Laptop {
  readonly port: string;
  readonly address: Address;
  readonly length: number;
  readonly gateway: Address | null;
}

/** A device's pages, at one of its addresses. */
export interface PageAt {
  readonly device: string;
  readonly address: Address;
}

/** Somebody else has the address, or whoever sends it on knows no better way than out. */
function answeredElsewhere(index: PlanIndex, { device, address }: PageAt, by: string | null): Cause {
  const name = nameOf(index, "device", device);
  return {
    sentence:
      by === null
        ? `What is meant for ${name} at ${formatAddress(address)} does not get to it.`
        : `${nameOf(index, "device", by)} has the same address and answers in place of ${name}.`,
    subjects: [device, ...(by === null ? [] : [by])].map((id) => ({ kind: "device" as const, id })),
    repairs: [],
  };
}

/** What a laptop at a port gets that asks for an IPv4 address (RFC 2131); null where nobody gives it one. */
export function leaseAt(
  index: PlanIndex,
  port: string,
): { readonly segment: string | null; readonly server: string } | null {
  const run = runOn(index, () => "");
  const plugged = { behindPhone: false, asks: 4 as const, kind: null };
  const started = start(run, { at: "port", port, tag: null }, null, plugged);
  const lease = started === null ? null : addressFor(run, started, { as: "client" }, 4);
  return lease?.leased === true ? { segment: lease.segment, server: lease.server } : null;
}

/** Why a device's pages do not open on a laptop; null where they do, and not another's in their place. */
export function pageFrom(index: PlanIndex, laptop: Laptop, page: PageAt): Cause | null {
  const { port, ...entered } = laptop;
  const run = runOn(index, () => "");
  const started = start(run, { at: "port", port, tag: null }, null, {
    behindPhone: false,
    asks: null,
    kind: null,
  });
  if (started === null) return run.journey.cause;
  const as = { as: "typed" as const, ...entered };
  const lease = addressFor(run, started, as, familyOf(page.address));
  if (lease === null) return run.journey.cause;
  run.welcome(lease.address, guestOf(index, started, lease));
  openPage(run, started, lease, page.address);
  const { cause, takenBy } = run.journey;
  return cause ?? (takenBy === page.device ? null : answeredElsewhere(index, page, takenBy));
}
