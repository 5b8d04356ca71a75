import type { Address } from "../address";
import { byNaturalText } from "../kernel";
import { isFilter, keepsState, type Device, type PlanIndex, type Segment, type WallEnd } from "../plan";
import { exceptionRules, serviceNames, wallBetween, zonesInOrder } from "../policy";
import { addressIn, isBelieved, leastAlong, OUTSIDE, wayFrom, type Way } from "../routing";
import { CARRY, JOINS } from "../forwarding";
import { FABRIC } from "../fabric";
import { standingAnswers, standingDoor, standsAsMeant } from "../walls";
import { besideWalls, type Beside } from "./beside";

/** A column beside the segments: the internet, and the gateway's own pages. */
export type ReachColumn = Segment | "internet" | "gateway";

/** What gets from one segment to another, as the number that stands in the matrix. */
const REACH = ["itself", "nothing", "closed", "services", "open", "past the walls", "one network"] as const;
export type Reach = (typeof REACH)[number];
/**
 * itself: the same segment; nothing: no route, or no gateway; closed, services, open: as the walls say; past
 * the walls: routed by something that does not filter; one network: their VLANs are joined, so that frames
 * pass.
 */
const CODE = { itself: 0, nothing: 1, closed: 2, services: 3, open: 4, past: 5, joined: 6 } as const;

export interface ReachMatrix {
  readonly rows: readonly Segment[];
  readonly columns: readonly ReachColumn[];
  /** Row by row: what really gets through. */
  readonly actual: Uint8Array;
  /** Row by row: what the walls intend. */
  readonly intended: Uint8Array;
  /**
   * Segments whose VLAN does not reach all of its users: what is said of them holds for the larger part only.
   */
  readonly split: ReadonlySet<string>;
}

const at = (matrix: ReachMatrix, row: number, column: number): number => row * matrix.columns.length + column;
export const reachAt = (matrix: ReachMatrix, row: number, column: number): Reach =>
  REACH[matrix.actual[at(matrix, row, column)] ?? 1] ?? "nothing";
export const intendedAt = (matrix: ReachMatrix, row: number, column: number): Reach =>
  REACH[matrix.intended[at(matrix, row, column)] ?? 1] ?? "nothing";

/** How far what really gets through is from what is intended: more, less, or as intended. */
export function differenceAt(matrix: ReachMatrix, row: number, column: number): "more" | "less" | null {
  const [is, wanted] = [
    matrix.actual[at(matrix, row, column)] ?? 0,
    matrix.intended[at(matrix, row, column)] ?? 0,
  ];
  if (is === wanted || is === CODE.itself) return null;
  if (is >= CODE.past) return wanted === CODE.open ? null : "more";
  if (is === CODE.nothing) return wanted === CODE.services || wanted === CODE.open ? "less" : null;
  return is > wanted ? "more" : "less";
}

const MEANT: Record<Reach, string> = {
  itself: "it is meant to be open",
  nothing: "it is meant to be open",
  closed: "it is meant to be closed",
  services: "only services are meant to pass",
  open: "it is meant to be open",
  "past the walls": "it is meant to be open",
  "one network": "it is meant to be open",
};
const DIFFERENCE = { more: " (more than intended)", less: " (less than intended)", none: "" };

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
    for (const wall of index.plan.wall.values()) this.#set(key(wall.from), key(wall.to), CODE[wall.door]);
    for (const zone of index.plan.zone.values())
      this.#set(zone.id, zone.id, zone.insideOpen ? CODE.open : CODE.closed);
  }

  #set(from: string, to: string, code: number): void {
    const [a, b] = [this.#number.get(from), this.#number.get(to)];
    const row = a === undefined ? undefined : this.#open[a];
    if (row !== undefined && b !== undefined && b < this.#width) row[b] = code;
  }

  /** The number of an end in a row of doors. */
  numberOf(end: string): number {
    return this.#number.get(end) ?? -1;
  }

  /** All doors of an end, by the number of the other. */
  rowOf(from: string): Uint8Array | undefined {
    return this.#open[this.numberOf(from)];
  }

  /** By what the walls intend. */
  between(from: string, to: string): number {
    return this.#open[this.#number.get(from) ?? -1]?.[this.#number.get(to) ?? -1] ?? CODE.closed;
  }
}

/** What the filters really do: as the walls intend, or by the list that stands on a device. */
class Filters {
  readonly #index: PlanIndex;
  readonly #doors: DoorRows;
  readonly #beside: Beside;

  constructor(index: PlanIndex, doors: DoorRows) {
    this.#index = index;
    this.#doors = doors;
    this.#beside = besideWalls(index);
  }

  /** Whether anything is open beside the walls: a large site asks of a million cells. */
  get hasExceptions(): boolean {
    return this.#beside.size > 0;
  }

  /** A door of the walls, or what an exception opens beside it. */
  meant(from: Segment, to: ReachColumn, door: number): number {
    const opened = this.#beside.get(`${from.id}>${typeof to === "string" ? to : to.id}`);
    return opened === undefined ? door : Math.max(door, CODE[opened]);
  }

  at(device: Device, from: Segment, to: ReachColumn): number {
    const meant = () =>
      this.meant(from, to, this.#doors.between(from.zone, typeof to === "string" ? to : to.zone));
    if (device.filter.list === "planned")
      return keepsState(device) ? meant() : Math.max(meant(), this.#back(from, to));
    const aim = typeof to === "string" ? to : to.id;
    if (standsAsMeant(this.#index, device.id, from.id, aim)) return meant();
    return CODE[standingDoor(this.#index, device.id, from.id, aim)];
  }

  /** The same where the device stands alone between the two, with what the walls mean there. */
  across(device: Device, from: Segment, to: ReachColumn, wanted: number): number {
    if (!isFilter(device)) return CODE.past;
    if (device.filter.list === "planned" && keepsState(device)) return wanted;
    const isAnswered = typeof to === "string" || keepsState(device) || this.answers(device, to, from);
    return isAnswered ? this.at(device, from, to) : CODE.nothing;
  }

  /**
   * What may start, and be answered, by the rules that only let answers back, at a filter that can't tell them
   * from questions: everything where the other side may start everything. Beside a door for services packets
   * come in, too, but their answers fit no rule. The device's own pages are asked by nobody who answers it.
   */
  #back(from: Segment, to: ReachColumn): number {
    if (to === "gateway") return CODE.closed;
    const door = this.#doors.between(typeof to === "string" ? to : to.zone, from.zone);
    const opened = typeof to === "string" ? door : this.meant(to, from, door);
    return opened === CODE.open ? CODE.open : CODE.closed;
  }

  /** Whether a filter that remembers nothing lets answers back to who asked. */
  answers(device: Device, from: Segment, to: ReachColumn): boolean {
    return (
      device.filter.list === "planned" ||
      (typeof to !== "string" && standingAnswers(this.#index, device.id, from.id, to.id))
    );
  }
}

/** Segments by zone, in the order of the walls' grid, then by their VLAN ID. */
function inOrder(index: PlanIndex): Segment[] {
  const rank = new Map(zonesInOrder(index).map((zone, i) => [zone.id, i]));
  return [...index.plan.segment.values()].sort(
    (a, b) =>
      (rank.get(a.zone) ?? 0) - (rank.get(b.zone) ?? 0) ||
      (index.vidOf(a) ?? 5000) - (index.vidOf(b) ?? 5000) ||
      byNaturalText(a.name, b.name),
  );
}

/** An address of a segment that packets to it are sent to, at its gateway. Null where it has none. */
function addressOf(index: PlanIndex, segment: Segment): Address | null {
  const leg = index.gatewayOf(segment);
  return leg === undefined ? null : addressIn(segment, leg, segment.prefixes4.length > 0 ? 4 : 6);
}

/** The ways from each segment's router to each segment, by its number, and out: asked once for a router. */
class Ways {
  readonly #index: PlanIndex;
  readonly #goals: readonly Segment[];
  readonly #numbers: ReadonlyMap<string, number>;
  readonly #known = new Map<string, { readonly to: readonly (Way | null)[]; readonly out: Way | null }>();

  constructor(index: PlanIndex, goals: readonly Segment[]) {
    this.#index = index;
    this.#goals = goals;
    this.#numbers = new Map(goals.map((goal, i) => [goal.id, i]));
  }

  from(start: Device): { readonly to: readonly (Way | null)[]; readonly out: Way | null } {
    const known = this.#known.get(start.id);
    if (known !== undefined) return known;
    const out = wayFrom(this.#index, start, OUTSIDE[4]);
    const found = {
      to: this.#goals.map((goal) => this.#find(start, goal)),
      out: out?.line === null ? null : out,
    };
    this.#known.set(start.id, found);
    return found;
  }

  #find(start: Device, goal: Segment): Way | null {
    const address = addressOf(this.#index, goal);
    const way = address === null ? null : wayFrom(this.#index, start, address);
    return way?.line === null && way.hops.at(-1)?.leg.segment === goal.id ? way : null;
  }

  /** From a router to a segment; null where none leads there. */
  to(start: Device, goal: Segment): Way | null {
    return this.from(start).to[this.#numbers.get(goal.id) ?? -1] ?? null;
  }
}

/** Whether a device filters and remembers nothing of what it let through: answers meet its rules, too. */
const forgets = (device: Device): boolean => isFilter(device) && !keepsState(device);

/** What asks: a segment, its gateway, and an address of it. */
interface Asker {
  readonly segment: Segment;
  readonly device: Device;
  readonly address: Address;
}

/**
 * What gets from a segment to a segment that another router serves, and whether the answers come back: by the
 * walls of every filter on the way.
 */
function reachOver(
  index: PlanIndex,
  ways: Ways,
  filters: Filters,
  { from, to }: { readonly from: Asker; readonly to: Asker },
): number {
  const way = ways.to(from.device, to.segment);
  if (way === null || !isBelieved(index, way, from.address)) return CODE.nothing;
  const there = leastAlong(from.segment, way, (seen, filter) =>
    seen.id === to.segment.id ? CODE.open : filters.at(filter, seen, to.segment),
  );
  const asked = way.source ?? from.segment;
  if (asked.id === to.segment.id) return there ?? CODE.past;
  const back = ways.to(to.device, asked);
  if (back === null) return CODE.nothing;
  const forgetting = back.hops.filter(({ device }) => forgets(device));
  if (forgetting.some(({ device, source }) => !filters.answers(device, source ?? to.segment, asked)))
    return CODE.nothing;
  // A filter that has not seen the question takes the answer for a question of its own, to which no door for
  // services fits, and a router that translates it gives it another sender.
  const strange = back.hops.filter(
    ({ device }) => !forgets(device) && !way.hops.some((hop) => hop.device.id === device.id),
  );
  if (strange.length > 0 && (back.source !== null || !isBelieved(index, back, to.address)))
    return CODE.nothing;
  const again = leastAlong(to.segment, { ...back, hops: strange }, (seen, filter) =>
    filters.at(filter, seen, asked) === CODE.open ? CODE.open : CODE.closed,
  );
  return again === null ? (there ?? CODE.past) : Math.min(there ?? CODE.open, again);
}

function reachOut(
  index: PlanIndex,
  ways: Ways,
  filters: Filters,
  { segment, device, address }: Asker,
): number {
  const { out: way } = ways.from(device);
  if (way === null || !isBelieved(index, way, address)) return CODE.nothing;
  return leastAlong(segment, way, (seen, filter) => filters.at(filter, seen, "internet")) ?? CODE.past;
}

/** Which segments' VLANs are one network: by segment, the number of its joined part. */
function joinedParts(index: PlanIndex, segments: readonly Segment[]): (number | null)[] {
  const { nodes, crossings } = index.derived(JOINS);
  if (crossings.length === 0) return segments.map(() => null);
  const fabric = index.derived(FABRIC);
  return segments.map((segment) => {
    const vid = index.vidOf(segment);
    const column = vid === null ? undefined : nodes.number.get(vid);
    const device =
      fabric.deviceNumber.get(index.gatewayOf(segment)?.device ?? "") ??
      fabric.devices.findIndex(
        (device) =>
          device.bridging === "vlan" &&
          device.domain === (index.plan.vlan.get(segment.vlan ?? "")?.domain ?? null),
      );
    return column === undefined || device < 0 ? null : nodes.sets.rootOf(device * nodes.vids.length + column);
  });
}

const allEnds = ({ plan }: PlanIndex): WallEnd[] => [
  ...[...plan.zone.keys()].map((zone): WallEnd => ({ at: "zone", zone })),
  { at: "internet" },
  { at: "gateway" },
];

/**
 * Every segment against every other, the internet and the gateway's pages: by layer 2, by routing, by the
 * walls, beside what the walls intend. What single services or single hosts get is a probe's question.
 */
export function reachMatrix(index: PlanIndex): ReachMatrix {
  const rows = inOrder(index);
  const columns: ReachColumn[] = [...rows, "internet", "gateway"];
  const doors = new DoorRows(index, allEnds(index));
  const filters = new Filters(index, doors);
  const parts = joinedParts(index, rows);
  const ways = new Ways(index, rows);
  const actual = new Uint8Array(rows.length * columns.length);
  const intended = new Uint8Array(rows.length * columns.length);
  const askers = rows.map((segment): Asker | null => {
    const device = index.plan.device.get(index.gatewayOf(segment)?.device ?? "");
    const address = addressOf(index, segment);
    return device === undefined || address === null ? null : { segment, device, address };
  });
  const routes = askers.map((asker) => (asker === null ? [] : ways.from(asker.device).to));
  const between = (i: number, j: number, wanted: number): number => {
    const [from, to] = [askers[i] ?? null, askers[j] ?? null];
    if (from === null || to === null) return CODE.nothing;
    // One router between two segments of its own: the usual case, and most of the cells of a large site.
    if (from.device === to.device && routes[i]?.[j]?.hops.length === 1) {
      if (routes[j]?.[i] === null) return CODE.nothing;
      return filters.across(from.device, from.segment, to.segment, wanted);
    }
    return reachOver(index, ways, filters, { from, to });
  };
  const numbers = columns.map((column) => doors.numberOf(typeof column === "string" ? column : column.zone));
  const actualAt = (column: ReachColumn, i: number, j: number, wanted: number): number => {
    const asker = askers[i] ?? null;
    if (typeof column !== "string")
      return parts[i] !== null && parts[i] === parts[j] ? CODE.joined : between(i, j, wanted);
    if (asker === null) return CODE.nothing;
    if (column === "internet") return reachOut(index, ways, filters, asker);
    return filters.across(asker.device, asker.segment, "gateway", wanted);
  };
  for (const [i, row] of rows.entries()) {
    const own = doors.rowOf(row.zone);
    for (const [j, column] of columns.entries()) {
      const cell = i * columns.length + j;
      if (i === j) continue;
      const door = own?.[numbers[j] ?? -1] ?? CODE.closed;
      const wanted = filters.hasExceptions ? filters.meant(row, column, door) : door;
      intended[cell] = wanted;
      actual[cell] = actualAt(column, i, j, wanted);
    }
  }
  const split = new Set(index.derived(CARRY).breaks.map((broken) => broken.vid));
  return {
    rows,
    columns,
    actual,
    intended,
    split: new Set(rows.filter((row) => split.has(index.vidOf(row) ?? -1)).map((row) => row.id)),
  };
}

/** The services that exceptions let pass beside the wall of a cell. */
function exceptionsBetween(index: PlanIndex, from: Segment, to: ReachColumn): string[] {
  const key = `${from.id}>${typeof to === "string" ? to : to.id}`;
  return exceptionRules(index)
    .filter(({ exception }) => besideWalls(index, [exception]).has(key))
    .flatMap(({ exception }) => serviceNames(exception.services));
}

const nameOfColumn = (column: ReachColumn): string => {
  if (column === "internet") return "the internet";
  if (column === "gateway") return "the gateway's pages";
  return column.name;
};

/** What a cell says, in a sentence, with the wall it comes from. */
export function reachSentence(index: PlanIndex, matrix: ReachMatrix, row: number, column: number): string {
  const [from, to] = [matrix.rows[row], matrix.columns[column]];
  if (from === undefined || to === undefined) return "";
  const name = nameOfColumn(to);
  const end: WallEnd = typeof to === "string" ? { at: to } : { at: "zone", zone: to.zone };
  const wall = wallBetween(index, { at: "zone", zone: from.zone }, end);
  const meant = intendedAt(matrix, row, column);
  const wanted = MEANT[meant];
  switch (reachAt(matrix, row, column)) {
    case "itself":
      return `${from.name} itself: nothing stands between its devices.`;
    case "nothing":
      return (
        `Nothing gets from ${from.name} to ${name}: no router leads ` +
        `there${meant === "closed" ? "." : `, and ${wanted}.`}`
      );
    case "closed":
      return `${from.name} can't start anything to ${name}: the wall is closed.`;
    case "services": {
      const services = serviceNames(wall?.services ?? []);
      const beside = exceptionsBetween(index, from, to);
      return `From ${from.name} to ${name}: ${[...services, ...beside].join(", ")} only.`;
    }
    case "open":
      return (
        `${from.name} may start anything to ` +
        `${name}${wall === null || wall.reason === "" ? "" : `: ${wall.reason}`}.`
      );
    case "past the walls":
      return (
        `${from.name} gets to ${name} past the walls: it is routed by gear ` +
        `that does not filter${meant === "open" ? "." : `, and ${wanted}.`}`
      );
    case "one network":
      return (
        `${from.name} and ${name} are one network: their VLANs are ` +
        `joined, so frames pass whatever the walls say, and ${wanted}.`
      );
  }
}

/** The matrix as a table of text, for a file. */
export function reachTable(matrix: ReachMatrix): string[][] {
  return [
    ["from", ...matrix.columns.map(nameOfColumn)],
    ...matrix.rows.map((row, i) => [
      row.name,
      ...matrix.columns.map((_, j) => {
        const difference = differenceAt(matrix, i, j);
        return `${reachAt(matrix, i, j)}` + DIFFERENCE[difference ?? "none"];
      }),
    ]),
  ];
}
