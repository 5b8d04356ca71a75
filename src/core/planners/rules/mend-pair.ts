import { equal } from "../../kernel";
import { MOST_SERVICES, type RuleSide, type Service, type WallEnd } from "../../plan";
import { catalogueOf } from "../../policy";
import { everyService, groupsOf, without, type ServiceGroup, type ServiceSpan } from "../../rules";
import type { EditContext, Refusal } from "../planner";
import { putOnTop, type RuleFields } from "./rule-list";

const sideOf = (end: WallEnd): RuleSide =>
  end.at === "zone" ? { at: "zone", zone: end.zone } : { at: end.at };

/**
 * Services as a rule names them: those of the catalogue by their names, others by their numbers, none where it
 * is everything.
 */
export function ruleServices(spans: readonly ServiceSpan[], catalogue: readonly Service[]): Service[] {
  if (without(everyService(4), spans).length === 0 || without(everyService(6), spans).length === 0) return [];
  const groups = groupsOf(spans);
  const named = groups.flatMap((group) => servicesOf(group, catalogue));
  return named.length <= MOST_SERVICES ? named : groups.flatMap((group) => servicesOf(group, []));
}

/** What a rule and a service take in (`serviceSchema`, `ruleSchema`). */
const MOST_PORTS = 16;

/** The services of one protocol: each range that has a name by itself, the others together. */
function servicesOf({ protocol, ports }: ServiceGroup, catalogue: readonly Service[]): Service[] {
  if (typeof protocol === "number") return [];
  /** The name that the catalogue has for just these ports. */
  const nameFor = (own: Service["ports"]): string | null =>
    catalogue.find((service) => service.protocol === protocol && equal(service.ports, own))?.name ?? null;
  const all = ports === null || (ports.length === 1 && ports[0]?.[0] === 0 && ports[0][1] === 65_535);
  if (all) return [{ name: nameFor([]) ?? protocol, protocol, ports: [] }];
  const ranges = ports.map(([low, high]): [number, number] => [low, high]);
  const whole = nameFor(ranges);
  if (whole !== null) return [{ name: whole, protocol, ports: ranges }];
  const own = ranges.filter((range) => nameFor([range]) !== null);
  const rest = ranges.filter((range) => !own.includes(range));
  return [
    ...own.map((range) => ({ name: nameFor([range]) ?? "", protocol, ports: [range] })),
    ...Array.from({ length: Math.ceil(rest.length / MOST_PORTS) }, (_, at) => {
      const some = rest.slice(at * MOST_PORTS, (at + 1) * MOST_PORTS);
      return { name: `${protocol} ${some[0]?.[0] ?? 0}`, protocol, ports: some };
    }),
  ];
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
    ...(pass.length === 0
      ? []
      : [
          {
            ...ends,
            services: ruleServices(pass, catalogueOf(context.index.plan)),
            note: "as the walls mean it",
          },
        ]),
    ...(closeRest ? [{ ...ends, action: "drop" as const, note: "the rest of it is closed" }] : []),
  ];
  return putOnTop(context, { device, rules });
}
