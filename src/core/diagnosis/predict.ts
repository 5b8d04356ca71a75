import { formatAddress, inRange } from "../address";
import {
  ASPECTS,
  expectedText,
  isDark,
  judge,
  leaseExpected,
  otherAspects,
  type Expected,
} from "../commissioning";
import { equal } from "../kernel";
import { NOT_THERE, wireLines } from "../listening";
import type { PlanIndex, ProbeQuestion } from "../plan";
import { asClient, probe } from "../probe";
import { bigAsText, linesAt, type Ask } from "./asks";
import type { Suspect } from "./suspect";

type Lease = Extract<Expected, { is: "lease" }>;

/** What a reading comes to on some site. */
export interface Predicted {
  readonly expected: Expected;
  /** The same for what cannot be told apart by it. */
  readonly key: string;
  /** Whether only a part of it may have been heard: then what is missing says nothing. */
  readonly isInPart: boolean;
}

const predictedOf = (expected: Expected, isInPart = false): Predicted => ({
  expected,
  key: keyOf(expected),
  isInPart,
});

/** Why something is silent is not seen; how long a lease lasts is not asked for. */
function keyOf(expected: Expected): string {
  if (expected.is === "no lease" || expected.is === "silence") return expected.is;
  if (expected.is !== "lease") return JSON.stringify(expected, bigAsText);
  // Who gets one certain address does not see which others there are to give.
  const ranges = expected.address === null ? expected.ranges : [];
  return JSON.stringify({ ...expected, ranges, leaseSeconds: null }, bigAsText);
}

function tried(index: PlanIndex, question: ProbeQuestion): Expected {
  const outcome = probe(index, question, () => "");
  if (question.goal.to !== "address")
    return outcome.cause === null ? { is: "answer" } : { is: "silence", why: outcome.cause.sentence };
  if (isDark(index, question.from)) return { is: "no link" };
  const host = question.from.at === "host" ? index.plan.host.get(question.from.host) : undefined;
  return leaseExpected(index, outcome, host ?? null);
}

/** What a reading comes to on the site as it is planned. */
export function onPlan(index: PlanIndex, ask: Ask): Predicted {
  if (ask.what === "listen") return predictedOf({ is: "shown", lines: wireLines(index, ask.port) }, true);
  return predictedOf(
    ask.what === "look" ? { is: "shown", lines: linesAt(index, ask.look) } : tried(index, ask.question),
  );
}

/** The port that somebody listens at in truth who believes to listen at another: labels can be wrong. */
function listensAt({ asks }: Suspect["otherwise"], port: string): string {
  const { from } = asks?.(asClient({ at: "port", port, tag: null }, { to: "address" })) ?? { from: null };
  return from?.at === "port" ? from.port : port;
}

/** The same where something is wrong. */
export function predict(site: PlanIndex, { otherwise }: Suspect, ask: Ask): Predicted {
  if (ask.what === "look") return onPlan(site, ask);
  if (ask.what === "listen") return onPlan(site, { what: "listen", port: listensAt(otherwise, ask.port) });
  const question = otherwise.asks?.(ask.question) ?? ask.question;
  const expected = tried(site, question);
  return predictedOf(otherwise.reads?.(ask.question, expected) ?? expected);
}

/** What was read: as planned, something else in its own words, or only that it is not as planned. */
export type Seen =
  | { readonly is: "planned" }
  | { readonly is: "text"; readonly text: string }
  | { readonly is: "not planned" };

/** One reading that was taken. */
export interface Reading {
  readonly id: string;
  readonly ask: Ask;
  readonly seen: Seen;
}

const tidy = (text: string): string => text.replace(/\s+/g, " ").trim();

/** Some address that nobody on the site gives. */
const isForeign = (expected: Expected): boolean =>
  expected.is === "lease" && expected.address === null && expected.ranges.length === 0;

/** Whether a text shows an address, and not the one that is planned. */
function showsAnother(index: PlanIndex, planned: Expected, text: string): boolean {
  const says = judge(index, planned, text);
  const hasAddress = /\d+\.\d+\.\d+\.\d+|[\da-f]:[\da-f:]*:/i.test(text);
  return hasAddress && says?.isRight !== true;
}

/** What a page shows where it is otherwise than planned: the lines that differ. */
function differs(planned: Expected, now: Expected): readonly (readonly [string, string])[] {
  if (planned.is !== "shown" || now.is !== "shown") return [];
  const before = new Set(planned.lines.map((line) => line.join("\u0000")));
  const names = new Set(now.lines.map(([name]) => name));
  return [
    ...now.lines.filter((line) => !before.has(line.join("\u0000"))),
    ...planned.lines.flatMap(([name]): [string, string][] => (names.has(name) ? [] : [[name, "missing"]])),
  ];
}

/** As many lines that differ are written out; the rest is counted. */
const MOST_LINES = 40;

/** What of a page differs, line by line, as it is read. */
function differsText(planned: Expected, now: Expected): string {
  const lines = differs(planned, now);
  const words = lines.slice(0, MOST_LINES).map(([name, value]) => `${name}: ${value}`);
  if (lines.length > MOST_LINES) words.push(`and ${lines.length - MOST_LINES} lines more`);
  return words.join("\n");
}

/** What is written down where an address of nobody's was got: which one is not known before. */
const FOREIGN = "another address";

/** A lease as a laptop shows it: its address, and what else of it is otherwise than planned. */
function leaseText(index: PlanIndex, planned: Expected, now: Lease): string {
  const before = planned.is === "lease" ? planned : null;
  const dns = now.dns.map(formatAddress).join(", ");
  const gateway = now.gateway === null ? "none" : formatAddress(now.gateway);
  return [
    expectedText(index, now),
    ...(before?.gateway === now.gateway ? [] : [`Gateway: ${gateway}`]),
    ...(before !== null && equal(before.dns, now.dns) ? [] : [`Name servers: ${dns === "" ? "none" : dns}`]),
  ].join("\n");
}

/** What was read as a sentence of the site says it: an address or an answer, or what of a page differs. */
export function outcomeText(index: PlanIndex, planned: Expected, now: Expected): string {
  if (now.is === "shown") return differsText(planned, now) || "as planned";
  if (isForeign(now)) return FOREIGN;
  return now.is === "lease" ? leaseText(index, planned, now) : expectedText(index, now);
}

const linesOf = (text: string): string[] =>
  text
    .split("\n")
    .map(tidy)
    .filter((line) => line !== "");
/** What a line is about. */
const aboutOf = (line: string): string => line.slice(0, Math.max(0, line.indexOf(": ")));

/** The same lines differ, in whatever order; only what they are about counts where nobody knows the value. */
function agreesOnPage(planned: Predicted, predicted: Predicted, text: string, isVague: boolean): boolean {
  const words = (of: string) => linesOf(of).map((line) => (isVague ? aboutOf(line) : line));
  const own = words(differsText(planned.expected, predicted.expected));
  const read = new Set(words(text));
  return own.length > 0 && new Set(own).size === read.size && own.every((line) => read.has(line));
}

/** Whether each line that was heard is what a fault lets be heard: what was not heard says nothing. */
function agreesInPart({ expected }: Predicted, text: string): boolean {
  if (expected.is !== "shown") return false;
  const said = new Map(expected.lines.map(([about, value]) => [tidy(about), tidy(value)]));
  return linesOf(text).every((line) => {
    const about = aboutOf(line);
    return (said.get(about) ?? NOT_THERE) === line.slice(about.length + 2);
  });
}

/** Whether every line of a page that a fault changes is among those that were read. */
export function isPartOf(planned: Predicted, predicted: Predicted, text: string): boolean {
  const own = differs(planned.expected, predicted.expected);
  const read = new Set(linesOf(text));
  return own.length > 0 && own.every(([name, value]) => read.has(tidy(`${name}: ${value}`)));
}

/** Whether a text differs from what is planned in the same as a fault does, whichever values stand there. */
function sameAspects(planned: Lease, predicted: Lease, text: string): boolean {
  const seen = otherAspects(planned, text);
  if (seen === null) return false;
  const address = predicted.address ?? predicted.ranges[0]?.first;
  const own = {
    address:
      address !== planned.address && !planned.ranges.some((range) => inRange(range, address ?? range.last)),
    gateway: predicted.gateway !== planned.gateway,
    dns: predicted.dns.some((address) => !planned.dns.includes(address)),
  };
  return ASPECTS.every((aspect) => seen[aspect] === own[aspect]);
}

/** What is compared: what the plan says, what a fault says, on which site. */
export interface Compared {
  readonly index: PlanIndex;
  readonly site: PlanIndex;
  readonly planned: Predicted;
  readonly predicted: Predicted;
  readonly isVague: boolean;
}

/** Whether what was read is what a fault would have shown. */
export function agrees({ index, site, planned, predicted, isVague }: Compared, seen: Seen): boolean {
  if (seen.is === "planned") return predicted.key === planned.key;
  if (seen.is === "not planned") return predicted.key !== planned.key;
  const { expected } = predicted;
  if (predicted.isInPart) return agreesInPart(predicted, seen.text);
  if (expected.is === "shown") return agreesOnPage(planned, predicted, seen.text, isVague);
  if (tidy(seen.text) === FOREIGN) return isForeign(expected);
  if (isForeign(expected)) return showsAnother(index, planned.expected, seen.text);
  if (isVague && expected.is === "lease" && planned.expected.is === "lease")
    return sameAspects(planned.expected, expected, seen.text);
  const says = judge(site, expected, seen.text);
  return says === null ? predicted.key !== planned.key : says.isRight;
}
