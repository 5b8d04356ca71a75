import type { z } from "zod";

/** Stands for "this is not as the schema has it": the strict way then says what is wrong. */
export const MISFIT = Symbol("misfit");
type Read = (value: unknown) => unknown;

export const isRow = (value: unknown): value is Readonly<Record<string, unknown>> =>
  typeof value === "object" && value !== null;

export function everyIs(value: unknown, fits: (element: unknown) => boolean): boolean {
  if (!Array.isArray(value)) return false;
  for (let i = 0; i < value.length; i += 1) if (!fits(value[i])) return false;
  return true;
}

/** The list itself where nothing in it is another on the value's side. */
export function listOf(value: unknown, read: Read): unknown {
  if (!Array.isArray(value)) return MISFIT;
  let list: unknown[] = value;
  for (let i = 0; i < value.length; i += 1) {
    const element = read(value[i]);
    if (element === MISFIT) return MISFIT;
    if (element === value[i]) continue;
    if (list === value) list = value.slice();
    list[i] = element;
  }
  return list;
}

/** Text to value as the schema's own codec does it. */
export function codec(schema: z.core.$ZodType): Read {
  const { transform } = schema._zod.def as unknown as {
    readonly transform: (text: string, payload: { readonly issues: unknown[] }) => unknown;
  };
  return (value) => {
    if (typeof value !== "string") return MISFIT;
    const payload = { value, issues: [] };
    const result = transform(value, payload);
    return payload.issues.length === 0 ? result : MISFIT;
  };
}

/** Value to text as the schema's own codec does it. */
export function written(schema: z.core.$ZodType): Read {
  const { reverseTransform } = schema._zod.def as unknown as {
    readonly reverseTransform: (value: unknown, payload: { readonly issues: unknown[] }) => unknown;
  };
  return (value) => reverseTransform(value, { issues: [] });
}

export const writtenList = (value: unknown, write: Read): unknown =>
  Array.isArray(value) ? value.map(write) : value;
