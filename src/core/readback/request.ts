import { deviceData, yangText } from "../device-sheet";
import { err, ok, type Result } from "../kernel";
import { afterEdits, diff, PlanEdits, type Change, type PlanIndex } from "../plan";
import { editsOf, type Operation } from "../runbook";
import type { IdSource } from "../planners";
import { layReading, type Laying } from "./lay";
import { readYang } from "./read-yang";

/**
 * What a device is told so that an operation is done on it: its whole configuration as YANG data where that can
 * say it, else the settings as the plan names them.
 */
export type DeviceRequest =
  | { readonly says: "yang"; readonly text: string }
  | { readonly says: "settings"; readonly changes: readonly Change[] };

/** Ids for what is only tried: no two things have the same. */
function triedIds(): IdSource {
  let made = 0;
  return () => `00000000-0000-4000-8000-${String((made += 1)).padStart(12, "0")}`;
}

/**
 * The site after a device took YANG data; a sentence where it is none, or says what has no place in the plan.
 */
export function afterYang(laying: Laying, text: string): Result<PlanIndex, string> {
  const read = readYang(laying.index, laying.device, text);
  if (!read.ok) return read;
  const laid = layReading(laying, read.value);
  if (laid === null) return err("Parts of it refer to what is nowhere.");
  return laid.missed.length === 0 ? ok(laid.asIs) : err(laid.missed.join(" "));
}

/** How an operation is told to its device; null where it can't be done in this state. */
export function requestFor(index: PlanIndex, asIs: PlanIndex, operation: Operation): DeviceRequest | null {
  const device = index.plan.device.get(operation.device);
  const edits = editsOf(new PlanEdits(asIs.plan), operation);
  const after = afterEdits(asIs, edits);
  if (device === undefined || after === null) return null;
  const text = yangText(deviceData(after, device));
  const taken = afterYang({ index, asIs, device, ids: triedIds() }, text);
  return taken.ok && diff(taken.value.plan, after.plan).length === 0
    ? { says: "yang", text }
    : { says: "settings", changes: edits.changes() };
}
