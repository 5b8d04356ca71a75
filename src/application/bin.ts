import { err, ok, type Result } from "@/core/kernel";
import { NO_SUCH_SITE, NOT_IN_BIN, type AppError } from "./errors";
import type { BinnedSite, Person, PlanStore, PlanTx } from "./stores";

// A deleted site lies in the bin for thirty days, whole: its history, its record, its photos. Nobody meets it
// elsewhere, and what somebody had waiting for it is sent when it is back.

type Done = Result<{ id: string }, AppError>;

/** Puts a site into the bin. */
export const removeSite = (store: PlanStore, site: string, by: Person): Promise<Done> =>
  store.transaction(async (tx): Promise<Done> => {
    if ((await tx.lockSite(site)) === null) return err(NO_SUCH_SITE);
    await tx.toBin(site, by);
    return ok({ id: site });
  });

const inBin = (store: PlanStore, site: string, work: (tx: PlanTx) => Promise<void>): Promise<Done> =>
  store.transaction(async (tx): Promise<Done> => {
    if ((await tx.lockInBin(site)) === null) return err(NOT_IN_BIN);
    await work(tx);
    return ok({ id: site });
  });

/** Brings a site back as it was. */
export const bringSiteBack = (store: PlanStore, site: string): Promise<Done> =>
  inBin(store, site, (tx) => tx.outOfBin(site));

/** Deletes a site in the bin for good: there is no way back, so the caller has asked twice. */
export const forgetSite = (store: PlanStore, site: string): Promise<Done> =>
  inBin(store, site, (tx) => tx.removeSite(site));

/** What lies in the bin; whose days are over goes first. */
export async function readBin(store: PlanStore): Promise<readonly BinnedSite[]> {
  const all = await store.bin();
  for (const { id, isOver } of all) if (isOver) await forgetSite(store, id);
  return all.filter(({ isOver }) => !isOver);
}
