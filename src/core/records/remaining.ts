import { afterEdits, PlanEdits, type PlanIndex } from "../plan";
import {
  JUST_ASKED,
  operationsBetween,
  operationWords,
  provenFrom,
  type Asked,
  type Operation,
  type Proven,
} from "../runbook";
import { siteAsIs } from "./as-is";
import type { Recorded, Tick } from "./entry";
import { copiedDevices, latestVisit, signedPermits, stepKey, unnamedDevices, unsavedDevices } from "./visit";

const keyOf = (index: PlanIndex, operation: Operation): string =>
  stepKey({
    kind: "do",
    device: operation.device,
    page: operation.page,
    ...operationWords(index, operation),
  });

/** The plan without what can't be done: there, what is on the devices stays. */
function without(index: PlanIndex, asIs: PlanIndex, left: readonly Operation[]): PlanIndex {
  const edits = new PlanEdits(index.plan);
  for (const { edits: all } of left)
    for (const edit of all) {
      const id = edit.do === "put" ? edit.entity.id : edit.id;
      const was = asIs.plan[edit.kind].get(id);
      if (was === undefined) edits.remove(edit.kind, id);
      else if (edit.do === "set" && edits.get(edit.kind, id) !== undefined) {
        const fields = was as unknown as Record<string, unknown>;
        edits.patch(
          edit.kind,
          id,
          Object.fromEntries(Object.keys(edit.fields).map((name) => [name, fields[name]])),
        );
      } else edits.put(edit.kind, was);
    }
  return afterEdits(index, edits) ?? index;
}

/**
 * The order of what is still to do, from what is on the devices by the record to the plan. What was told in the
 * visit that goes on to be not to be done is left out; what was not saved is saved. Null as `provenFrom`.
 */
export function remaining(
  index: PlanIndex,
  record: readonly Recorded[],
  asked: Asked = JUST_ASKED,
): Proven | null {
  const asIs = siteAsIs(
    index,
    record.map(({ entry }) => entry),
  );
  if (asIs === null) return null;
  const visit = latestVisit(record);
  const ticks = visit === null || visit.ended !== null ? [] : visit.ticks.map(({ tick }) => tick);
  const has = (kind: Tick["step"]["kind"]) => ticks.some(({ step }) => step.kind === kind);
  const told = new Set(ticks.flatMap(({ step, came }) => (came === "cannot" ? [stepKey(step)] : [])));
  const left =
    told.size === 0
      ? []
      : operationsBetween(asIs, index).filter((operation) => told.has(keyOf(index, operation)));
  return provenFrom(left.length === 0 ? index : without(index, asIs, left), asIs, {
    unsaved: unsavedDevices(ticks),
    unnamed: unnamedDevices(ticks),
    copied: copiedDevices(ticks),
    signed: signedPermits(ticks),
    isBegun: has("begin"),
    isPutBack: has("end"),
    ...asked,
  });
}
