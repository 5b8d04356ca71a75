"use client";

import { proxy, wrap, type Remote } from "comlink";
import { useStore } from "zustand";
import { createStore } from "zustand/vanilla";
import type { Answer, Named, Reading } from "@/core/diagnosis";
import type { Change, Plan } from "@/core/plan";
import type { RecordEntry } from "@/core/records";
import type { DiagnosisWorker } from "@/workers/diagnosis.worker";

/** What is asked: which readings, of which plan, by one fault or by two. */
export interface Asked {
  readonly plan: Plan;
  readonly readings: readonly Reading[];
  readonly named: Named;
  /** What was done on devices by the record. */
  readonly done: readonly RecordEntry[];
  readonly byPairs: boolean;
}

interface Work {
  readonly asked: Asked | null;
  readonly done: number;
  readonly all: number;
  readonly answer: Answer | null;
  /** What the answer is to: an earlier question as long as the new one is worked out, or was called off. */
  readonly of: Asked | null;
  readonly isWorking: boolean;
  readonly fault: string | null;
}

const IDLE: Work = {
  asked: null,
  done: 0,
  all: 0,
  answer: null,
  of: null,
  isWorking: false,
  fault: null,
};
const NO_WORKER = "It could not be worked out in this browser; reload the page and try again.";
const store = createStore<Work>()(() => IDLE);

/** The worker keeps what it has compiled for one plan: another one, or calling it off, takes a new worker. */
interface Own {
  readonly worker: Worker;
  readonly remote: Remote<DiagnosisWorker>;
  readonly plan: Plan;
  readonly about: string;
  readonly loaded: Promise<void>;
}
let own: Own | null = null;

function stop(): void {
  own?.worker.terminate();
  own = null;
}

function workerFor({ plan, named, done }: Asked): Own {
  const about = JSON.stringify([named, done.map(({ id }) => id)]);
  const isSame = own?.plan === plan && own.about === about;
  if (own !== null && isSame && !store.getState().isWorking) return own;
  stop();
  const worker = new Worker(new URL("../../../../workers/diagnosis.worker.ts", import.meta.url), {
    type: "module",
  });
  const remote = wrap<DiagnosisWorker>(worker);
  own = { worker, remote, plan, about, loaded: remote.load(plan, named, done) };
  return own;
}

/** Asks what explains the readings, in a worker; what is asked already is stopped. */
export function startDiagnosis(asked: Asked): void {
  const mine = workerFor(asked);
  const kept = store.getState().of?.plan.site.id === asked.plan.site.id ? store.getState() : IDLE;
  store.setState({ ...IDLE, answer: kept.answer, of: kept.of, asked, isWorking: true });
  const isMine = () => store.getState().asked === asked;
  const tell = proxy((done: number, all: number) => {
    if (isMine()) store.setState({ done, all });
  });
  void mine.loaded
    .then(() => mine.remote.ask(asked.readings, asked.byPairs, tell))
    .then(
      (answer) => {
        if (isMine()) store.setState({ answer, of: asked, isWorking: false });
      },
      () => {
        if (isMine()) store.setState({ isWorking: false, fault: NO_WORKER });
      },
    );
}

/** Calls it off; what was found before stays. */
export function cancelDiagnosis(): void {
  stop();
  store.setState({ isWorking: false });
}

/** What of a fault is otherwise on the devices; nothing where the worker is gone. */
export const changesOfFault = async (
  id: string,
  record: readonly RecordEntry[],
): Promise<readonly Change[]> => (own === null ? [] : own.remote.onDevices(id, record));

/** What explains the readings of a site, as far as it is worked out; that of another site is not its. */
export const useDiagnosis = (site: string): Work => {
  const now = useStore(store);
  return now.asked?.plan.site.id === site ? now : IDLE;
};
