import { formatAddress } from "../address";
import { must } from "../kernel";
import {
  askKey,
  askOfKey,
  diagnosePairs,
  inTheRunning,
  nextReadings,
  outcomeText,
  toBeSure,
  type Ask,
  type Candidate,
  type Diagnosed,
  type Predicted,
  type Reading,
  type Study,
} from "../diagnosis";

/** What a person writes down of a reading, as the record of tests has it. */
function writtenDown(study: Study, ask: Ask, { expected, key }: Predicted): Reading["seen"] {
  const planned = study.planned(ask);
  if (key === planned.key) return { is: "planned" };
  if (expected.is !== "lease")
    return { is: "text", text: outcomeText(study.index, planned.expected, expected) };
  const first = expected.address ?? expected.ranges[0]?.first;
  // Of an address that nobody on the site gives nobody knows beforehand which it is.
  if (first === undefined) return { is: "text", text: outcomeText(study.index, planned.expected, expected) };
  const gateway = expected.gateway === null ? "" : formatAddress(expected.gateway);
  const dns = expected.dns.map(formatAddress).join(" ");
  return { is: "text", text: `${formatAddress(first)}\nGateway ${gateway}\nDNS ${dns}` };
}

/** A reading of something that is asked, which goes by its id in the record and is read back from that. */
export function readingOf(study: Study, asked: Ask, seen: Predicted): Reading {
  const id = askKey(asked);
  const ask = must(askOfKey(id), "what is asked can be read from its id");
  return { id, ask, seen: writtenDown(study, ask, seen) };
}

/** The same of what somebody rings in with: that it is otherwise is said, but not which address is there. */
export function complained(study: Study, asked: Ask, seen: Predicted): Reading {
  const reading = readingOf(study, asked, seen);
  const isOther = seen.expected.is === "lease" && reading.seen.is === "text";
  return isOther ? { ...reading, seen: { is: "not planned" } } : reading;
}

/** How following the suggestions of diagnosis went. */
export interface Followed {
  readonly readings: readonly Reading[];
  readonly diagnosed: Diagnosed;
  /** Those that no reading parts any more. */
  readonly left: readonly Candidate[];
  /** What the readings told, in bits. */
  readonly bits: number;
}
const MOST_READINGS = 15;

/** What is followed: how a reading comes out on the site, and how what was read is explained. */
export interface Following {
  readonly read: (ask: Ask) => Predicted;
  readonly explain: (readings: readonly Reading[]) => Diagnosed;
  /** Whether the one is taken, too, that would show whether the last one is it. */
  readonly isSure: boolean;
}

/** Takes the readings that are suggested until nothing tells those apart that are left. */
export function follow(
  study: Study,
  first: readonly Reading[],
  { read, explain, isSure }: Following,
): Followed {
  const readings = [...first];
  let bits = 0;
  for (;;) {
    const diagnosed = explain(readings);
    const [best] = nextReadings(study, diagnosed);
    const next = best ?? (isSure ? toBeSure(study, diagnosed) : null);
    if (next === null || next === undefined || readings.length >= MOST_READINGS)
      return { readings, diagnosed, left: inTheRunning(diagnosed), bits };
    bits += next.bits;
    readings.push(readingOf(study, next.ask, read(next.ask)));
  }
}

/** By single faults; by two at once where none explains everything. */
export function explainedBy(study: Study): Following["explain"] {
  return (readings) => {
    const single = study.diagnose(readings);
    const isWhole = single.candidates[0]?.explains.every(Boolean) === true;
    return isWhole ? single : diagnosePairs(study, readings);
  };
}
