import { askedOf, askKey, onPlan, type Ask, type Asked } from "../diagnosis";
import type { Laid } from "../listening";
import type { PlanIndex } from "../plan";
import { MOST_READ, type TestCame } from "./entry";
import { recordedAs } from "./readings";

/** A reading that a capture comes to, before anybody writes it down. */
export interface CapturedReading {
  readonly asked: Asked;
  /** What has to be read, in words. */
  readonly planned: string;
  readonly came: TestCame;
  readonly read: string;
  readonly says: string;
}

/** As many sentences stand at one reading. */
const MOST_SENTENCES = 12;

function sentences(all: readonly string[]): string {
  const left = all.length - MOST_SENTENCES;
  return [...all.slice(0, MOST_SENTENCES), ...(left > 0 ? [`And ${left} more.`] : [])].join(" ");
}

/** Whole lines, as far as there is room for them. */
function bounded(lines: readonly string[]): string {
  let text = "";
  for (const line of lines) {
    if (text.length + line.length + 1 > MOST_READ) break;
    text += text === "" ? line : `\n${line}`;
  }
  return text;
}

/**
 * The readings that a capture comes to: each address that was given otherwise than planned, and what was heard
 * at the port as one. `port` is an id of the plan; none where nothing was heard that the plan speaks of.
 */
export function capturedReadings(index: PlanIndex, port: string, { lines, heard }: Laid): CapturedReading[] {
  const given = new Map<string, CapturedReading>();
  for (const { given: reading, verdict, says } of lines) {
    if (reading === null || verdict !== "otherwise") continue;
    const ask: Ask = { what: "try", question: reading.question };
    const [key, planned] = [askKey(ask), recordedAs(index, onPlan(index, ask).expected)];
    if (!given.has(key))
      given.set(key, { asked: askedOf(index, ask), planned, came: "otherwise", read: reading.text, says });
  }
  const wrong = lines.filter(({ verdict, given: reading }) => verdict === "otherwise" && reading === null);
  const listened: CapturedReading = {
    asked: askedOf(index, { what: "listen", port }),
    planned: "as planned",
    came: wrong.length > 0 ? "otherwise" : "expected",
    read: bounded(heard.map(([about, value]) => `${about}: ${value}`)),
    says: sentences(wrong.map(({ says }) => says)),
  };
  return [...given.values(), ...(wrong.length + heard.length > 0 ? [listened] : [])];
}

const VERDICTS = { right: "as planned", otherwise: "otherwise", note: "" } as const;

/** A capture beside the plan, as a table. */
export const laidTable = ({ lines }: Laid): string[][] => [
  ["About", "Planned", "Heard", "Is", "Means"],
  ...lines.map(({ about, planned, heard, verdict, says }) => [
    about,
    planned,
    heard,
    VERDICTS[verdict],
    says,
  ]),
];
