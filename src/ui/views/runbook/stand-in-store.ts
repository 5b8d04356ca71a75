"use client";

import { useStore } from "zustand";
import { createStore } from "zustand/vanilla";
import type { BenchAnswer } from "@/http/contracts/device-contracts";
import { call } from "../../plan-store/api";

/** One line of what was done and what came of it. */
export interface Said {
  readonly what: string;
  readonly came: "done" | "silent" | "refused" | "byHand";
  readonly words: string;
}
interface Bench {
  readonly state: BenchAnswer["state"] | null;
  /** Why the stand-ins could not be asked; null where nothing is in the way. */
  readonly fault: string | null;
  readonly isBusy: boolean;
  readonly log: readonly Said[];
}

const IDLE: Bench = { state: null, fault: null, isBusy: false, log: [] };
const MOST_LINES = 200;

/** What is done and asked, and how it is told. */
export interface Act {
  readonly what: string;
  readonly body: unknown;
  /** What it does, where it is done by hand. */
  readonly byHand?: string;
}

function wordsOf({ byHand }: Act, heard: BenchAnswer["heard"], ms: number): Omit<Said, "what"> {
  if (byHand !== undefined) return { came: "byHand", words: byHand };
  if (heard === null)
    return { came: "silent", words: "No answer: from where the laptop is, it is not reached, or no longer." };
  const isDone = heard.status >= 200 && heard.status < 300;
  return isDone
    ? { came: "done", words: `Answered ${heard.status} after ${ms} ms.` }
    : { came: "refused", words: `Answered ${heard.status}: ${messageIn(heard.text)}` };
}

/** What a refusal says (RFC 8040 section 7.1). */
const messageIn = (text: string): string => /"error-message":"((?:[^"\\]|\\.)*)"/.exec(text)?.[1] ?? "";

function createBench(site: string) {
  const store = createStore<Bench>()(() => IDLE);
  const path = `/api/sites/${site}/stand-ins`;
  const look = async () => {
    const answer = await call<BenchAnswer>(path);
    store.setState(
      answer.ok ? { state: answer.value.state, fault: null } : { fault: answer.refused.sentence },
    );
  };
  const act = async (act: Act) => {
    if (store.getState().isBusy) return;
    store.setState({ isBusy: true });
    const began = performance.now();
    const answer = await call<BenchAnswer>(path, "POST", act.body);
    const ms = Math.round(performance.now() - began);
    if (!answer.ok) return store.setState({ isBusy: false, fault: answer.refused.sentence });
    const said = { what: act.what, ...wordsOf(act, answer.value.heard, ms) };
    const log = [...store.getState().log, said].slice(-MOST_LINES);
    store.setState({ isBusy: false, fault: null, state: answer.value.state, log });
  };
  return { store, look, act, forget: () => store.setState({ log: [] }) };
}

const BENCHES = new Map<string, ReturnType<typeof createBench>>();

/** The stand-in devices of a site, as this page last saw them. */
export function useBench(site: string) {
  const bench = BENCHES.get(site) ?? createBench(site);
  BENCHES.set(site, bench);
  const { look, act, forget } = bench;
  return { ...useStore(bench.store), look, act, forget };
}
