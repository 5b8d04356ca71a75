import { vid as vidOf, type PlanIndex, type ProbeQuestion } from "../plan";
import { asClient } from "../probe";
import { lookKey, memoKey, type Ask, type Look } from "./asks";
import { weightOf, type SuspectKind } from "./kinds";
import { agrees, isPartOf, onPlan, predict, type Predicted, type Reading } from "./predict";
import { sightOf, wholeSight, type Sight } from "./sight";
import type { Suspect } from "./suspect";
import { suspectsIn, type Formerly } from "./suspects";

/** How often this site's own log named a kind of fault. */
export type Named = Readonly<Partial<Record<SuspectKind, number>>>;

/** A fault beside what was read. */
export interface Candidate {
  readonly suspect: Suspect;
  /** By reading, whether it would have been so. */
  readonly explains: readonly boolean[];
  readonly count: number;
  readonly weight: number;
  /** Its share of what is believed, among all that were tried; 0 to 1. */
  readonly share: number;
}

/** Whether it explains every reading. */
export const explainsAll = ({ explains }: Candidate): boolean => explains.every(Boolean);

export interface Diagnosed {
  readonly readings: readonly Reading[];
  /** By reading, whether it is as planned. */
  readonly isAsPlanned: readonly boolean[];
  /** The most likely first; only those that explain something that the plan does not. */
  readonly candidates: readonly Candidate[];
  /** So many single faults were tried. */
  readonly tried: number;
}

/** A reading is wrong itself this often: somebody looked at another port, or read too early. */
const MISREAD = 0.01;
/** Sites with a fault are kept for the next question, each with what it has compiled: so many ports in all. */
const MOST_PORTS_KEPT = 100_000;
const LEAST_KEPT = 8;
/** So many ports times VLANs: beyond that there are tens of thousands of single faults. */
const MOST_WHOLE = 3_000;

/** What is known of a site beside its plan. */
export interface KnownBeside {
  readonly named?: Named;
  /** How devices come back that restart. */
  readonly formerly?: Formerly;
}

/** Tries single faults on a plan against readings; what was worked out once is kept. */
export class Study {
  readonly index: PlanIndex;
  readonly #named: Named;
  readonly #formerly: Formerly;
  readonly #sites = new Map<string, PlanIndex | null>();
  readonly #predicted = new Map<string, Map<string, Predicted | null>>();
  readonly #known = new Map<string, Suspect>();
  readonly #planned = new Map<string, Predicted>();

  constructor(index: PlanIndex, { named = {}, formerly = () => null }: KnownBeside = {}) {
    this.index = index;
    this.#named = named;
    this.#formerly = formerly;
  }

  /** What a reading comes to on the site as planned. */
  planned(ask: Ask): Predicted {
    const key = memoKey(ask);
    const known = this.#planned.get(key) ?? onPlan(this.index, ask);
    this.#planned.set(key, known);
    return known;
  }

  /** The site with a fault; null where that is no plan. */
  site(suspect: Suspect): PlanIndex | null {
    const known = this.#sites.get(suspect.id);
    if (known !== undefined) return known;
    const { site } = suspect.otherwise;
    const made = site === undefined ? this.index : site(this.index);
    const most = Math.max(LEAST_KEPT, MOST_PORTS_KEPT / (1 + this.index.plan.port.size));
    if (this.#sites.size >= most) {
      const [oldest] = this.#sites.keys();
      if (oldest !== undefined) this.#sites.delete(oldest);
    }
    this.#sites.set(suspect.id, made);
    return made;
  }

  /** What a reading comes to with a fault; null where the fault is no plan. */
  predicted(suspect: Suspect, ask: Ask): Predicted | null {
    if (ask.what === "look" && !isSeenAt(suspect, ask.look)) return this.planned(ask);
    if (ask.what === "try" && suspect.triesLike !== null) return this.predicted(suspect.triesLike, ask);
    const own = this.#predicted.get(suspect.id) ?? new Map<string, Predicted | null>();
    this.#predicted.set(suspect.id, own);
    const key = memoKey(ask);
    const known = own.get(key);
    if (known !== undefined) return known;
    const site = this.site(suspect);
    const made = site === null ? null : predict(site, suspect, ask);
    own.set(key, made);
    return made;
  }

  #agrees(suspect: Suspect, { ask, seen }: Reading): boolean {
    const predicted = this.predicted(suspect, ask);
    // The site is compiled again only where a text has to be read by it.
    const site = seen.is === "text" ? this.site(suspect.triesLike ?? suspect) : this.index;
    if (predicted === null || site === null) return false;
    return agrees(
      { index: this.index, site, planned: this.planned(ask), predicted, isVague: suspect.isVague },
      seen,
    );
  }

  /** Whether a fault alone shows what was read, or, on a page, a part of it. */
  helps(suspect: Suspect, reading: Reading): boolean {
    if (this.#agrees(suspect, reading)) return true;
    const { ask, seen } = reading;
    if (ask.what !== "look" || seen.is !== "text") return false;
    const predicted = this.predicted(suspect, ask);
    return predicted !== null && isPartOf(this.planned(ask), predicted, seen.text);
  }

  /** Whether a reading is as planned. */
  isAsPlanned({ ask, seen }: Reading): boolean {
    const planned = this.planned(ask);
    return agrees({ index: this.index, site: this.index, planned, predicted: planned, isVague: false }, seen);
  }

  /** A fault that was tried, by its id; null for none that was. */
  suspect(id: string): Suspect | null {
    return this.#known.get(id) ?? null;
  }

  /**
   * Every single fault of the site, and of who asks some questions; of a site with too many of them, those in
   * sight of the questions.
   */
  everything(questions: readonly ProbeQuestion[]): Suspect[] {
    const { plan } = this.index;
    const isSmall = plan.port.size * plan.vlan.size <= MOST_WHOLE;
    const sight = isSmall ? wholeSight(this.index) : sightOf(this.index, questions);
    return suspectsIn(this.index, sight, { questions, formerly: this.#formerly });
  }

  /** Single faults that could have something to do with readings. */
  suspects(readings: readonly Reading[], sight: Sight | null = null): Suspect[] {
    const questions = readings.flatMap(questionsOf);
    const wrong = readings.filter((reading) => !this.isAsPlanned(reading));
    const asked = wrong.flatMap(questionsOf);
    return suspectsIn(this.index, sight ?? sightOf(this.index, asked), {
      questions,
      formerly: this.#formerly,
    });
  }

  /** What explains the readings, the most likely first. */
  diagnose(
    readings: readonly Reading[],
    tell: Tell = () => undefined,
    sight: Sight | null = null,
  ): Diagnosed {
    const isAsPlanned = readings.every((reading) => this.isAsPlanned(reading));
    return this.among(readings, isAsPlanned ? [] : this.suspects(readings, sight), tell);
  }

  /** What of some faults explains the readings, the most likely first. */
  among(readings: readonly Reading[], suspects: readonly Suspect[], tell: Tell = () => undefined): Diagnosed {
    const isAsPlanned = readings.map((reading) => this.isAsPlanned(reading));
    for (const suspect of suspects) this.#known.set(suspect.id, suspect);
    const scored = suspects.flatMap((suspect, at) => {
      if (at % TOLD_EACH === 0) tell(at, suspects.length);
      const explains = this.#explains(suspect, readings, isAsPlanned);
      return explains === null ? [] : [{ suspect, explains }];
    });
    return { readings, isAsPlanned, candidates: this.#ranked(scored), tried: suspects.length };
  }

  /** By reading, whether a fault explains it; null where it explains none that the plan does not. */
  #explains(
    suspect: Suspect,
    readings: readonly Reading[],
    isAsPlanned: readonly boolean[],
  ): boolean[] | null {
    const wrong = readings.map((reading, at) => isAsPlanned[at] === false && this.#agrees(suspect, reading));
    if (!wrong.some(Boolean)) return null;
    return readings.map((reading, at) =>
      isAsPlanned[at] === false ? wrong[at] === true : this.#agrees(suspect, reading),
    );
  }

  #ranked(
    scored: readonly { readonly suspect: Suspect; readonly explains: readonly boolean[] }[],
  ): Candidate[] {
    const weighed = scored.map(({ suspect, explains }) => {
      const count = explains.filter(Boolean).length;
      const weight = weightOf(suspect.kind, this.#named);
      const likely = weight * MISREAD ** (explains.length - count);
      return { suspect, explains, count, weight, likely };
    });
    const all = weighed.reduce((sum, { likely }) => sum + likely, 0);
    return weighed
      .sort((a, b) => b.likely - a.likely)
      .map(({ likely, ...shown }) => ({ ...shown, share: likely / all }));
  }
}

/** What is tried by a reading; who listens could try a laptop there, with each tag that was heard. */
function questionsOf({ ask, seen }: Reading): ProbeQuestion[] {
  if (ask.what === "try") return [ask.question];
  if (ask.what === "look") return [];
  const vids = seen.is === "text" ? [...seen.text.matchAll(/^VLAN (\d+): /gm)] : [];
  const tags = vids.flatMap(([, vid]) => vidOf(Number(vid)) ?? []);
  return [null, ...tags].map((tag) => asClient({ at: "port", port: ask.port, tag }, { to: "address" }));
}

/** Whether a fault is seen by looking there: elsewhere everything is as planned. */
const isSeenAt = ({ seenAt }: Suspect, look: Look): boolean =>
  seenAt.some((other) => lookKey(other) === lookKey(look));

/** Told how far it is: so many faults of so many. */
export type Tell = (done: number, all: number) => void;
const TOLD_EACH = 50;
