import { z } from "zod";
import { equal } from "../kernel";
import {
  entityOf,
  KIND_WORDS,
  KINDS,
  nameOf,
  SCHEMAS,
  UUID,
  type Change,
  type Clash,
  type Entity,
  type Kind,
  type PlanIndex,
} from "../plan";
import { encodeClash } from "./clash-codec";
import { choiceWords, fieldWord } from "./field-words";

/** One field of a change in words: both values as a person reads them. */
export interface FieldChange {
  readonly field: string;
  readonly before: string;
  readonly after: string;
}
/**
 * One entity's change: what happens to it, its name, and the fields that differ (none for a new or removed
 * one).
 */
export interface DescribedChange {
  readonly what: "new" | "changed" | "removed";
  readonly kind: Kind;
  readonly name: string;
  readonly fields: readonly FieldChange[];
}

/**
 * Every value that some field of the plan is chosen from, so that a text a person wrote is never taken for
 * one.
 */
let choices: ReadonlySet<string> | null = null;
function isChoice(text: string): boolean {
  choices ??= new Set(
    [
      ...JSON.stringify(
        Object.values(SCHEMAS).map((schema) =>
          z.toJSONSchema(schema as z.ZodType, { io: "input", unrepresentable: "any" }),
        ),
      ).matchAll(/"enum":(\[[^\]]*\])/g),
    ].flatMap(([, list]) =>
      (JSON.parse(list ?? "[]") as unknown[]).filter((item): item is string => typeof item === "string"),
    ),
  );
  return choices.has(text);
}

/** The changes in words, new names from the plan as it would be, old ones from the plan as it is. */
export function describeChanges(
  before: PlanIndex,
  after: PlanIndex,
  changes: readonly Change[],
): DescribedChange[] {
  return changes.map((change): DescribedChange => {
    const kept = change.after === null ? "removed" : "changed";
    const what = change.before === null ? "new" : kept;
    const named = change.after === null ? before : after;
    return {
      what,
      kind: change.kind,
      name: nameOf(named, change.kind, change.id),
      fields: what === "changed" ? fieldsOf(before, after, change) : [],
    };
  });
}

function fieldsOf(
  before: PlanIndex,
  after: PlanIndex,
  { kind, before: was, after: is }: Change,
): FieldChange[] {
  if (was === null || is === null) return [];
  const [left, right] = [textSide(kind, was), textSide(kind, is)];
  return differing(left, right).flatMap((field): FieldChange[] => {
    const [old, now] = [left[field], right[field]];
    const word = fieldWord(field);
    const whole = { field: word, before: valueWords(before, old), after: valueWords(after, now) };
    // What is told by its name alone can differ beside it.
    const isHidden = whole.before === whole.after;
    if (isHidden && isFields(old) !== isFields(now))
      return [{ field: word, before: allWords(before, old), after: allWords(after, now) }];
    if (!isFields(old) || !isFields(now) || (!isHidden && !(isSettings(old) && isSettings(now))))
      return [whole];
    const parts = differing(old, now).map((part) => ({
      field: `${word}: ${fieldWord(part)}`,
      before: valueWords(before, old[part]),
      after: valueWords(after, now[part]),
    }));
    return parts.length === 0 ? [whole] : parts;
  });
}

const differing = (left: Record<string, unknown>, right: Record<string, unknown>): string[] =>
  Object.keys(right).filter((field) => !equal(left[field], right[field]));

const isFields = (value: unknown): value is Record<string, unknown> =>
  typeof value === "object" && value !== null && !Array.isArray(value);
/** A group of settings, of which only those that differ are told; a place is one thing. */
const isSettings = (value: Record<string, unknown>): boolean => !("at" in value) && !("name" in value);

const textSide = (kind: Kind, entity: Entity): Record<string, unknown> =>
  z.encode(SCHEMAS[kind] as z.ZodType, entity) as Record<string, unknown>;

/** "a, b", "none", a name for an id: a value of the plan file's form in words. */
export function valueWords(index: PlanIndex, value: unknown): string {
  if (value === null || value === "") return "none";
  if (value === true) return "yes";
  if (value === false) return "no";
  if (Array.isArray(value))
    return value.length === 0 ? "none" : value.map((item) => valueWords(index, item)).join(", ");
  if (typeof value === "object") return objectText(index, value as Record<string, unknown>);
  const text = String(value);
  if (!UUID.test(text)) return isChoice(text) ? choiceWords(text) : text;
  const kind = KINDS.find((k) => entityOf(index.plan, k, text) !== undefined);
  return kind === undefined ? "something removed" : nameOf(index, kind, text);
}

/** Places that are one of a kind. */
const PLACE_WORDS: Readonly<Record<string, string>> = { internet: "Internet", gateway: "Gateway" };

function objectText(index: PlanIndex, value: Record<string, unknown>): string {
  if ("first" in value && "last" in value)
    return `${valueWords(index, value.first)} to ${valueWords(index, value.last)}`;
  if (value.at === "unplaced") return "nowhere";
  if (typeof value.at === "string" && Object.keys(value).length === 1)
    return PLACE_WORDS[value.at] ?? value.at;
  if ("name" in value) return valueWords(index, value.name);
  return allWords(index, value);
}

/** Everything that stands in a value. */
function allWords(index: PlanIndex, value: unknown): string {
  if (!isFields(value)) return valueWords(index, value);
  const parts = Object.entries(value).filter(
    ([, inner]) => inner !== false && inner !== null && inner !== "",
  );
  return parts.length === 0
    ? "none"
    : parts
        .map(([key, inner]) => {
          if (inner === true) return fieldWord(key);
          if (key === "at") return "";
          if (typeof inner === "number") return `${fieldWord(key)} ${inner}`;
          return valueWords(index, inner);
        })
        .filter((t) => t !== "")
        .join(", ");
}

/** "2 new, 1 changed": how much a batch does. */
export function countChanges(changes: readonly Change[]): string {
  const count = (test: (change: Change) => boolean) => changes.filter(test).length;
  const parts = [
    [count((c) => c.before === null), "new"],
    [count((c) => c.before !== null && c.after !== null), "changed"],
    [count((c) => c.after === null), "removed"],
  ] as const;
  return (
    parts
      .filter(([n]) => n > 0)
      .map(([n, word]) => `${n} ${word}`)
      .join(", ") || "nothing changes"
  );
}

/** "port", "VLAN": the word for a kind, for headings. */
export const kindWord = (kind: Kind): string => KIND_WORDS[kind];

export interface ClashSides {
  readonly field: string;
  readonly mine: string;
  readonly theirs: string;
}

/** Both sides of a clash in words. */
export const clashSides = (index: PlanIndex, clash: Clash): ClashSides =>
  encodedClashSides(index, encodeClash(clash));

/** The same for a clash as the server sends it: its values in the plan file's form. */
export function encodedClashSides(
  index: PlanIndex,
  { field, mine, theirs }: Pick<Clash, "field" | "mine" | "theirs">,
): ClashSides {
  if (field === null)
    return {
      field: "all of it",
      mine: mine === null ? "removed" : "changed",
      theirs: theirs === null ? "removed" : "changed",
    };
  return { field: fieldWord(field), mine: valueWords(index, mine), theirs: valueWords(index, theirs) };
}
