import type { ProbeQuestion } from "../../plan";
import type { EditContext, Refusal } from "../planner";

/** Keeps a probe with what came of it, so that it can be asked again after every change. */
export function keepProbe(
  { edits, ids }: EditContext,
  question: ProbeQuestion,
  {
    name,
    passes,
    segment,
  }: { readonly name: string; readonly passes: boolean; readonly segment: string | null },
): Refusal {
  const text = name.trim().slice(0, 80);
  if (text === "") return "Give the probe a name to keep it under.";
  if (edits.all("expectation").some((kept) => kept.name === text))
    return `A probe is kept as "${text}" already.`;
  edits.put("expectation", { id: ids(), name: text, question, passes, segment, note: "" });
  return null;
}

/** Turns round whether a kept probe has to get through. */
export function setExpected({ edits }: Pick<EditContext, "edits">, id: string, passes: boolean): void {
  edits.patch("expectation", id, { passes });
}
