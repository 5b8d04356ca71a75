import { testSheet, type TestSheet } from "@/core/commissioning";
import type { Plan } from "@/core/plan";
import { scene } from "./plan-scene";

let known: { readonly plan: Plan; readonly of: Plan; readonly sheet: TestSheet } | null = null;

/** What is otherwise than that all is worked out; set by a test. */
export const worker: { now: object; readonly started: Plan[] } = { now: {}, started: [] };

/** In place of the worker that works the readings out: done here and at once, for the plan of the scene. */
export const testSheetModule = {
  useTestSheet: () => {
    const { index } = scene.store.getState().held;
    if (known?.plan !== index.plan) known = { plan: index.plan, of: index.plan, sheet: testSheet(index) };
    return { ...known, done: 0, all: 0, isWorking: false, fault: null, ...worker.now };
  },
  startTestSheet: ({ plan }: { readonly plan: Plan }) => worker.started.push(plan),
  cancelTestSheet: () => undefined,
};
