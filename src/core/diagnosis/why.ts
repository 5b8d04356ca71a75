import { expectedText } from "../commissioning";
import {
  afterEdits,
  isFilter,
  nameOf,
  PlanEdits,
  type PlanIndex,
  type ProbeQuestion,
  type Wall,
} from "../plan";
import { setWall } from "../planners";
import { asClient, probe } from "../probe";
import { sameEnd } from "../policy";
import { SUSPECT_KINDS, type TradeQuestion } from "./kinds";
import { madeId } from "./made-id";
import { inTheRunning } from "./next";
import { onPlan } from "./predict";
import { sightOf } from "./sight";
import type { Candidate, Diagnosed } from "./study";
import { endsInSight } from "./suspects";

/** The four questions that are asked of what does not answer. */
const FOUR = ["vlan", "route", "wall", "far end"] as const;
export type FourQuestion = (typeof FOUR)[number];

export interface Why {
  readonly about: FourQuestion;
  /** What has to be so by the plan, and how one sees it, in a sentence or two. */
  readonly says: string;
  /** Its share of what would explain what was read; 0 to 1. */
  readonly share: number;
  /** What of it would explain it, the most likely first. */
  readonly candidates: readonly Candidate[];
}

const nobody = (): string => "";
const fourOf = (asks: TradeQuestion): FourQuestion => (asks === "link" || asks === "address" ? "vlan" : asks);

function vlanSays(index: PlanIndex, { from }: ProbeQuestion): string {
  if (from.at === "internet" || from.at === "tunnel")
    return "It comes from outside: no VLAN of the site is in question there.";
  if (from.at === "host" && index.plan.host.get(from.host)?.manner === "typed") {
    const segment = index.plan.host.get(from.host)?.segment ?? null;
    const of = segment === null ? "" : `: one of ${nameOf(index, "segment", segment)}`;
    return `Its own address is entered on it${of}. Compare it with the plan, and ask somebody beside it.`;
  }
  const { expected } = onPlan(index, { what: "try", question: asClient(from, { to: "address" }) });
  if (expected.is === "lease")
    return (
      `It has to get ${expectedText(index, expected)}. Another address means another VLAN or another ` +
      "server; none means that it does not get to its server."
    );
  return `By the plan it gets ${expectedText(index, expected)} there.`;
}

function routeSays(index: PlanIndex, question: ProbeQuestion): string {
  const { from, goal } = question;
  const own = probe(index, asClient(from, { to: "address" }), nobody).lease;
  const far = goal.to === "host" ? (index.plan.host.get(goal.host)?.segment ?? null) : null;
  if (far !== null && far === own?.segment)
    return `Both are in ${nameOf(index, "segment", far)}: no router lies between them.`;
  if (from.at === "internet" || from.at === "tunnel" || goal.to === "address")
    return "No route of its own is in question.";
  const { cause, steps } = probe(index, asClient(from, { to: "gateway", service: null }), nobody);
  if (cause !== null) return `By the plan it does not get to its gateway: ${cause.sentence}`;
  const by = [
    ...new Set(steps.flatMap(({ device }) => (device === null ? [] : [nameOf(index, "device", device)]))),
  ];
  return (
    `Its gateway has to answer an echo; the way there is ${by.join(", ")}. ` +
    "If it does not answer, what comes after it does not matter yet."
  );
}

const OPEN: Pick<Wall, "door" | "services" | "reason"> = { door: "open", services: [], reason: "" };
/** The site with every wall open between those that a question has to do with; null where that is no plan. */
function withoutWalls(index: PlanIndex, question: ProbeQuestion): PlanIndex | null {
  const edits = new PlanEdits(index.plan);
  const ends = endsInSight(index, sightOf(index, [question]));
  for (const from of ends)
    for (const to of ends)
      if (from.at !== "gateway" && !sameEnd(from, to))
        setWall(edits, () => madeId(JSON.stringify([from, to])), { from, to, ...OPEN });
  return afterEdits(index, edits);
}

function wallSays(index: PlanIndex, question: ProbeQuestion): string {
  const { cause } = probe(index, question, nobody);
  const filters = [...index.plan.device.values()].filter(isFilter);
  const open = filters.length === 0 ? null : withoutWalls(index, question);
  const isOpenThen = open !== null && probe(open, question, nobody).cause === null;
  if (cause === null)
    return filters.length === 0
      ? "Nothing on the site filters."
      : "By the plan no wall keeps it out. Look at the rules of what filters, and at what it refused.";
  return isOpenThen
    ? `The wall does its job: ${cause.sentence} With that wall open it would answer.`
    : `It is no wall that keeps it out by the plan: ${cause.sentence}`;
}

function farEndSays(index: PlanIndex, { goal }: ProbeQuestion): string {
  if (goal.to !== "host") return "There is no end device at its far end.";
  const name = nameOf(index, "host", goal.host);
  return (
    `If its gateway answers and the rules are as planned, ${name}'s own firewall is left. Ask ${name} from ` +
    "beside it, where no wall stands: if it answers there, it keeps other subnets out itself."
  );
}

/** The four questions of the trade to one reading that is not as planned, answered by simulation. */
export function whyFails(index: PlanIndex, question: ProbeQuestion, diagnosed: Diagnosed): Why[] {
  const left = inTheRunning(diagnosed);
  const all = left.reduce((sum, { weight }) => sum + weight, 0);
  const says: Readonly<Record<FourQuestion, () => string>> = {
    vlan: () => vlanSays(index, question),
    route: () => routeSays(index, question),
    wall: () => wallSays(index, question),
    "far end": () => farEndSays(index, question),
  };
  return FOUR.map((about) => {
    const candidates = left.filter(({ suspect }) => fourOf(SUSPECT_KINDS[suspect.kind].asks) === about);
    const weight = candidates.reduce((sum, candidate) => sum + candidate.weight, 0);
    return { about, says: says[about](), share: all === 0 ? 0 : weight / all, candidates };
  });
}
