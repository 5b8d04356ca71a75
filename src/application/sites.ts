import { forSite, type FileFault, type PlanHistory } from "@/core/formats";
import { err, ok, type Result } from "@/core/kernel";
import {
  CONVENTIONS,
  NO_BASELINE,
  NO_PAPER,
  NO_RADIO_RULES,
  diff,
  emptyPlan,
  type ChangeBatch,
  type Plan,
  type Site,
} from "@/core/plan";
import type { Photo, Recorded } from "@/core/records";
import { IN_BIN, type AppError } from "./errors";
import { MOST_ENTRIES, RECORD_FULL } from "./records";
import type { Person, PlanStore, ToldEntry } from "./stores";

export interface NewSite {
  readonly id: string;
  readonly name: string;
  readonly kind: Site["kind"];
  readonly timeZone: string;
  readonly customer: string | null;
  readonly by: Person;
}

/** An empty plan for a new site; the same id asked for again is the same site. */
export async function createSite(
  store: PlanStore,
  { id, name, kind, timeZone, customer, by }: NewSite,
): Promise<Result<{ id: string }, AppError>> {
  return store.transaction(async (tx): Promise<Result<{ id: string }, AppError>> => {
    if ((await tx.lockInBin(id)) !== null) return err(IN_BIN);
    // Sent again after a lost answer: it is there already.
    if ((await tx.lockSite(id)) !== null) return ok({ id });
    const site: Site = {
      id,
      name,
      kind,
      timeZone,
      blocks: [],
      conventions: CONVENTIONS,
      radio: NO_RADIO_RULES,
      baseline: NO_BASELINE,
      keepClear: [],
      paper: NO_PAPER,
    };
    await tx.addSite(site, customer);
    await tx.note(by, id, "site-made");
    return ok({ id });
  });
}

/** The whole file is refused for one fault in it, and nothing is written. */
export const badFile = (faults: readonly FileFault[]): AppError => ({
  code: "bad-file",
  sentence: faults[0]?.sentence ?? "The file is not a plan file.",
  faults,
});

/** A plan that came as a file. */
export interface CameIn {
  readonly id: string;
  readonly batchId: string;
  readonly plan: Plan;
  /** What was done on site, and by whom: people of another machine stay names. */
  readonly record?: readonly Recorded[];
  readonly photos?: readonly Photo[];
  /** The changes that made it; null where they are not told. */
  readonly history?: PlanHistory | null;
  readonly customer?: string | null;
  readonly by: Person;
}

const ID_TAKEN: FileFault = {
  place: "history",
  sentence: "history: A change in it has the id that this import was given; import the file once more.",
};

/** The batch that makes a whole plan. */
const importOf = (id: string, plan: Plan): ChangeBatch => ({
  id,
  planner: "import-plan",
  summary: `Imported the plan file of ${plan.site.name}`.slice(0, 120),
  args: null,
  changes: diff(emptyPlan(plan.site), plan),
});

/** The log of a new site: what its file tells, and what was there before that as one batch. */
function toldLog({ id, batchId, by }: CameIn, { batches, before }: PlanHistory): ToldEntry[] {
  const [first] = batches;
  const begun = importOf(batchId, { ...before, site: { ...before.site, id } });
  return [
    ...(first === undefined || first.revision === 1
      ? []
      : [
          {
            ...{ revision: first.revision - 1, batch: begun, by, undoes: null, redoes: null },
            said: { by: by.name, at: first.at },
          },
        ]),
    ...batches.map(({ by: name, at, batch, revision, undoes, redoes }) => ({
      ...{ revision, undoes, redoes, by, said: { by: name, at } },
      batch: { ...batch, changes: forSite(batch.changes, id) },
    })),
  ];
}

/**
 * Writes a whole plan that was read strictly as a new site, and its record; all of it or nothing. Its history
 * is the one that came with it, or begins with one batch that makes it all. The same id asked for again is the
 * same site.
 */
export async function storePlan(store: PlanStore, came: CameIn): Promise<Result<{ id: string }, AppError>> {
  const { id, batchId, plan, record = [], photos = [], history = null, customer = null, by } = came;
  if (record.length > MOST_ENTRIES) return err(RECORD_FULL);
  if (history?.batches.some(({ batch }) => batch.id === batchId) === true) return err(badFile([ID_TAKEN]));
  return store.transaction(async (tx): Promise<Result<{ id: string }, AppError>> => {
    const site: Site = { ...plan.site, id };
    if ((await tx.lockInBin(id)) !== null) return err(IN_BIN);
    if ((await tx.lockSite(id)) !== null) return ok({ id });
    await tx.addSite(site, customer);
    await tx.note(by, id, "site-made");
    const whole = { ...plan, site };
    if (history !== null) await tx.beginLog(id, toldLog(came, history), whole);
    else {
      const batch = importOf(batchId, whole);
      await tx.write(id, { revision: 1, batch, by, undoes: null, redoes: null }, whole);
    }
    await tx.beginRecord(
      id,
      by,
      record.map(({ by: saidBy, entry }) => ({ entry, saidBy })),
    );
    await tx.addPhotos(id, photos);
    return ok({ id });
  });
}
