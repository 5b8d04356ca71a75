import { portOfRole, rolesOf } from "../commissioning";
import { pointsOf, type PlanIndex, type ProbeQuestion } from "../plan";
import { asClient } from "../probe";
import { askedOf, memoKey, lookKey, type Ask, type Asked } from "./asks";
import { outcomeText } from "./predict";
import { sightOf } from "./sight";
import type { Candidate, Diagnosed, Study } from "./study";
import type { Suspect } from "./suspect";

/** One way a reading can come out, and what it would mean. */
export interface Branch {
  /** What is read. */
  readonly words: string;
  readonly isAsPlanned: boolean;
  /** Its share of what is believed now; 0 to 1. */
  readonly share: number;
  /** The faults that are left then, the most likely first. */
  readonly left: readonly Candidate[];
}

export interface NextReading extends Asked {
  /** How much it tells on average, in bits. */
  readonly bits: number;
  readonly branches: readonly Branch[];
}

/** As many faults are told apart at once: the rest is too unlikely to count. */
const MOST_LEFT = 80;
/** As many readings are tried out; the nearest to what was read come first. */
const MOST_TRIED = 70;
/** As many others are asked for from where something was asked, and as many are asked themselves. */
const MOST_FAR_ENDS = 6;
const MOST_NEIGHBOURS = 12;
/** A walk to another place costs so many minutes. */
export const WALK_MINUTES = 2;
/** Asking, waiting and writing down takes as long for the shortest reading. */
const EACH_MINUTES = 3;
/** What tells less tells nothing. */
const LEAST_BITS = 0.01;

/** Faults that are still in the running: those that explain all; where none does, those that explain most. */
export function inTheRunning({ candidates }: Pick<Diagnosed, "candidates">): Candidate[] {
  const most = Math.max(0, ...candidates.map(({ count }) => count));
  return candidates.filter(({ count }) => count === most).slice(0, MOST_LEFT);
}

/** What can be tried around what was asked so far: addresses, gateways, the internet, each other. */
function nearby(index: PlanIndex, asked: readonly ProbeQuestion[]): ProbeQuestion[] {
  const { hosts, segments } = sightOf(index, asked);
  const ends = asked.flatMap(({ from, goal }): ProbeQuestion["from"][] => [
    from,
    ...(goal.to === "host" ? [{ at: "host" as const, host: goal.host }] : []),
  ]);
  const inSegments = [...segments].flatMap((id) => index.hostsIn(id));
  const others = [...hosts].flatMap((id) => index.plan.host.get(id) ?? []);
  const placed = [...new Set([...others, ...inSegments])].filter(
    ({ attachment }) => attachment.at !== "unplaced",
  );
  const asks = placed.flatMap(({ id, manner }) =>
    manner === "typed" ? [] : [asClient({ at: "host", host: id }, { to: "address" })],
  );
  const laptops = [
    ...rolesOf(index).flatMap((role) => {
      const port = portOfRole(index, role);
      return port === undefined
        ? []
        : [asClient({ at: "port", port: port.id, tag: null }, { to: "address" })];
    }),
    ...[...index.plan.ssid.values()].flatMap((ssid) =>
      pointsOf(index, ssid).map((point) =>
        asClient({ at: "ssid", ssid: ssid.id, device: point.id }, { to: "address" }),
      ),
    ),
  ];
  const goals: ProbeQuestion["goal"][] = [
    { to: "gateway", service: null },
    { to: "internet", service: null },
  ];
  const inside = ends.filter(({ at }) => at === "host" || at === "port" || at === "ssid");
  return [
    ...ends.flatMap((from) =>
      from.at === "host" || from.at === "port" ? [asClient(from, { to: "address" })] : [],
    ),
    ...inside.flatMap((from) => goals.map((goal) => asClient(from, goal))),
    ...inside.flatMap((from) =>
      placed
        .filter((host) => !(from.at === "host" && from.host === host.id))
        .slice(0, MOST_FAR_ENDS)
        .map((host) => asClient(from, { to: "host", host: host.id, service: null })),
    ),
    ...asks,
    ...placed
      .slice(0, MOST_NEIGHBOURS)
      .map(({ id }) => asClient({ at: "host", host: id }, { to: "gateway", service: null })),
    ...laptops,
  ];
}

/**
 * Everything that could be read to tell some faults apart: where they are seen, and what can be tried around
 * what was asked already.
 */
export function readable(index: PlanIndex, asks: readonly Ask[], left: readonly Suspect[]): Ask[] {
  const asked = asks.flatMap((ask) => (ask.what === "try" ? [ask.question] : []));
  const looks = new Map(left.flatMap(({ seenAt }) => seenAt.map((look) => [lookKey(look), look] as const)));
  const tries = new Map(
    nearby(index, asked).map((question): [string, Ask] => {
      const ask: Ask = { what: "try", question };
      return [memoKey(ask), ask];
    }),
  );
  return [
    ...[...looks.values()].map((look): Ask => ({ what: "look", look })),
    ...[...tries.values()].slice(0, MOST_TRIED),
  ];
}

/** The same of a diagnosis, without what was read already. */
function pool(index: PlanIndex, { readings }: Diagnosed, left: readonly Candidate[]): Ask[] {
  const asks = readings.map(({ ask }) => ask);
  const suspects = left.map(({ suspect }) => suspect);
  return readable(index, asks, suspects);
}

function unread({ readings }: Diagnosed, asks: readonly Ask[]): Ask[] {
  const known = new Set(readings.map(({ ask }) => memoKey(ask)));
  return asks.filter((ask) => !known.has(memoKey(ask)));
}

/** How the faults in the running part at a reading. */
function branchesAt(study: Study, ask: Ask, left: readonly Candidate[]): Branch[] {
  const planned = study.planned(ask);
  const parts = new Map<string, { words: string; left: Candidate[] }>();
  for (const candidate of left) {
    const predicted = study.predicted(candidate.suspect, ask);
    if (predicted === null) continue;
    const part = parts.get(predicted.key) ?? {
      words: outcomeText(study.index, planned.expected, predicted.expected),
      left: [],
    };
    part.left.push(candidate);
    parts.set(predicted.key, part);
  }
  const all = left.reduce((sum, { weight }) => sum + weight, 0);
  return [...parts]
    .map(([key, part]) => ({
      ...part,
      isAsPlanned: key === planned.key,
      share: part.left.reduce((sum, { weight }) => sum + weight, 0) / all,
    }))
    .sort((a, b) => b.share - a.share);
}

const bitsOf = (branches: readonly Branch[]): number =>
  branches.reduce((sum, { share }) => (share === 0 ? sum : sum - share * Math.log2(share)), 0);

/** Whether it was seen by looking there, or by so many readings that are otherwise that chance is out. */
function isSure({ readings, isAsPlanned }: Diagnosed, { explains }: Candidate): boolean {
  const shown = readings.filter((_, at) => isAsPlanned[at] === false && explains[at] === true);
  return shown.some(({ ask }) => ask.what === "look") || shown.length >= SURE_BY;
}
const SURE_BY = 3;

/**
 * Where only one fault explains all: a reading that it changes, and that was not taken yet. If it is as planned
 * after all, it is something else. Null where there is none.
 */
export function toBeSure(study: Study, diagnosed: Diagnosed): NextReading | null {
  const [only, second] = inTheRunning(diagnosed);
  if (only === undefined || second !== undefined || isSure(diagnosed, only)) return null;
  const asks = unread(diagnosed, pool(study.index, diagnosed, [only]));
  const found = asks.flatMap((ask): NextReading[] => {
    const branches = branchesAt(study, ask, [only]);
    if (branches[0] === undefined || branches[0].isAsPlanned) return [];
    return [{ ...askedOf(study.index, ask), bits: 0, branches }];
  });
  // Looking at the thing itself shows, too, what else is wrong there.
  const isTry = ({ ask }: NextReading) => Number(ask.what === "try");
  return found.sort((a, b) => isTry(a) - isTry(b) || a.minutes - b.minutes)[0] ?? null;
}

/**
 * The readings that tell the faults in the running apart, the one first that tells most for its time: a walk
 * to another place than the last costs more. None where nothing tells them apart. `among`: those that can be
 * taken, where not everything can.
 */
export function nextReadings(
  study: Study,
  diagnosed: Diagnosed,
  among: readonly Ask[] | null = null,
): NextReading[] {
  const left = inTheRunning(diagnosed);
  if (left.length < 2) return [];
  const last = diagnosed.readings.at(-1);
  const here = last === undefined ? "" : askedOf(study.index, last.ask).place;
  const asks = unread(diagnosed, among ?? pool(study.index, diagnosed, left));
  // Fault by fault, so that each site is compiled once; then reading by reading.
  for (const { suspect } of left) for (const ask of asks) study.predicted(suspect, ask);
  return asks
    .flatMap((ask): NextReading[] => {
      const branches = branchesAt(study, ask, left);
      const bits = bitsOf(branches);
      if (bits < LEAST_BITS) return [];
      const asked = askedOf(study.index, ask);
      const walk = asked.place === here ? 0 : WALK_MINUTES;
      return [{ ...asked, minutes: asked.minutes + walk, bits, branches }];
    })
    .sort((a, b) => b.bits / (b.minutes + EACH_MINUTES) - a.bits / (a.minutes + EACH_MINUTES));
}
