import { z } from "zod";
import { KINDS, SCHEMAS, type PlanEdits, type Entity, type Kind } from "../plan";
import type { Dice } from "./plants";

// Edits of every kind and field there is, made from the schemas themselves, so that a field to come is edited
// unasked.

type Json = Record<string, unknown>;
const isJson = (value: unknown): value is Json =>
  typeof value === "object" && value !== null && !Array.isArray(value);
/** One of a list that is not empty; null is a value like any other. */
const pick = <T>(roll: Dice, list: readonly T[]): T => list[roll(list.length)] as T;

/**
 * Values that a field's schema names or bounds: its choices, both truths, null, the ends of a range, the
 * empty and the shortened list.
 */
function valuesOf(schema: Json, present: unknown): unknown[] {
  const any = schema.anyOf ?? schema.oneOf;
  if (Array.isArray(any)) return any.flatMap((value) => (isJson(value) ? valuesOf(value, present) : []));
  if (Array.isArray(schema.enum)) return schema.enum;
  if ("const" in schema) return [schema.const];
  switch (schema.type) {
    case "boolean":
      return [true, false];
    case "null":
      return [null];
    case "integer":
    case "number":
      return [schema.minimum, schema.maximum, 1, 20, 30, 4096].filter((value) => typeof value === "number");
    case "string":
      return [
        "",
        "x",
        "Cabinet A",
        "10.24.20.9",
        "10.24.20.0/25",
        "fd00:24::9",
        "02:5a:10:00:00:01",
        "2020-01-01",
      ];
    case "array":
      return [
        [],
        ...(Array.isArray(present)
          ? [present.slice(1), [...(present as unknown[]), ...(present as unknown[]).slice(0, 1)]]
          : []),
        [20],
        [20, 30],
      ];
    default:
      return [];
  }
}

/** Where a value of a kind can be changed: each field, and each setting of a field that is an object. */
export interface FieldPath {
  readonly kind: Kind;
  readonly path: readonly string[];
  readonly schema: Json;
}

/** All fields of all kinds, by their schemas. Ids are left out: another id is another entity. */
export const FIELD_PATHS: readonly FieldPath[] = KINDS.flatMap((kind) => {
  const walk = (schema: unknown, path: readonly string[]): FieldPath[] => {
    const properties = isJson(schema) && isJson(schema.properties) ? schema.properties : {};
    return Object.entries(properties).flatMap(([name, inner]) => {
      if (name === "id" && path.length === 0) return [];
      if (isJson(inner))
        return [{ kind, path: [...path, name], schema: inner }, ...walk(inner, [...path, name])];
      return [];
    });
  };
  return walk(z.toJSONSchema(SCHEMAS[kind] as z.ZodType, { io: "input", unrepresentable: "any" }), []);
});

const at = (value: unknown, path: readonly string[]): unknown =>
  path.reduce<unknown>((inner, name) => (isJson(inner) ? inner[name] : undefined), value);
const withValue = (value: unknown, [name, ...rest]: readonly string[], set: unknown): unknown => {
  if (name === undefined) return set;
  if (isJson(value)) return { ...value, [name]: withValue(value[name], rest, set) };
  return value;
};

/**
 * Writes one field of one entity into a draft: a value that its schema names, or the one that another entity
 * of the kind has there. Nothing when the result is no entity of the kind; whether the plan takes it is for
 * `applyChanges` to say.
 */
export function editField(edits: PlanEdits, { kind, path, schema }: FieldPath, roll: Dice): void {
  const all: readonly Entity[] = kind === "site" ? [edits.plan.site] : edits.all(kind);
  if (all.length === 0) return;
  const encode = (entity: Entity) => z.encode(SCHEMAS[kind] as z.ZodType, entity) as Json;
  const [entity, other] = [encode(pick(roll, all)), encode(pick(roll, all))];
  const values = [...valuesOf(schema, at(entity, path)), at(other, path), at(other, path)].filter(
    (value) => value !== undefined,
  );
  if (values.length === 0) return;
  const read = (SCHEMAS[kind] as z.ZodType).safeParse(withValue(entity, path, pick(roll, values)));
  if (read.success) edits.put(kind, read.data as never);
}
