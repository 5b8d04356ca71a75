import { z } from "zod";
import {
  encodeStored,
  SCHEMAS,
  type Change,
  type ChangeBatch,
  type Kind,
  HALVES,
  idField,
  shortText,
} from "../plan";
import type { Breath } from "./breath";
import { upgradedChanges } from "./older";

function changeSchemaOf<K extends Kind>(kind: K) {
  const entity = SCHEMAS[kind];
  return z.strictObject({
    kind: z.literal(kind),
    id: idField,
    before: entity.nullable(),
    after: entity.nullable(),
  });
}

/** A change as it travels: addresses as text. */
export const changeSchema = z.discriminatedUnion("kind", [
  changeSchemaOf("site"),
  changeSchemaOf("domain"),
  changeSchemaOf("zone"),
  changeSchemaOf("room"),
  changeSchemaOf("hostKind"),
  changeSchemaOf("line"),
  changeSchemaOf("vlan"),
  changeSchemaOf("segment"),
  changeSchemaOf("device"),
  changeSchemaOf("port"),
  changeSchemaOf("link"),
  changeSchemaOf("interface"),
  changeSchemaOf("ssid"),
  changeSchemaOf("host"),
  changeSchemaOf("scope"),
  changeSchemaOf("wall"),
  changeSchemaOf("gear"),
  changeSchemaOf("deviceVlan"),
  changeSchemaOf("deviceModel"),
  changeSchemaOf("leaflet"),
  changeSchemaOf("template"),
  changeSchemaOf("lag"),
  changeSchemaOf("radio"),
  changeSchemaOf("service"),
  changeSchemaOf("conduit"),
  changeSchemaOf("exception"),
  changeSchemaOf("rule"),
  changeSchemaOf("signIn"),
  changeSchemaOf("forward"),
  changeSchemaOf("wish"),
  changeSchemaOf("expectation"),
  changeSchemaOf("acceptance"),
  changeSchemaOf("window"),
]);

const MOST_CHANGES = 500_000;

/**
 * Bounds of a planner's arguments: kept for the record, never run again, and in a column that nests no deeper
 * than the database's own limit.
 */
const MOST_ARGUMENT_VALUES = 300_000;
const MOST_ARGUMENT_DEPTH = 12;

/**
 * Whether a JSON value is no larger and no deeper than arguments may be; asked without a recursion that a
 * hostile one could exhaust.
 */
function areArguments(value: unknown): boolean {
  let level: unknown[] = [value];
  let count = 0;
  for (let depth = 0; level.length > 0; depth += 1) {
    count += level.length;
    if (depth > MOST_ARGUMENT_DEPTH || count > MOST_ARGUMENT_VALUES) return false;
    const next: unknown[] = [];
    for (const value of level)
      if (typeof value === "object" && value !== null)
        for (const inner of Object.values(value)) next.push(inner);
    level = next;
  }
  return true;
}

/** Whether every text and every name in a JSON value is whole characters: the database takes no half of one. */
function isWellFormed(value: unknown): boolean {
  if (typeof value === "string") return !HALVES.test(value);
  return (
    typeof value !== "object" ||
    value === null ||
    Object.entries(value).every(([name, inner]) => !HALVES.test(name) && isWellFormed(inner))
  );
}

// The order counts: what is known to be no deeper than it may be is then walked by recursion.
const argumentsField = z
  .unknown()
  .refine(
    areArguments,
    `A planner's arguments hold at most ${MOST_ARGUMENT_VALUES} ` +
      `values, nested at most ${MOST_ARGUMENT_DEPTH} deep`,
  )
  .refine(
    (value) => !areArguments(value) || isWellFormed(value),
    "A planner's arguments hold half a character; write it again",
  );

/** A batch as it travels; the planner's arguments are kept for the record and never run again. */
export const changeBatchSchema = z.strictObject({
  id: idField,
  planner: z.string().regex(/^[a-z][a-z0-9-]{0,59}$/),
  summary: shortText,
  args: argumentsField,
  changes: z.array(changeSchema).max(MOST_CHANGES),
});

/**
 * A batch whose changes have not been looked at yet: they are read one by one, so that the first bad one ends
 * it and others get their turn.
 */
export const batchEnvelopeSchema = z.strictObject({
  ...changeBatchSchema.shape,
  changes: z.array(z.unknown()).max(MOST_CHANGES, `A batch holds at most ${MOST_CHANGES} changes`),
});

export const encodeBatch = (batch: ChangeBatch): unknown =>
  z.encode(changeBatchSchema, batch as unknown as z.output<typeof changeBatchSchema>);

export const batchOf = (value: z.output<typeof changeBatchSchema>): ChangeBatch =>
  value as unknown as ChangeBatch;

const half = (kind: Kind, entity: Change["after"]) => entity && encodeStored(kind, entity as never);
/** A change as JSON takes it; what it is given is not asked again. */
const encodeChange = ({ kind, id, before, after }: Change): unknown => ({
  kind,
  id,
  before: half(kind, before),
  after: half(kind, after),
});

/** Changes as JSON values, for the change log. */
export const encodeChanges = (changes: readonly Change[]): unknown => changes.map(encodeChange);

/** `encodeChanges` as JSON text, for many of them: `breath` is asked between them. */
export async function encodeChangesSliced(changes: readonly Change[], breath: Breath): Promise<string> {
  const texts: string[] = [];
  for (const change of changes) {
    texts.push(JSON.stringify(encodeChange(change)));
    await breath();
  }
  return `[${texts.join(",")}]`;
}

/**
 * Changes read back from the change log, whenever they were written; what was written by us and still doesn't
 * fit is a bug, so this throws.
 */
export const decodeChanges = (value: unknown): Change[] =>
  z.array(changeSchema).parse(upgradedChanges(value)) as unknown as Change[];
