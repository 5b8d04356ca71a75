import { dice, type Dice } from "../kernel";
import type { PlanIndex, ProbeQuestion } from "../plan";
import { asClient } from "../probe";
import {
  explainsAll,
  SUSPECT_KINDS,
  type Ask,
  type Study,
  type Suspect,
  type SuspectKind,
} from "../diagnosis";
import { complaintOf, shuffled, type Complaining, type Level } from "./complaint";
import { Copy, firstLook } from "./copy";
import { possible, type Strand } from "./possible";
import { complained, explainedBy, follow, type Followed } from "./solve";
import { complaintText } from "./told";

/** What somebody rings in with. */
export interface Complaint {
  readonly ask: Extract<Ask, { what: "try" }>;
  /** In the customer's words. */
  readonly told: string;
}

/** A copy of a site with a fault, or two, and what is complained of: ready to be played. */
export interface Drill {
  readonly copy: Copy;
  readonly level: Level;
  readonly complaints: readonly Complaint[];
  /** When it was rung in: minutes after midnight. */
  readonly rungAt: number;
  /** So many minutes there are. */
  readonly minutes: number;
  /** What each fault could have been by its complaint, before anything was looked at. */
  readonly strands: readonly Strand[];
}

/** What is planted. */
export interface Wanted {
  readonly level: Level;
  /** Whether somebody has to ring in who gets no address, or a wrong one; null for anything. */
  readonly about: Complaining["about"];
  /** Faults that may be planted. */
  readonly accepts: (suspect: Suspect) => boolean;
}

const MINUTES: Readonly<Record<Level, number>> = { 1: 40, 2: 50, 3: 80 };
/** As many faults are tried before it is said that the site has none of that kind to notice. */
const MOST_TRIED = 120;
/** With fewer that fit the complaint there is nothing to find out. */
const LEAST_POSSIBLE = 3;

/** Any of some faults, the common kinds more often: otherwise those would win of which a site has the most. */
function anyOf(suspects: readonly Suspect[], roll: Dice): Suspect | undefined {
  const kinds = [...new Set(suspects.map(({ kind }) => kind))].sort();
  const weighed = kinds.flatMap((kind): SuspectKind[] =>
    Array.from({ length: SUSPECT_KINDS[kind].weight }, () => kind),
  );
  const kind = weighed[roll(Math.max(1, weighed.length))];
  const own = suspects.filter((suspect) => suspect.kind === kind);
  return own[roll(Math.max(1, own.length))];
}

/** What some of the site's devices could ask: of a large site only what is in their sight is planted. */
const fewQuestions = (index: PlanIndex, roll: Dice): ProbeQuestion[] =>
  shuffled([...index.plan.host.values()], roll)
    .slice(0, FEW)
    .map(({ id }) => asClient({ at: "host", host: id }, { to: "internet", service: null }));
const FEW = 4;

function rungIn(copy: Copy, ask: Ask, roll: Dice): Complaint | null {
  if (ask.what !== "try") return null;
  const look = firstLook(ask);
  const both = { planned: copy.planned(look), seen: copy.seen(look) };
  return { ask, told: complaintText(copy.index, ask.question, both, roll) };
}

/** Follows what diagnosis suggests from the complaints on, to where it is sure. */
export const solve = ({ copy, complaints }: Pick<Drill, "copy" | "complaints">): Followed =>
  follow(
    copy.study,
    complaints.map(({ ask }) => complained(copy.study, ask, copy.seen(firstLook(ask)))),
    { read: (ask) => copy.seen(firstLook(ask)), explain: explainedBy(copy.study), isSure: true },
  );

/** Whether the faults of a copy are among those that are left where diagnosis has followed all it suggests. */
export function isNamed({ faults }: Copy, { left }: Followed): boolean {
  const ids = faults.map(({ id }) => id);
  const names = [ids.join(" + "), [...ids].reverse().join(" + ")];
  return left.some((candidate) => explainsAll(candidate) && names.includes(candidate.suspect.id));
}

function drillOf(copy: Copy, level: Level, asks: readonly Ask[], roll: Dice): Drill | null {
  const complaints = asks.flatMap((ask) => rungIn(copy, ask, roll) ?? []);
  const strands = possible(copy, complaints);
  const isFair = strands.every(
    ({ fitting }, at) =>
      fitting.length >= LEAST_POSSIBLE && fitting.some(({ id }) => id === copy.faults[at]?.id),
  );
  if (!isFair) return null;
  const drill = { copy, level, complaints, strands, rungAt: 420 + 5 * roll(120), minutes: MINUTES[level] };
  return isNamed(copy, solve(drill)) ? drill : null;
}

function single(
  copy: Copy,
  { level, about }: { readonly level: 1 | 2; readonly about: Complaining["about"] },
  roll: Dice,
): Drill | null {
  const isPlan = copy.faults.every((fault) => copy.study.site(fault) !== null);
  const ask = isPlan ? complaintOf(copy, { level, about }, roll) : null;
  return ask === null ? null : drillOf(copy, level, [ask], roll);
}

/** Two at once: each is complained of by somebody who does not notice the other. */
function double(study: Study, first: Suspect, second: Suspect, roll: Dice): Drill | null {
  const copy = new Copy(study, [first, second]);
  const asks = [first, second].map((suspect) =>
    complaintOf(new Copy(study, [suspect]), { level: null, about: null }, roll),
  );
  const isOwn = asks.every((ask, at) => {
    const other = copy.faults[1 - at];
    if (ask === null || other === undefined) return false;
    const own = copy.faults[at];
    const alone = own === undefined ? undefined : study.predicted(own, ask)?.key;
    const planned = study.planned(ask).key;
    return study.predicted(other, ask)?.key === planned && copy.seenOrNull(firstLook(ask))?.key === alone;
  });
  return isOwn
    ? drillOf(
        copy,
        3,
        asks.flatMap((ask) => ask ?? []),
        roll,
      )
    : null;
}

/**
 * Plants a fault of some level, the same each time for the same seed. Only such are planted that somebody
 * notices, that others could be taken for, and that diagnosis finds by its own suggestions; null where the site
 * has none of those.
 */
export function makeDrill(study: Study, { level, about, accepts }: Wanted, seed: number): Drill | null {
  const start = 1 + (seed % 2_000_000_000);
  const roll = dice(start);
  const suspects = study.everything(fewQuestions(study.index, dice(start))).filter(accepts);
  for (let tried = 0; tried < MOST_TRIED; tried += 1) {
    const suspect = anyOf(suspects, roll);
    const two = level === 3 ? anyOf(suspects, roll) : undefined;
    if (suspect === undefined || suspect.id === two?.id) continue;
    const made =
      level === 3
        ? two !== undefined && double(study, suspect, two, roll)
        : single(new Copy(study, [suspect]), { level, about }, roll);
    if (made) return made;
  }
  return null;
}
