import { z } from "zod";
import { SCHEMAS, type Change, type ChangeBatch, type Kind } from "../plan";
import { upgradedChanges } from "./older";
import { idField, shortText } from "../plan/schema/fields";

function changeSchemaOf<K extends Kind>(kind: K) {
  const entity = SCHEMAS[kind];
  return z.strictObject({ kind: z.literal(kind), id: idField, before: entity.nullable(), after: entity.nullable() });
}

/** A change as it travels: addresses as text. */
export const changeSchema = z.discriminatedUnion("kind", [
  changeSchemaOf("site"), changeSchemaOf("domain"), changeSchemaOf("zone"), changeSchemaOf("room"), changeSchemaOf("hostKind"), changeSchemaOf("line"), changeSchemaOf("vlan"),
  changeSchemaOf("segment"), changeSchemaOf("device"), changeSchemaOf("port"), changeSchemaOf("link"), changeSchemaOf("interface"),
  changeSchemaOf("ssid"), changeSchemaOf("host"), changeSchemaOf("scope"), changeSchemaOf("wall"), changeSchemaOf("gear"), changeSchemaOf("deviceVlan"),
  changeSchemaOf("deviceModel"), changeSchemaOf("template"), changeSchemaOf("lag"), changeSchemaOf("radio"), changeSchemaOf("signIn"), changeSchemaOf("forward"), changeSchemaOf("expectation"),
]);

export const MOST_CHANGES = 500_000;

/** A batch as it travels; the planner's arguments are kept for the record and never run again. */
export const changeBatchSchema = z.strictObject({
  id: idField,
  planner: z.string().regex(/^[a-z][a-z0-9-]{0,59}$/),
  summary: shortText,
  args: z.json(),
  changes: z.array(changeSchema).max(MOST_CHANGES),
});

export const encodeBatch = (batch: ChangeBatch): unknown =>
  z.encode(changeBatchSchema, batch as unknown as z.output<typeof changeBatchSchema>);

export const batchOf = (value: z.output<typeof changeBatchSchema>): ChangeBatch => value as unknown as ChangeBatch;

/** Changes as JSON values, for the change log. */
export const encodeChanges = (changes: readonly Change[]): unknown =>
  z.encode(z.array(changeSchema), changes as unknown as z.output<typeof changeSchema>[]);

/** Changes read back from the change log, whenever they were written; what was written by us and still doesn't fit is a bug, so this throws. */
export const decodeChanges = (value: unknown): Change[] => z.array(changeSchema).parse(upgradedChanges(value)) as unknown as Change[];
