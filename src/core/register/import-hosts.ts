import { formatAddress } from "../address";
import { putInto } from "../kernel";
import type { PlanEdits, Host, PlanIndex, Segment } from "../plan";
import type { IdSource } from "../planners";
import { FIELD_WORDS, type ImportField, type Mapping } from "./columns";
import { Names } from "./names";
import { readRow, type Cells } from "./read-row";

export interface BadRow {
  readonly row: number;
  readonly cells: readonly string[];
  readonly problems: readonly string[];
}
/** A row that can be written: a new device, or changes to one that is in the register. */
export interface GoodRow {
  readonly row: number;
  readonly host: Omit<Host, "id">;
  readonly known: string | null;
  readonly changed: readonly ImportField[];
}
export interface ReadTable {
  readonly good: readonly GoodRow[];
  readonly bad: readonly BadRow[];
  readonly added: number;
  readonly changed: number;
  readonly same: number;
}

const MOST_SENTENCES = 6;

type Row = Omit<Host, "id">;

/** What a row claims for its device alone, each with the words for it. */
const claimed = ({ name, mac, ipv4, ipv6 }: Row): (readonly [key: string, words: string])[] => [
  ...(name === "" ? [] : [[`name ${name.toLowerCase()}`, `The name ${name}`] as const]),
  ...(mac === null ? [] : [[mac, mac] as const]),
  ...[ipv4, ipv6].flatMap((address) => {
    if (address === null) return [];
    const text = formatAddress(address);
    return [[text, text] as const];
  }),
];

/** The rows that claim each thing. */
function claimsOf(rows: readonly { readonly row: number; readonly host: Row }[]): Map<string, number[]> {
  const claims = new Map<string, number[]>();
  for (const { row, host } of rows) for (const [key] of claimed(host)) putInto(claims, key, row);
  return claims;
}

const claimedTwice = (claims: ReadonlyMap<string, readonly number[]>, row: number, host: Row): string[] =>
  claimed(host).flatMap(([key, words]) => {
    const others = (claims.get(key) ?? []).filter((other) => other !== row);
    return others.length === 0 ? [] : [`${words} stands in row ${others.slice(0, 3).join(" and ")} too.`];
  });

const takenByOthers = (index: PlanIndex, names: Names, { ipv4, ipv6 }: Row, known: Host | undefined) =>
  [ipv4, ipv6].flatMap((address) => {
    const holder = address === null ? undefined : names.addresses.get(address);
    return address === null || holder === undefined || holder === known?.id
      ? []
      : [`${formatAddress(address)} belongs to ${names.holderName(index, holder)} already.`];
  });

/**
 * Reads a table of devices against the plan. A row is known by its MAC address, else by its name, and changes
 * that device; any other adds one. What is wrong with a row is said in sentences; two rows that claim one
 * address, name or MAC address are both wrong. Nothing is written here. `home`: the segment of rows that name
 * none.
 */
export function readHostTable(
  index: PlanIndex,
  rows: readonly (readonly string[])[],
  mapping: Mapping,
  home: Segment | null,
): ReadTable {
  const names = new Names(index);
  const body = mapping.hasHeads ? rows.slice(1) : rows;
  const offset = mapping.hasHeads ? 2 : 1;
  const read = body.flatMap((cells, i) => {
    if (cells.every((cell) => cell.trim() === "")) return [];
    const fields: Cells = {};
    for (const [column, field] of mapping.fields.entries())
      if (field !== null) fields[field] = (cells[column] ?? "").trim();
    return [{ row: i + offset, cells, ...readRow(names, fields, home) }];
  });
  const claims = claimsOf(read);
  const good: GoodRow[] = [];
  const bad: BadRow[] = [];
  let same = 0;
  for (const { row, cells, host, known, problems } of read) {
    problems.push(...claimedTwice(claims, row, host), ...takenByOthers(index, names, host, known));
    const changed = known === undefined ? [] : changedFields(known, host);
    if (problems.length > 0) bad.push({ row, cells, problems: problems.slice(0, MOST_SENTENCES) });
    else if (known !== undefined && changed.length === 0) same += 1;
    else good.push({ row, host, known: known?.id ?? null, changed });
  }
  const added = good.filter((goodRow) => goodRow.known === null).length;
  return { good, bad, added, changed: good.length - added, same };
}

const FIELD_OF: Readonly<Record<ImportField, keyof Host>> = {
  length: "length4",
  gateway: "gateway4",
  length6: "length6",
  gateway6: "gateway6",
  dns: "dns",
  name: "name",
  kind: "kind",
  mac: "mac",
  how: "manner",
  address: "ipv4",
  ipv6: "ipv6",
  segment: "segment",
  port: "attachment",
  place: "place",
  notes: "notes",
  changesMac: "changesMac",
};

const changedFields = (known: Host, host: Omit<Host, "id">): ImportField[] =>
  (Object.keys(FIELD_OF) as ImportField[]).filter(
    (field) =>
      JSON.stringify(String(known[FIELD_OF[field]] ?? "")) !==
        JSON.stringify(String((host as Host)[FIELD_OF[field]] ?? "")) ||
      (field === "port" && JSON.stringify(known.attachment) !== JSON.stringify(host.attachment)),
  );

/** Writes the rows that were read without a problem. */
export function writeHostTable(edits: PlanEdits, ids: IdSource, table: ReadTable): void {
  for (const { host, known } of table.good) edits.put("host", { ...host, id: known ?? ids() });
}

/** The rows set aside as a table again: what was in them, and why not. */
export const badRowsTable = (mapping: Mapping, table: ReadTable): string[][] => [
  [...mapping.fields.map((field) => (field === null ? "" : FIELD_WORDS[field])), "Why not"],
  ...table.bad.map(({ cells, problems }) => [
    ...mapping.fields.map((_, i) => cells[i] ?? ""),
    problems.join(" "),
  ]),
];
