import type { Repair, Subject } from "../repairs";
import type { Tag } from "../fabric";

export interface Step {
  readonly title: string;
  /** The port, or what stands in for one: "port 7, in", "scope", "wall". */
  readonly place: string;
  readonly says: string;
  readonly why: string;
  /** The tag on the wire as the step is left; undefined where no frame is shown. */
  readonly tag: Tag | undefined;
  readonly passed: boolean;
  readonly subjects: readonly Subject[];
  /** For the drawing: the device the step is at. */
  readonly device: string | null;
  readonly ports: readonly string[];
}

/** A step as it is told: what is left out says nothing, shows no frame and is nowhere in particular. */
export type Told = Pick<Step, "title" | "place" | "says"> & Partial<Omit<Step, "passed">>;

const stepOf = (told: Told, passed: boolean): Step => ({
  why: "",
  tag: undefined,
  subjects: [],
  device: null,
  ports: [],
  ...told,
  passed,
});

/** The first cause of a failure. */
export interface Cause {
  readonly sentence: string;
  readonly subjects: readonly Subject[];
  readonly repairs: readonly Repair[];
}

/** Collects steps until one fails. */
export class Journey {
  readonly steps: Step[] = [];
  cause: Cause | null = null;
  /** Whether what was sent came where it was meant to, whatever became of the answer. */
  delivered = false;
  /** The device whose own address took what was sent; null where that is nobody's or somebody else's. */
  takenBy: string | null = null;
  /** What would keep out something that gets through and should not. */
  guards: readonly Repair[] = [];

  /** The same so far; it goes on by itself. */
  branch(): Journey {
    const { steps, ...rest } = this;
    const journey = Object.assign(new Journey(), rest);
    journey.steps.push(...steps);
    return journey;
  }

  pass(told: Told): void {
    this.steps.push(stepOf(told, true));
  }

  offer(repairs: readonly Repair[]): void {
    this.guards = repairs;
  }

  stop(told: Told, cause: Cause): void {
    this.steps.push(stepOf(told, false));
    this.cause = cause;
  }
}
