import { useStore } from "zustand";
import { createStore } from "zustand/vanilla";
import { runChecks } from "@/core/checks";
import { runOrder, type Order } from "@/core/commands";
import { integrityFault } from "@/core/formats";
import type { Photo, RecordEntry } from "@/core/records";
import { emptyPlan, invert, PlanIndex, type ChangeBatch, type Plan } from "@/core/plan";
import { aSite, testId } from "@/core/testing/build-plan";
import { createUiStore } from "@/ui/frame/ui-state";
import { addBatch, isJudged, type Held } from "@/ui/plan-store/held";
import { judgedNow } from "@/ui/plan-store/judge";
import { judgedList } from "@/ui/plan-store/judged-list";
import type { RecordState } from "@/ui/record-store/store";
import type { PlanState } from "@/ui/plan-store/plan-state";

// A plan that components are drawn on and edit, in place of the store that a server stands behind: orders run,
// the plan changes, everything that shows it is drawn again. Use it as
// jest.mock("@/ui/plan-store/use-plan", () => jest.requireActual<Support>("…/plan-scene").scene.planModule).

/** One thing that was written: its batch, or the sentence why not. */
export interface Written {
  readonly batch: ChangeBatch | null;
  readonly refusal: string | null;
}

const heldOf = (plan: Plan): Held => {
  const index = PlanIndex.of(plan);
  return {
    base: plan,
    revision: 7,
    pending: [],
    stuck: [],
    index,
    judged: { index, findings: runChecks(index) },
  };
};

type Scene = Omit<PlanState, "held"> & { readonly held: Held };

function state(plan: Plan, set: (part: Partial<Scene>) => void, get: () => Scene, written: Written[]): Scene {
  let made = 0;
  const held = heldOf(plan);
  const calm = () => undefined;
  const commit = (batch: ChangeBatch): string | null => {
    const added = addBatch(get().held, batch);
    if (!added.ok) return integrityFault(added.error, (id) => id).sentence;
    const held = judgedNow(added.value);
    set({ held, ...judgedList(held.judged) });
    return null;
  };
  return {
    site: plan.site.id,
    person: "Ruth",
    role: "owner",
    phase: "ready",
    failure: null,
    held,
    ...judgedList(held.judged),
    steps: { undo: null, redo: null, undoIsImport: false },
    saving: "saved",
    trouble: null,
    savedAt: null,
    keeping: "kept",
    dropped: [],
    stepClash: null,
    asking: false,
    confirmingUndo: false,
    load: () => Promise.resolve(),
    edit: (order: Order) => {
      const { batch, refusal } = runOrder(get().held.index, () => testId("scene", `${(made += 1)}`), order);
      const sentence = batch === null ? refusal : commit(batch);
      written.push({ batch: sentence === null ? batch : null, refusal: sentence });
      return sentence;
    },
    commit: (batch) => {
      const refusal = commit(batch);
      written.push({ batch: refusal === null ? batch : null, refusal });
      return refusal;
    },
    undo: () => {
      const last = get().held.pending.at(-1);
      const back =
        last === undefined ? null : { ...last, id: `${last.id} back`, changes: invert(last.changes) };
      return Promise.resolve(back === null ? "There is nothing to undo." : commit(back));
    },
    undoImport: () => Promise.resolve(null),
    keepImport: calm,
    redo: () => Promise.resolve(null),
    hear: () => Promise.resolve(),
    refresh: () => Promise.resolve(),
    ask: (asking) => set({ asking }),
    decide: calm,
    withdraw: calm,
    decideStep: () => Promise.resolve(null),
    acknowledge: () => set({ dropped: [] }),
  };
}

const NO_RECORD: RecordState = {
  isReady: true,
  record: [],
  waiting: [],
  refused: [],
  photos: [],
  trouble: null,
  isKept: true,
};

/** The record of a site in memory: what is added stands in it, and nothing is sent. */
function makeRecord() {
  const store = createStore<RecordState>()(() => NO_RECORD);
  const add = (entry: RecordEntry, taken: readonly Photo[] = []) =>
    store.setState(({ record, photos }) => ({
      record: [...record, { by: "Ruth", entry }],
      photos: [...photos, ...taken],
    }));
  return { store, add };
}

function makeScene(first: Plan) {
  const written: Written[] = [];
  const store = createStore<Scene>()((set, get) => state(first, set, get, written));
  const ui = createUiStore();
  const record = makeRecord();
  const noSelection = { selection: null, commandOpen: false, helpOpen: false, folded: false };
  return {
    written,
    store,
    ui,
    record,
    /** Begins anew with a plan; nothing is selected and nothing written. */
    show: (plan: Plan) => {
      written.length = 0;
      ui.setState({
        ...noSelection,
        hardware: "drawing",
        probeWay: "journey",
        probed: false,
        runbookWay: null,
        testsTab: "sheet",
        complaint: null,
      });
      store.setState(state(plan, store.setState, store.getState, written));
      record.store.setState(NO_RECORD);
    },
    recordModule: {
      useRecordNews: () => undefined,
      useWholeRecord: () => () =>
        Promise.resolve({ record: record.store.getState().record, photos: [], missing: 0 }),
      useRecord: () => ({
        ...useStore(record.store),
        add: record.add,
        drop: () => undefined,
        sync: () => Promise.resolve(),
      }),
    },
    planModule: {
      usePlanStore: () => store,
      usePlan: <T,>(select: (state: Scene) => T): T => useStore(store, select),
      useHeld: () => useStore(store, ({ held }) => held),
      useIndex: () => useStore(store, ({ held }) => held.index),
      useJudged: () => useStore(store, ({ held }) => isJudged(held)),
      useHasFindings: () => useStore(store, ({ held }) => held.judged !== null),
      useFoundIn: () => useStore(store, ({ held }) => held.judged?.index ?? held.index),
    },
    uiModule: {
      useUiStore: () => ui,
      useUi: <T,>(select: (state: ReturnType<typeof ui.getState>) => T): T => useStore(ui, select),
    },
  };
}

/** The one scene of a test file; `show` begins it anew. */
export const scene = makeScene(emptyPlan(aSite()));
