import type { EntityOf, Kind } from "./kinds";
import { READERS } from "./stored.generated";
import type { MISFIT } from "./stored-parts";

/**
 * An entity that our own server has validated, from the plan file's form: texts become values, and what needs
 * nothing done stays the object it is. MISFIT where a field is missing, strange or of another type; ranges and
 * rules between fields are not asked again. Made from the same schemas as the strict way, and held to it.
 */
export const decodeStored = <K extends Kind>(kind: K, value: unknown): EntityOf<K> | typeof MISFIT =>
  READERS[kind](value) as EntityOf<K> | typeof MISFIT;
