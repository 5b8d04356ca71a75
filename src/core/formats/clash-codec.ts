import { z } from "zod";
import { SCHEMAS, type Clash } from "../plan";

/** A clash with both values as the plan file would write them: plain JSON, addresses as text. */
export function encodeClash({ kind, id, field, mine, theirs }: Clash): Clash {
  const whole = SCHEMAS[kind] as z.ZodObject;
  const part: z.ZodType | undefined = field === null ? whole : (whole.shape[field] as z.ZodType | undefined);
  const text = (value: unknown): unknown =>
    value === null || part === undefined ? null : z.encode(part, value);
  return { kind, id, field, mine: text(mine), theirs: text(theirs) };
}
