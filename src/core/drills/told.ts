import { must, type Dice } from "../kernel";
import { nameOf, type PlanIndex, type ProbeQuestion } from "../plan";
import { capital } from "../repairs";
import type { Predicted } from "../diagnosis";

/** What a customer says: who noticed, what it is like, and what they believe. */
type Saying = (who: string, far: string) => string;

const NO_LINK: readonly Saying[] = [
  (who) => `${who} shows no network at all. Not even a light where the cable goes in.`,
  (who) => `${who} says that no cable is plugged in. But it is.`,
];
const NO_ADDRESS: readonly Saying[] = [
  (who) => `${who} has been looking for the network since this morning and does not find it.`,
  (who) => `${who} is on, but it says “limited”, or something like that. It worked yesterday.`,
];
const OTHER_ADDRESS: readonly Saying[] = [
  (who) =>
    `Something about ${who} is strange: it is on the network, but it does not find what it always found.`,
  (who) => `${who} is not where it used to be, says the program that looks for it.`,
];
const NO_INTERNET: readonly Saying[] = [
  (who) => `Nothing opens on ${who}. The network sign looks as it always does.`,
  (who) => `${who} has a connection, it says, but no page comes.`,
];
const NO_FAR_END: readonly Saying[] = [
  (who, far) => `${who} does not get to ${far} any more. Everything else seems to work.`,
  (who, far) => `${far} does not answer when somebody asks for it from ${who}.`,
];
const OPEN: readonly Saying[] = [
  (who, far) => `From ${who} one gets to ${far}. You said that nobody could.`,
  (who, far) => `Somebody showed me that ${far} opens from ${who}. Is that meant?`,
];
const ONLINE: readonly Saying[] = [(who) => `${who} is in the internet. You told us that it never would be.`];

/** What they add, which may lead anywhere. */
const AND: readonly string[] = [
  "Nobody changed anything.",
  "There was somebody at the cabinet on Friday.",
  "We moved a desk, but that can’t be it.",
  "We switched it off and on, it is the same.",
  "The rest of the house is fine, as far as I know.",
  "I have not asked the others.",
];

function whoOf(index: PlanIndex, { from }: ProbeQuestion): string {
  if (from.at === "host") return nameOf(index, "host", from.host);
  if (from.at === "ssid") return `a visitor’s phone on ${nameOf(index, "ssid", from.ssid)}`;
  return "the laptop";
}

function sayings({ goal }: ProbeQuestion, planned: Predicted, seen: Predicted): readonly Saying[] {
  if (goal.to === "address") {
    if (seen.expected.is === "no link") return NO_LINK;
    return seen.expected.is === "no lease" ? NO_ADDRESS : OTHER_ADDRESS;
  }
  const isOpen = planned.expected.is === "silence";
  if (goal.to === "internet") return isOpen ? ONLINE : NO_INTERNET;
  return isOpen ? OPEN : NO_FAR_END;
}

/** What the customer says on the telephone, without quotation marks: what is seen, never why. */
export function complaintText(
  index: PlanIndex,
  question: ProbeQuestion,
  { planned, seen }: { readonly planned: Predicted; readonly seen: Predicted },
  roll: Dice,
): string {
  const choices = sayings(question, planned, seen);
  const far = question.goal.to === "host" ? nameOf(index, "host", question.goal.host) : "";
  const says = must(choices[roll(choices.length)], "something is said")(whoOf(index, question), far);
  // A device's own name stays as it is written, at the beginning, too.
  const sentence = question.from.at === "host" ? says : capital(says);
  return `${sentence} ${must(AND[roll(AND.length)], "something is added")}`;
}
