import type { Derived, Device, Kind, PlanIndex, Rule, Wall } from "../plan";
import { FOUND_LISTS, type FoundList } from "../policy";
import {
  type Allowed,
  allowedBetween,
  closedList,
  coverOfRule,
  listSpace,
  ruleListOf,
  ruleStates,
  sameSpans,
  spansOf,
  without,
  type Cover,
  type ListSpace,
  type RuleList,
  type RuleState,
} from "../rules";
import { ontoNetworks } from "./onto-networks";
import { intentAt, type IntentAt } from "./wishes";

/** The list that stands on a device, with what each of its rules comes to. */
export interface StandingList extends IntentAt {
  readonly space: ListSpace;
  /** What is intended, as a list over the same packets. */
  readonly intended: ListSpace;
  readonly list: RuleList;
  /** The rules that are on, in the list's order. */
  readonly rules: readonly Rule[];
  /** The zone of each network, and the network of each segment. */
  readonly zones: ReadonlyMap<string, string>;
  readonly networks: ReadonlyMap<string, string>;
  /** What has been asked of it so far, by the pair of networks. */
  readonly known: Map<string, PairOf | null>;
  /** What becomes of each of them. */
  readonly states: readonly RuleState[];
}

function standingList(index: PlanIndex, device: Device, found: FoundList): StandingList {
  const intent = intentAt(index, device, found.rules);
  const onto = ontoNetworks(index, intent.universe);
  const list = ruleListOf({
    ...found,
    rules: found.rules.map((rule) => ({ ...rule, from: onto(rule.from), to: onto(rule.to) })),
  });
  const space = listSpace(intent.universe, list);
  const zones = new Map(
    [...intent.universe.members.keys()].flatMap((network) => {
      const segment = index.plan.segment.get(network);
      return segment === undefined ? [] : [[network, segment.zone]];
    }),
  );
  return {
    ...intent,
    space,
    intended: listSpace(
      intent.universe,
      closedList(intent.wishes.map((wish) => ({ ...wish, action: "accept" as const }))),
    ),
    list,
    zones,
    networks: new Map(
      [...intent.universe.members].flatMap(([network, members]) =>
        members.map((member) => [member, network] as const),
      ),
    ),
    known: new Map(),
    rules: found.rules.map(({ rule }) => rule),
    states: ruleStates(space),
  };
}

/** What lists and what is intended of them are made from. */
export const LIST_READS = [
  "rule",
  "exception",
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
] as const satisfies readonly Kind[];

/** The lists that stand on devices, by the device's id. */
export const STANDING_LISTS: Derived<ReadonlyMap<string, StandingList>> = {
  reads: LIST_READS,
  make: (index) =>
    new Map(
      [...index.derived(FOUND_LISTS)].flatMap(([id, found]) => {
        const device = index.plan.device.get(id);
        return device === undefined ? [] : [[id, standingList(index, device, found)]];
      }),
    ),
};

/**
 * What is let through between two networks, by the list and by the intent; null where no such packet comes
 * by.
 */
interface PairOf {
  readonly allowed: Allowed;
  /** Whether the list lets exactly that through which is intended. */
  readonly asMeant: boolean;
}

/** What the list lets through from a segment to another, to the internet or to the device itself. */
function pairOf(
  { networks, zones, space, intended, known }: StandingList,
  from: string,
  to: string | "internet" | "gateway",
): PairOf | null {
  const source = networks.get(from) ?? from;
  const aim = to === "gateway" ? "router" : (networks.get(to) ?? to);
  // Two that nothing tells apart are treated as the first of their zone and one of the others.
  const target =
    source === aim
      ? ([...zones.keys()].find((peer) => peer !== source && zones.get(peer) === zones.get(source)) ?? aim)
      : aim;
  const key = `${source}>${target}`;
  const before = known.get(key);
  if (before !== undefined) return before;
  const ends = [
    { name: from, networks: [source] },
    { name: to, networks: [target] },
  ] as const;
  const [allowed, meant] = [allowedBetween(space, ...ends), allowedBetween(intended, ...ends)];
  const pair =
    allowed === null || meant === null
      ? null
      : {
          allowed,
          asMeant:
            allowed.state !== "mixed" &&
            sameSpans(allowed.always, meant.always) &&
            sameSpans(allowed.sometimes, meant.sometimes),
        };
  known.set(key, pair);
  return pair;
}

/**
 * Whether the list that stands on a device does between two exactly what the walls mean; "mixed" where some of
 * them may more than others, which the proof of their zones has to say.
 */
export function pairAsMeant(
  index: PlanIndex,
  device: string,
  from: string,
  to: string | "internet" | "gateway",
): boolean | "mixed" {
  const standing = index.derived(STANDING_LISTS).get(device);
  const pair = standing === undefined ? null : pairOf(standing, from, to);
  if (pair === null) return false;
  return pair.allowed.state === "mixed" ? "mixed" : pair.asMeant;
}

/**
 * How far the list that stands on a device opens from a segment to another, the internet or its own pages: what
 * only some may counts as a door for services.
 */
export function standingDoor(
  index: PlanIndex,
  device: string,
  from: string,
  to: string | "internet" | "gateway",
): Wall["door"] {
  const standing = index.derived(STANDING_LISTS).get(device);
  const state = standing === undefined ? "closed" : (pairOf(standing, from, to)?.allowed.state ?? "closed");
  return state === "mixed" ? "services" : state;
}

/** Where those who ask are answered, if the list may not tell: the dynamic ports (RFC 6335 section 6). */
const DYNAMIC = spansOf("tcp", [[49_152, 65_535]]);

/** Whether answers of TCP pass a list that remembers nothing, from a segment to another. */
export function standingAnswers(index: PlanIndex, device: string, from: string, to: string): boolean {
  const standing = index.derived(STANDING_LISTS).get(device);
  const allowed = standing === undefined ? null : (pairOf(standing, from, to)?.allowed ?? null);
  return allowed !== null && without(DYNAMIC, allowed.always).length === 0;
}

/** Why a rule never decides, with the rules that take all it would; null for one that does, or is off. */
export function coverOf(
  { space, rules }: StandingList,
  id: string,
): (Cover & { by: readonly Rule[] }) | null {
  const at = rules.findIndex((rule) => rule.id === id);
  const cover = at < 0 ? null : coverOfRule(space, at);
  return cover === null ? null : { ...cover, by: cover.coveredBy.flatMap((place) => rules[place] ?? []) };
}
