import { formatAddress, parseAddress, prefixOf, readPrefix, shortPrefix, type Prefix } from "../../address";
import { BLANK_FORWARD, MOST, nameOf, type Forward, type Host, type PlanIndex } from "../../plan";
import { linesInOrder } from "../../routing";
import { pasteInto } from "../paste-rows";
import type { EditContext, Refusal } from "../planner";
import { pieces } from "../rules/side-text";
import { readDate } from "../site/survey-text";

/** What of a forward is written in a cell. */
export type ForwardColumn = "name" | "line" | "outside" | "to" | "port" | "from" | "until" | "hairpin";
export const FORWARD_COLUMNS: readonly (readonly [ForwardColumn, string])[] = [
  ["name", "Name"],
  ["line", "Line"],
  ["outside", "Outside"],
  ["to", "To"],
  ["port", "Port"],
  ["from", "From"],
  ["until", "Until"],
  ["hairpin", "From inside"],
];

const alike = (a: string, b: string): boolean => a.toLowerCase() === b.toLowerCase();

/** Somebody of the register by name, or by the address that it has. */
export function hostBy({ plan }: PlanIndex, text: string): Host | string {
  const address = parseAddress(text);
  const found = [...plan.host.values()].filter((host) =>
    address === null ? alike(host.name, text) : host.ipv4 === address || host.ipv6 === address,
  );
  const [first] = found;
  if (first === undefined)
    return `There is no device called "${text}" in the register; write a name or an address of one.`;
  return found.length === 1 ? first : `Several are called "${text}"; write its address instead.`;
}

const ports = (low: number, high: number): [number, number] | null =>
  low >= 1 && low <= high && high <= 65_535 ? [low, high] : null;

function readOutside(text: string, protocol: Forward["protocol"]): Partial<Forward> | string {
  const turned = text.trim().replace(/^([\d -]+)\/\s*(tcp|udp)$/i, "$2 $1");
  const match = /^(?:(tcp|udp)[\s/:]+)?(\d{1,5})(?:\s*-\s*(\d{1,5}))?$/i.exec(turned);
  const [, own, low = "", high = low] = match ?? [];
  const range = match === null ? null : ports(Number(low), Number(high));
  return range === null
    ? `"${text}" is no port outside: write tcp 8443 or udp 5000-5100; ports run from 1 to 65535.`
    : { protocol: (own?.toLowerCase() as Forward["protocol"] | undefined) ?? protocol, ports: range };
}

/** Who may come in, as addresses and subnets with commas between; none is anybody. */
export function readSources(text: string): Partial<Forward> | string {
  const parts = pieces(text).filter((part) => !/^(anybody|anywhere|any|all)$/i.test(part));
  const sources: Prefix[] = [];
  for (const part of parts) {
    const address = parseAddress(part);
    const prefix =
      address === null ? readPrefix(part) : prefixOf(address, typeof address === "number" ? 32 : 128);
    if (prefix === null) return `"${part}" is no address or subnet such as 203.0.113.40 or 203.0.113.0/24.`;
    sources.push(prefix);
  }
  return sources.length > 32 ? `At most 32 belong here; these are ${sources.length}.` : { sources };
}

/** What is written in a cell as fields of the forward; a sentence where it can't be read. */
export function readForwardCell(
  index: PlanIndex,
  column: ForwardColumn,
  text: string,
  { protocol }: Pick<Forward, "protocol">,
): Partial<Forward> | string {
  const written = text.trim();
  switch (column) {
    case "name":
      return written === "" || written.length > 80
        ? "A forward has a name of 1 to 80 characters."
        : { name: written };
    case "line": {
      const line = [...index.plan.line.values()].find(({ name }) => alike(name, written));
      return line === undefined ? `There is no line called "${written}".` : { line: line.id };
    }
    case "outside":
      return readOutside(written, protocol);
    case "to": {
      const host = hostBy(index, written);
      return typeof host === "string" ? host : { host: host.id };
    }
    case "port": {
      if (/^(|same|the same)$/i.test(written)) return { toPort: null };
      const [port] = /^\d{1,5}$/.test(written) ? (ports(Number(written), Number(written)) ?? []) : [];
      return port === undefined ? `"${written}" is no port; ports run from 1 to 65535.` : { toPort: port };
    }
    case "from":
      return readSources(written);
    case "until": {
      const read = readDate(/^always$/i.test(written) ? "" : written);
      return read.refusal ?? { until: read.value };
    }
    case "hairpin":
      return { hairpin: /^(yes|on|true|x|1)$/i.test(written) };
  }
}

const rangeText = ([low, high]: Forward["ports"]): string => (low === high ? `${low}` : `${low}-${high}`);

/** What a cell says, as `readForwardCell` reads it. */
export function forwardCellText(index: PlanIndex, forward: Forward, column: ForwardColumn): string {
  switch (column) {
    case "name":
      return forward.name;
    case "line":
      return nameOf(index, "line", forward.line);
    case "outside":
      return `${forward.protocol} ${rangeText(forward.ports)}`;
    case "to": {
      const host = index.plan.host.get(forward.host);
      const twice =
        [...index.plan.host.values()].filter((other) => alike(other.name, host?.name ?? "")).length > 1;
      return twice && host !== undefined && host.ipv4 !== null
        ? formatAddress(host.ipv4)
        : (host?.name ?? "");
    }
    case "port":
      return forward.toPort === null ? "same" : String(forward.toPort);
    case "from":
      return forward.sources.map(shortPrefix).join(", ") || "anybody";
    case "until":
      return forward.until ?? "always";
    case "hairpin":
      return forward.hairpin ? "yes" : "no";
  }
}

/** The line that a new forward comes in by: one that something can come in by, the main one first. */
function usualLine({ plan }: PlanIndex): string | undefined {
  const lines = linesInOrder(plan.line.values());
  return (lines.find(({ carrierNat }) => carrierNat !== "yes") ?? lines[0])?.id;
}

type Cells = ReadonlyMap<ForwardColumn, string>;

/**
 * Writes the cells of a row: of a forward that is there, or of a new one (null), which begins with its host.
 */
function writeRow(context: EditContext, id: string | null, cells: Cells): Refusal {
  const { edits, index } = context;
  const known = id === null ? undefined : edits.need("forward", id);
  let fields: Partial<Forward> = {};
  for (const [column, text] of cells) {
    const read = readForwardCell(index, column, text, {
      protocol: fields.protocol ?? known?.protocol ?? "tcp",
    });
    if (typeof read === "string") return read;
    fields = { ...fields, ...read };
  }
  if (known !== undefined) {
    edits.patch("forward", known.id, fields);
    return null;
  }
  const line = usualLine(index);
  const host = fields.host === undefined ? undefined : index.plan.host.get(fields.host);
  if (line === undefined) return "There is no internet line; add one on Survey first.";
  if (host === undefined) return "Begin a new forward with the device that it leads to.";
  if (edits.all("forward").length >= MOST.forward) return `A site has at most ${MOST.forward} forwards.`;
  const made = { ...BLANK_FORWARD, line, name: `To ${host.name}`.slice(0, 80), ...fields };
  edits.put("forward", { ...made, id: context.ids(), host: host.id });
  return null;
}

/** Writes a block of texts onto forwards; rows beyond `onto` are new ones. */
export const pasteForwards = (
  context: EditContext,
  rows: readonly (readonly string[])[],
  from: ForwardColumn,
  onto: readonly string[],
): Refusal =>
  pasteInto(FORWARD_COLUMNS, { rows, from, onto }, (id, cells) => writeRow(context, id, new Map(cells)));
