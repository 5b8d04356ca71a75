import { useStore } from "zustand";
import { createStore } from "zustand/vanilla";
import { answer, changesOnDevices, Study, type Answer } from "@/core/diagnosis";
import { PlanIndex } from "@/core/plan";
import { siteAsIs, type RecordEntry } from "@/core/records";
import type { Asked } from "@/ui/views/tests/wrong/use-diagnosis";

const store = createStore<{ readonly asked: Asked; readonly answer: Answer } | { readonly asked: null }>()(
  () => ({
    asked: null,
  }),
);
let study: Study | null = null;

/** In place of the worker that tries the faults: done here and at once. */
export const diagnosisModule = {
  startDiagnosis: (asked: Asked) => {
    study = new Study(PlanIndex.of(asked.plan), asked);
    store.setState({ asked, answer: answer(study, asked.readings, { byPairs: asked.byPairs }) });
  },
  cancelDiagnosis: () => undefined,
  changesOfFault: (id: string, record: readonly RecordEntry[]) => {
    const suspect = study?.suspect(id) ?? null;
    const asIs = study === null ? null : siteAsIs(study.index, record);
    return Promise.resolve(suspect === null || asIs === null ? [] : changesOnDevices(suspect, asIs));
  },
  useDiagnosis: () => {
    const now = useStore(store);
    return {
      asked: now.asked,
      done: 0,
      all: 0,
      answer: now.asked === null ? null : now.answer,
      of: now.asked,
      isWorking: false,
      fault: null,
    };
  },
};
