import type { RuleSide, Service, WallEnd } from "../../plan";
import { everyService, groupsOf, without, type ServiceSpan } from "../../rules";
import type { EditContext, Refusal } from "../planner";
import { putOnTop, type RuleFields } from "./rule-list";

const sideOf = (end: WallEnd): RuleSide =>
  end.at === "zone" ? { at: "zone", zone: end.zone } : { at: end.at };

/** Services as a rule names them: those with ports by their numbers, none where it is everything. */
export function ruleServices(spans: readonly ServiceSpan[]): Service[] {
  if (without(everyService(4), spans).length === 0 || without(everyService(6), spans).length === 0) return [];
  return groupsOf(spans).flatMap(({ protocol, ports }): Service[] => {
    if (typeof protocol === "number") return [];
    const all = ports === null || (ports.length === 1 && ports[0]?.[0] === 0 && ports[0][1] === 65_535);
    if (all) return [{ name: protocol, protocol, ports: [] }];
    const first = ports[0]?.[0] ?? 0;
    return [{ name: `${protocol} ${first}`, protocol, ports: ports.map(([low, high]) => [low, high]) }];
  });
}

/**
 * Puts rules on top of a device's list so that a pair gets what it shall: `pass` passes, and with `closeRest`
 * nothing else does.
 */
export function mendPair(
  context: EditContext,
  {
    device,
    from,
    to,
    pass,
    closeRest,
  }: {
    readonly device: string;
    readonly from: WallEnd;
    readonly to: WallEnd;
    readonly pass: readonly ServiceSpan[];
    readonly closeRest: boolean;
  },
): Refusal {
  const ends = { from: [sideOf(from)], to: [sideOf(to)] };
  const rules: Partial<RuleFields>[] = [
    ...(pass.length === 0 ? [] : [{ ...ends, services: ruleServices(pass), note: "as the walls mean it" }]),
    ...(closeRest ? [{ ...ends, action: "drop" as const, note: "the rest of it is closed" }] : []),
  ];
  return putOnTop(context, { device, rules });
}
