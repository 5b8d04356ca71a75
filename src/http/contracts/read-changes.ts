import type { z } from "zod";
import { changeSchema, type Breath } from "@/core/formats";
import type { Change } from "@/core/plan";
import type { Misfit } from "./contract";

/** The first thing that a schema has to say against a value, at its place in the body. */
export function misfitOf(error: z.ZodError, before: readonly PropertyKey[]): Misfit {
  const [issue] = error.issues;
  if (issue === undefined) throw new Error("A schema refused a value and said nothing of it");
  return { issue, path: [...before, ...issue.path] };
}

/** Changes one by one up to the first that does not fit, so that others get their turn between them. */
export async function readChanges(
  values: readonly unknown[],
  place: readonly PropertyKey[],
  breath: Breath,
): Promise<{ readonly changes: readonly Change[] } | Misfit> {
  const changes: unknown[] = [];
  for (const [i, value] of values.entries()) {
    const read = changeSchema.safeParse(value);
    if (!read.success) return misfitOf(read.error, [...place, i]);
    changes.push(read.data);
    await breath();
  }
  return { changes: changes as Change[] };
}
