import { formatPrefix, readPrefix } from "../../address";
import { nameOf, type Interface, type PlanEdits, type PlanIndex, type Segment } from "../../plan";
import { usualGateway } from "../addressing/usual-gateway";
import { moveSegmentTo } from "../segments/move-segment";
import { pasteInto, type RowCells } from "../paste-rows";
import type { EditContext, Refusal } from "../planner";
import { makeTunnel } from "./tunnels";

/** What of a tunnel is written in a cell. */
export type TunnelColumn = "name" | "kind" | "subnet" | "answers" | "line" | "end";
export const TUNNEL_COLUMNS: readonly (readonly [TunnelColumn, string])[] = [
  ["name", "Tunnel"],
  ["kind", "For"],
  ["subnet", "Far end"],
  ["answers", "Answered at"],
  ["line", "Line"],
  ["end", "Ends at"],
];
const KIND_WORDS = { users: "people", site: "another site" } as const;

type Tunnel = NonNullable<Segment["tunnel"]>;
const alike = (a: string, b: string): boolean => a.toLowerCase() === b.toLowerCase();

function readKind(text: string): Pick<Tunnel, "kind"> | string {
  if (/^(people|users?|)$/i.test(text)) return { kind: "users" };
  return /^((another )?site|far end)$/i.test(text)
    ? { kind: "site" }
    : `"${text}" is neither people nor another site.`;
}

function readAnswers(text: string): Pick<Tunnel, "protocol" | "port"> | string {
  const [, before, port, after] = /^(tcp|udp)?[\s/:]*(\d{1,5})(?:\s*\/\s*(tcp|udp))?$/i.exec(text) ?? [];
  const number = Number(port ?? 0);
  const protocol = (before ?? after ?? "udp").toLowerCase() === "tcp" ? "tcp" : "udp";
  return number >= 1 && number <= 65_535
    ? { protocol, port: number }
    : `"${text}" is no port to answer at: write udp 51900 or tcp 443; ports run from 1 to 65535.`;
}

function readLine({ plan }: PlanIndex, text: string): Pick<Tunnel, "line"> | string {
  if (/^(|any|all)$/i.test(text)) return { line: null };
  const line = [...plan.line.values()].find(({ name }) => alike(name, text));
  return line === undefined ? `There is no line called "${text}"; write one, or any.` : { line: line.id };
}

const legOf = (edits: PlanEdits, segment: Segment): Interface | undefined =>
  edits.all("interface").find(({ id }) => id === segment.gatewayInterface);

/** The device that a tunnel ends at. */
function endAt({ edits, index, ids }: EditContext, segment: Segment, text: string): Refusal {
  const device = [...index.plan.device.values()].find(({ name }) => alike(name, text));
  if (device === undefined) return `There is no device called "${text}".`;
  const leg = legOf(edits, segment);
  if (leg !== undefined) {
    edits.patch("interface", leg.id, { device: device.id });
    return null;
  }
  const id = ids();
  edits.put("interface", {
    id,
    device: device.id,
    port: null,
    segment: segment.id,
    line: null,
    name: segment.name,
    mac: null,
    addresses4: [],
    addresses6: [],
    relayTo: null,
    translates: "asUsual",
  });
  edits.patch("segment", segment.id, { gatewayInterface: id });
  return null;
}

function writeCell(context: EditContext, id: string, column: TunnelColumn, typed: string): Refusal {
  const { edits, index } = context;
  const segment = edits.need("segment", id);
  const text = typed.trim();
  const { tunnel } = segment;
  if (tunnel === null) return `${segment.name} is no tunnel any more.`;
  const set = (read: Partial<Tunnel> | string): Refusal => {
    if (typeof read === "string") return read;
    edits.patch("segment", id, { tunnel: { ...tunnel, ...read } });
    return null;
  };
  switch (column) {
    case "name":
      if (text === "" || text.length > 80) return "A tunnel has a name of 1 to 80 characters.";
      edits.patch("segment", id, { name: text });
      return null;
    case "kind":
      return set(readKind(text));
    case "answers":
      return set(readAnswers(text));
    case "line":
      return set(readLine(index, text));
    case "end":
      return endAt(context, segment, text);
    case "subnet": {
      const prefix = readPrefix(text);
      if (prefix?.family !== 4) return `"${text}" is no IPv4 subnet such as 10.24.90.0/28.`;
      if (segment.prefixes4[0] !== undefined) return moveSegmentTo(edits, id, segment.prefixes4[0], prefix);
      edits.patch("segment", id, { prefixes4: [prefix] });
      return null;
    }
  }
}

/** What a cell says, as it is read. */
export function tunnelCellText(index: PlanIndex, segment: Segment, column: TunnelColumn): string {
  const { tunnel } = segment;
  if (tunnel === null) return "";
  switch (column) {
    case "name":
      return segment.name;
    case "kind":
      return KIND_WORDS[tunnel.kind];
    case "subnet":
      return segment.prefixes4[0] === undefined ? "" : formatPrefix(segment.prefixes4[0]);
    case "answers":
      return `${tunnel.protocol} ${tunnel.port}`;
    case "line":
      return tunnel.line === null ? "any" : nameOf(index, "line", tunnel.line);
    case "end":
      return index.gatewayOf(segment) === undefined
        ? ""
        : nameOf(index, "device", index.gatewayOf(segment)?.device ?? "");
  }
}

/** Writes a block of texts onto tunnels; rows beyond `onto` are new ones, which need their name. */
export const pasteTunnels = (
  context: EditContext,
  rows: readonly (readonly string[])[],
  from: TunnelColumn,
  onto: readonly string[],
): Refusal => pasteInto(TUNNEL_COLUMNS, { rows, from, onto }, (id, cells) => writeRow(context, id, cells));

/** A new tunnel from the cells of its row; a sentence why not. */
function newTunnel(context: EditContext, textOf: (column: TunnelColumn) => string): Segment | string {
  const device = usualGateway(context.edits);
  const kind = readKind(textOf("kind"));
  const subnet = textOf("subnet") === "" ? null : readPrefix(textOf("subnet"));
  if (textOf("name") === "") return "Begin a new tunnel with its name.";
  if (device === undefined) return "There is no gateway that a tunnel could end at; add one on Hardware.";
  if (typeof kind === "string") return kind;
  if (textOf("subnet") !== "" && subnet?.family !== 4)
    return `"${textOf("subnet")}" is no IPv4 subnet such as 10.24.90.0/28.`;
  return makeTunnel(context, {
    name: textOf("name"),
    device: device.id,
    ...kind,
    subnet: subnet?.family === 4 ? subnet : null,
  });
}

/** What a new row says is read when it is made, but for these. */
const AFTER: ReadonlySet<TunnelColumn> = new Set(["answers", "line", "end"]);

function writeRow(context: EditContext, known: string | null, cells: RowCells<TunnelColumn>): Refusal {
  const textOf = (column: TunnelColumn): string => cells.find(([key]) => key === column)?.[1].trim() ?? "";
  const made = known === null ? newTunnel(context, textOf) : null;
  if (typeof made === "string") return made;
  const id = made?.id ?? known ?? "";
  const left =
    made === null ? cells : cells.filter(([column, text]) => AFTER.has(column) && text.trim() !== "");
  for (const [column, text] of left) {
    const refusal = writeCell(context, id, column, text);
    if (refusal !== null) return refusal;
  }
  return null;
}
