import { toast } from "sonner";
import { v7 } from "uuid";
import { createStore, type StoreApi } from "zustand/vanilla";
import { runChecks } from "@/core/checks";
import { judgedList } from "./judged-list";
import { integrityFault } from "@/core/formats";
import { entityOf, KINDS, nameOf, PlanIndex } from "@/core/plan";
import { runOrder } from "@/core/commands";
import { reaches, type Role } from "@/http/contracts/answers";
import { call } from "./api";
import { thisBrowser } from "./browser";
import { addBatch, decide, giveUp, isJudged, withKept, type Held } from "./held";
import { isLarge, judgedNow, makeJudge } from "./judge";
import { mayNotDraw, refusalOf } from "./may-not-draw";
import type { PlanState } from "./plan-state";
import { loadPlan, type Loaded } from "./plan-worker";
import { makeSender, type Sender } from "./sender";
import { makeKeeper } from "./waiting";

export interface PlanStoreApi extends StoreApi<PlanState> {
  /** Whether closing the tab now would lose changes. */
  readonly wouldBeLost: () => boolean;
  /** Tries at once what waits: the connection is back. */
  readonly wake: () => void;
}

/** What a person calls the entity with that id. */
export function namerOf(index: PlanIndex): (id: string) => string {
  return (id) => {
    const kind = KINDS.find((k) => entityOf(index.plan, k, id) !== undefined);
    return kind === undefined ? "something that is gone" : nameOf(index, kind, id);
  };
}

const heldOf = ({ plan, revision, today }: Loaded): Held => ({
  base: plan,
  revision,
  pending: [],
  stuck: [],
  index: PlanIndex.of(plan, today),
  judged: null,
});

const BLANK = {
  phase: "loading",
  failure: null,
  held: null,
  list: [],
  accepted: [],
  acceptedGone: [],
  steps: { undo: null, redo: null, undoIsImport: false },
  saving: "saved",
  trouble: null,
  savedAt: null,
  keeping: "kept",
  dropped: [],
  stepClash: null,
  asking: false,
  confirmingUndo: false,
} as const;

// eslint-disable-next-line max-lines-per-function -- one store with its actions in one closure
export function createPlanStore(site: string, person: string, role: Role): PlanStoreApi {
  let sender: Sender | null = null;
  /** What was loaded last. */
  let newest: Loaded | null = null;
  const wake = () => sender?.wake();
  const keeper = makeKeeper(site, person, thisBrowser(), (kept) =>
    store.setState({ keeping: kept ? "kept" : "not-kept" }),
  );
  // eslint-disable-next-line max-lines-per-function -- one store with its actions in one closure
  const store = createStore<PlanState>()((set, get) => {
    const judgeLater = makeJudge(
      () => get().held,
      (judged) =>
        set(({ held }) => (held === null ? {} : { held: { ...held, judged }, ...judgedList(judged) })),
    );
    const show = (changed: Held) => {
      const before = get().held;
      const held = isLarge(changed.index.plan) ? changed : judgedNow(changed);
      const judged = held.judged === before?.judged ? {} : judgedList(held.judged);
      const isNewlyStuck = held.stuck.some(
        ({ batch }) => before?.stuck.some((known) => known.batch.id === batch.id) !== true,
      );
      set({ held, ...judged, ...(isNewlyStuck ? { asking: true } : {}) });
      keeper.keep(held.pending);
      if (!isJudged(held)) judgeLater();
    };
    /** The server's plan with what waits here on top; false with a sentence in `failure` when there is none. */
    const load = async (waiting: () => Held["pending"] | Promise<Held["pending"]>): Promise<boolean> => {
      const loaded = await loadPlan(site);
      if (!loaded.ok) {
        set({ phase: "failed", failure: loaded.error.sentence });
        return false;
      }
      newest = loaded.value;
      const pending = await waiting();
      set({ phase: "ready", failure: null, steps: loaded.value.steps, savedAt: Date.now() });
      const fresh = heldOf(loaded.value);
      show(withKept(fresh, pending));
      void judge(loaded.value, fresh.index);
      return true;
    };
    /** The findings come after the plan; what was edited meanwhile is looked at on top. */
    const judge = async (loaded: Loaded, index: PlanIndex) => {
      // Where the worker breaks off, the page works them out itself: slower, and never left at "Checking …".
      const found = await loaded.findings;
      const { held } = get();
      if (newest !== loaded || held === null || held.judged !== null) return;
      show({ ...held, judged: { index, findings: found ?? runChecks(index) } });
    };
    const loadAnew = async () => {
      if (await load(() => get().held?.pending ?? []))
        toast(
          "The plan here no longer matched the server's, so it was loaded " +
            "anew. What you changed and is not saved yet lies on top.",
        );
    };
    sender = makeSender({
      site,
      person,
      call,
      get,
      set,
      show,
      loadAnew,
      say: (sentence) => toast(sentence),
      random: Math.random,
    });
    const active = sender;
    /** Takes the answer to the oldest question; the next one, if any, stays open. */
    const answered = (held: Held) => {
      show(held);
      set({ asking: held.stuck.length > 0 });
      active.wake();
    };
    return {
      site,
      person,
      role,
      ...BLANK,
      load: async () => {
        try {
          if (await load(() => keeper.restore())) active.wake();
        } catch (error) {
          const sentence =
            error instanceof Error && error.name === "TypeError"
              ? "The server does not answer. Start it, then try again."
              : String(error);
          set({ phase: "failed", failure: sentence });
        }
      },
      edit: (order) => {
        const { held } = get();
        if (!reaches(role, "field")) return mayNotDraw(role);
        if (held === null) return "The plan is still loading.";
        const { batch, refusal } = runOrder(held.index, v7, order);
        return batch === null ? refusal : get().commit(batch);
      },
      commit: (batch) => {
        const { held } = get();
        const barred = refusalOf(role, batch.changes);
        if (barred !== null) return barred;
        if (held === null) return "The plan is still loading.";
        if (batch.changes.length === 0) return null;
        const added = addBatch(held, batch);
        if (!added.ok) return integrityFault(added.error, namerOf(held.index)).sentence;
        show(added.value);
        set({ steps: { undo: batch.summary, redo: null, undoIsImport: batch.planner === "import-plan" } });
        // Once the edit is on its way to the screen: putting it into words for the server takes time, too.
        setTimeout(active.wake, 0);
        return null;
      },
      undo: async () => {
        if (!reaches(role, "field")) return mayNotDraw(role);
        if (!get().steps.undoIsImport) return active.step("undo");
        set({ confirmingUndo: true });
        return null;
      },
      undoImport: () => {
        set({ confirmingUndo: false });
        return active.step("undo");
      },
      keepImport: () => set({ confirmingUndo: false }),
      redo: async () => (reaches(role, "field") ? active.step("redo") : mayNotDraw(role)),
      refresh: () => active.refresh(),
      hear: (told) => active.hear(told),
      ask: (open) => set({ asking: open, ...(open ? {} : { stepClash: null }) }),
      decide: (choose) => {
        const { held } = get();
        const first = held?.stuck[0];
        if (held !== null && first !== undefined) answered(decide(held, first.batch.id, choose));
      },
      withdraw: () => {
        const { held } = get();
        const first = held?.stuck[0];
        if (held !== null && first !== undefined) answered(giveUp(held, first.batch.id).held);
      },
      decideStep: async (choose) => {
        const { stepClash } = get();
        return stepClash === null ? null : active.step(stepClash.way, { clashes: stepClash.clashes, choose });
      },
      acknowledge: () => set({ dropped: [] }),
    };
  });
  return Object.assign(store, { wouldBeLost: keeper.wouldBeLost, wake });
}
