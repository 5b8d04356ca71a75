import type { Exception, PlanIndex, RuleSide } from "../plan";
import { exceptionRules } from "../policy";

/** What exceptions open between whole segments beside the walls, by "from>to". */
export type Beside = ReadonlyMap<string, "open" | "services">;

/** The ends of the matrix that an end of an exception stands for; none for single hosts and other subnets. */
function endsOf({ plan }: PlanIndex, side: RuleSide): readonly string[] {
  switch (side.at) {
    case "segment":
      return [side.segment];
    case "zone":
      return [...plan.segment.values()].flatMap(({ id, zone }) => (zone === side.zone ? [id] : []));
    case "internet":
    case "gateway":
      return [side.at];
    case "host":
    case "prefix":
      return [];
  }
}

const doorOf = ({ services }: Exception): "open" | "services" =>
  services.length === 0 ? "open" : "services";

/** What the exceptions that hold now open between whole segments, the internet and the gateway. */
export function besideWalls(
  index: PlanIndex,
  exceptions = exceptionRules(index).map(({ exception }) => exception),
): Beside {
  const open = new Map<string, "open" | "services">();
  for (const exception of exceptions)
    for (const from of endsOf(index, exception.from))
      for (const to of endsOf(index, exception.to)) {
        const key = `${from}>${to}`;
        if (open.get(key) !== "open") open.set(key, doorOf(exception));
      }
  return open;
}
