import { v7 } from "uuid";
import { judge, type Expected, type Judged } from "@/core/commissioning";
import type { PlanIndex } from "@/core/plan";
import { deviceLookedAt, pageSeen } from "@/core/readback";

/** What was typed or pasted, as far as it can be judged. */
export interface JudgedRead {
  readonly judged: Judged | null;
  /** Of a device's pages the lines that differ; null for other readings, and for text that is no page. */
  readonly differs: string | null;
}

const UNJUDGED: JudgedRead = { judged: null, differs: null };
/** As much of what differs stands in the sentence. */
const MOST_SAID = 400;

/** Judges what was read; `id` is that of the reading, which says which device's pages are meant. */
export function judgedRead(index: PlanIndex, id: string, expected: Expected, read: string): JudgedRead {
  if (read === "") return UNJUDGED;
  if (expected.is !== "shown") return { judged: judge(index, expected, read), differs: null };
  const device = deviceLookedAt(index, id);
  const seen = device === null ? null : pageSeen(index, device, read, v7);
  if (seen?.ok !== true) return UNJUDGED;
  const { isRight, words, lines } = seen.value;
  const said = lines.replaceAll("\n", "; ").slice(0, MOST_SAID);
  return { judged: { isRight, words: isRight ? words : `${words} ${said}` }, differs: lines };
}
