import { byNaturalText } from "../kernel";
import { isGateway, type Derived, type Device, type PlanIndex } from "../plan";
import { doorsInOrder } from "../policy";
import { compileWishes, type CompiledRule } from "../rules";
import { intentAt, type IntentAt, type Purpose } from "./wishes";

/** The rule list that a device needs, so that the walls are as they are meant to be. */
export interface PlannedList extends IntentAt {
  /**
   * In the order in which they are entered, behind the rule that lets answers pass. Where none fits: dropped.
   */
  readonly rules: readonly CompiledRule<Purpose>[];
}

/** The devices that stand between segments and filter, by name. */
export const filteringDevices = ({ plan }: PlanIndex): Device[] =>
  [...plan.device.values()]
    .filter(isGateway)
    .sort((a, b) => byNaturalText(a.name, b.name) || byNaturalText(a.id, b.id));

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
  const intent = intentAt(index, device, []);
  return { ...intent, rules: inOrder(index, compileWishes(intent.universe, intent.wishes)) };
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
  ],
  make: (index) => new Map(filteringDevices(index).map((device) => [device.id, plannedList(index, device)])),
};
