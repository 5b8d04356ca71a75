import type { EntityOf, Kind } from "./kinds";
import { READERS, WRITERS } from "./stored.generated";
import type { MISFIT } from "./stored-parts";

/**
 * An entity that our own server has validated, from the plan file's form: texts become values, and what needs
 * nothing done stays the object it is. MISFIT where a field is missing, strange or of another type; ranges and
 * rules between fields are not asked again. Made from the same schemas as the strict way, and held to it.
 */
export const decodeStored = <K extends Kind>(kind: K, value: unknown): EntityOf<K> | typeof MISFIT =>
  READERS[kind](value) as EntityOf<K> | typeof MISFIT;

/**
 * An entity of a plan in the plan file's form, as JSON takes it: values become texts, the rest stays the
 * object it is. What it is given is not asked again; held to the schema's own way.
 */
export const encodeStored = <K extends Kind>(
  kind: K,
  entity: EntityOf<K>,
): Readonly<Record<string, unknown>> => WRITERS[kind](entity) as Readonly<Record<string, unknown>>;
