import { nameOf, type Lag, type Link, type PlanIndex, type Port } from "../plan";
import {
  cableLags as cableLagsIn,
  connectPorts as connectPortsIn,
  dissolveLag as dissolveLagIn,
  editCableCell,
  editLink,
  labelCables as labelCablesIn,
  layCable as layCableIn,
  makeLag as makeLagOf,
  pasteCables as pasteCablesInto,
  setCable,
  setLagMode as setLagModeOf,
  setMedium,
  setOptic as setOpticOf,
  setPatch,
  type CableColumn,
} from "../planners";
import { command, eachCell, type Cell } from "./command";
import { chose, count, emptied, pasted, wrote } from "./says";

const cable = (index: PlanIndex, id: string): string => nameOf(index, "link", id);

interface OfLink {
  readonly link: string;
}

export const connectPorts = command<{ readonly a: string; readonly b: string }>("connect-ports", {
  says: ({ a, b }, index) => `Cable ${nameOf(index, "port", a)} to ${nameOf(index, "port", b)}`,
  run: (context, { a, b }) => connectPortsIn(context, a, b),
});

export const layCable = command<{ readonly text: string }>("lay-cable", {
  says: ({ text }) => `Laid ${text}`,
  run: (context, { text }) => layCableIn(context, text),
});

export const removeLinks = command<{ readonly links: readonly string[] }>("remove-link", {
  says: ({ links }, index) => {
    const [only, ...more] = links;
    return only !== undefined && more.length === 0
      ? `Took out the cable ${cable(index, only)}`
      : `Took out ${count(links, "cable")}`;
  },
  run: ({ edits }, { links }) => {
    for (const id of links) edits.remove("link", id);
  },
});

export const setLinkMedium = command<OfLink & { readonly medium: Link["medium"] }>("set-link-medium", {
  says: ({ link, medium }, index) => chose(index, cable(index, link), { medium }),
  run: (context, { link, medium }) => setMedium(context, link, medium),
});

export const setLinkCable = command<OfLink & { readonly cable: Link["cable"] }>("set-link-cable", {
  says: ({ link, cable: kind }, index) => chose(index, cable(index, link), { cable: kind }),
  run: (context, { link, cable: kind }) => setCable(context, link, kind),
});

type LinkText = "length" | "label" | "panel" | "socket";

export const editLinkText = command<OfLink & { readonly field: LinkText; readonly text: string }>(
  "edit-link",
  {
    says: ({ link, field, text }, index) =>
      wrote(cable(index, link), field, field === "length" && text !== "" ? `${text} m` : text),
    run: (context, { link, field, text }) =>
      field === "length" || field === "label"
        ? editLink(context, link, field, text)
        : setPatch(context, link, field, text),
  },
);

export const editCable = command<OfLink & { readonly column: CableColumn; readonly text: string }>(
  "edit-cable",
  {
    says: ({ link, column, text }, index) => wrote(cable(index, link), column, text),
    run: (context, { link, column, text }) => editCableCell(context, link, column, text),
  },
);

export const pasteCables = command<Parameters<typeof pasteCablesInto>[1]>("paste-cables", {
  says: ({ rows }) => pasted(rows, "the cables"),
  run: (context, paste) => pasteCablesInto(context, paste),
  log: ({ rows, from }) => ({ rows: rows.length, from }),
});

export const clearCables = command<{ readonly cells: readonly Cell<CableColumn>[] }>("clear-cables", {
  says: ({ cells }) => emptied(cells, "the cables"),
  run: (context, { cells }) => eachCell(cells, (row, column) => editCableCell(context, row, column, "")),
});

/** All cables without `link`. */
export const labelCables = command<{ readonly link: string | null }>("label-cables", {
  says: ({ link }, index) =>
    `Labelled ${link === null ? count([...index.plan.link], "cable") : cable(index, link)} by the pattern`,
  run: (context, { link }) => labelCablesIn(context, link === null ? undefined : new Set([link])),
});

export const setOptic = command<{ readonly port: string; readonly optic: Port["optic"] }>("set-optic", {
  says: ({ port, optic }, index) =>
    `${nameOf(index, "port", port)}: ${optic === "none" ? "no optic" : optic}`,
  run: (context, { port, optic }) => setOpticOf(context, port, optic),
});

export const makeLag = command<{ readonly ports: readonly string[] }>("make-lag", {
  says: ({ ports }, index) => `One LAG of ${ports.map((id) => nameOf(index, "port", id)).join(", ")}`,
  run: (context, { ports }) => makeLagOf(context, ports, "active"),
});

export const setLagMode = command<{ readonly lag: string; readonly mode: Lag["mode"] }>("set-lag-mode", {
  says: ({ lag, mode }, index) => `${nameOf(index, "lag", lag)}: ${mode}`,
  run: (context, { lag, mode }) => setLagModeOf(context, lag, mode),
});

export const dissolveLag = command<{ readonly lag: string }>("dissolve-lag", {
  says: ({ lag }, index) => `Took ${nameOf(index, "lag", lag)} apart`,
  run: (context, { lag }) => dissolveLagIn(context, lag),
});

export const cableLags = command<{ readonly a: string; readonly b: string }>("cable-lags", {
  says: ({ a, b }, index) => `Cabled ${nameOf(index, "lag", a)} to ${nameOf(index, "lag", b)}`,
  run: (context, { a, b }) => cableLagsIn(context, a, b),
});
