import { notesOnly, type Change } from "@/core/plan";
import { reaches, type Role } from "@/http/contracts/answers";

/** Why somebody can't do what was tried; whoever owns the site can change that. */
export const mayNotDraw = (role: Role): string =>
  role === "field"
    ? "Your role here is field: you tick, test, write notes and remarks, take photos; editors plan the rest."
    : "Your role here is viewer: you read the plan and its record. An owner of the site can give you another.";

/** Why somebody can't make these changes; null where they can. Field people write notes. */
export const refusalOf = (role: Role, changes: readonly Change[]): string | null =>
  reaches(role, "editor") || (reaches(role, "field") && notesOnly(changes)) ? null : mayNotDraw(role);
