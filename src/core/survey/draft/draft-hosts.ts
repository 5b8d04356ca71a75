import { BLANK_HOST, type Host } from "../../plan";
import { removeHost } from "../../planners";
import { byNaturalText } from "../../kernel";
import { surveyed } from "../groups";
import { HostNames } from "../host-names";
import { adoptHosts, type HostLine } from "./adopt-hosts";
import { AddressGiver } from "./address-giver";
import { homeGroup, mannerOf, segmentOf, type Frame } from "./frame";

/**
 * Above this many in one line wireless devices that get their address by DHCP are counted, not written down
 * one by one.
 */
const MOST_BY_NAME = 50;

/** The survey's end devices, one line for each room and thing. */
export function hostLines({ index }: Pick<Frame, "index">): HostLine[] {
  const lines = new Map<string, HostLine>();
  for (const { room, need, group } of surveyed(index)) {
    if (need.kind.role !== "host" && need.kind.role !== "gear" && need.kind.role !== "pair") continue;
    const key = `${room.id} ${need.what.toLowerCase()} ${group.purpose} ${group.name}`;
    const known = lines.get(key);
    lines.set(key, { room, need: known?.need ?? need, group, count: (known?.count ?? 0) + need.count });
  }
  return [...lines.values()];
}

/** The register's devices that a line of the survey stands for, in the order of their names. */
export function hostsOfLine({ edits: edits }: Frame, { room, need }: HostLine): Host[] {
  return edits
    .all("host")
    .filter(
      (host) =>
        host.surveyed?.room === room.id && host.surveyed.what.toLowerCase() === need.what.toLowerCase(),
    )
    .sort((a, b) => byNaturalText(a.name, b.name));
}

/**
 * The register: a device for each the survey counts and the plan has not, with its reservation or static
 * address. Of devices the survey no longer counts, those nobody has seen (no MAC address) go; the others
 * stay, with a sentence.
 */
export function draftHosts(frame: Frame): void {
  const { edits: edits, ids, notes } = frame;
  const giver = new AddressGiver(edits);
  const names = new HostNames(edits.plan);
  const lines = hostLines(frame);
  adoptHosts(edits, lines);
  for (const line of lines) {
    const { room, need, group, count } = line;
    const segment = segmentOf(edits, homeGroup(frame, group));
    const known = hostsOfLine(frame, line);
    if (known.length > count) surplus(frame, line, known);
    if (segment === undefined) continue;
    if (need.wireless && need.kind.manner === "dynamic" && count > MOST_BY_NAME) {
      notes.push(`${count} ${need.what} in ${room.name} are counted, not entered one by one.`);
      continue;
    }
    for (let i = known.length; i < count; i += 1) {
      const manner = mannerOf(frame, need, group);
      const ipv4 = manner === "dynamic" ? null : giver.next(segment, manner);
      const name = names.next(room.name, need.what, segment.name);
      if (manner !== "dynamic" && ipv4 === null)
        notes.push(`${name} gets no fixed address: ${segment.name} has none left.`);
      edits.put("host", {
        ...BLANK_HOST,
        id: ids(),
        name,
        kind: need.kind.base,
        manner,
        ipv4,
        segment: segment.id,
        place: room.name,
        surveyed: { room: room.id, what: need.what },
      });
    }
  }
}

function surplus(
  { edits: edits, notes }: Frame,
  { room, need, count }: HostLine,
  known: readonly Host[],
): void {
  let over = known.length - count;
  const stay: string[] = [];
  for (const host of [...known].reverse()) {
    if (over === 0) break;
    over -= 1;
    if (host.mac === null) removeHost(edits, host.id);
    else stay.push(host.name);
  }
  if (stay.length > 0)
    notes.push(
      `${room.name}: the survey has ${count} ${need.what}, the ` +
        `register ${known.length}. ${stay.join(", ")} stay, since a MAC ` +
        "address has been entered; remove them by hand if they are gone.",
    );
}
