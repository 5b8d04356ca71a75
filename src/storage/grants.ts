import type { Grant, Role, Scope } from "@/application/roles";
import type { Row } from "./pool";

/** Stands for everywhere where a place has an id. */
const EVERYWHERE = "00000000-0000-0000-0000-000000000000";

/** The id that a place is stored by. */
export const scopeId = (on: Scope): string => (on.kind === "all" ? EVERYWHERE : on.id);

/** The place that a row names. */
export function scopeOf(row: Row): Scope {
  const kind = String(row.scope) as Scope["kind"];
  return kind === "all" ? { kind } : { kind, id: String(row.scope_id) };
}
/** The role that a row gives, and where. */
export const grantOf = (row: Row): Grant => ({ on: scopeOf(row), role: String(row.role) as Role });
