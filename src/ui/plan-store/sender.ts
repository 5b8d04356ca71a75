import { v7 } from "uuid";
import { decodeChanges, encodeBatch } from "@/core/formats";
import type { Refusal } from "@/core/planners";
import type { CommitAnswer, LogEntryAnswer, NewsAnswer, StepAnswer } from "@/http/contracts/answers";
import { toast } from "sonner";
import { call, mayRetry } from "./api";
import { catchUp, confirmFirst, giveUp, insist, moveBase, type Held, type Logged } from "./held";
import type { PlanState } from "./plan-state";

interface Hooks {
  readonly site: string;
  readonly get: () => PlanState;
  readonly set: (part: Partial<PlanState>) => void;
  readonly show: (held: Held) => void;
}

export interface Sender {
  /** Something waits to be sent. */
  readonly wake: () => void;
  readonly step: (way: "undo" | "redo") => Promise<Refusal>;
  readonly refresh: () => Promise<void>;
  readonly resolve: (keep: "mine" | "theirs") => void;
}

const FIRST_WAIT_MS = 1000;
const LONGEST_WAIT_MS = 15_000;

const loggedOf = (entries: readonly LogEntryAnswer[]): Logged[] => entries.map(({ id, revision, changes }) => ({ id, revision, changes: decodeChanges(changes) }));

/** Sends my batches one after another; whatever goes wrong on the way, a batch is dropped only when the server has said why. */
export function makeSender({ site, get, set, show }: Hooks): Sender {
  const path = `/api/sites/${site}`;
  let running: Promise<void> | null = null;
  let waitMs = FIRST_WAIT_MS;
  let timer: ReturnType<typeof setTimeout> | null = null;

  /** Takes in what others did; false when one of my batches clashes with it. */
  const takeIn = (entries: readonly Logged[]): boolean => {
    const { held } = get();
    if (held === null) return true;
    const caught = catchUp(held, entries);
    if (caught.ok) {
      show(caught.value);
      return true;
    }
    show(moveBase(held, entries));
    set({ stuck: caught.error });
    return false;
  };

  const later = () => {
    set({ saving: "waiting" });
    if (timer !== null) clearTimeout(timer);
    timer = setTimeout(() => void wake(), waitMs);
    waitMs = Math.min(waitMs * 2, LONGEST_WAIT_MS);
  };

  /** Sends the oldest batch; answers whether to go on with the next. */
  const sendFirst = async (): Promise<boolean> => {
    const { held } = get();
    const first = held?.pending[0];
    if (held === null || first === undefined || get().stuck !== null) return false;
    set({ saving: "saving" });
    const answer = await call<CommitAnswer>(`${path}/batches`, "POST", { revision: held.revision, batch: encodeBatch(first) });
    const now = get().held;
    if (now === null) return false;
    if (answer.ok) {
      waitMs = FIRST_WAIT_MS;
      if (answer.value.revision === now.revision + 1) show(confirmFirst(now, answer.value.revision));
      else await refresh();
      return true;
    }
    const { status, refused } = answer;
    if (refused.code === "stale-revision") return takeIn(loggedOf(refused.between ?? []));
    if (status === 401) {
      set({ saving: "stranger" });
      return false;
    }
    if (mayRetry(status)) {
      later();
      return false;
    }
    toast.error(`Not saved: ${refused.sentence}`, { duration: 12_000 });
    show(giveUp(now, first.id));
    return true;
  };

  const sendAll = async () => {
    while (await sendFirst());
    const { held, saving } = get();
    if (held !== null && held.pending.length === 0 && saving !== "stranger") set({ saving: "saved", savedAt: Date.now() });
  };

  const wake = (): Promise<void> => {
    running ??= sendAll().finally(() => { running = null; });
    return running;
  };

  const refresh = async () => {
    const { held, stuck } = get();
    if (held === null || stuck !== null) return;
    const news = await call<NewsAnswer>(`${path}/batches?after=${held.revision}`);
    if (!news.ok) return;
    if (news.value.entries.length > 0) takeIn(loggedOf(news.value.entries));
    if (get().held?.pending.length === 0) set({ steps: news.value.steps });
  };

  const step = async (way: "undo" | "redo"): Promise<Refusal> => {
    await wake();
    const { held } = get();
    if (held === null || held.pending.length > 0) return "Your last changes are not saved yet; they can be undone as soon as they are.";
    const answer = await call<StepAnswer>(`${path}/${way}`, "POST", { id: v7() });
    if (!answer.ok) return answer.refused.sentence;
    await refresh();
    toast(answer.value.summary);
    return null;
  };

  const resolve = (keep: "mine" | "theirs") => {
    const { held, stuck } = get();
    if (held === null || stuck === null) return;
    const mine = keep === "mine" ? insist(held, stuck.batch.id) : null;
    if (keep === "mine" && mine === null) toast.error("Your change no longer fits the plan, so theirs was kept.");
    set({ stuck: null });
    show(mine ?? giveUp(held, stuck.batch.id));
    void wake();
  };

  return { wake: () => void wake(), step, refresh, resolve };
}
