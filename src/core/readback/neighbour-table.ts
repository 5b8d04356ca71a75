import { parseMac } from "../address";
import { askedOf, linesAt, type Ask } from "../diagnosis";
import { err, ok, type Result } from "../kernel";
import { gearNamed, noteOf, lineOf, type LaidLine } from "../listening";
import { nameOf, PortNames, type Device, type PlanIndex, type Port } from "../plan";
import type { CapturedReading } from "../records";
import { noSuchPort } from "./reading";
import { cellsUnder, type Heads } from "./table-heads";

type Column = "local" | "port" | "system" | "remote" | "chassis";

/** What devices call the columns of their table of neighbours, without blanks and marks. */
const HEADS: Heads<Column> = [
  ["local", /^local(port|portid|interface|intf|intrfce|if|iface)?$/],
  ["remote", /^(remoteport(id|name)?|neighbou?rport|remoteinterface|portid|peerport|portdescr(iption)?)$/],
  [
    "system",
    /^(systemname|sysname|remotesys(tem)?(name)?|neighbou?r(name|device)?|deviceid|device|system|host(name)?)$/,
  ],
  ["chassis", /^(chassis(id)?|mac(address)?|remotechassis(id)?|neighbou?rid|remotemac)$/],
  ["port", /^(port|interface|intf|if|iface)$/],
];
const NO_HEADS =
  "No line names the columns. The first has to say what they are: local port, system name or chassis, and " +
  "the neighbour’s port.";

/** A row by what its columns hold: "port" is the own one where no other is, else the neighbour's. */
interface Row {
  readonly local: string;
  readonly remote: string;
  readonly system: string;
  readonly chassis: string;
}

function rowsOf(text: string): Row[] | null {
  const cells = cellsUnder(HEADS, text);
  if (cells === null) return null;
  const { columns, rows } = cells;
  const hasLocal = columns.includes("local");
  if (!hasLocal && !columns.includes("port")) return null;
  return rows.map((row) => {
    const of = (column: Column) => row[columns.indexOf(column)] ?? "";
    const port = of("port");
    return {
      local: hasLocal ? of("local") : port,
      remote: of("remote") || (hasLocal ? port : ""),
      system: of("system"),
      chassis: of("chassis"),
    };
  });
}

/** What a table of neighbours comes to. */
export interface NeighboursRead {
  readonly lines: readonly LaidLine[];
  readonly readings: readonly CapturedReading[];
  /** What could not be read, in sentences. */
  readonly missed: readonly string[];
}

const IN_IT = "In it";

/** Who a row names, as the plan calls it: a port of gear, gear, or an end device; null for a stranger. */
function whoIs(
  index: PlanIndex,
  { system, chassis, remote }: Row,
): { readonly words: string; readonly gear: Device | null } | null {
  const gear = gearNamed(index, { chassisId: chassis, systemName: system });
  if (gear !== null) {
    const port = remote === "" ? null : new PortNames(index, gear).find(remote);
    return { words: port === null ? gear.name : nameOf(index, "port", port.id), gear };
  }
  const mac = parseMac(chassis);
  const host = [...index.plan.host.values()].find(
    (host) => (mac !== null && host.mac === mac) || host.name.toLowerCase() === system.toLowerCase(),
  );
  return host === undefined ? null : { words: host.name, gear: null };
}

interface Beside {
  readonly line: LaidLine;
  readonly read: string | null;
}

/** One neighbour beside the cable that is planned there. */
function besideRow(index: PlanIndex, port: Port, row: Row): Beside {
  const about = nameOf(index, "port", port.id);
  const planned = linesAt(index, { on: "cable", port: port.id })[0]?.[1] ?? "nothing";
  const who = whoIs(index, row);
  const said = [row.system || row.chassis, row.remote].filter((text) => text !== "").join(", ");
  if (who === null) {
    const words = `${said}, which the plan does not have`;
    return planned === "nothing"
      ? {
          line: lineOf({ about, planned, heard: said }, { isRight: false, says: `At ${about} is ${words}.` }),
          read: null,
        }
      : { line: noteOf(about, said, "The plan knows nobody of this name or address."), read: null };
  }
  const peer = index.peerOf(port.id);
  // Gear whose port is not told is right where it is the right gear.
  const isGearOnly = who.gear !== null && who.words === who.gear.name;
  const isRight = isGearOnly ? peer?.device === who.gear.id : planned.split(", ").includes(who.words);
  const own = planned === "nothing" ? "free" : planned;
  const says = `In ${about} is the cable of ${who.words}; it has to be ${own}.`;
  const line = lineOf({ about, planned, heard: who.words }, { isRight, says });
  return { line, read: isRight || isGearOnly ? null : `${IN_IT}: ${who.words}` };
}

/**
 * Reads a device's table of neighbours (IEEE 802.1AB), in whatever order its columns stand, and lays it beside
 * the cables that are planned. An error is a sentence why it cannot be read.
 */
export function readNeighbours(
  index: PlanIndex,
  device: Device,
  text: string,
): Result<NeighboursRead, string> {
  const rows = rowsOf(text);
  if (rows === null) return err(NO_HEADS);
  const names = new PortNames(index, device);
  const lines: LaidLine[] = [];
  const readings: CapturedReading[] = [];
  const missed = new Set<string>();
  for (const row of rows) {
    if (row.local.trim() === "") continue;
    const port = names.find(row.local);
    if (port === null) {
      missed.add(noSuchPort(row.local, index, device));
      continue;
    }
    const { line, read } = besideRow(index, port, row);
    lines.push(line);
    const ask: Ask = { what: "look", look: { on: "cable", port: port.id } };
    if (line.verdict === "otherwise" && read !== null)
      readings.push({
        asked: askedOf(index, ask),
        planned: "as planned",
        came: "otherwise",
        read,
        says: line.says,
      });
  }
  return ok({ lines, readings, missed: [...missed] });
}
