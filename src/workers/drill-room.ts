import { Study, type Suspect } from "@/core/diagnosis";
import {
  bestOrder,
  COURSE,
  debrief,
  faultsIn,
  looksIn,
  makeDrill,
  makeOrderDrill,
  play,
  trainingIndex,
  type Act,
  type CourseSite,
  type Debrief,
  type Drill,
  type Level,
  type OrderScore,
  type Played,
} from "@/core/drills";
import { decodePlan } from "@/core/formats";
import { must } from "@/core/kernel";
import { PlanIndex, type Plan } from "@/core/plan";
import type { Move } from "@/core/runbook";

/** Which drill is played: one of the course, or a fault of some level on a site of one's own. */
export type DrillAsked =
  | { readonly what: "course"; readonly number: number }
  | { readonly what: "site"; readonly number: Level; readonly seed: number };

/** A drill as its learner sees it: what is wrong stays here. */
export interface Opened {
  readonly plan: Plan;
  readonly level: Level;
  /** What was said, and the question that it is about. */
  readonly complaints: Drill["complaints"];
  readonly rungAt: number;
  readonly minutes: number;
}

/** A fault that can be named, with what would mend it. */
export type Nameable = Pick<Suspect, "id" | "words" | "mend" | "subjects">;

/** Seeds of the course: the same drill each time. */
const COURSE_SEED = 1000;

/** Where a drill is made and played: beside the page, so that nothing of what is planted is in it. */
export class DrillRoom {
  readonly #fileOf: (site: CourseSite) => Promise<unknown>;
  #drill: Drill | null = null;

  constructor(fileOf: (site: CourseSite) => Promise<unknown>) {
    this.#fileOf = fileOf;
  }

  /**
   * Plants a fault, on a site of one's own where it is none of the course; null where the site has none of
   * that level that somebody would notice.
   */
  async open(asked: DrillAsked, own: Plan | null): Promise<Opened | null> {
    if (asked.what === "course") this.#drill = await this.#ofCourse(asked.number);
    else this.#drill = own === null ? null : ofSite(own, asked);
    if (this.#drill === null) return null;
    const { copy, level, complaints, rungAt, minutes } = this.#drill;
    return { plan: copy.index.plan, level, complaints, rungAt, minutes };
  }

  async #ofCourse(number: number): Promise<Drill | null> {
    const lesson = COURSE[number - 1];
    if (lesson === undefined) return null;
    const read = decodePlan(await this.#fileOf(lesson.site));
    const plan = must(read.ok ? read.value : null, "the plan files of the course can be read");
    const index = trainingIndex(plan, lesson);
    const { level, about } = lesson;
    const accepts = (suspect: Suspect) => lesson.accepts(suspect, index);
    return makeDrill(new Study(index), { level, about, accepts }, COURSE_SEED + number);
  }

  /** What comes of everything that was done; null where no drill is open. */
  play(acts: readonly Act[]): Played | null {
    return this.#drill === null ? null : play(this.#drill, acts);
  }

  /** What can be named after what was done. */
  faults(acts: readonly Act[]): readonly Nameable[] {
    const drill = this.#drill;
    if (drill === null) return [];
    return faultsIn(drill, looksIn(drill, acts)).map(({ id, words, mend, subjects }) => ({
      id,
      words,
      mend,
      subjects,
    }));
  }

  /** What it was, and how it went. */
  debrief(acts: readonly Act[]): Debrief | null {
    return this.#drill === null ? null : debrief(this.#drill, acts);
  }

  /** The best order of a job on the stand-ins; null where there is none. */
  bestOrder(
    plan: Plan,
    level: Level,
    seed: number,
  ): { readonly moves: readonly Move[]; readonly score: OrderScore } | null {
    const drill = makeOrderDrill(PlanIndex.of(plan), level, seed);
    return drill === null ? null : bestOrder(drill);
  }
}

const ofSite = (plan: Plan, { number, seed }: Extract<DrillAsked, { what: "site" }>): Drill | null =>
  makeDrill(new Study(PlanIndex.of(plan)), { level: number, about: null, accepts: () => true }, seed);
