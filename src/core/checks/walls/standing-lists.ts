import { equal } from "../../kernel";
import { nameOf, wallEndName, type PlanIndex, type Rule, type WallEnd } from "../../plan";
import { conflictingPairs, mergeable, type Merge } from "../../rules";
import { mendPair } from "../../planners";
import type { Repair } from "../../repairs";
import {
  coverOf,
  endOfPair,
  LIST_READS,
  pairInList,
  serviceWords,
  STANDING_LISTS,
  STANDING_PROOFS,
  type PairInList,
} from "../../walls";
import { check, type Found } from "../check";

interface RuleData {
  readonly rule: string;
}

/** The rules of all standing lists with what they come to. */
const rulesThat = (
  index: PlanIndex,
  test: (state: { readonly neverMatches: boolean; readonly removable: boolean }) => boolean,
): Found<RuleData>[] =>
  [...index.derived(STANDING_LISTS).values()].flatMap(({ rules, states }) =>
    rules.flatMap((rule, at): Found<RuleData>[] => {
      const state = states[at];
      return state !== undefined && test(state)
        ? [{ subjects: [{ kind: "rule", id: rule.id }], data: { rule: rule.id } }]
        : [];
    }),
  );

const remove = (index: PlanIndex, rule: string): Repair => ({
  label: `Remove ${nameOf(index, "rule", rule)}`,
  planner: "remove-rules",
  args: { rules: [rule] },
  edit: (edits) => edits.remove("rule", rule),
});

const upper = (text: string): string => `${text[0]?.toUpperCase() ?? ""}${text.slice(1)}`;

const DOES = {
  "redundant-before": "would do the same",
  shadowed: "does otherwise",
  mixed: "decides, in part otherwise",
} as const;

export const ruleNeverReached = check<RuleData>({
  code: "rule-never-reached",
  severity: "warn",
  family: "walls",
  title: "A rule is never reached",
  why: "Whoever reads the list takes it for a rule that works; what it was meant to do does not happen.",
  reads: LIST_READS,
  find: (index) => rulesThat(index, ({ neverMatches }) => neverMatches),
  describe: ({ rule }, index) => {
    const name = upper(nameOf(index, "rule", rule));
    const device = index.plan.rule.get(rule)?.device ?? "";
    const standing = index.derived(STANDING_LISTS).get(device);
    const cover = standing === undefined ? null : coverOf(standing, rule);
    if (cover === null) return `${name} takes nothing: no packet that comes by can meet it.`;
    const all = index.rulesOf(device).map(({ id }) => id);
    const numbers = cover.by.map(({ id }) => all.indexOf(id) + 1).join(", ");
    const rules = cover.by.length === 1 ? "rule" : "rules";
    return `${name} is never reached: ${rules} ${numbers} before it ${DOES[cover.kind]}.`;
  },
  repairs: ({ rule }, index) => [remove(index, rule)],
});

export const ruleCanGo = check<RuleData>({
  code: "rule-can-go",
  severity: "note",
  family: "walls",
  title: "A rule changes nothing",
  why: "A shorter list is read sooner, and wrongly less often.",
  reads: LIST_READS,
  find: (index) => rulesThat(index, ({ neverMatches, removable }) => removable && !neverMatches),
  describe: ({ rule }, index) =>
    `${upper(nameOf(index, "rule", rule))} can go: without it every packet gets the same.`,
  repairs: ({ rule }, index) => [remove(index, rule)],
});

interface MergeData {
  readonly into: string;
  readonly gone: string;
  readonly by: Merge["by"];
}

/** What the earlier rule says once it has taken the later one in. */
function joinedRule(into: Rule, gone: Rule, by: Merge["by"]): Partial<Rule> {
  const once = <T>(all: readonly T[]): T[] =>
    all.filter((item, at) => all.findIndex((other) => equal(item, other)) === at);
  switch (by) {
    case "from":
      return { from: once([...into.from, ...gone.from]) };
    case "to":
      return { to: once([...into.to, ...gone.to]) };
    case "services":
      return { services: once([...into.services, ...gone.services]) };
  }
}

/** Whether an end or the services of either is anything at all: joined, that stays anything. */
const isAny = (rule: Rule, by: Merge["by"]): boolean => rule[by].length === 0;
const MOST = { from: 64, to: 64, services: 32 } as const;
const DIFFERS = {
  from: "where they come from",
  to: "where they go",
  services: "their services",
} as const;

export const rulesMergeable = check<MergeData>({
  code: "rules-mergeable",
  severity: "note",
  family: "walls",
  title: "Two rules can be one",
  why: "A shorter list is read sooner, and wrongly less often.",
  reads: LIST_READS,
  find: (index) =>
    [...index.derived(STANDING_LISTS).values()].flatMap(({ space, list, rules, states }) =>
      mergeable(list, conflictingPairs(space)).flatMap(({ into, gone, by }): Found<MergeData>[] => {
        const [first, second] = [rules[into], rules[gone]];
        const idle = [into, gone].some((at) => states[at]?.removable === true);
        if (first === undefined || second === undefined || idle || isAny(first, by) || isAny(second, by))
          return [];
        if (first[by].length + second[by].length > MOST[by]) return [];
        return [
          {
            subjects: [first, second].map(({ id }) => ({ kind: "rule", id })),
            data: { into: first.id, gone: second.id, by },
          },
        ];
      }),
    ),
  describe: ({ into, gone, by }, index) =>
    `${upper(nameOf(index, "rule", into))} and ${nameOf(index, "rule", gone)} differ in ` +
    `${DIFFERS[by]} only: they can be one.`,
  repairs: ({ into, gone, by }, index) => {
    const [first, second] = [index.plan.rule.get(into), index.plan.rule.get(gone)];
    if (first === undefined || second === undefined) return [];
    return [
      {
        label: `Make one of ${nameOf(index, "rule", into)} and ${nameOf(index, "rule", gone)}`,
        planner: "join-rules",
        args: { into, gone },
        edit: (edits) => {
          const notes = [first.note, second.note].filter(
            (note, at, all) => note !== "" && all.indexOf(note) === at,
          );
          edits.patch("rule", into, {
            ...joinedRule(first, second, by),
            note: notes.join("; ").slice(0, 120),
          });
          edits.remove("rule", gone);
        },
      },
    ];
  },
});

interface PairData {
  readonly device: string;
  readonly from: WallEnd;
  readonly to: WallEnd;
}

/** Pairs that a standing list treats otherwise than the walls mean it. */
function pairsThat(index: PlanIndex, test: (pair: PairInList) => boolean): Found<PairData>[] {
  return [...index.derived(STANDING_PROOFS)].flatMap(([device, { pairs }]) =>
    pairs.flatMap(({ from, to, difference }): Found<PairData>[] => {
      const data = { device, from: endOfPair(from), to: endOfPair(to) };
      const pair = difference === null ? null : pairOf(index, data);
      if (pair === null || !test(pair)) return [];
      const zones = [from, to].flatMap((end) =>
        typeof end === "string" ? [] : [{ kind: "zone" as const, id: end.id }],
      );
      return [
        {
          subjects: [{ kind: "device", id: device }, ...zones],
          data,
          apart: `${keyOf(data.from)}>${keyOf(data.to)}`,
        },
      ];
    }),
  );
}

const keyOf = (end: WallEnd): string => (end.at === "zone" ? end.zone : end.at);

function pairOf(index: PlanIndex, { device, from, to }: PairData): PairInList | null {
  const standing = index.derived(STANDING_LISTS).get(device);
  return standing === undefined ? null : pairInList(index, standing, standing.list, { from, to });
}

const pairName = (index: PlanIndex, { from, to }: PairData): string =>
  `${wallEndName(index, from)} to ${wallEndName(index, to)}`;

function mend(index: PlanIndex, data: PairData, pair: PairInList): Repair {
  const closeRest = pair.tooMuch.length > 0;
  const pass = closeRest ? pair.wanted : pair.missing;
  const words = pass.length === 0 ? "nothing" : serviceWords(index, pass);
  return {
    label: closeRest
      ? `On top of the list: ${pairName(index, data)} ${words}, the rest closed`
      : `On top of the list: ${pairName(index, data)} ${words}`,
    planner: "mend-pair",
    args: { ...data },
    edit: (edits, ids) => mendPair({ edits, ids, index }, { ...data, pass, closeRest }),
  };
}

export const listLetsMore = check<PairData>({
  code: "list-lets-more",
  severity: "stop",
  family: "walls",
  title: "The list on a device lets more through than its walls",
  why: "A wall is only as good as the list that stands on the device.",
  reads: LIST_READS,
  find: (index) => pairsThat(index, ({ tooMuch }) => tooMuch.length > 0),
  describe: (data, index) => {
    const pair = pairOf(index, data);
    const words = pair === null ? "" : serviceWords(index, pair.tooMuch);
    return (
      `By the list on ${nameOf(index, "device", data.device)}, ${pairName(index, data)} gets more ` +
      `than the wall means: ${words}.`
    );
  },
  repairs: (data, index) => {
    const pair = pairOf(index, data);
    return pair === null ? [] : [mend(index, data, pair)];
  },
});

export const listStopsMore = check<PairData>({
  code: "list-stops-more",
  severity: "warn",
  family: "walls",
  title: "The list on a device stops what its walls let through",
  why: "It is looked for in cables and addresses, and stands in a list.",
  reads: LIST_READS,
  find: (index) => pairsThat(index, ({ missing, tooMuch }) => missing.length > 0 && tooMuch.length === 0),
  describe: (data, index) => {
    const pair = pairOf(index, data);
    const words = pair === null ? "" : serviceWords(index, pair.missing);
    return `The list on ${nameOf(index, "device", data.device)} stops ${pairName(index, data)}: ${words}.`;
  },
  repairs: (data, index) => {
    const pair = pairOf(index, data);
    return pair === null ? [] : [mend(index, data, pair)];
  },
});
