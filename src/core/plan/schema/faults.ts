import { z } from "zod";
import { SCHEMAS, type Entity, type Kind } from "./kinds";

/** What lies at a path of a value; undefined where the path leads nowhere. */
export const valueAt = (root: unknown, path: readonly PropertyKey[]): unknown =>
  path.reduce<unknown>(
    (value, key) =>
      typeof value === "object" && value !== null ? (value as Record<PropertyKey, unknown>)[key] : undefined,
    root,
  );

const shown = (value: unknown): string => {
  const text = JSON.stringify(value) ?? "nothing";
  return text.length > 60 ? `${text.slice(0, 57)}…` : text;
};

const ARTICLES: Record<string, string> = {
  string: "a text",
  number: "a number",
  int: "a whole number",
  boolean: "true or false",
  array: "a list",
  object: "an object",
  null: "null",
};

/** What is wrong with one value, in words; also used for what arrives from a form or another program. */
export function issueSentence(issue: z.core.$ZodIssue, value: unknown): string {
  switch (issue.code) {
    case "invalid_type":
      if (value === undefined)
        return `is missing; ${ARTICLES[issue.expected] ?? issue.expected} belongs here.`;
      return issue.message.startsWith("Invalid input")
        ? `${ARTICLES[issue.expected] ?? issue.expected} belongs here, not ${shown(value)}.`
        : `${issue.message}, not ${shown(value)}.`;
    case "unrecognized_keys":
      return (
        "has a field that a plan does not know: " +
        `${issue.keys.map((key) => `"${key}"`).join(", ")}; remove it.`
      );
    case "invalid_value":
      return `${issue.values.map((v) => JSON.stringify(v)).join(" or ")} belongs here, not ${shown(value)}.`;
    case "invalid_union":
      return `${shown(value)} is none of the forms that belong here.`;
    case "too_big":
      return issue.message.startsWith("Too big")
        ? `is too large; at most ${String(issue.maximum)} (${shown(value)}).`
        : `${issue.message} (${shown(value)}).`;
    case "too_small":
      return issue.message.startsWith("Too small")
        ? `is too small; at least ${String(issue.minimum)} (${shown(value)}).`
        : `${issue.message} (${shown(value)}).`;
    case "invalid_format":
      return issue.message.startsWith("Invalid")
        ? `${shown(value)} is not written as it should be.`
        : `${issue.message}, not ${shown(value)}.`;
    default:
      return `${issue.message}${issue.message.includes('"') ? "" : ` (${shown(value)})`}.`;
  }
}

/**
 * Why an entity can't stand in a plan, or null when it can: the same rules that refuse a file or a request.
 * An edit that passed its own questions is held to them too, so that no field needs to state the schema's
 * rules again.
 */
export function entityFault(kind: Kind, entity: Entity): string | null {
  const written = z.safeEncode(SCHEMAS[kind] as z.ZodType, entity);
  const [issue] = written.success ? [] : written.error.issues;
  if (issue === undefined) return null;
  const field = issue.path.filter((key) => typeof key === "string").join(" ");
  return `${field === "" ? "" : `${field}: `}${issueSentence(issue, valueAt(entity, issue.path))}`;
}
