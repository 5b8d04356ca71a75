import { byNaturalText } from "../../kernel";
import {
  MOST,
  type Conduit,
  type ControlLevel,
  type Exception,
  type PlanEdits,
  type PlanIndex,
  type Wall,
} from "../../plan";
import { doorsInOrder } from "../../policy";
import { pasteInto, readCells, type RowCells } from "../paste-rows";
import type { EditContext, Refusal } from "../planner";

/** What of a conduit is written in a cell. */
export type ConduitColumn = "name" | "level" | "owner" | "note";
export const CONDUIT_COLUMNS: readonly (readonly [ConduitColumn, string])[] = [
  ["name", "Conduit"],
  ["level", "Target level"],
  ["owner", "Answers for it"],
  ["note", "Note"],
];

/** Levels of control as they are said (IEC 62264-1). */
export const LEVEL_WORDS: Readonly<Record<ControlLevel, string>> = {
  none: "none",
  process: "0, process",
  control: "1, control",
  supervision: "2, supervision",
  operations: "3, operations",
  dmz: "between 3 and 4, plant DMZ",
  business: "4, business",
};

const BLANK: Omit<Conduit, "id" | "name"> = { securityLevel: 0, owner: "", note: "" };

/** A target security level from 1 to 4 (IEC 62443-3-3), 0 for none; null for anything else. */
function readSecurityLevel(text: string): number | null {
  if (/^(none|no|-|)$/i.test(text)) return 0;
  const [, digit] = /^(?:SL(?:-T)?\s*)?([0-4])$/i.exec(text) ?? [];
  return digit === undefined ? null : Number(digit);
}

export const securityLevelText = (level: number): string => (level === 0 ? "none" : String(level));

const alike = (a: string, b: string): boolean => a.toLowerCase() === b.toLowerCase();

/** The conduit of that name; null where there is none. */
export const conduitNamed = (conduits: Iterable<Conduit>, name: string): Conduit | null =>
  [...conduits].find((conduit) => alike(conduit.name, name)) ?? null;

function readCell(column: ConduitColumn, text: string): Partial<Conduit> | string {
  switch (column) {
    case "name":
      return text === "" || text.length > 80 ? "A conduit has a name of 1 to 80 characters." : { name: text };
    case "level": {
      const securityLevel = readSecurityLevel(text);
      return securityLevel === null
        ? `"${text}" is no target level; write 1 to 4, or none.`
        : { securityLevel };
    }
    case "owner":
    case "note":
      return text.length > 120 ? "At most 120 characters here." : { [column]: text };
  }
}

/** What a cell says, as it is read. */
export const conduitCellText = (conduit: Conduit, column: ConduitColumn): string =>
  column === "level" ? securityLevelText(conduit.securityLevel) : conduit[column];

function writeRow({ edits, ids }: EditContext, id: string | null, cells: RowCells<ConduitColumn>): Refusal {
  const fields = readCells<ConduitColumn, Conduit>(cells, id === null, readCell);
  if (typeof fields === "string") return fields;
  const known = id === null ? null : edits.need("conduit", id);
  const name = fields.name ?? known?.name;
  if (name === undefined) return "A new conduit needs its name: write or paste it first.";
  const other = conduitNamed(edits.all("conduit"), name);
  if (other !== null && other.id !== known?.id) return `There is a conduit ${other.name} already.`;
  if (known === null && edits.all("conduit").length >= MOST.conduit)
    return `A site has at most ${MOST.conduit} conduits.`;
  edits.put("conduit", { ...BLANK, ...known, ...fields, name, id: known?.id ?? ids() });
  return null;
}

/** Writes a block of texts onto conduits; rows beyond `onto` are new ones, which need their name. */
export const pasteConduits = (
  context: EditContext,
  rows: readonly (readonly string[])[],
  from: ConduitColumn,
  onto: readonly string[],
): Refusal => pasteInto(CONDUIT_COLUMNS, { rows, from, onto }, (id, cells) => writeRow(context, id, cells));

/** Removes conduits; their doors and exceptions stay, and belong to none. */
export function removeConduits(edits: PlanEdits, ids: readonly string[]): void {
  const gone = new Set<string | null>(ids);
  for (const kind of ["wall", "exception"] as const)
    for (const { id, conduit } of edits.all(kind))
      if (gone.has(conduit)) edits.patch(kind, id, { conduit: null });
  for (const id of ids) edits.remove("conduit", edits.need("conduit", id).id);
}

/** What belongs to a conduit: its doors in the order of the walls' grid, its exceptions by name. */
export const inConduit = (
  index: PlanIndex,
  id: string,
): { readonly doors: readonly Wall[]; readonly exceptions: readonly Exception[] } => ({
  doors: doorsInOrder(index).filter(({ conduit }) => conduit === id),
  exceptions: [...index.plan.exception.values()]
    .filter(({ conduit }) => conduit === id)
    .sort((a, b) => byNaturalText(a.name, b.name)),
});

/** Puts a door into the conduit of that name, which is made where there is none; "" takes it out. */
export function putInConduit(
  context: Pick<EditContext, "edits" | "ids" | "index">,
  wall: string,
  name: string,
): Refusal {
  const { edits } = context;
  const text = name.trim();
  if (text === "") {
    edits.patch("wall", wall, { conduit: null });
    return null;
  }
  if (conduitNamed(edits.all("conduit"), text) === null) {
    const refusal = writeRow(context, null, [["name", text]]);
    if (refusal !== null) return refusal;
  }
  edits.patch("wall", wall, { conduit: conduitNamed(edits.all("conduit"), text)?.id ?? null });
  return null;
}
