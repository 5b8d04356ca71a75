import { nameOf, type Zone } from "../plan";
import {
  CONDUIT_COLUMNS,
  LEVEL_WORDS,
  pasteConduits as pasteConduitsInto,
  putInConduit as putWallInConduit,
  removeConduits as removeConduitsIn,
  securityLevelText,
  type ConduitColumn,
} from "../planners";
import { counted } from "../repairs";
import { command, type Pasted } from "./command";
import { pasted } from "./says";

const columnWord = (column: ConduitColumn): string =>
  CONDUIT_COLUMNS.find(([key]) => key === column)?.[1].toLowerCase() ?? column;

export const writeConduit = command<{
  readonly conduit: string | null;
  readonly column: ConduitColumn;
  readonly text: string;
}>("write-conduit", {
  says: ({ conduit, column, text }, index) =>
    conduit === null
      ? `Conduit ${text}`
      : `Conduit ${nameOf(index, "conduit", conduit)}, ${columnWord(column)}: ${text || "nothing"}`,
  run: (context, { conduit, column, text }) =>
    pasteConduitsInto(context, [[text]], column, conduit === null ? [] : [conduit]),
});

export const pasteConduits = command<Pasted<ConduitColumn>>("paste-conduits", {
  says: ({ rows }) => pasted(rows, "the conduits"),
  run: (context, { rows, from, onto }) => pasteConduitsInto(context, rows, from, onto),
  log: ({ rows, from }) => ({ rows: rows.length, from }),
});

export const removeConduits = command<{ readonly conduits: readonly string[] }>("remove-conduits", {
  says: ({ conduits }, index) =>
    conduits.length === 1 && conduits[0] !== undefined
      ? `Removed the conduit ${nameOf(index, "conduit", conduits[0])}`
      : `Removed ${counted(conduits.length, "conduit", "conduits")}`,
  run: ({ edits }, { conduits }) => removeConduitsIn(edits, conduits),
});

export const putInConduit = command<{ readonly wall: string; readonly name: string }>("put-in-conduit", {
  says: ({ wall, name }, index) => `${nameOf(index, "wall", wall)}: conduit ${name || "none"}`,
  run: (context, { wall, name }) => putWallInConduit(context, wall, name),
});

export const setZone = command<{
  readonly zone: string;
  readonly fields: Partial<Pick<Zone, "level" | "securityLevel">>;
}>("set-zone", {
  says: ({ zone, fields: { level, securityLevel } }, index) =>
    [
      nameOf(index, "zone", zone),
      ...(level === undefined ? [] : [`level of control ${LEVEL_WORDS[level]}`]),
      ...(securityLevel === undefined ? [] : [`target level ${securityLevelText(securityLevel)}`]),
    ].join(": "),
  run: ({ edits }, { zone, fields }) => edits.patch("zone", zone, fields),
});

export const tellBetween = command<{ readonly device: string; readonly segments: readonly string[] }>(
  "tell-between",
  {
    says: ({ device, segments }, index) =>
      `${nameOf(index, "device", device)} tells what there is between ` +
      (segments.map((id) => nameOf(index, "segment", id)).join(", ") || "no segments"),
    run: ({ edits }, { device, segments }) =>
      edits.patch("device", device, { repeatsDiscovery: [...segments] }),
  },
);
