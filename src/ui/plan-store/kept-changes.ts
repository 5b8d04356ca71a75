import { z } from "zod";
import { batchOf, changeBatchSchema, encodeBatch, upgradedBatches } from "@/core/formats";
import type { ChangeBatch } from "@/core/plan";

const key = (site: string) => `dianome:waiting:${site}`;

/** Beyond this the browser's store would refuse, and writing it out would hold the page up: the file it came from is still there. */
const MOST_KEPT = 20_000;

/** Changes that the server does not have yet survive a closed tab and a lost connection. */
export function keepChanges(site: string, pending: readonly ChangeBatch[]): void {
  const count = pending.reduce((sum, batch) => sum + batch.changes.length, 0);
  try {
    if (count === 0 || count > MOST_KEPT) localStorage.removeItem(key(site));
    else localStorage.setItem(key(site), JSON.stringify(pending.map(encodeBatch)));
  } catch (error) {
    // A full store: the changes are still in memory and on their way. An older list would leave some of them out.
    if (!(error instanceof DOMException)) throw error;
    localStorage.removeItem(key(site));
  }
}

/** Whether closing the tab now would lose changes: they wait, and they were too many to keep. */
export const wouldBeLost = (site: string, pending: readonly ChangeBatch[]): boolean =>
  pending.length > 0 && localStorage.getItem(key(site)) === null;

export function keptChanges(site: string): ChangeBatch[] {
  const text = localStorage.getItem(key(site));
  if (text === null) return [];
  try {
    return z.array(changeBatchSchema).parse(upgradedBatches(JSON.parse(text))).map(batchOf);
  } catch (error) {
    // Not written by keepChanges: it must not keep the plan from opening.
    if (!(error instanceof SyntaxError || error instanceof z.ZodError)) throw error;
    return [];
  }
}
