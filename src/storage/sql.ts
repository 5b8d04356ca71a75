export type SqlValue = string | number | null | Buffer;

declare const statement: unique symbol;
/** SQL text with its parameters apart; made by `sql` alone, so that no value ever becomes text. */
export interface Statement {
  readonly [statement]: true;
  readonly text: string;
  readonly params: readonly SqlValue[];
}

const made = (text: string, params: readonly SqlValue[]): Statement =>
  ({ text, params }) as unknown as Statement;

/** Each hole becomes a parameter, never text. */
export const sql = (text: TemplateStringsArray, ...params: readonly SqlValue[]): Statement =>
  made(text.join("?"), params);

/** `sql` behind a beginning that several statements share: a constant of the code, never a value. */
export const sqlAfter =
  (beginning: string) =>
  (text: TemplateStringsArray, ...params: readonly SqlValue[]): Statement =>
    made(`${beginning} ${text.join("?")}`, params);

const IDENTIFIER = /^[a-z_][a-z0-9_]*$/;
const named = (name: string): string => {
  if (!IDENTIFIER.test(name)) throw new Error(`Not a table or column name: ${name}`);
  return name;
};

/** `SELECT columns FROM table WHERE site_id = ? ORDER BY id` for a table of a plan. */
export const selectOfSite = (table: string, columns: readonly string[], site: string): Statement =>
  made(
    `SELECT ${["id", ...columns].map(named).join(", ")} FROM ${named(table)} WHERE site_id = ? ORDER BY id`,
    [site],
  );

/** Writes rows of a plan's table, new or known by (site_id, id). */
export function upsertRows(
  table: string,
  columns: readonly string[],
  rows: readonly (readonly SqlValue[])[],
): Statement {
  const all = ["site_id", "id", ...columns].map(named);
  const update = columns.map((column) => `${column} = VALUES(${column})`).join(", ");
  return made(
    `INSERT INTO ${named(table)} (${all.join(", ")}) VALUES ` +
      `${holes(all.length, rows.length)} ON DUPLICATE KEY UPDATE ${update}`,
    rows.flat(),
  );
}

/** The parameters of `rows` rows of as many columns: `(?, ?), (?, ?)`. */
function holes(columns: number, rows: number): string {
  const row = `(${Array(columns).fill("?").join(", ")})`;
  return Array(rows).fill(row).join(", ");
}

/** Writes the ends of cables: which end of which cable is in which port. */
export const insertLinkEnds = (
  site: string,
  ends: readonly (readonly [link: string, which: "a" | "b", port: string])[],
): Statement =>
  made(
    `INSERT INTO link_end (site_id, link_id, which, port_id) VALUES ${holes(4, ends.length)}`,
    ends.flatMap((end) => [site, ...end]),
  );

/** Sets one reference of some rows to NULL, before what it points at goes. */
export const clearReference = (
  table: string,
  column: string,
  site: string,
  ids: readonly string[],
): Statement =>
  made(
    `UPDATE ${named(table)} SET ${named(column)} = NULL WHERE ` +
      `site_id = ? AND id IN (${ids.map(() => "?").join(", ")})`,
    [site, ...ids],
  );

export const deleteRows = (
  table: string,
  key: "id" | "link_id",
  site: string,
  ids: readonly string[],
): Statement =>
  made(`DELETE FROM ${named(table)} WHERE site_id = ? AND ${key} IN (${ids.map(() => "?").join(", ")})`, [
    site,
    ...ids,
  ]);

export const deleteAllOfSite = (table: string, site: string): Statement =>
  made(`DELETE FROM ${named(table)} WHERE site_id = ?`, [site]);
export const clearAllOfSite = (table: string, column: string, site: string): Statement =>
  made(`UPDATE ${named(table)} SET ${named(column)} = NULL WHERE site_id = ?`, [site]);

/** Sets one reference of some rows, each to a value of its own. */
export const setReferences = (
  table: string,
  column: string,
  site: string,
  rows: readonly { readonly id: string; readonly value: SqlValue }[],
): Statement =>
  made(
    `UPDATE ${named(table)} SET ${named(column)} = CASE id ${rows.map(() => "WHEN ? THEN ?").join(" ")} END ` +
      `WHERE site_id = ? AND id IN (${rows.map(() => "?").join(", ")})`,
    [...rows.flatMap(({ id, value }) => [id, value]), site, ...rows.map(({ id }) => id)],
  );

export const insertRow = (
  table: string,
  columns: readonly string[],
  values: readonly SqlValue[],
): Statement =>
  made(
    `INSERT INTO ${named(table)} (${columns.map(named).join(", ")}) ` +
      `VALUES (${columns.map(() => "?").join(", ")})`,
    values,
  );

/** Which entities (site, id) a revision touched. */
export const insertTouched = (
  rows: readonly (readonly [site: string, entity: string, revision: number])[],
): Statement =>
  made(
    `INSERT INTO change_touch (site_id, entity_id, revision) VALUES ${holes(3, rows.length)}`,
    rows.flat(),
  );

export const updateById = (
  table: string,
  columns: readonly string[],
  values: readonly SqlValue[],
  id: string,
): Statement =>
  made(
    `UPDATE ${named(table)} SET ${columns.map((column) => `${named(column)} = ?`).join(", ")} WHERE id = ?`,
    [...values, id],
  );
