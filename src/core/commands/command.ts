import { entityOf, KINDS, UUID, type PlanIndex } from "../plan";
import { plan, type EditContext, type IdSource, type Refusal } from "../planners";
import type { Repair } from "../repairs";

/** A command with its arguments: what is to be done, and how the log will name it. */
export interface Order {
  readonly planner: string;
  /** What the log keeps of the arguments. */
  readonly args: unknown;
  /** One sentence for the history, from the plan as it is before. */
  readonly says: (index: PlanIndex) => string;
  /** Writes it into the edits of `context`; a sentence why not, or nothing. */
  readonly run: (context: EditContext) => Refusal | void;
}

interface Definition<A> {
  readonly says: (args: A, index: PlanIndex) => string;
  readonly run: (context: EditContext, args: A) => Refusal | void;
  /** What of the arguments the log keeps, where they are more than can be kept; all of them without it. */
  readonly log?: (args: A) => unknown;
}

/** A named command; called with its arguments it gives the order. */
export interface Command<A> {
  (args: A): Order;
  readonly planner: string;
}

/** Registers a command under its name. */
export function command<A>(planner: string, { says, run, log }: Definition<A>): Command<A> {
  const order = (args: A): Order => ({
    planner,
    args: log === undefined ? args : log(args),
    says: (index) => says(args, index),
    run: (context) => run(context, args),
  });
  return Object.assign(order, { planner });
}

/** Several steps one after another; the first refusal is the answer. */
export function inTurn(...steps: readonly (() => Refusal | void)[]): Refusal {
  for (const step of steps) {
    const refusal = step() ?? null;
    if (refusal !== null) return refusal;
  }
  return null;
}

/** A cell of a table: the id of its row and its column. */
export interface Cell<C extends string> {
  readonly row: string;
  readonly column: C;
}

/** A block of texts that is pasted onto rows; rows beyond `onto` are new. */
export interface Pasted<C extends string> {
  readonly rows: readonly (readonly string[])[];
  readonly from: C;
  readonly onto: readonly string[];
}

/** Writes cells one after another; the first refusal is the answer. */
export const eachCell = <C extends string>(
  cells: readonly Cell<C>[],
  write: (row: string, column: C) => Refusal | void,
): Refusal =>
  inTurn(
    ...cells.map(
      ({ row, column }) =>
        () =>
          write(row, column),
    ),
  );

/** A repair as an order: its label is what history says. */
export const repairOrder = (repair: Repair): Order => ({
  planner: repair.planner,
  args: repair.args,
  says: () => repair.label,
  run: ({ edits, ids }) => repair.edit(edits, ids),
});

/** Arguments that hold what a person wrote: even where that looks like an id, it is none. */
const WRITTEN: ReadonlySet<string> = new Set(["text", "name", "title", "typed", "place", "reason", "said"]);

/** Whether every id in what somebody meant is still that of something in the plan. */
function isAllThere(index: PlanIndex, args: unknown): boolean {
  if (typeof args === "string")
    return !UUID.test(args) || KINDS.some((kind) => entityOf(index.plan, kind, args) !== undefined);
  if (typeof args !== "object" || args === null) return true;
  return Object.entries(args).every(
    ([key, part]) => WRITTEN.has(key) || (isAllThere(index, key) && isAllThere(index, part)),
  );
}

/**
 * Works an order out on a plan: its batch, or the sentence why not. What it is about may have been removed by
 * somebody else a moment ago; then that is the sentence.
 */
export function runOrder(index: PlanIndex, ids: IdSource, order: Order): ReturnType<typeof plan> {
  if (!isAllThere(index, order.args))
    return { batch: null, refusal: "Somebody has removed what this is about, so nothing was changed." };
  const meant = { planner: order.planner, summary: order.says(index), args: order.args };
  return plan(index, ids, meant, order.run);
}
