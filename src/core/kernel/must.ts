/**
 * The value, or a crash that names the broken assumption. For what the code itself guarantees, never for
 * input.
 */
export function must<T>(value: T | null | undefined, assumption: string): T {
  if (value === null || value === undefined) throw new Error(`Broken assumption: ${assumption}`);
  return value;
}

/** Fails to compile when a case of a union has been forgotten. */
export function assertNever(value: never): never {
  throw new Error(`Unexpected value: ${String(value)}`);
}
