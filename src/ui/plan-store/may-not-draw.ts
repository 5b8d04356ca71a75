import type { Role } from "@/http/contracts/answers";

/** Why somebody can't do what was tried; whoever owns the site can change that. */
export const mayNotDraw = (role: Role): string =>
  role === "field"
    ? "Your role here is field: you tick, test, remark and take photos; editors change the plan."
    : "Your role here is viewer: you read the plan and its record. An owner of the site can give you another.";
