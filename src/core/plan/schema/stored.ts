import type { z } from "zod";
import { SCHEMAS, type EntityOf, type Kind } from "./kinds";

/** Stands for "this is not as the schema has it": the strict way then says what is wrong. */
export const MISFIT = Symbol("misfit");
type Decode = (value: unknown) => unknown;

/** What this file reads of a schema's definition: one shape for all types, each with its own part. */
interface Definition {
  readonly type: string;
  readonly shape?: Readonly<Record<string, z.core.$ZodType>>;
  readonly element?: z.core.$ZodType;
  readonly items?: readonly z.core.$ZodType[];
  readonly innerType?: z.core.$ZodType;
  readonly options?: readonly z.core.$ZodType[];
  readonly discriminator?: string;
  readonly values?: readonly unknown[];
  readonly entries?: Readonly<Record<string, unknown>>;
  readonly in?: z.core.$ZodType;
  readonly transform?: (value: unknown, payload: { value: unknown; issues: unknown[] }) => unknown;
}

const definitionOf = (schema: z.core.$ZodType): Definition => schema._zod.def as unknown as Definition;
const typed =
  (type: "string" | "number" | "boolean"): Decode =>
  (value) =>
    typeof value === type ? value : MISFIT;
const oneOf = (values: Iterable<unknown>): Decode => {
  const known = new Set(values);
  return (value) => (known.has(value) ? value : MISFIT);
};

/** How each type of schema is read; a type that is missing here has to be added before a schema may use it. */
const READERS: Readonly<Record<string, (definition: Definition) => Decode>> = {
  string: () => typed("string"),
  number: () => typed("number"),
  boolean: () => typed("boolean"),
  custom: () => (value) => value,
  enum: ({ entries = {} }) => oneOf(Object.values(entries)),
  literal: ({ values = [] }) => oneOf(values),
  nullable: ({ innerType }) => {
    const inner = decoderOf(innerType);
    return (value) => (value === null ? null : inner(value));
  },
  array: ({ element }) => listOf(decoderOf(element)),
  // A pair of numbers, such as a range of ports: nothing in it is another on the value's side.
  tuple: ({ items = [] }) => {
    const places = items.map(decoderOf);
    const fits = (value: readonly unknown[]) => places.every((read, i) => read(value[i]) === value[i]);
    return (value) =>
      Array.isArray(value) && value.length === places.length && fits(value) ? value : MISFIT;
  },
  object: ({ shape = {} }) => objectOf(shape),
  union: ({ options = [], discriminator }) =>
    discriminator === undefined ? firstOf(options.map(decoderOf)) : chosenBy(discriminator, options),
  pipe: ({ in: text, transform }) => {
    const inner = decoderOf(text);
    return transform === undefined ? inner : codec(inner, transform);
  },
};

function decoderOf(schema: z.core.$ZodType | undefined): Decode {
  if (schema === undefined) return (value) => value;
  const definition = definitionOf(schema);
  const reader = READERS[definition.type];
  return reader === undefined ? () => MISFIT : reader(definition);
}

function codec(inner: Decode, transform: NonNullable<Definition["transform"]>): Decode {
  return (value) => {
    const text = inner(value);
    if (text === MISFIT) return MISFIT;
    const payload = { value: text, issues: [] };
    const result = transform(text, payload);
    return payload.issues.length === 0 ? result : MISFIT;
  };
}

/** The list itself where nothing in it is another on the value's side. */
function listOf(element: Decode): Decode {
  return (value) => {
    if (!Array.isArray(value)) return MISFIT;
    let read: unknown[] = value;
    for (let i = 0; i < value.length; i += 1) {
      const one = element(value[i]);
      if (one === MISFIT) return MISFIT;
      if (one === value[i]) continue;
      if (read === value) read = value.slice();
      read[i] = one;
    }
    return read;
  };
}

/** The object itself where no field is another on the value's side. */
function objectOf(shape: Readonly<Record<string, z.core.$ZodType>>): Decode {
  const fields = Object.entries(shape).map(([key, schema]) => [key, decoderOf(schema)] as const);
  return (value) => {
    if (typeof value !== "object" || value === null) return MISFIT;
    const given = value as Record<string, unknown>;
    let read = given;
    for (const [key, decode] of fields) {
      const part = given[key];
      const one = decode(part);
      if (one === MISFIT) return MISFIT;
      if (one === part) continue;
      if (read === given) read = { ...given };
      read[key] = one;
    }
    return Object.keys(given).length === fields.length ? read : MISFIT;
  };
}

function firstOf(options: readonly Decode[]): Decode {
  return (value) => {
    for (const option of options) {
      const read = option(value);
      if (read !== MISFIT) return read;
    }
    return MISFIT;
  };
}

function chosenBy(discriminator: string, options: readonly z.core.$ZodType[]): Decode {
  const byValue = new Map<unknown, Decode>();
  for (const option of options) {
    const mark = definitionOf(option).shape?.[discriminator];
    for (const value of mark === undefined ? [] : (definitionOf(mark).values ?? []))
      byValue.set(value, decoderOf(option));
  }
  return (value) => {
    if (typeof value !== "object" || value === null) return MISFIT;
    return byValue.get((value as Record<string, unknown>)[discriminator])?.(value) ?? MISFIT;
  };
}

const DECODERS = new Map<Kind, Decode>();

/**
 * An entity that our own server has validated, from the plan file's form: texts become values, and what needs
 * nothing done stays the object it is. MISFIT where a field is missing, strange or of another type; ranges and
 * rules between fields are not asked again. Made from the same schemas as the strict way, and held to it.
 */
export function decodeStored<K extends Kind>(kind: K, value: unknown): EntityOf<K> | typeof MISFIT {
  const known = DECODERS.get(kind);
  const decode = known ?? decoderOf(SCHEMAS[kind]);
  if (known === undefined) DECODERS.set(kind, decode);
  return decode(value) as EntityOf<K> | typeof MISFIT;
}
