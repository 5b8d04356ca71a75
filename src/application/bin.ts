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
    await tx.note(by, site, "site-deleted");
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
export const bringSiteBack = (store: PlanStore, site: string, by: Person): Promise<Done> =>
  inBin(store, site, async (tx) => {
    await tx.outOfBin(site);
    await tx.note(by, site, "site-back");
  });

/** Deletes a site in the bin for good: there is no way back, so the caller has asked twice. */
export const forgetSite = (store: PlanStore, site: string, by: Person): Promise<Done> =>
  inBin(store, site, async (tx) => {
    await tx.note(by, site, "site-forgotten");
    await tx.removeSite(site);
  });

/** What of a person lies in the bin; of everybody's, what has had its days goes first. */
export async function readBin(store: PlanStore, owner: Person): Promise<readonly BinnedSite[]> {
  for (const { id, isOver } of await store.bin(null))
    if (isOver) await inBin(store, id, (tx) => tx.removeSite(id));
  return (await store.bin(owner.id)).filter(({ isOver }) => !isOver);
}
