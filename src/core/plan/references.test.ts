import { z } from "zod";
import { allThere, referencesOf, REFERRERS, type Reference } from "./references";
import { UUID } from "./schema/fields";
import { KINDS, SCHEMAS, type EntityOf, type Kind } from "./schema/kinds";

// What an entity points at, held to the schemas: every field that takes an id is a reference, wherever it
// stands and whichever of several forms its value has.

type Json = Readonly<Record<string, unknown>>;
const isJson = (value: unknown): value is Json =>
  typeof value === "object" && value !== null && !Array.isArray(value);
const listOf = (value: unknown): readonly Json[] => (Array.isArray(value) ? value.filter(isJson) : []);
const formsOf = (schema: Json): readonly Json[] =>
  [...listOf(schema.anyOf), ...listOf(schema.oneOf)].filter((form) => form.type !== "null");

/** Writes entities with everything in them: ids that are each another, and one text for the rest. */
class Writer {
  readonly pointed: { readonly id: string; readonly path: readonly string[] }[] = [];
  readonly #form: number;
  constructor(form: number) {
    this.#form = form;
  }

  /** A value of the schema: lists of one of each form, the n-th form elsewhere. */
  write(schema: Json, path: readonly string[]): unknown {
    const forms = formsOf(schema);
    if (forms.length > 0) return this.write(forms[this.#form % forms.length] ?? {}, path);
    if (schema.pattern === UUID.source) return this.#id(path);
    if ("const" in schema) return schema.const;
    if (schema.type === "array" && isJson(schema.items)) {
      const items = formsOf(schema.items);
      return (items.length > 0 ? items : [schema.items]).map((item) => this.write(item, path));
    }
    if (!isJson(schema.properties)) return "text";
    return Object.fromEntries(
      Object.entries(schema.properties).map(([name, inner]) => [
        name,
        this.write(isJson(inner) ? inner : {}, [...path, name]),
      ]),
    );
  }
  #id(path: readonly string[]): string {
    const id = `id ${this.pointed.length} at ${path.join(" ")}`;
    // What something is known by is no pointer.
    if (path.at(-1) !== "id") this.pointed.push({ id, path });
    return id;
  }
}

const FORMS = [0, 1, 2, 3, 4, 5, 6];
const SCHEMA_OF = new Map(
  KINDS.map((kind) => {
    const schema: unknown = z.toJSONSchema(SCHEMAS[kind] as z.ZodType, { unrepresentable: "any" });
    return [kind, isJson(schema) ? schema : {}];
  }),
);
function written(kind: Kind, form: number) {
  const writer = new Writer(form);
  const entity = writer.write(SCHEMA_OF.get(kind) ?? {}, []);
  return { entity: entity as EntityOf<Kind>, pointed: writer.pointed };
}

const REFERRING = KINDS.filter((kind) => FORMS.some((form) => written(kind, form).pointed.length > 0));

test.each(REFERRING)("%s: all ids in it are references by their field, and nothing else is", (kind) => {
  for (const form of FORMS) {
    const { entity, pointed } = written(kind, form);
    const told = referencesOf(kind, entity);
    expect([form, told.map(({ id }) => id).sort()]).toEqual([form, pointed.map(({ id }) => id).sort()]);
    for (const { id, path } of pointed)
      expect(path).toContain(told.find((reference) => reference.id === id)?.field);
  }
});

const referencesIn = (kind: Kind): Reference[] =>
  FORMS.flatMap((form) => referencesOf(kind, written(kind, form).entity));

test("who can point at a kind is told of each kind", () => {
  for (const to of KINDS) {
    const pointing = KINDS.filter((kind) => referencesIn(kind).some((reference) => reference.kind === to));
    expect([to, [...REFERRERS[to]].sort()]).toEqual([to, pointing.sort()]);
  }
});

test("a field that points nowhere is no reference", () => {
  const { entity } = written("interface", 0);
  const nowhere = {
    ...entity,
    device: "the device",
    port: null,
    segment: null,
    line: null,
  } as EntityOf<Kind>;
  expect(referencesOf("interface", nowhere)).toEqual([{ field: "device", kind: "device", id: "the device" }]);
});

test("whether all is there: one that is missing is enough, and what points nowhere misses nothing", () => {
  const leg = (device: string, port: string | null) =>
    ({ ...written("interface", 0).entity, device, port, segment: null, line: null }) as EntityOf<"interface">;
  const has = (kind: Kind, id: string) => `${kind} ${id}` === "device A" || `${kind} ${id}` === "port 1";
  const there = (...legs: EntityOf<"interface">[]) => allThere("interface", legs, has);
  expect(there()).toBe(true);
  expect(there(leg("A", null), leg("A", "1"))).toBe(true);
  expect(there(leg("A", "2"), leg("A", "1"))).toBe(false);
  expect(there(leg("A", "1"), leg("1", null))).toBe(false);
});
