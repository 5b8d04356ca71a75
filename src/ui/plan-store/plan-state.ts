import type { Accepted, Finding } from "@/core/checks";
import type { Acceptance, ChangeBatch, Choose } from "@/core/plan";
import type { Order } from "@/core/commands";
import type { Refusal } from "@/core/planners";
import type { ClashAnswer, LiveAnswer, Role, StepsAnswer } from "@/http/contracts/answers";
import type { Held } from "./held";

/** Whether the server has everything; `stranger`: it no longer knows who asks. */
export type Saving = "saved" | "saving" | "waiting" | "stranger";
/** Whether what waits would be there again after the tab was closed. */
export type Keeping = "kept" | "not-kept";
/** A batch that can never be saved, with the server's reason. */
export interface Dropped {
  readonly batch: ChangeBatch;
  readonly sentence: string;
}
/** An undo or redo that meets what somebody has changed since. */
export interface StepClash {
  readonly way: "undo" | "redo";
  readonly sentence: string;
  readonly clashes: readonly ClashAnswer[];
}

export interface PlanState {
  readonly site: string;
  readonly person: string;
  /** What the person may do on the site. */
  readonly role: Role;
  readonly phase: "loading" | "ready" | "failed";
  readonly failure: string | null;
  readonly held: Held | null;
  /** The open findings of `held.judged`, stops first: of what is shown, or of what it was a moment ago. */
  readonly list: readonly Finding[];
  /** Findings that somebody has accepted as they are. */
  readonly accepted: readonly Accepted[];
  /** Accepted findings that are found no more. */
  readonly acceptedGone: readonly Acceptance[];
  readonly steps: StepsAnswer;
  readonly saving: Saving;
  /** Why something waits, in the server's words; null while nothing is wrong. */
  readonly trouble: string | null;
  readonly savedAt: number | null;
  readonly keeping: Keeping;
  /** What was dropped and not yet acknowledged. */
  readonly dropped: readonly Dropped[];
  readonly stepClash: StepClash | null;
  /** Whether the question about a clash is open; closed, what is stuck goes on waiting. */
  readonly asking: boolean;
  /** Whether the question is open if a whole imported plan is to be taken back. */
  readonly confirmingUndo: boolean;
  readonly load: () => Promise<void>;
  /** Runs an order and commits its batch; a refusal is the sentence to show, and nothing has changed then. */
  readonly edit: (order: Order) => Refusal;
  readonly commit: (batch: ChangeBatch) => Refusal;
  /** Takes back my last step; where that is a whole imported plan, it opens the question instead. */
  readonly undo: () => Promise<Refusal>;
  readonly undoImport: () => Promise<Refusal>;
  readonly keepImport: () => void;
  readonly redo: () => Promise<Refusal>;
  /** Asks for what is new. */
  readonly refresh: () => Promise<void>;
  /** Takes in what the server told by itself, or asks where that does not go on from what is here. */
  readonly hear: (told: Pick<LiveAnswer, "revision" | "news">) => Promise<void>;
  /** Opens or closes the question; closing decides nothing. */
  readonly ask: (open: boolean) => void;
  /** Settles the oldest stuck batch field by field. */
  readonly decide: (choose: Choose) => void;
  /** Takes the oldest stuck batch away. */
  readonly withdraw: () => void;
  /** Settles an undo or redo that clashes. */
  readonly decideStep: (choose: Choose) => Promise<Refusal>;
  readonly acknowledge: () => void;
}
