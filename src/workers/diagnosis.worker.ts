import { expose } from "comlink";
import { answer, changesOnDevices, Study, type Answer, type Named, type Reading } from "@/core/diagnosis";
import { PlanIndex, type Change, type Plan } from "@/core/plan";
import { savedBefore, siteAsIs, type RecordEntry } from "@/core/records";

let study: Study | null = null;

/**
 * Whose readings are looked at: what was worked out for an earlier plan, or before more was done on devices,
 * is of no use. `done` is what was done by the record.
 */
const load = (plan: Plan, named: Named, done: readonly RecordEntry[]): void => {
  const index = PlanIndex.of(plan);
  study = new Study(index, { named, formerly: (device) => savedBefore(index, done, device) });
};

/** What the readings come to; tells how far it is. Null where no plan is loaded. */
const ask = (
  readings: readonly Reading[],
  byPairs: boolean,
  tell: (done: number, all: number) => void,
): Answer | null => (study === null ? null : answer(study, readings, { byPairs }, tell));

/** What of a fault is otherwise on the devices, as the record has them. */
function onDevices(id: string, record: readonly RecordEntry[]): readonly Change[] {
  const suspect = study?.suspect(id) ?? null;
  const asIs = study === null ? null : siteAsIs(study.index, record);
  return suspect === null || asIs === null ? [] : changesOnDevices(suspect, asIs);
}

const api = { load, ask, onDevices };
export type DiagnosisWorker = typeof api;

expose(api);
