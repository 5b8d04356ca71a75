import { formatAddress } from "../address";
import {
  nameOf,
  questionText,
  readQuestion,
  type Host,
  type Plan,
  type PlanIndex,
  type ProbeGoal,
  type ProbePlace,
  type ProbeQuestion,
} from "../plan";
import { deviceLines, type SeenLine } from "./pages";

/** Where one looks instead of trying: what is set on gear, what is entered on an end device, a cable's way. */
export type Look =
  | { readonly on: "device"; readonly device: string }
  | { readonly on: "host"; readonly host: string }
  | { readonly on: "cable"; readonly port: string };

/** What is asked of the site to learn more; who listens at a port hears a part of what is said there. */
export type Ask =
  | { readonly what: "try"; readonly question: ProbeQuestion }
  | { readonly what: "look"; readonly look: Look }
  | { readonly what: "listen"; readonly port: string };

const listenKey = (port: string): string => `listen ${port}`;

export const lookKey = (look: Look): string => {
  if (look.on === "device") return `look ${look.device}`;
  return look.on === "host" ? `look host ${look.host}` : `look cable ${look.port}`;
};
/** The same question has the same key: the id under which its reading stands in the record. */
export function askKey(ask: Ask): string {
  if (ask.what === "listen") return listenKey(ask.port);
  return ask.what === "look" ? lookKey(ask.look) : `try ${questionText(ask.question)}`;
}

/** Addresses of IPv6 are whole numbers that JSON does not know. */
export const bigAsText = (_: string, value: unknown): unknown =>
  typeof value === "bigint" ? `${value}n` : value;

/** The same as a key for what is kept in memory, which is asked for thousands of times. */
export function memoKey(ask: Ask): string {
  const known = memoKeys.get(ask);
  if (known !== undefined) return known;
  const made = ask.what === "try" ? JSON.stringify(ask.question, bigAsText) : askKey(ask);
  memoKeys.set(ask, made);
  return made;
}
const memoKeys = new WeakMap<Ask, string>();

/** What is entered on a device that has its address of its own. */
function enteredLines(index: PlanIndex, { ipv4, length4, gateway4, segment: own }: Host): SeenLine[] {
  const segment = index.plan.segment.get(own ?? "");
  return [
    ["Address", ipv4 === null ? "none" : formatAddress(ipv4)],
    ["Length", `/${length4 ?? segment?.prefixes4[0]?.length ?? ""}`],
    ["Gateway", gateway4 === null ? "that of its segment" : formatAddress(gateway4)],
  ];
}

function hostLines(index: PlanIndex, id: string): SeenLine[] {
  const host = index.plan.host.get(id);
  if (host === undefined) return [];
  const { manner, tag, attachment } = host;
  const own: SeenLine[] = manner === "typed" ? enteredLines(index, host) : [["Address", "by DHCP"]];
  const air: SeenLine[] =
    attachment.at === "ssid" ? [["Wireless name", nameOf(index, "ssid", attachment.ssid)]] : [];
  return [...own, ["Tag", tag === null ? "none" : String(tag)], ["MAC", host.mac ?? "not known"], ...air];
}

/** Where the cable leads that is in a port. */
function cableLines(index: PlanIndex, port: string): SeenLine[] {
  const peer = index.peerOf(port);
  const hosts = (index.groups("hostsByPort").get(port) ?? []).map(({ name }) => name).sort();
  const ends = [...(peer === undefined ? [] : [nameOf(index, "port", peer.id)]), ...hosts];
  return [["In it", ends.length === 0 ? "nothing" : ends.join(", ")]];
}

/** What is seen by looking there. */
export function linesAt(index: PlanIndex, look: Look): SeenLine[] {
  if (look.on === "device") return deviceLines(index, look.device);
  return look.on === "host" ? hostLines(index, look.host) : cableLines(index, look.port);
}

/** A reading that can be taken: where, what is done, and how long it takes. */
export interface Asked {
  readonly ask: Ask;
  readonly place: string;
  readonly at: string;
  readonly does: string;
  readonly minutes: number;
}

/** So long it takes to read what is set on a device, to trace a cable, to try with a laptop, to listen. */
const MINUTES = { device: 4, host: 2, cable: 5, plug: 2, ask: 1, listen: 5 } as const;

const READ_IT = "Read what is set on it: paste its configuration, or compare its pages with its sheet.";

function lookAsked(index: PlanIndex, look: Look): Asked {
  const ask: Ask = { what: "look", look };
  if (look.on === "device") {
    const at = nameOf(index, "device", look.device);
    const place = index.plan.device.get(look.device)?.place ?? "";
    return {
      ask,
      place,
      at,
      does: READ_IT,
      minutes: MINUTES.device,
    };
  }
  if (look.on === "host") {
    const host = index.plan.host.get(look.host);
    const does = "Read on it what is entered of the network.";
    return { ask, place: host?.place ?? "", at: host?.name ?? "", does, minutes: MINUTES.host };
  }
  const device = index.plan.port.get(look.port)?.device ?? "";
  const place = index.plan.device.get(device)?.place ?? "";
  const does = "Follow the cable that is in it to its other end.";
  return { ask, place, at: nameOf(index, "port", look.port), does, minutes: MINUTES.cable };
}

/** Where a question starts, for a person. */
function startOf(index: PlanIndex, { from }: ProbeQuestion): Pick<Asked, "place" | "at"> {
  const placeOfDevice = (id: string) => index.plan.device.get(id)?.place ?? "";
  switch (from.at) {
    case "host":
      return {
        place: index.plan.host.get(from.host)?.place ?? "",
        at: nameOf(index, "host", from.host),
      };
    case "port":
      return {
        place: placeOfDevice(index.plan.port.get(from.port)?.device ?? ""),
        at: nameOf(index, "port", from.port),
      };
    case "ssid":
      return {
        place: placeOfDevice(from.device),
        at: `${nameOf(index, "ssid", from.ssid)} at ${nameOf(index, "device", from.device)}`,
      };
    case "internet":
      return { place: "", at: `Outside, by ${nameOf(index, "line", from.line)}` };
    case "tunnel":
      return { place: "", at: `Outside, by the tunnel ${nameOf(index, "segment", from.segment)}` };
  }
}

/** What somebody asks for, as a sentence goes on. */
function goalWords(index: PlanIndex, { goal, family }: ProbeQuestion): string {
  switch (goal.to) {
    case "address":
      return family === 6 ? "which IPv6 address it gets" : "which address it gets";
    case "internet":
      return "whether the internet answers";
    case "gateway":
      return "whether its gateway answers an echo";
    case "device":
      return `whether the pages of ${nameOf(index, "device", goal.device)} open`;
    case "host":
      return `whether ${nameOf(index, "host", goal.host)} answers`;
    case "forward":
      return `whether ${nameOf(index, "forward", goal.forward)} answers from outside`;
    case "port":
      return `whether a second laptop at ${nameOf(index, "port", goal.port)} answers`;
  }
}

function tryAsked(index: PlanIndex, question: ProbeQuestion): Asked {
  const isLaptop = question.from.at === "port" || question.from.at === "ssid";
  const words = goalWords(index, question);
  return {
    ask: { what: "try", question },
    ...startOf(index, question),
    does: isLaptop ? `See on a laptop ${words}.` : `See ${words}.`,
    minutes: isLaptop ? MINUTES.plug : MINUTES.ask,
  };
}

function listenAsked(index: PlanIndex, port: string): Asked {
  const device = index.plan.port.get(port)?.device ?? "";
  return {
    ask: { what: "listen", port },
    place: index.plan.device.get(device)?.place ?? "",
    at: nameOf(index, "port", port),
    does: "Capture what is heard there for a minute, and lay it beside the plan.",
    minutes: MINUTES.listen,
  };
}

/** What a person does to take a reading. */
export function askedOf(index: PlanIndex, ask: Ask): Asked {
  if (ask.what === "listen") return listenAsked(index, ask.port);
  return ask.what === "look" ? lookAsked(index, ask.look) : tryAsked(index, ask.question);
}

/** A reading that diagnosis asks for, by the id under which it stands in the record; null for another. */
export function askOfKey(key: string): Ask | null {
  const [what, ...rest] = key.split(" ");
  if (what === "look") return askOfLook(rest);
  if (what === "listen") return { what, port: rest.join(" ") };
  if (what !== "try") return null;
  const question = readQuestion(rest.join(" "));
  return question === null ? null : { what: "try", question };
}

/** Whether all that a question is about is in the plan: what was read of something that is gone is history. */
export function isAboutPlan({ plan }: PlanIndex, ask: Ask): boolean {
  if (ask.what === "listen") return plan.port.has(ask.port);
  if (ask.what === "look") {
    const { look } = ask;
    if (look.on === "device") return plan.device.has(look.device);
    return look.on === "host" ? plan.host.has(look.host) : plan.port.has(look.port);
  }
  const { from, goal } = ask.question;
  return isStartThere(plan, from) && isGoalThere(plan, goal);
}

function isStartThere(plan: Plan, from: ProbePlace): boolean {
  switch (from.at) {
    case "port":
      return plan.port.has(from.port);
    case "host":
      return plan.host.has(from.host);
    case "ssid":
      return plan.ssid.has(from.ssid) && plan.device.has(from.device);
    case "internet":
      return plan.line.has(from.line);
    case "tunnel":
      return plan.segment.has(from.segment);
  }
}

function isGoalThere(plan: Plan, goal: ProbeGoal): boolean {
  switch (goal.to) {
    case "host":
      return plan.host.has(goal.host);
    case "device":
      return plan.device.has(goal.device);
    case "forward":
      return plan.forward.has(goal.forward);
    case "port":
      return plan.port.has(goal.port);
    case "address":
    case "internet":
    case "gateway":
      return true;
  }
}

function askOfLook([first = "", second = ""]: readonly string[]): Ask | null {
  if (first === "host") return { what: "look", look: { on: "host", host: second } };
  if (first === "cable") return { what: "look", look: { on: "cable", port: second } };
  return first === "" ? null : { what: "look", look: { on: "device", device: first } };
}
