import { v7 } from "uuid";
import { decodeChanges, encodeBatch } from "@/core/formats";
import type { ChangeBatch, Choose } from "@/core/plan";
import type { Refusal } from "@/core/planners";
import type {
  ClashAnswer,
  CommitAnswer,
  LogEntryAnswer,
  NewsAnswer,
  StepAnswer,
} from "@/http/contracts/answers";
import { fateOf, type Call } from "./api";
import { catchUp, confirm, giveUp, nextToSend, settle, type Held, type Logged } from "./held";
import type { PlanState } from "./plan-state";
import { sentenceWhileKept } from "./sentence-while-kept";

interface Hooks {
  readonly site: string;
  /** My name, as the log has it. */
  readonly person: string;
  readonly call: Call;
  readonly get: () => PlanState;
  readonly set: (part: Partial<PlanState>) => void;
  readonly show: (held: Held) => void;
  /** Loads the plan anew, with what waits on top; says so. */
  readonly loadAnew: () => Promise<void>;
  readonly say: (sentence: string) => void;
  /** Between 0 and 1: spreads the tries of many who wait for the same. */
  readonly random: () => number;
}

export interface Sender {
  /** Something waits to be sent. */
  readonly wake: () => void;
  /** Everything that can be sent has been tried. */
  readonly idle: () => Promise<void>;
  readonly step: (way: "undo" | "redo", choices?: StepChoices) => Promise<Refusal>;
  readonly refresh: () => Promise<void>;
  readonly hear: PlanState["hear"];
  /** No further tries: the page goes. */
  readonly stop: () => void;
}
/** What a person chose for each clash of an undo or redo. */
export interface StepChoices {
  readonly clashes: readonly ClashAnswer[];
  readonly choose: Choose;
}

const FIRST_WAIT_MS = 1000;
const LONGEST_WAIT_MS = 15_000;
/** After a conflict: long enough for the others to get through, short enough not to be noticed. */
const CONFLICT_WAIT_MS = 60;

const loggedOf = (entries: readonly LogEntryAnswer[]): Logged[] =>
  entries.map(({ id, revision, changes }) => ({ id, revision, changes: decodeChanges(changes) }));

/**
 * Sends my batches one after another; whatever goes wrong on the way, a batch is dropped only when the server
 * says it can never be taken.
 */
// eslint-disable-next-line max-lines-per-function -- one machine, its states in one closure
export function makeSender({ site, person, call, get, set, show, loadAnew, say, random }: Hooks): Sender {
  const path = `/api/sites/${site}`;
  let running: Promise<void> | null = null;
  let waitMs = FIRST_WAIT_MS;
  let timer: ReturnType<typeof setTimeout> | null = null;
  let conflicts = 0;
  /** A step whose answer was lost, and of what: it may have been done, so the same one is asked for again. */
  let lost: { readonly of: string; readonly id: string } | null = null;

  /** Takes in what others did, or loads the plan anew when it does not follow from what is here. */
  const takeIn = async (entries: readonly Logged[]): Promise<void> => {
    const { held } = get();
    const caught = held === null ? null : catchUp(held, entries);
    if (caught !== null) show(caught);
    else if (held !== null) await loadAnew();
  };

  const later = (sentence: string, ms: number) => {
    set({ saving: "waiting", trouble: sentence });
    if (timer !== null) clearTimeout(timer);
    timer = setTimeout(
      () => {
        timer = null;
        wake();
      },
      ms * (0.5 + random()),
    );
  };

  const onAnswer = async (batch: ChangeBatch, { revision, entries }: CommitAnswer): Promise<void> => {
    waitMs = FIRST_WAIT_MS;
    conflicts = 0;
    set({ trouble: null });
    if (entries.length > 0) await takeIn(loggedOf(entries));
    const { held } = get();
    // News that came meanwhile may have had it already.
    if (held === null || !held.pending.some(({ id }) => id === batch.id)) return;
    if (revision <= held.revision) return show(settle(held, batch.id));
    const confirmed = revision === held.revision + 1 ? confirm(held, batch.id, revision) : null;
    if (confirmed !== null) show(confirmed);
    else await loadAnew();
  };

  /** Sends the oldest batch that can be sent; answers whether to go on with the next. */
  const sendNext = async (): Promise<boolean> => {
    const { held } = get();
    const batch = held === null ? undefined : nextToSend(held);
    if (held === null || batch === undefined) return false;
    set({ saving: "saving" });
    const answer = await call<CommitAnswer>(`${path}/batches`, "POST", {
      revision: held.revision,
      batch: encodeBatch(batch),
    });
    if (answer.ok) {
      await onAnswer(batch, answer.value);
      return true;
    }
    const { status, refused } = answer;
    switch (fateOf(status, refused.code)) {
      case "drop": {
        const now = get().held;
        if (now === null) return false;
        const given = giveUp(now, batch.id);
        set({
          dropped: [
            ...get().dropped,
            ...given.dropped.map((changeBatch) => ({
              batch: changeBatch,
              sentence:
                changeBatch.id === batch.id
                  ? refused.sentence
                  : `It builds on "${batch.summary}", which could not be saved.`,
            })),
          ],
        });
        show(given.held);
        return true;
      }
      case "stranger":
        set({ saving: "stranger", trouble: refused.sentence });
        return false;
      case "load-anew":
        await loadAnew();
        return true;
      case "catch-up":
        await takeIn(loggedOf(refused.between ?? []));
        // It clashes, and a person is asked; or the next try goes out when the others have had their turn.
        if (get().held?.stuck.some((stuck) => stuck.batch.id === batch.id) === true) return true;
        conflicts += 1;
        later(refused.sentence, Math.min(CONFLICT_WAIT_MS * 2 ** conflicts, LONGEST_WAIT_MS));
        return false;
      case "again":
        later(sentenceWhileKept(status, refused), waitMs);
        waitMs = Math.min(waitMs * 2, LONGEST_WAIT_MS);
        return false;
    }
  };

  const sendAll = async () => {
    try {
      while (await sendNext());
      const { held, saving } = get();
      if (held !== null && nextToSend(held) === undefined && saving !== "stranger")
        set({ saving: "saved", trouble: null, savedAt: Date.now() });
    } finally {
      // With the last look, and not a turn later: an edit in between would be sent by nobody.
      running = null;
    }
  };

  const wake = (): Promise<void> => {
    running ??= sendAll();
    return running;
  };

  const refresh = async () => {
    const { held } = get();
    if (held === null) return;
    const news = await call<NewsAnswer>(`${path}/batches?after=${held.revision}`);
    if (!news.ok) {
      if (fateOf(news.status, news.refused.code) === "stranger")
        set({ saving: "stranger", trouble: news.refused.sentence });
      return;
    }
    const { revision, entries, steps } = news.value;
    if (get().saving === "stranger") set({ saving: "saved", trouble: null });
    if (revision < held.revision) return loadAnew();
    if (entries.length > 0) await takeIn(loggedOf(entries));
    if (get().held?.pending.length === 0) set({ steps });
    else void wake();
  };

  const hear: PlanState["hear"] = async ({ revision, news }) => {
    const { held, saving } = get();
    if (held === null || (news === null && revision === held.revision)) return;
    if (news === null || news.after > held.revision || saving === "stranger") return refresh();
    const fresh = news.entries.filter((entry) => entry.revision > held.revision);
    const waits = new Set(held.pending.map(({ id }) => id));
    // Mine from elsewhere, or a step back: what I can undo is another step now, and the server says which.
    if (fresh.some(({ id, authorName }) => authorName === person && !waits.has(id))) return refresh();
    if (fresh.length === 0) return;
    await takeIn(loggedOf(fresh));
    if ((get().held?.pending.length ?? 0) > 0) void wake();
  };

  const step = async (way: "undo" | "redo", choices: StepChoices | null = null): Promise<Refusal> => {
    await wake();
    const { held } = get();
    if (held === null || nextToSend(held) !== undefined)
      return "Your last changes are not saved yet; they can be undone as soon as they are.";
    const settled =
      choices?.clashes.map(({ id, field }) => ({
        id,
        field,
        keep: choices.choose({ id, field }) ?? "theirs",
      })) ?? [];
    const of = `${way} ${held.revision}`;
    const id = lost?.of === of ? lost.id : v7();
    // Pressed once more before the answer is there, it is another step.
    lost = null;
    const answer = await call<StepAnswer>(`${path}/${way}`, "POST", { id, settled });
    if (!answer.ok) {
      const { code, sentence, clashes } = answer.refused;
      if (code === "no-answer") lost = { of, id };
      if (code !== "clash" || clashes === undefined) return sentence;
      set({ stepClash: { way, sentence, clashes: [...(choices?.clashes ?? []), ...clashes] }, asking: true });
      return null;
    }
    set({ stepClash: null });
    await refresh();
    say(answer.value.summary);
    return null;
  };

  return {
    wake: () => void wake(),
    idle: wake,
    step,
    refresh,
    hear,
    stop: () => {
      if (timer !== null) clearTimeout(timer);
    },
  };
}
