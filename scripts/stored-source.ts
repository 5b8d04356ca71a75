// Writes `src/core/plan/schema/stored.generated.ts`: a reader and a writer for each kind of entity, field by
// field, from the same schemas that check strictly. Written out, since asking a schema's definition at each
// field takes three times as long, and the page may not make code while it runs.
import type { z } from "zod";
import * as fields from "../src/core/plan/schema/fields";
import { KINDS, SCHEMAS, type Kind } from "../src/core/plan/schema/kinds";

/** What is read of a schema's definition: one shape for all types, each with its own part. */
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
  readonly transform?: unknown;
}
type Schema = z.core.$ZodType;

const definitionOf = (schema: Schema): Definition => schema._zod.def as unknown as Definition;
const partOf = (schema: Schema | undefined): Schema => {
  if (schema === undefined) throw new Error("A schema lacks a part of its definition");
  return schema;
};
const fieldNames = new Map<unknown, string>(Object.entries(fields).map(([name, schema]) => [schema, name]));

/** Whether anything in it is another on the value's side: an address, as text and as a number. */
function changes(schema: Schema): boolean {
  const { type, shape, element, innerType, options, transform, in: text } = definitionOf(schema);
  if (type === "pipe") return transform !== undefined || changes(partOf(text));
  const parts = [...Object.values(shape ?? {}), ...(options ?? [])];
  return [...parts, ...[element, innerType].filter((part) => part !== undefined)].some(changes);
}

function fieldOf(schema: Schema): string {
  const field = fieldNames.get(schema);
  if (field === undefined)
    throw new Error(
      "A field that is text on one side and a value on the other has to be exported by fields.ts",
    );
  return field;
}

/** Most values that are compared one by one; more are looked up in a set. */
const FEW = 4;

/** The functions of the file, each text once, under the name it was given first. */
class Source {
  readonly lines: string[] = [];
  readonly #names = new Map<string, string>();
  readonly #used = new Set<string>();

  add(wish: string, text: (name: string) => string): string {
    const known = this.#names.get(text("_"));
    if (known !== undefined) return known;
    let name = wish;
    for (let i = 2; this.#used.has(name); i += 1) name = `${wish}${i}`;
    this.#used.add(name);
    this.#names.set(text("_"), name);
    this.lines.push(text(name));
    return name;
  }

  /** A condition that holds when `value` fits a schema in which nothing changes. */
  fits(schema: Schema, value: string, wish: string): string {
    const { type, ...part } = definitionOf(schema);
    switch (type) {
      case "string":
      case "number":
      case "boolean":
        return `typeof ${value} === "${type}"`;
      case "enum":
        return this.oneOf(Object.values(part.entries ?? {}), value, wish);
      case "literal":
        return this.oneOf(part.values ?? [], value, wish);
      case "nullable":
        return `(${value} === null || ${this.fits(partOf(part.innerType), value, wish)})`;
      case "pipe":
        return this.fits(partOf(part.in), value, wish);
      case "array":
        return `everyIs(${value}, ${this.asked(partOf(part.element), wish)})`;
      default:
        return `${this.asked(schema, wish)}(${value})`;
    }
  }

  oneOf(values: readonly unknown[], value: string, wish: string): string {
    const texts = values.map((value) => JSON.stringify(value));
    if (texts.length <= FEW) return `(${texts.map((text) => `${value} === ${text}`).join(" || ")})`;
    const set = this.add(
      `${wish}Values`,
      (name) => `const ${name} = new Set<unknown>([${texts.join(", ")}]);`,
    );
    return `${set}.has(${value})`;
  }

  /** A function that says whether a value fits. */
  asked(schema: Schema, wish: string): string {
    const { type, shape = {}, items = [], options = [], discriminator } = definitionOf(schema);
    if (type === "object") {
      const parts = Object.entries(shape).map(([key, part]) =>
        this.fits(part, `value.${key}`, `${wish}_${key}`),
      );
      const counted = `Object.keys(value).length === ${parts.length}`;
      return this.predicate(`is_${wish}`, ["isRow(value)", ...parts, counted].join(" &&\n  "));
    }
    if (type === "tuple") {
      const parts = items.map((part, i) => this.fits(part, `value[${i}]`, `${wish}_${i}`));
      const list = [`Array.isArray(value)`, `value.length === ${items.length}`, ...parts];
      return this.predicate(`is_${wish}`, list.join(" && "));
    }
    if (type === "union" && discriminator !== undefined) {
      const cases = options.map(
        (option) => `${this.mark(option, discriminator)} ? ${this.asked(option, wish)}(value) :\n  `,
      );
      return this.predicate(`is_${wish}`, `isRow(value) && (${cases.join("")}false)`);
    }
    if (type === "union")
      return this.predicate(
        `is_${wish}`,
        options.map((option) => this.fits(option, "value", wish)).join(" || "),
      );
    if (["string", "number", "boolean", "enum", "literal", "nullable", "array", "pipe"].includes(type))
      return this.predicate(`is_${wish}`, this.fits(schema, "value", wish));
    throw new Error(`No reader is written for the type "${type}"; add it to scripts/stored-source.ts`);
  }

  predicate(wish: string, condition: string): string {
    return this.add(wish, (name) => `const ${name} = (value: unknown): boolean =>\n  ${condition};`);
  }

  mark(option: Schema, discriminator: string): string {
    const values = definitionOf(partOf(definitionOf(option).shape?.[discriminator])).values ?? [];
    return values.map((value) => `value.${discriminator} === ${JSON.stringify(value)}`).join(" || ");
  }

  /** A function that gives the value's side, or MISFIT. */
  read(schema: Schema, wish: string): string {
    if (!changes(schema)) {
      const test = this.asked(schema, wish);
      return this.reader(wish, `${test}(value) ? value : MISFIT`);
    }
    const { type, shape = {}, ...part } = definitionOf(schema);
    switch (type) {
      case "object":
        return this.object(shape, wish);
      case "nullable":
        return this.reader(
          `${wish}OrNull`,
          `value === null ? null : ${this.read(partOf(part.innerType), wish)}(value)`,
        );
      case "array":
        return this.reader(`${wish}List`, `listOf(value, ${this.read(partOf(part.element), wish)})`);
      case "pipe":
        return this.codec(schema);
      case "union":
        return this.reader(
          wish,
          this.chosen(schema, "MISFIT", (option) => `${this.read(option, wish)}(value)`),
        );
      default:
        throw new Error(`No reader is written for the type "${type}"; add it to scripts/stored-source.ts`);
    }
  }

  reader(wish: string, expression: string): string {
    return this.add(
      `read_${wish}`,
      (name) => `const ${name} = (value: unknown): unknown =>\n  ${expression};`,
    );
  }

  codec(schema: Schema): string {
    const field = fieldOf(schema);
    return this.add(`read_${field}`, (name) => `const ${name} = codec(fields.${field});`);
  }

  /** What is chosen among the options of a union by its mark, which is the same on both sides. */
  chosen(schema: Schema, otherwise: string, of: (option: Schema) => string): string {
    const { options = [], discriminator } = definitionOf(schema);
    if (discriminator === undefined) throw new Error("A choice between forms that change needs a mark");
    const cases = options.map((option) => `${this.mark(option, discriminator)} ? ${of(option)} :\n  `);
    return `!isRow(value) ? ${otherwise} : ${cases.join("")}${otherwise}`;
  }

  /** A function from the value's side to the text's; what does not change is handed on. */
  write(schema: Schema, wish: string): string {
    const { type, shape = {}, ...part } = definitionOf(schema);
    const writer = (name: string, expression: string) =>
      this.add(`write_${name}`, (own) => `const ${own} = (value: unknown): unknown =>\n  ${expression};`);
    if (!changes(schema)) return writer("same", "value");
    switch (type) {
      case "object": {
        const parts = Object.entries(shape).filter(([, field]) => changes(field));
        const written = parts.map(
          ([key, field]) => `${key}: ${this.write(field, `${wish}_${key}`)}(value.${key})`,
        );
        return writer(wish, `!isRow(value) ? value : { ...value, ${written.join(", ")} }`);
      }
      case "nullable":
        return writer(
          `${wish}OrNull`,
          `value === null ? null : ${this.write(partOf(part.innerType), wish)}(value)`,
        );
      case "array":
        return writer(`${wish}List`, `writtenList(value, ${this.write(partOf(part.element), wish)})`);
      case "pipe": {
        const field = fieldOf(schema);
        return this.add(`write_${field}`, (name) => `const ${name} = written(fields.${field});`);
      }
      case "union":
        return writer(
          wish,
          this.chosen(schema, "value", (option) => `${this.write(option, wish)}(value)`),
        );
      default:
        throw new Error(`No writer is made for the type "${type}"; add it to scripts/stored-source.ts`);
    }
  }

  /** What changes is read first; the object itself where nothing did, else a new one. */
  object(shape: Readonly<Record<string, Schema>>, wish: string): string {
    const keys = Object.keys(shape);
    const changing = keys.filter((key) => changes(partOf(shape[key])));
    const plain = keys.filter((key) => !changing.includes(key));
    const checks = plain.map((key) => this.fits(partOf(shape[key]), `value.${key}`, `${wish}_${key}`));
    const counted = `Object.keys(value).length === ${keys.length}`;
    const reads = changing.map((key) => {
      const reader = this.read(partOf(shape[key]), `${wish}_${key}`);
      return `  const ${key} = ${reader}(value.${key});\n  if (${key} === MISFIT) return MISFIT;`;
    });
    const made = keys.map((key) => (changing.includes(key) ? key : `${key}: value.${key}`)).join(", ");
    const fitting = `if (!(${["isRow(value)", ...checks, counted].join(" &&\n    ")})) return MISFIT;`;
    const body = [`  ${fitting}`, ...reads, `  return { ${made} };`].join("\n");
    return this.add(`read_${wish}`, (name) => `function ${name}(value: unknown): unknown {\n${body}\n}`);
  }
}

const HEAD = `// Made by \`npm run docs\` (scripts/stored-source.ts) from the schemas; a test compares the two.
import * as fields from "./fields";
import type { Kind } from "./kinds";
import { codec, everyIs, isRow, listOf, MISFIT, written, writtenList } from "./stored-parts";

`;

/** As wide as lines of this project are. */
const WIDTH = 110;

/** A line whose parts stand on as many lines as it takes; whole where it is short enough. */
function broken(line: string): string {
  if (line.length <= WIDTH) return line;
  const indent = `${/^ */.exec(line)?.[0] ?? ""}  `;
  const lines: string[] = [];
  // Between two parts of a list, and after "or".
  for (const part of line.split(/(?<=,|\|\|) /)) {
    const last = lines.at(-1);
    if (last !== undefined && last.length + 1 + part.length <= WIDTH)
      lines[lines.length - 1] = `${last} ${part}`;
    else lines.push(last === undefined ? part : `${indent}${part}`);
  }
  return lines.join("\n");
}

/** The text of `stored.generated.ts`. */
export function storedSource(): string {
  const source = new Source();
  const table = (name: string, of: (kind: Kind) => string) =>
    `export const ${name}: Readonly<Record<Kind, (value: unknown) => unknown>> = {\n` +
    `${KINDS.map((kind) => `  ${kind}: ${of(kind)},`).join("\n")}\n};`;
  const tables = [
    table("READERS", (kind) => source.read(SCHEMAS[kind], kind)),
    table("WRITERS", (kind) => source.write(SCHEMAS[kind], kind)),
  ];
  const text = `${HEAD}${[...source.lines, ...tables].join("\n\n")}\n`;
  return text.split("\n").map(broken).join("\n");
}
