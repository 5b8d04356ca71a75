import { z } from "zod";
import { tryField, type DrillTry } from "@/core/drills";
import { call } from "../plan-store/api";
import { readKept, writeKept } from "./kept";

const KEY = "dianome:drill-tries";
/** As many wait at most for a server that is away. */
const MOST_WAITING = 200;
const triesForm = z.array(tryField).max(MOST_WAITING);

const waiting = (): DrillTry[] => readKept(KEY, triesForm) ?? [];
const keep = (tries: readonly DrillTry[]): void => writeKept(KEY, tries.slice(-MOST_WAITING));

/** How many tries wait to be counted. */
export const waitingTries = (): number => waiting().length;

async function sendAll(): Promise<boolean> {
  for (;;) {
    const [first] = waiting();
    if (first === undefined) return true;
    const answer = await call("/api/drills", "POST", first);
    if (!answer.ok && answer.refused.code !== "bad-request") return false;
    keep(waiting().filter(({ id }) => id !== first.id));
  }
}

let sending: Promise<boolean> = Promise.resolve(true);

/**
 * Sends what waits, one after the other and by one at a time: what was taken, and what the server can never
 * take, goes. True when nothing waits any more.
 */
export function sendTries(): Promise<boolean> {
  sending = sending.then(sendAll, sendAll);
  return sending;
}

/** Counts a try that is over: it waits here until the server has it. */
export function addTry(tried: DrillTry): Promise<boolean> {
  if (!waiting().some(({ id }) => id === tried.id)) keep([...waiting(), tried]);
  return sendTries();
}
