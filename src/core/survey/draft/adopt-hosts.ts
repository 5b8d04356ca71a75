import type { PlanEdits, Host, Room } from "../../plan";
import type { Need } from "../read-needs";
import type { Group } from "../groups";
import { putInto } from "../../kernel";

/** A line of the survey: so many of one thing in one room. */
export interface HostLine {
  readonly room: Room;
  readonly need: Need;
  readonly group: Group;
  readonly count: number;
}

const same = (a: string, b: string): boolean => a.toLowerCase() === b.toLowerCase();

/**
 * Finds the devices that were in the register before there was a survey: as many of a line's kind, at the
 * line's place, as the line counts and nobody has linked yet. Those whose name holds the line's word come
 * first.
 */
export function adoptHosts(edits: PlanEdits, lines: readonly HostLine[]): void {
  const free = new Map<string, Host[]>();
  for (const host of edits.all("host")) {
    if (host.surveyed !== null || host.place === "") continue;
    putInto(free, `${host.place.toLowerCase()} ${host.kind}`, host);
  }
  if (free.size === 0) return;
  for (const { room, need, count } of lines) {
    const linked = edits
      .all("host")
      .filter((host) => host.surveyed?.room === room.id && same(host.surveyed.what, need.what)).length;
    const candidates = free.get(`${room.name.toLowerCase()} ${need.kind.base}`) ?? [];
    const named = (host: Host) => Number(host.name.toLowerCase().includes(need.what.toLowerCase()));
    for (const host of [...candidates]
      .sort((a, b) => named(b) - named(a))
      .slice(0, Math.max(0, count - linked))) {
      edits.patch("host", host.id, { surveyed: { room: room.id, what: need.what } });
      candidates.splice(candidates.indexOf(host), 1);
    }
  }
}
