/**
 * The value, or a crash that names the broken assumption. For what the code itself guarantees, never for
 * input.
 */
export function must<T>(value: T | null | undefined, assumption: string): T {
  if (value === null || value === undefined) throw new Error(`Broken assumption: ${assumption}`);
  return value;
}
