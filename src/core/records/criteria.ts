import type { Fact } from "../commissioning";
import type { Finding } from "../checks";
import type { Recorded } from "./entry";
import type { FactStanding, Proof } from "./proof";
import type { readingsOf } from "./readings";
import { latestVisit } from "./visit";

/** How it stands with what has to be right: it is, it is not yet known to be, or it is not. */
export type CriterionState = "met" | "open" | "failed";

/** One thing that has to be right before a site is handed over. */
export interface Criterion {
  readonly words: string;
  readonly state: CriterionState;
  /** With the real numbers. */
  readonly says: string;
  /** Where it is seen to. */
  readonly at: "findings" | "runbook" | "sheet" | "wrong";
}

type FactKind = Fact["kind"];
const FACTS: readonly (readonly [FactKind, string])[] = [
  ["vlan", "Every VLAN passes every port between gear that has to carry it"],
  ["role", "Every kind of port gives what it is meant to"],
  ["wireless", "Every wireless name leads where it has to at each access point"],
  ["scope", "Every DHCP scope gives its addresses"],
  ["ipv6", "Every segment with IPv6 gives addresses of its own subnets"],
  ["address", "Every device that keeps its address has it"],
  ["way in", "The pages of every device open from where they have to"],
  ["baseline", "Every device is administered as was decided"],
  ["wall", "Every wall lets what it has to, and nothing else"],
  ["tree", "Every tree has the root that it has to, and what stands by stands by"],
  ["speed", "Every cable between gear runs at its speed"],
  ["power", "Everything that is fed over its cable gets its power"],
  ["spare", "It goes on without any one cable that has a spare way"],
  ["sign-in", "Every sign-in lets in whom it has to, and nobody else"],
  ["level", "Every access point is strong enough where it is used"],
  ["cable", "Every copper cable between gear is tested"],
  ["failover", "The internet is there without any one line"],
];

function ofFacts(words: string, own: readonly FactStanding[]): Criterion {
  const count = (state: FactStanding["state"]) => own.filter((fact) => fact.state === state).length;
  const [proven, otherwise, open, never] = [
    count("proven"),
    count("otherwise"),
    count("open"),
    count("never"),
  ];
  const rest = [
    ...(otherwise === 0 ? [] : [`${otherwise} read otherwise`]),
    ...(open === 0 ? [] : [`${open} still to prove`]),
    ...(never === 0 ? [] : [`${never} that no reading proves`]),
  ];
  const state = otherwise > 0 ? "failed" : "open";
  return {
    words,
    state: otherwise + open === 0 ? "met" : state,
    says: [`${proven} of ${own.length} proven`, ...rest].join(", "),
    at: "sheet",
  };
}

function ofPlan(findings: readonly Finding[]): Criterion {
  const stops = findings.filter(({ severity }) => severity === "stop").length;
  return {
    words: "Nothing in the plan stops it",
    state: stops === 0 ? "met" : "failed",
    says:
      stops === 0
        ? "no finding that stops it"
        : `${stops} ${stops === 1 ? "finding stops" : "findings stop"} it`,
    at: "findings",
  };
}

function ofWork(record: readonly Recorded[]): Criterion {
  const visit = latestVisit(record);
  const words = "What was planned is set up";
  if (visit === null) return { words, state: "open", says: "no visit is in the record", at: "runbook" };
  return visit.ended === null
    ? { words, state: "open", says: `the visit that ${visit.by} began goes on`, at: "runbook" }
    : { words, state: "met", says: "the last visit is over", at: "runbook" };
}

function ofFaults(toRepeat: number): Criterion {
  const readings = toRepeat === 1 ? "1 reading is" : `${toRepeat} readings are`;
  return {
    words: "Every fault that was found is mended",
    state: toRepeat === 0 ? "met" : "open",
    says: toRepeat === 0 ? "nothing is to be read again" : `${readings} to be taken again`,
    at: "wrong",
  };
}

/** What is known of a site when it is asked whether it can be handed over. */
export interface Known {
  /** Without those that were accepted with a reason. */
  readonly findings: readonly Finding[];
  readonly proof: Proof;
  readonly record: readonly Recorded[];
  readonly readings: ReturnType<typeof readingsOf>;
}

/** What must be right before a site is handed over, and how it stands with each; without kinds of no facts. */
export const criteriaOf = ({ findings, proof, record, readings }: Known): Criterion[] => [
  ofPlan(findings),
  ofWork(record),
  ...FACTS.flatMap(([kind, words]) => {
    const own = proof.facts.filter(({ fact }) => fact.kind === kind);
    return own.length === 0 ? [] : [ofFacts(words, own)];
  }),
  ofFaults(readings.filter(({ isToRepeat }) => isToRepeat).length),
];

export const CRITERION_WORDS: Readonly<Record<CriterionState, string>> = {
  met: "met",
  open: "not yet",
  failed: "not met",
};

/** The criteria as a table, for a spreadsheet. */
export const criteriaTable = (criteria: readonly Criterion[]): string[][] => [
  ["criterion", "state", "by"],
  ...criteria.map(({ words, state, says }) => [words, CRITERION_WORDS[state], says]),
];
