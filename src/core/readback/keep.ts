import type { Plan, PlanIndex } from "../plan";
import { changesOfFound, siteAsIs, type Recorded } from "../records";
import { foundState } from "../runbook";
import { layReading, type Laid, type Laying } from "./lay";
import type { Reading } from "./reading";

/** What is known of the devices before one of them is read. */
export interface Known {
  readonly record: readonly Recorded[];
  /** What a plan file says of them, as long as nothing is recorded; null for gear out of the box. */
  readonly before: Plan | null;
}

/** What is known to be on the devices: by the record, or where it has nothing by what is chosen. */
const knownState = (index: PlanIndex, { record, before }: Known): PlanIndex | null =>
  record.length === 0
    ? foundState(index, before)
    : siteAsIs(
        index,
        record.map(({ entry }) => entry),
      );

/**
 * A reading laid on what is known, with all that the record has to be told: with the first reading also what a
 * plan file says of the other devices. Null where that is no state of the site.
 */
export function keepReading(
  { index, device, ids }: Omit<Laying, "asIs">,
  known: Known,
  reading: Reading,
): Laid | null {
  const asIs = knownState(index, known);
  const laid = asIs === null ? null : layReading({ index, asIs, device, ids }, reading);
  const isFile = known.record.length === 0 && known.before !== null;
  const told = isFile && known.before !== null ? changesOfFound(index, known.before) : [];
  return laid === null || told === null ? null : { ...laid, changes: [...told, ...laid.changes] };
}
