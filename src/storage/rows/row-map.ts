import type { SqlValue } from "../sql";
import type { Row } from "../pool";

/** An entity with its addresses as text: what the plan's schemas take in. */
export type Fields = Readonly<Record<string, unknown>>;

/** How some columns and some part of an entity become one another. */
export interface Part {
  readonly columns: readonly string[];
  readonly write: (entity: Fields) => readonly SqlValue[];
  readonly read: (row: Row) => Fields;
}

export interface RowMap {
  readonly table: string;
  readonly parts: readonly Part[];
}

const plain = (value: unknown): SqlValue => {
  if (value === null || typeof value === "string" || typeof value === "number") return value;
  throw new Error(`Not a column's value: ${typeof value}`);
};

/** A text or a number as it is. */
export const value = (column: string, field: string = column): Part => ({
  columns: [column],
  write: (entity) => [plain(entity[field])],
  read: (row) => ({ [field]: row[column] }),
});

export const flag = (column: string, field: string): Part => ({
  columns: [column],
  write: (entity) => [entity[field] === true ? 1 : 0],
  read: (row) => ({ [field]: row[column] === 1 }),
});

/** A list or an object, kept as JSON. */
export const json = (column: string, field: string = column): Part => ({
  columns: [column],
  write: (entity) => [JSON.stringify(entity[field])],
  read: (row) => ({ [field]: JSON.parse(String(row[column])) }),
});

/** Fields of an inner object, a column each. */
export const inner = (field: string, columns: Readonly<Record<string, string>>): Part => ({
  columns: Object.keys(columns),
  write: (entity) => Object.values(columns).map((name) => plain((entity[field] as Fields)[name])),
  read: (row) => ({
    [field]: Object.fromEntries(Object.entries(columns).map(([column, name]) => [name, row[column]])),
  }),
});

export const columnsOf = (map: RowMap): string[] => map.parts.flatMap((part) => part.columns);
export function writeRow(map: RowMap, entity: Fields): SqlValue[] {
  const row: SqlValue[] = [];
  for (const part of map.parts) for (const value of part.write(entity)) row.push(value);
  return row;
}
export const readRow = (map: RowMap, row: Row): Fields =>
  Object.assign({ id: row.id }, ...map.parts.map((part) => part.read(row))) as Fields;
