import { byNaturalText } from "../kernel";
import { isGateway, type Device, type PlanIndex, type Segment, type WallEnd } from "../plan";
import { wallBetween, zonesInOrder } from "../policy";
import { addressesOf, forwardsPackets, getsOut, prefixesOf, routeFrom } from "../routing";
import { CARRY, FABRIC, JOINS } from "../switching";

/** A column beside the segments: the internet, and the gateway's own pages. */
export type ReachColumn = Segment | "internet" | "gateway";

/** What gets from one segment to another, as the number that stands in the matrix. */
export const REACH = ["itself", "nothing", "closed", "services", "open", "past the walls", "one network"] as const;
export type Reach = (typeof REACH)[number];
/**
 * itself: the same segment; nothing: no route, or no gateway; closed, services, open: as the walls say; past the walls: routed by something that does not
 * filter; one network: their VLANs are joined, so that frames pass.
 */
const CODE = { itself: 0, nothing: 1, closed: 2, services: 3, open: 4, past: 5, joined: 6 } as const;

export interface ReachMatrix {
  readonly rows: readonly Segment[];
  readonly columns: readonly ReachColumn[];
  /** Row by row: what really gets through. */
  readonly actual: Uint8Array;
  /** Row by row: what the walls intend. */
  readonly intended: Uint8Array;
  /** Segments whose VLAN does not reach all of its users: what is said of them holds for the larger part only. */
  readonly split: ReadonlySet<string>;
}

const at = (matrix: ReachMatrix, row: number, column: number): number => row * matrix.columns.length + column;
export const reachAt = (matrix: ReachMatrix, row: number, column: number): Reach => REACH[matrix.actual[at(matrix, row, column)] ?? 1] ?? "nothing";
export const intendedAt = (matrix: ReachMatrix, row: number, column: number): Reach => REACH[matrix.intended[at(matrix, row, column)] ?? 1] ?? "nothing";

/** How far what really gets through is from what is intended: more, less, or as intended. */
export function differenceAt(matrix: ReachMatrix, row: number, column: number): "more" | "less" | null {
  const [is, wanted] = [matrix.actual[at(matrix, row, column)] ?? 0, matrix.intended[at(matrix, row, column)] ?? 0];
  if (is === wanted || is === CODE.itself) return null;
  if (is >= CODE.past) return wanted === CODE.open ? null : "more";
  if (is === CODE.nothing) return wanted === CODE.services || wanted === CODE.open ? "less" : null;
  return is > wanted ? "more" : "less";
}

/** Rows of bits by zone: for each class of door, the zones it is open to. */
class DoorRows {
  readonly #open: Uint8Array[];
  readonly #number: ReadonlyMap<string, number>;
  readonly #width: number;

  constructor(index: PlanIndex, ends: readonly WallEnd[]) {
    const key = (end: WallEnd) => (end.at === "zone" ? end.zone : end.at);
    this.#number = new Map(ends.map((end, i) => [key(end), i]));
    this.#width = ends.length;
    this.#open = ends.map(() => new Uint8Array(ends.length).fill(CODE.closed));
    for (const wall of index.plan.wall.values()) this.#set(key(wall.from), key(wall.to), wall.door === "open" ? CODE.open : wall.door === "services" ? CODE.services : CODE.closed);
    for (const zone of index.plan.zone.values()) this.#set(zone.id, zone.id, zone.insideOpen ? CODE.open : CODE.closed);
  }

  #set(from: string, to: string, code: number): void {
    const [a, b] = [this.#number.get(from), this.#number.get(to)];
    const row = a === undefined ? undefined : this.#open[a];
    if (row !== undefined && b !== undefined && b < this.#width) row[b] = code;
  }

  between(from: string, to: string): number {
    return this.#open[this.#number.get(from) ?? -1]?.[this.#number.get(to) ?? -1] ?? CODE.closed;
  }
}

/** Segments by zone, in the order of the walls' grid, then by their VLAN ID. */
function inOrder(index: PlanIndex): Segment[] {
  const rank = new Map(zonesInOrder(index).map((zone, i) => [zone.id, i]));
  return [...index.plan.segment.values()].sort((a, b) => (rank.get(a.zone) ?? 0) - (rank.get(b.zone) ?? 0) || (index.vidOf(a) ?? 5000) - (index.vidOf(b) ?? 5000) || byNaturalText(a.name, b.name));
}

/** How a device's packets come to a segment: straight or over others, past a filter or not; null when they do not. */
interface Way { readonly filtered: boolean }

/** The ways from each routing device to each segment and out, asked once for a device. */
function waysFrom(index: PlanIndex, start: Device, goals: readonly Segment[]): (Way | null)[] {
  return goals.map((goal) => {
    const family = goal.prefixes4.length > 0 ? 4 : 6;
    const prefix = prefixesOf(goal, family)[0];
    const leg = index.gatewayOf(goal);
    const to = leg === undefined ? undefined : addressesOf(leg, family)[0];
    if (prefix === undefined || to === undefined) return null;
    let device: Device = start;
    let filtered = false;
    for (let hops = 0; hops < 16; hops += 1) {
      filtered ||= isGateway(device);
      const route = routeFrom(index, device, to);
      if (route === null || route.line !== null) return null;
      if (route.leg.segment === goal.id) return { filtered };
      const next = route.via === null ? undefined : index.groups("interfacesByAddress").get(route.via)?.[0];
      const following = next === undefined ? undefined : index.plan.device.get(next.device);
      if (following === undefined || !forwardsPackets(following)) return null;
      device = following;
    }
    return null;
  });
}

/** Which segments' VLANs are one network: by segment, the number of its joined part. */
function joinedParts(index: PlanIndex, segments: readonly Segment[]): (number | null)[] {
  const { nodes, crossings } = index.derived(JOINS);
  if (crossings.length === 0) return segments.map(() => null);
  const fabric = index.derived(FABRIC);
  return segments.map((segment) => {
    const vid = index.vidOf(segment);
    const column = vid === null ? undefined : nodes.number.get(vid);
    const device = fabric.deviceNumber.get(index.gatewayOf(segment)?.device ?? "") ?? fabric.devices.findIndex((one) => one.bridging === "vlan" && one.domain === (index.plan.vlan.get(segment.vlan ?? "")?.domain ?? null));
    return column === undefined || device < 0 ? null : nodes.sets.rootOf(device * nodes.vids.length + column);
  });
}

/**
 * Every segment against every other, the internet and the gateway's pages: by layer 2, by routing, by the walls, beside what the walls intend. What single
 * services or single hosts get is a probe's question.
 */
export function reachMatrix(index: PlanIndex): ReachMatrix {
  const rows = inOrder(index);
  const columns: ReachColumn[] = [...rows, "internet", "gateway"];
  const doors = new DoorRows(index, [...[...index.plan.zone.keys()].map((zone): WallEnd => ({ at: "zone", zone })), { at: "internet" }, { at: "gateway" }]);
  const parts = joinedParts(index, rows);
  const ways = new Map<string, (Way | null)[]>();
  const lines = new Map<string, boolean>();
  const actual = new Uint8Array(rows.length * columns.length);
  const intended = new Uint8Array(rows.length * columns.length);
  const gatewayOf = rows.map((row) => index.plan.device.get(index.gatewayOf(row)?.device ?? ""));
  for (const device of gatewayOf) if (device !== undefined && !ways.has(device.id)) { ways.set(device.id, waysFrom(index, device, rows)); lines.set(device.id, getsOut(index, device.id)); }
  for (const [i, row] of rows.entries()) {
    const device = gatewayOf[i];
    const own = device === undefined ? undefined : ways.get(device.id);
    for (const [j, column] of columns.entries()) {
      const cell = i * columns.length + j;
      if (i === j) continue;
      const wanted = doors.between(row.zone, typeof column === "string" ? column : column.zone);
      intended[cell] = wanted;
      if (column === "internet") actual[cell] = device !== undefined && lines.get(device.id) === true ? wanted : CODE.nothing;
      else if (column === "gateway") actual[cell] = device === undefined ? CODE.nothing : isGateway(device) ? wanted : CODE.past;
      else {
        const way = own?.[j];
        const back = gatewayOf[j] === undefined ? undefined : ways.get(gatewayOf[j].id)?.[i];
        const isJoined = parts[i] !== null && parts[i] === parts[j];
        if (isJoined) actual[cell] = CODE.joined;
        else if (way === null || way === undefined || back === null || back === undefined) actual[cell] = CODE.nothing;
        else actual[cell] = way.filtered ? wanted : CODE.past;
      }
    }
  }
  const split = new Set(index.derived(CARRY).breaks.map((broken) => broken.vid));
  return { rows, columns, actual, intended, split: new Set(rows.filter((row) => split.has(index.vidOf(row) ?? -1)).map((row) => row.id)) };
}

const nameOfColumn = (column: ReachColumn): string => (column === "internet" ? "the internet" : column === "gateway" ? "the gateway's pages" : column.name);

/** What a cell says, in a sentence, with the wall it comes from. */
export function reachSentence(index: PlanIndex, matrix: ReachMatrix, row: number, column: number): string {
  const [from, to] = [matrix.rows[row], matrix.columns[column]];
  if (from === undefined || to === undefined) return "";
  const name = nameOfColumn(to);
  const end: WallEnd = typeof to === "string" ? { at: to } : { at: "zone", zone: to.zone };
  const wall = wallBetween(index, { at: "zone", zone: from.zone }, end);
  const meant = intendedAt(matrix, row, column);
  const wanted = meant === "closed" ? "it is meant to be closed" : meant === "services" ? "only services are meant to pass" : "it is meant to be open";
  switch (reachAt(matrix, row, column)) {
    case "itself": return `${from.name} itself: nothing stands between its devices.`;
    case "nothing": return `Nothing gets from ${from.name} to ${name}: no router leads there${meant === "closed" ? "." : `, and ${wanted}.`}`;
    case "closed": return `${from.name} can't start anything to ${name}: the wall is closed.`;
    case "services": return `From ${from.name} to ${name}: ${(wall?.services ?? []).map((service) => service.name).join(", ")} only.`;
    case "open": return `${from.name} may start anything to ${name}${wall === null || wall.reason === "" ? "" : `: ${wall.reason}`}.`;
    case "past the walls": return `${from.name} gets to ${name} past the walls: it is routed by gear that does not filter${meant === "open" ? "." : `, and ${wanted}.`}`;
    case "one network": return `${from.name} and ${name} are one network: their VLANs are joined, so frames pass whatever the walls say, and ${wanted}.`;
  }
}

/** The matrix as a table of text, for a file. */
export function reachTable(matrix: ReachMatrix): string[][] {
  return [
    ["from", ...matrix.columns.map(nameOfColumn)],
    ...matrix.rows.map((row, i) => [row.name, ...matrix.columns.map((_, j) => { const difference = differenceAt(matrix, i, j); return `${reachAt(matrix, i, j)}${difference === null ? "" : difference === "more" ? " (more than intended)" : " (less than intended)"}`; })]),
  ];
}
