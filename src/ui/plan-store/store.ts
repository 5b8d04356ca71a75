import { wrap } from "comlink";
import { v7 } from "uuid";
import { createStore, type StoreApi } from "zustand/vanilla";
import { listFindings } from "@/core/checks";
import { integrityFault } from "@/core/formats";
import { entityOf, KINDS, nameOf, PlanIndex } from "@/core/plan";
import { plan as runPlanner } from "@/core/planners";
import type { PlanWorker } from "@/workers/plan.worker";
import { addBatch, catchUp, type Held } from "./held";
import { keepChanges, keptChanges } from "./kept-changes";
import type { PlanState } from "./plan-state";
import { makeSender, type Sender } from "./sender";

export type PlanStoreApi = StoreApi<PlanState>;

/** What a person calls the entity with that id. */
export function namerOf(index: PlanIndex): (id: string) => string {
  return (id) => {
    const kind = KINDS.find((k) => entityOf(index.plan, k, id) !== undefined);
    return kind === undefined ? "something that is gone" : nameOf(index, kind, id);
  };
}

let worker: ReturnType<typeof wrap<PlanWorker>> | null = null;
export const planWorker = () =>
  (worker ??= wrap<PlanWorker>(new Worker(new URL("../../workers/plan.worker.ts", import.meta.url), { type: "module" })));

export function createPlanStore(site: string, person: string): PlanStoreApi {
  const store = createStore<PlanState>()((set, get) => {
    const show = (held: Held) => {
      const list = held.findings === get().held?.findings ? get().list : listFindings(held.findings);
      set({ held, list });
      keepChanges(site, held.pending);
    };
    const sender: Sender = makeSender({ site, get, set, show });
    return {
      site, person, phase: "loading", failure: null, held: null, list: [], steps: { undo: null, redo: null }, saving: "saved", savedAt: null, stuck: null,
      load: async () => {
        const kept = keptChanges(site);
        try {
          const loaded = await planWorker().load(`${location.origin}/api/sites/${site}/plan`);
          if (!loaded.ok) {
            set({ phase: "failed", failure: loaded.error.sentence });
            return;
          }
          const { plan, revision, findings, steps, today } = loaded.value;
          const held: Held = { base: plan, revision, pending: kept, index: PlanIndex.of(plan, today), findings };
          const restored = catchUp(held, []);
          set({ phase: "ready", failure: null, steps, savedAt: Date.now() });
          if (restored.ok) show(restored.value);
          else {
            show(held);
            set({ stuck: restored.error });
          }
          sender.wake();
        } catch (error) {
          const sentence = error instanceof Error && error.name === "TypeError" ? "The server does not answer. Start it, then try again." : String(error);
          set({ phase: "failed", failure: sentence });
        }
      },
      edit: (meant, work) => {
        const { held } = get();
        if (held === null) return "The plan is still loading.";
        const { batch, refusal } = runPlanner(held.index, v7, meant, work);
        return batch === null ? refusal : get().commit(batch);
      },
      commit: (batch) => {
        const { held } = get();
        if (held === null) return "The plan is still loading.";
        if (batch.changes.length === 0) return null;
        const added = addBatch(held, batch);
        if (!added.ok) return integrityFault(added.error, namerOf(held.index)).sentence;
        show(added.value);
        set({ steps: { undo: batch.summary, redo: null } });
        sender.wake();
        return null;
      },
      undo: () => sender.step("undo"),
      redo: () => sender.step("redo"),
      refresh: () => sender.refresh(),
      resolve: (keep) => sender.resolve(keep),
    };
  });
  return store;
}
