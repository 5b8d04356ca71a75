import type { Former } from "../diagnosis";
import type { PlanIndex } from "../plan";
import { countingEntries, stateFrom, type Changing } from "./as-is";
import type { RecordEntry } from "./entry";

const isOn = (device: string, kind: "save" | "do", entry: Changing): boolean =>
  entry.do === "tick" && entry.step.device === device && entry.step.kind === kind && entry.came === "done";

/**
 * How a device comes back by the record where it restarts without its last work having been saved: as at its
 * last save; or, where nothing was done since, as at the save before, since a save may not have taken. Null
 * where the record has no such save: then it comes back as out of the box.
 */
export function savedBefore(
  index: PlanIndex,
  entries: readonly RecordEntry[],
  device: string,
): Former | null {
  const counting = countingEntries(entries);
  const saves = counting.flatMap((entry, at) => (isOn(device, "save", entry) ? [at] : []));
  const last = saves.at(-1);
  const isWorkedOn = counting.some(
    (entry, at) => at > (last ?? 0) && isOn(device, "do", entry) && entry.changes.length > 0,
  );
  const at = isWorkedOn ? last : saves.at(-2);
  if (at === undefined) return null;
  return {
    state: () =>
      stateFrom(
        index,
        counting.slice(0, at + 1).flatMap(({ changes }) => changes),
      ),
    words: isWorkedOn ? "as it was at its last save" : "as it was before its last save",
  };
}
