import type { Finding } from "@/core/checks";
import type { ChangeBatch } from "@/core/plan";
import type { Bench, Refusal } from "@/core/planners";
import type { StepsAnswer } from "@/http/contracts/answers";
import type { Held, Stuck } from "./held";

/** Whether the server has everything; `stranger`: it no longer knows who asks. */
export type Saving = "saved" | "saving" | "waiting" | "stranger";
export interface Meant { readonly planner: string; readonly summary: string; readonly args: unknown }

export interface PlanState {
  readonly site: string;
  readonly person: string;
  readonly phase: "loading" | "ready" | "failed";
  readonly failure: string | null;
  readonly held: Held | null;
  /** The findings of what is shown, stops first. */
  readonly list: readonly Finding[];
  readonly steps: StepsAnswer;
  readonly saving: Saving;
  readonly savedAt: number | null;
  readonly stuck: Stuck | null;
  readonly load: () => Promise<void>;
  /** Runs an edit and commits its batch; a refusal is the sentence to show, and nothing has changed then. */
  readonly edit: (meant: Meant, work: (bench: Bench) => Refusal | void) => Refusal;
  readonly commit: (batch: ChangeBatch) => Refusal;
  readonly undo: () => Promise<Refusal>;
  readonly redo: () => Promise<Refusal>;
  readonly refresh: () => Promise<void>;
  readonly resolve: (keep: "mine" | "theirs") => void;
}
