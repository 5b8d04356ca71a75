import { byNaturalText, grouped } from "../kernel";
import {
  isFilter,
  isGateway,
  keepsState,
  type Derived,
  type Device,
  type Exception,
  type PlanIndex,
} from "../plan";
import {
  answersTo,
  doorsInOrder,
  exceptionWhy,
  limitedExceptions,
  ruleOfException,
  type FilterRule,
} from "../policy";
import {
  closedList,
  compileWishes,
  listSpace,
  merged,
  ruleStates,
  spansOf,
  type CompiledRule,
} from "../rules";
import { ontoNetworks } from "./onto-networks";
import { intentAt, type IntentAt, type Purpose } from "./wishes";

/** The rule list that a device needs, so that the walls are as they are meant to be. */
export interface PlannedList extends IntentAt {
  /**
   * In the order in which they are entered, behind the rule that lets answers pass. Where none fits: dropped.
   */
  readonly rules: readonly CompiledRule<Purpose>[];
  /** What holds in some hours of the week only: switched on with them, and off again. */
  readonly inHours: readonly HoursRules[];
}

/** The rules of those exceptions that hold in the same hours. */
export interface HoursRules {
  readonly hours: NonNullable<Exception["hours"]>;
  readonly rules: readonly CompiledRule<Purpose>[];
}

/** The devices that stand between segments and filter: gateways first, by name. */
export const filteringDevices = ({ plan }: PlanIndex): Device[] =>
  [...plan.device.values()]
    .filter(isFilter)
    .sort(
      (a, b) =>
        Number(isGateway(b)) - Number(isGateway(a)) ||
        byNaturalText(a.name, b.name) ||
        byNaturalText(a.id, b.id),
    );

/** What is for the gateway itself first, then by the walls in the order of their grid. */
function inOrder(index: PlanIndex, rules: readonly CompiledRule<Purpose>[]): CompiledRule<Purpose>[] {
  const place = new Map(doorsInOrder(index).map((wall, at) => [wall.id, at]));
  const of = ({ serves }: CompiledRule<Purpose>) =>
    Math.min(...serves.map(({ wall }) => (wall === null ? -1 : (place.get(wall.id) ?? 0))));
  return rules
    .map((rule, at) => ({ rule, at, place: of(rule) }))
    .sort((a, b) => a.place - b.place || a.at - b.at)
    .map(({ rule }) => rule);
}

function plannedList(index: PlanIndex, device: Device): PlannedList {
  const limited = limitedExceptions(index).flatMap(({ exception, hours }) => {
    const rule = ruleOfException(index, exception);
    if (rule === null) return [];
    const asked = { ...rule, action: "accept" as const };
    const back = keepsState(device) ? null : answersTo(asked);
    return [asked, ...(back === null ? [] : [back])].map((filterRule) => ({
      exception,
      hours,
      rule: filterRule,
    }));
  });
  // Hours or none, the packets are cut alike, so that rules with hours can stand beside the others.
  const intent = intentAt(
    index,
    device,
    limited.map(({ rule }) => rule),
  );
  const rules = inOrder(index, compileWishes(intent.universe, intent.wishes));
  const groups = [...grouped(limited, ({ hours }) => JSON.stringify(hours)).values()];
  return {
    ...intent,
    rules,
    inHours: groups.flatMap((alike): HoursRules[] => {
      const [first] = alike;
      const own = first === undefined ? [] : withHours(index, intent, rules, alike);
      return first === undefined || own.length === 0 ? [] : [{ hours: first.hours, rules: own }];
    }),
  };
}

/** The rules of exceptions with hours that let pass what the list does not let pass anyway. */
function withHours(
  index: PlanIndex,
  { universe }: IntentAt,
  always: readonly CompiledRule<Purpose>[],
  limited: readonly { readonly exception: Exception; readonly rule: FilterRule }[],
): CompiledRule<Purpose>[] {
  const onto = ontoNetworks(index, universe);
  const wishes = limited.map(({ exception, rule }) => ({
    from: onto(rule.from),
    to: onto(rule.to),
    services: merged(rule.services.flatMap(({ protocol, ports }) => spansOf(protocol, ports))),
    serves: [{ wall: null, why: exceptionWhy(exception), answers: false }],
  }));
  const own = compileWishes(
    universe,
    wishes.filter(({ from, to }) => from.length > 0 && to.length > 0),
  );
  const states = ruleStates(listSpace(universe, closedList([...always, ...own])));
  return own.filter((_, at) => states[always.length + at]?.removable === false);
}

/** The planned list of every device that filters, by its id. */
export const PLANNED_LISTS: Derived<ReadonlyMap<string, PlannedList>> = {
  reads: [
    "wall",
    "zone",
    "segment",
    "vlan",
    "scope",
    "interface",
    "forward",
    "host",
    "device",
    "line",
    "port",
    "exception",
  ],
  make: (index) => new Map(filteringDevices(index).map((device) => [device.id, plannedList(index, device)])),
};
