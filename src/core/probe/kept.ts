import { nameOf, type Expectation, type PlanIndex, type ProbeQuestion } from "../plan";
import { plugKey, plugs } from "./choices";
import { probe, type Outcome } from "./probe";

/** Whether a kept probe comes out as it has to. */
export interface KeptResult {
  readonly holds: boolean;
  readonly says: string;
  readonly outcome: Outcome;
}

/** Asks a kept probe again. */
export function askKept(
  index: PlanIndex,
  { question, passes, segment }: Expectation,
  ids: () => string,
): KeptResult {
  const outcome = probe(index, question, ids);
  const got = outcome.lease?.segment ?? null;
  if (passes && outcome.cause !== null)
    return { holds: false, says: `It has to get through and stops: ${outcome.cause.sentence}`, outcome };
  if (!passes && outcome.cause === null)
    return { holds: false, says: "It has to be stopped and gets through.", outcome };
  if (passes && segment !== null && got !== segment)
    return {
      holds: false,
      says:
        `It has to get an address of ${nameOf(index, "segment", segment)} and gets ` +
        `one of ${got === null ? "no segment" : nameOf(index, "segment", got)}.`,
      outcome,
    };
  return {
    holds: true,
    says: passes
      ? "It gets through, as it has to."
      : `It is stopped, as it has to be: ${outcome.cause?.sentence ?? ""}`,
    outcome,
  };
}

const AS_WORDS = {
  client: "",
  kind: "",
  typed: " with a static address",
  behindPhone: " behind a phone",
  falseServer: " as a rogue DHCP server",
  falseRouter: " as a rogue router",
  spoofer: " with another's address",
} as const;

/** A question in words, for a list: "PC 1 to Image store by https". */
export function questionWords(index: PlanIndex, { from, as, goal, family }: ProbeQuestion): string {
  const place = plugs(index).find((plug) => plug.key === plugKey(from));
  const who =
    `${as.as === "kind" ? `${as.word} at ` : ""}` +
    `${place?.label ?? "something removed"}${AS_WORDS[as.as]}`;
  const by = "service" in goal && goal.service !== null ? ` by ${goal.service.name}` : "";
  const v6 = family === 6 ? ", IPv6" : "";
  switch (goal.to) {
    case "address":
      return `${who}${as.as === "client" || as.as === "behindPhone" ? ": an address" : ""}${v6}`;
    case "internet":
      return `${who} to the internet${by}${v6}`;
    case "gateway":
      return `${who} to the gateway's pages${by}${v6}`;
    case "device":
      return `${who} to the pages of ${nameOf(index, "device", goal.device)}${by}${v6}`;
    case "host":
      return `${who} to ${nameOf(index, "host", goal.host)}${by}${v6}`;
    case "port":
      return `${who} to another laptop at ${nameOf(index, "port", goal.port)}${by}${v6}`;
    case "forward":
      return `${who} to the forward ${nameOf(index, "forward", goal.forward)}${v6}`;
  }
}
