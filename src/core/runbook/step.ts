import type { Host } from "../plan";
import type { Card } from "./card";
import type { Operation } from "./operations";
import type { Value } from "./words";

/** What a step is: something done on a device, the laptop moved, or something that belongs to every visit. */
export type StepKind = "begin" | "permit" | "move" | "copy" | "do" | "credentials" | "save" | "end";

export interface Step {
  readonly kind: StepKind;
  readonly title: string;
  /** Null for what is about the laptop only. */
  readonly device: string | null;
  readonly values: readonly Value[];
  readonly why: string;
  /** Where the laptop is; null where only a console cable goes on, or nothing is opened. */
  readonly card: Card | null;
  readonly needsConsole: boolean;
  /** Whether the device is out of reach until the next step, which brings it back. */
  readonly isBlind: boolean;
  /** Hosts that were joined to their gateway before the step and are not after it. */
  readonly cuts: readonly Host[];
  /** Hosts that are joined again. */
  readonly mends: readonly Host[];
  /** Hosts that are cut off only while the device restarts for it. */
  readonly stops: readonly Host[];
  /** Whole minutes that it is taken to need. */
  readonly minutes: number;
  /** Gear that the laptop reaches when the step is done. */
  readonly reaches: ReadonlySet<string>;
  /** How it is taken back. */
  readonly back: string;
  readonly caution: string;
  readonly operation: Operation | null;
}
