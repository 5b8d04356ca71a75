import { formatAddress, shortPrefix } from "../../address";
import { MOST, type PlanIndex, type Wish } from "../../plan";
import { pasteInto, readCells, type RowCells } from "../paste-rows";
import type { EditContext, Refusal } from "../planner";
import { readServices, servicesText } from "../rules/service-list-text";
import { hostBy, readSources } from "./forward-cell";

/** What of a wish is written in a cell. */
export type WishColumn = "name" | "to" | "service" | "from" | "way" | "note";
export const WISH_COLUMNS: readonly (readonly [WishColumn, string])[] = [
  ["name", "Wish"],
  ["to", "To reach"],
  ["service", "Service"],
  ["from", "From"],
  ["way", "Way"],
  ["note", "Note"],
];

/** The ways in as they are written. */
export const WAY_WORDS = {
  open: "not chosen",
  forward: "forward",
  vpn: "VPN",
  push: "push out",
  ipv6: "IPv6",
} as const satisfies Record<Wish["way"], string>;

const isWay = (word: string): word is Wish["way"] => word in WAY_WORDS;

function readWay(text: string): Partial<Wish> | string {
  const wanted = text.toLowerCase();
  const found = Object.entries(WAY_WORDS).find(([, word]) => word.toLowerCase() === wanted)?.[0];
  const way = found ?? (wanted === "" || wanted === "none" ? "open" : wanted);
  return isWay(way)
    ? { way }
    : `"${text}" is no way in; write forward, VPN, push out, IPv6, or leave it empty.`;
}

/** What is written in a cell as fields of the wish; a sentence where it can't be read. */
function readWishCell(index: PlanIndex, column: WishColumn, text: string): Partial<Wish> | string {
  switch (column) {
    case "name":
      return text === "" || text.length > 80 ? "A wish has a name of 1 to 80 characters." : { name: text };
    case "to": {
      const host = hostBy(index, text);
      return typeof host === "string" ? host : { host: host.id };
    }
    case "service": {
      const services = readServices(index, text);
      const [service] = typeof services === "string" ? [] : services;
      return service === undefined
        ? `"${text}" is not a service: write a name such as https, or tcp 554.`
        : { service };
    }
    case "from": {
      const read = readSources(text);
      return typeof read === "string" ? read : { from: read.sources ?? [] };
    }
    case "way":
      return readWay(text);
    case "note":
      return text.length > 120 ? "At most 120 characters here." : { note: text };
  }
}

/** What a cell says, as it is read. */
export function wishCellText(index: PlanIndex, wish: Wish, column: WishColumn): string {
  switch (column) {
    case "name":
    case "note":
      return wish[column];
    case "to": {
      const host = index.plan.host.get(wish.host);
      const named = [...index.plan.host.values()].filter(({ name }) => name === host?.name);
      return named.length > 1 && host?.ipv4 !== null && host !== undefined
        ? formatAddress(host.ipv4)
        : (host?.name ?? "");
    }
    case "service":
      return servicesText(index, [wish.service]);
    case "from":
      return wish.from.map(shortPrefix).join(", ") || "anywhere";
    case "way":
      return WAY_WORDS[wish.way];
  }
}

const HTTPS = { name: "https", protocol: "tcp", ports: [[443, 443] as [number, number]] } as const;

function writeRow(
  { edits, index, ids }: EditContext,
  id: string | null,
  cells: RowCells<WishColumn>,
): Refusal {
  const fields = readCells<WishColumn, Wish>(cells, id === null, (column, text) =>
    readWishCell(index, column, text),
  );
  if (typeof fields === "string") return fields;
  if (id !== null) {
    edits.patch("wish", edits.need("wish", id).id, fields);
    return null;
  }
  const host = index.plan.host.get(fields.host ?? "");
  if (host === undefined) return "Begin a new wish with the device that is to be reached.";
  if (edits.all("wish").length >= MOST.wish) return `A site has at most ${MOST.wish} wishes.`;
  const service = { ...HTTPS, ports: [...HTTPS.ports] };
  const made: Wish = { id: "", name: host.name, host: host.id, service, from: [], way: "open", note: "" };
  edits.put("wish", { ...made, ...fields, id: ids() });
  return null;
}

/**
 * Writes a block of texts onto wishes; rows beyond `onto` are new ones, which need the device that is to be
 * reached.
 */
export const pasteWishes = (
  context: EditContext,
  rows: readonly (readonly string[])[],
  from: WishColumn,
  onto: readonly string[],
): Refusal => pasteInto(WISH_COLUMNS, { rows, from, onto }, (id, cells) => writeRow(context, id, cells));
