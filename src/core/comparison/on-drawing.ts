import type { Plan } from "../plan";
import type { ComparedGroup } from "./compare";

/** What became of a device or a cable from one state to the other. */
export type DrawnMark = "new" | "changed" | "gone";

/** Two states as one drawing: the gear and cables of both, and by id what became of those that differ. */
export interface DrawnTogether {
  readonly plan: Plan;
  readonly marks: ReadonlyMap<string, DrawnMark>;
}

const bothOf = <T>(before: ReadonlyMap<string, T>, after: ReadonlyMap<string, T>): ReadonlyMap<string, T> =>
  new Map([...before, ...after]);

function markOf(
  id: string,
  before: ReadonlyMap<string, unknown>,
  after: ReadonlyMap<string, unknown>,
): DrawnMark {
  if (!before.has(id)) return "new";
  return after.has(id) ? "changed" : "gone";
}

/**
 * What differs between two states, as it is drawn: a device is changed, too, where only a port, an address or a
 * rule of its own is. What is neither gear nor a cable is not on it.
 */
export function drawnTogether(before: Plan, after: Plan, groups: readonly ComparedGroup[]): DrawnTogether {
  const devices = groups.flatMap(({ key }) => (before.device.has(key) || after.device.has(key) ? [key] : []));
  const links = groups.flatMap(({ lines }) => lines.flatMap(({ kind, id }) => (kind === "link" ? [id] : [])));
  return {
    plan: {
      ...after,
      device: bothOf(before.device, after.device),
      port: bothOf(before.port, after.port),
      link: bothOf(before.link, after.link),
    },
    marks: new Map([
      ...devices.map((id) => [id, markOf(id, before.device, after.device)] as const),
      ...links.map((id) => [id, markOf(id, before.link, after.link)] as const),
    ]),
  };
}
