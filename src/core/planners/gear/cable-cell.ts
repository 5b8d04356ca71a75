import { CABLE_SHORT, CABLE_WORDS, MEDIUM_WORDS, opticsFor } from "../../cabling";
import { CABLES, OPTICS, type Cable, type PlanEdits, type Link, type Optic } from "../../plan";
import { connectPorts } from "./add-device";
import { setCable, setMedium, setOptic, setPatch } from "./edit-cabling";
import { portNamed } from "../register/host-cell";
import type { EditContext, Refusal } from "../planner";
import { editLink } from "../site/set-fields";
import type { Paste } from "../register/table-paste";

export const CABLE_COLUMNS = [
  "label",
  "from",
  "fromOptic",
  "to",
  "toOptic",
  "medium",
  "cable",
  "length",
  "panel",
  "socket",
] as const;
export type CableColumn = (typeof CABLE_COLUMNS)[number];

const portText = (edits: Pick<PlanEdits, "need">, id: string): string => {
  const port = edits.need("port", id);
  return `${edits.need("device", port.device).name} ${port.label}`;
};
const squeezed = (text: string): string =>
  text
    .toLowerCase()
    .replace(/category/g, "cat")
    .replace(/[^a-z0-9]/g, "");

/** The cable, medium or optic that a word means, written in any of the usual ways; undefined when none is. */
const mediumNamed = (text: string): Link["medium"] | undefined =>
  (Object.keys(MEDIUM_WORDS) as Link["medium"][]).find(
    (medium) => squeezed(MEDIUM_WORDS[medium]) === squeezed(text) || squeezed(medium) === squeezed(text),
  );
const cableNamed = (text: string): Cable | undefined =>
  text === ""
    ? "unknown"
    : CABLES.find(
        (cable) =>
          squeezed(cable) === squeezed(text) ||
          [CABLE_SHORT[cable], CABLE_WORDS[cable]].some((words) => squeezed(words) === squeezed(text)),
      );
const opticNamed = (text: string): Optic | undefined =>
  text === "" ? "none" : OPTICS.find((optic) => squeezed(optic) === squeezed(text));

/** A cell of the cable schedule as it can be typed in again. */
export function cableCellText(edits: Pick<PlanEdits, "need">, link: Link, column: CableColumn): string {
  const optic = (port: string) => {
    const { optic: fitted } = edits.need("port", port);
    return fitted === "none" ? "" : fitted;
  };
  switch (column) {
    case "label":
      return link.label;
    case "from":
      return portText(edits, link.a);
    case "to":
      return portText(edits, link.b);
    case "fromOptic":
      return optic(link.a);
    case "toOptic":
      return optic(link.b);
    case "medium":
      return MEDIUM_WORDS[link.medium];
    case "cable":
      return CABLE_SHORT[link.cable];
    case "length":
      return link.lengthCm === null ? "" : String(link.lengthCm / 100);
    case "panel":
      return link.panel;
    case "socket":
      return link.socket;
  }
}

/** Puts one end of a cable into another port. */
function moveEnd(context: EditContext, link: Link, end: "a" | "b", text: string): Refusal {
  const { edits } = context;
  const port = portNamed(edits, text);
  if (port === null)
    return `"${text}" is no port here; write the device and the number on its case, such as Upper switch 13.`;
  if (port === link[end]) return null;
  const name = portText(edits, port);
  if (edits.all("link").some((other) => other.a === port || other.b === port))
    return `${name} has a cable already; unplug it first.`;
  if (edits.all("host").some((host) => host.attachment.at === "port" && host.attachment.port === port))
    return `A device is plugged into ${name} already; unplug it first.`;
  edits.patch("link", link.id, { [end]: port });
  return null;
}

/** Writes one cell of the cable schedule. */
export function editCableCell(context: EditContext, id: string, column: CableColumn, typed: string): Refusal {
  const { edits } = context;
  const text = typed.trim();
  const link = edits.need("link", id);
  switch (column) {
    case "label":
    case "length":
      return editLink(context, id, column, text);
    case "panel":
    case "socket":
      return setPatch(context, id, column, text);
    case "from":
      return moveEnd(context, link, "a", text);
    case "to":
      return moveEnd(context, link, "b", text);
    case "medium": {
      const medium = mediumNamed(text);
      if (medium === undefined) return `"${text}" is no medium; write copper, fibre or direct attach.`;
      setMedium(context, id, medium);
      return null;
    }
    case "cable": {
      const cable = cableNamed(text);
      return cable === undefined
        ? `"${text}" is no kind of cable; write one of ${CABLES.filter((cable) => cable !== "unknown")
            .map((cable) => CABLE_SHORT[cable])
            .join(", ")}.`
        : setCable(context, id, cable);
    }
    case "fromOptic":
    case "toOptic": {
      const port = column === "fromOptic" ? link.a : link.b;
      const optic = opticNamed(text);
      return optic === undefined
        ? `"${text}" is no optic; write one of ${
            opticsFor(edits.need("port", port))
              .filter((optic) => optic !== "none")
              .join(", ") || "none, as this port takes none"
          }.`
        : setOptic(context, port, optic);
    }
  }
}

/** "Upper switch 20 to Switch B 3": lays a cable between two ports named so. */
export function layCable(context: EditContext, typed: string): Refusal {
  const ends = typed.split(/\s+to\s+|\s*[–-]>?\s+|\s*\t\s*/i).map((part) => part.trim());
  if (ends.length !== 2)
    return `"${typed.trim()}" can't be read; write both ends, such as Upper switch 20 to Switch B 3.`;
  const found = ends.map((text) => ({ text, port: portNamed(context.edits, text) }));
  const unknown = found.find(({ port }) => port === null);
  if (unknown !== undefined)
    return (
      `"${unknown.text}" is no port here; write the device ` +
      "and the number on its case, such as Upper switch 13."
    );
  return connectPorts(context, found[0]?.port ?? "", found[1]?.port ?? "");
}

/** The order in which a row's cells are written: the medium before the cable that it can be. */
const ORDER: readonly CableColumn[] = [
  "from",
  "to",
  "medium",
  "cable",
  "fromOptic",
  "toOptic",
  "length",
  "label",
  "panel",
  "socket",
];

/**
 * Writes pasted rows onto `onto`; a row beyond it is a new cable and has to name both its ends. One bad cell
 * refuses the whole paste.
 */
export function pasteCables(context: EditContext, { rows, from, onto }: Paste<CableColumn>): Refusal {
  const start = CABLE_COLUMNS.indexOf(from);
  for (const [i, row] of rows.entries()) {
    const cells = new Map(
      row.flatMap((text, at): [CableColumn, string][] => {
        const column = CABLE_COLUMNS[start + at];
        return column === undefined ? [] : [[column, text.trim()]];
      }),
    );
    let id = onto[i];
    if (id === undefined) {
      const refusal = layCable(context, `${cells.get("from") ?? ""} to ${cells.get("to") ?? ""}`);
      if (refusal !== null) return `Row ${i + 1}: ${refusal}`;
      id = context.edits.all("link").at(-1)?.id ?? "";
      cells.delete("from");
      cells.delete("to");
    }
    for (const column of ORDER) {
      const text = cells.get(column);
      if (
        text === undefined ||
        (text === "" && (column === "from" || column === "to" || column === "medium"))
      )
        continue;
      const refusal = editCableCell(context, id, column, text);
      if (refusal !== null) return `Row ${i + 1}: ${refusal}`;
    }
  }
  return null;
}
