import { onPlan, outcomeText, type Ask } from "../diagnosis";
import { err, ok, type Result } from "../kernel";
import type { Device, PlanIndex } from "../plan";
import type { IdSource } from "../planners";
import { counted } from "../repairs";
import { layReading } from "./lay";
import { readDevice, readWords } from "./read-device";

/** What a device's own pages show, beside its plan. */
export interface PageSeen {
  readonly isRight: boolean;
  /** What differs, a line for each; empty where nothing does. */
  readonly lines: string;
  /** The same in a sentence, with how much was read. */
  readonly words: string;
}

/** Which pages a reading asks to be looked at; null for another reading. */
export function deviceLookedAt({ plan }: PlanIndex, id: string): Device | null {
  const [, device] = /^(?:shown device|look) (\S+)$/.exec(id) ?? [];
  return plan.device.get(device ?? "") ?? null;
}

/**
 * What a device shows, as a table or as YANG data, beside its plan: only what was read counts. An error is a
 * sentence why it cannot be read.
 */
export function pageSeen(
  index: PlanIndex,
  device: Device,
  text: string,
  ids: IdSource,
): Result<PageSeen, string> {
  const reading = readDevice(index, device, text);
  if (!reading.ok) return err(reading.error);
  const laid = layReading({ index, asIs: index, device, ids }, reading.value);
  if (laid === null) return err(`What ${device.name} shows does not fit together with the plan.`);
  const ask: Ask = { what: "look", look: { on: "device", device: device.id } };
  const [planned, now] = [onPlan(index, ask), onPlan(laid.asIs, ask)];
  const isRight = planned.key === now.key;
  const lines = isRight ? "" : outcomeText(index, planned.expected, now.expected);
  const missed = [...reading.value.missed, ...laid.missed];
  const read = `${readWords(reading.value)} read`;
  const left =
    missed.length === 0
      ? ""
      : ` ${counted(missed.length, "thing", "things")} could not be: ${missed.join(" ")}`;
  const differ = counted(lines.split("\n").length, "line differs", "lines differ");
  return ok({ isRight, lines, words: `${read}; ${isRight ? "all as planned" : differ}.${left}` });
}
