import { formatAddress } from "../address";
import { must } from "../kernel";
import { type PlanIndex, type ProbeQuestion } from "../plan";
import { asClient } from "../probe";
import { askOfKey, askKey, inTheRunning, nextReadings, onPlan, outcomeText, toBeSure } from "../diagnosis";
import type { Ask, Candidate, Diagnosed, Reading, Study } from "../diagnosis";
import type { Dice, Fault } from "./plants";

// Faults that are written apart from those that diagnosis tries, found by following what it asks for.

/** What a person reads at a site that is otherwise than planned. */
function seenAt(study: Study, truth: PlanIndex, ask: Ask): Reading["seen"] {
  const planned = study.planned(ask);
  const { expected, key } = onPlan(truth, ask);
  if (key === planned.key) return { is: "planned" };
  if (expected.is !== "lease") return { is: "text", text: outcomeText(truth, planned.expected, expected) };
  const address = expected.address ?? must(expected.ranges[0], "a pool").first;
  const gateway = expected.gateway === null ? "" : formatAddress(expected.gateway);
  const dns = expected.dns.map(formatAddress).join(" ");
  return { is: "text", text: `${formatAddress(address)}\nGateway ${gateway}\nDNS ${dns}` };
}

/** A reading of something that is asked, which goes by its id in the record and is read back from that. */
export function readAt(study: Study, truth: PlanIndex, asked: Ask): Reading {
  const id = askKey(asked);
  const ask = must(askOfKey(id), "what is asked can be read from its id");
  return { id, ask, seen: seenAt(study, truth, ask) };
}

const asksOf = (host: string): ProbeQuestion[] => {
  const from = { at: "host" as const, host };
  return [
    asClient(from, { to: "address" }),
    asClient(from, { to: "gateway", service: null }),
    asClient(from, { to: "internet", service: null }),
  ];
};
const TRIES = 60;

/** What somebody complains of who notices a fault: an address, its gateway, the internet; null for nothing. */
export function complaintOf(
  study: Study,
  truth: PlanIndex,
  notice: readonly string[],
  roll: Dice,
): Reading | null {
  const asks = notice.filter((id) => study.index.plan.host.has(id)).flatMap(asksOf);
  for (let tries = 0; tries < TRIES && asks.length > 0; tries += 1) {
    const ask: Ask = { what: "try", question: must(asks[roll(asks.length)], "a question") };
    const reading = readAt(study, truth, ask);
    if (!study.isAsPlanned(reading)) return reading;
  }
  return null;
}

/** How following the suggestions went. */
export interface Followed {
  readonly diagnosed: Diagnosed;
  /** Those that no reading parts any more. */
  readonly left: readonly Candidate[];
  readonly readings: number;
  /** What the readings told, in bits. */
  readonly bits: number;
}
const MOST_READINGS = 15;

/**
 * Takes the readings that are suggested until nothing tells those apart that are left; with `isSure` the one,
 * too, that would show whether the last one is it.
 */
export function follow(
  study: Study,
  truth: PlanIndex,
  first: readonly Reading[],
  { isSure, ask }: { readonly isSure: boolean; readonly ask: (readings: readonly Reading[]) => Diagnosed },
): Followed {
  const readings = [...first];
  let bits = 0;
  for (;;) {
    const diagnosed = ask(readings);
    const [best] = nextReadings(study, diagnosed);
    const next = best ?? (isSure ? toBeSure(study, diagnosed) : null);
    if (next === null || next === undefined || readings.length >= MOST_READINGS)
      return { diagnosed, left: inTheRunning(diagnosed), readings: readings.length, bits };
    bits += next.bits;
    readings.push(readAt(study, truth, next.ask));
  }
}

export const names = ({ suspect }: Candidate, { blame }: Pick<Fault, "blame">): boolean =>
  suspect.subjects.some(({ id }) => blame.includes(id));

/** The place of the first fault that names what was done; those that nothing parts count as one. */
export function rankOf({ diagnosed, left }: Followed, fault: Fault): number {
  const explainsAll = left[0]?.explains.every(Boolean) === true;
  if (explainsAll && left.some((one) => names(one, fault))) return 0;
  return diagnosed.candidates.findIndex((one) => names(one, fault));
}
