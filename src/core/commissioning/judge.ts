import {
  familyOf,
  formatAddress,
  inRange,
  isLinkLocal,
  isSelfGiven,
  type Address,
  type Family,
} from "../address";
import { segmentHolding, nameOf, type PlanIndex } from "../plan";
import { shownIn, type Shown } from "./laptop-text";
import type { Expected } from "./tests";
import { isOfSix, rangeText } from "./words";

/** Whether what was read is right, and in which way it is not. */
export interface Judged {
  readonly isRight: boolean;
  readonly words: string;
}

const NONE = /^\s*(none|no|nothing|no address|no link|-|0\.0\.0\.0)\s*\.?\s*$/i;
const NO_LINK = /\bno (link|light)\b/i;
const LINK = /^\s*(yes|a? ?link|up|light|on|\d+ ?(m|g)(bit\/s|bps|b)?)\s*\.?\s*$/i;
const ANSWERED = /^\s*(yes|an? answer|answers?|answered|opens?|opened|ok|reply|replies)\s*\.?\s*$/i;
const SILENT =
  /^\s*(no|none|nothing|no answer|nothing comes back|silence|silent|time ?d? ?out|timeout)\s*\.?\s*$/i;

/** Where an address comes from that is none of ours. */
const FROM: Readonly<Record<Family, string>> = { 4: "DHCP server answers", 6: "router advertises" };

/** Whose address one is, in words. */
function whose(index: PlanIndex, address: Address): string {
  const text = formatAddress(address);
  if (isSelfGiven(address)) return `${text} is one that a device gives itself: no DHCP server answered`;
  if (isLinkLocal(address)) return `${text} is one that a device gives itself: no router advertises`;
  const segment = segmentHolding(index.plan, address);
  return segment === null || segment === undefined
    ? `${text} is in no subnet of this site: another ${FROM[familyOf(address)]}`
    : `${text} is an address of ${segment.name}`;
}

function judgeLease(
  index: PlanIndex,
  expected: Extract<Expected, { is: "lease" }>,
  text: string,
): Judged | null {
  if (NONE.test(text)) return { isRight: false, words: "It got no address." };
  if (isOfSix(expected)) return judgeSix(index, expected, text);
  const shown = shownIn(text);
  const { address } = shown;
  if (address === null) return null;
  const segment = expected.segment === null ? "" : nameOf(index, "segment", expected.segment);
  if (expected.address !== null && address !== expected.address)
    return {
      isRight: false,
      words: `${whose(index, address)}; it has to be ${formatAddress(expected.address)}.`,
    };
  if (expected.address === null && !expected.ranges.some((range) => inRange(range, address))) {
    const held = segmentHolding(index.plan, address)?.id === expected.segment;
    const ranges = expected.ranges.map(rangeText).join(", ");
    return {
      isRight: false,
      words: held
        ? `${whose(index, address)}, but outside what its server gives: ${ranges}.`
        : `${whose(index, address)}; it has to be one of ${segment}: ${ranges}.`,
    };
  }
  return otherwiseIn(expected, shown) ?? { isRight: true, words: `${formatAddress(address)} is right.` };
}

/** The IPv6 addresses that a laptop shows: every one that is not link-local has to be of its segment. */
function judgeSix(
  index: PlanIndex,
  expected: Extract<Expected, { is: "lease" }>,
  text: string,
): Judged | null {
  const shown = shownIn(text, 6);
  const { own } = shown;
  const isWrong = (words: string): Judged => ({ isRight: false, words });
  const segment = expected.segment === null ? "" : nameOf(index, "segment", expected.segment);
  const wanted = `it has to be one of ${segment}: ${expected.ranges.map(rangeText).join(", ")}.`;
  const [first] = own;
  if (first === undefined)
    return shownIn(text).address === null ? null : isWrong(`It shows no IPv6 address; ${wanted}`);
  const global = own.filter((address) => !isLinkLocal(address));
  const [any] = global;
  if (any === undefined) return isWrong(`${whose(index, first)}; ${wanted}`);
  const isOwn = (address: Address) => expected.ranges.some((range) => inRange(range, address));
  const stranger = global.find((address) => !isOwn(address));
  const right = global.find(isOwn);
  if (right === undefined) return isWrong(`${whose(index, any)}; ${wanted}`);
  if (stranger !== undefined) return isWrong(`${whose(index, stranger)}, beside ${formatAddress(right)}.`);
  return strangeServer(expected, shown) ?? { isRight: true, words: `${formatAddress(right)} is right.` };
}

/** What is wrong beside the address, where the text tells it. */
function otherwiseIn({ gateway, dns }: Extract<Expected, { is: "lease" }>, shown: Shown): Judged | null {
  if (shown.gateway !== null && shown.gateway !== gateway)
    return {
      isRight: false,
      words:
        `The gateway is ${formatAddress(shown.gateway)} and has to be ` +
        `${gateway === null ? "none" : formatAddress(gateway)}.`,
    };
  if (shown.hasNoGateway && gateway !== null)
    return { isRight: false, words: `It names no gateway; it has to be ${formatAddress(gateway)}.` };
  return strangeServer({ dns }, shown);
}

/** Which name server is named that must not be, or that none is. */
function strangeServer(
  { dns }: Pick<Extract<Expected, { is: "lease" }>, "dns">,
  shown: Shown,
): Judged | null {
  const stranger = shown.dns.find((address) => !dns.includes(address));
  const wanted = dns.length === 0 ? "none is to be" : `it has to be ${dns.map(formatAddress).join(", ")}`;
  if (stranger !== undefined)
    return { isRight: false, words: `${formatAddress(stranger)} is named as name server; ${wanted}.` };
  if (shown.hasNoDns && dns.length > 0)
    return { isRight: false, words: `It names no name server; ${wanted}.` };
  return null;
}

/** What of a lease can be otherwise. */
export const ASPECTS = ["address", "gateway", "dns"] as const;

/** What of a lease a text shows otherwise than it has to be; null where it shows no address. */
export function otherAspects(
  expected: Extract<Expected, { is: "lease" }>,
  text: string,
): Readonly<Record<(typeof ASPECTS)[number], boolean>> | null {
  const isSix = isOfSix(expected);
  const { address, gateway, hasNoGateway, dns, hasNoDns } = shownIn(text, isSix ? 6 : 4);
  if (address === null) return null;
  const isRight =
    expected.address === null
      ? expected.ranges.some((range) => inRange(range, address))
      : address === expected.address;
  return {
    address: !isRight,
    gateway:
      !isSix && (hasNoGateway ? expected.gateway !== null : gateway !== null && gateway !== expected.gateway),
    dns: hasNoDns ? expected.dns.length > 0 : dns.some((address) => !expected.dns.includes(address)),
  };
}

/** At a port that is off nothing lights up, and nobody gets an address. */
function judgeLink(index: PlanIndex, text: string): Judged | null {
  if (NONE.test(text)) return { isRight: true, words: "No link, as it has to be." };
  const { address } = shownIn(text);
  if (address !== null) return { isRight: false, words: `${whose(index, address)}; the port has to be off.` };
  return LINK.test(text) ? { isRight: false, words: "There is a link, and the port has to be off." } : null;
}

function judgeNoLease(index: PlanIndex, text: string): Judged | null {
  if (NO_LINK.test(text)) return { isRight: false, words: "There is no link, and the port has to be on." };
  if (NONE.test(text)) return { isRight: true, words: "It gets no address, as it has to." };
  const { address } = shownIn(text);
  if (address === null) return null;
  return isSelfGiven(address)
    ? { isRight: true, words: `${whose(index, address)}, as it has to be.` }
    : { isRight: false, words: `${whose(index, address)}; it has to get none.` };
}

/** "answer", "silence", or null where the text says neither. */
function heardIn(text: string): "answer" | "silence" | null {
  if (ANSWERED.test(text)) return "answer";
  return SILENT.test(text) ? "silence" : null;
}

function judgeAnswer(expected: Extract<Expected, { is: "answer" | "silence" }>, text: string): Judged | null {
  const heard = heardIn(text);
  if (heard === null) return null;
  const isRight = heard === expected.is;
  if (heard === "silence")
    return {
      isRight,
      words: isRight ? "Nothing comes back, as it has to be." : "Nothing comes back, and it has to answer.",
    };
  if (expected.is === "answer") return { isRight, words: "It answers." };
  return { isRight, words: `It answers, and has to stay silent. ${expected.why}`.trim() };
}

/** What instruments say of something that is not sound. */
const UNSOUND = /\b(fail(s|ed|ure)?|open|short(ed)?|split|reversed|crossed|no (link|signal|power))\b/i;
/** A figure, with whichever sign for minus and mark for decimals. */
const FIGURE = /[-−–]?\d+(?:[.,]\d+)?/;

function judgeMeasured(
  { what, unit, least, most }: Extract<Expected, { is: "measured" }>,
  text: string,
): Judged | null {
  const [unsound] = UNSOUND.exec(text) ?? [];
  if (unsound !== undefined) return { isRight: false, words: `“${unsound}”: it is not sound.` };
  const [figure] = FIGURE.exec(text) ?? [];
  if (figure === undefined) return null;
  const read = Number(figure.replace(/[−–]/, "-").replace(",", "."));
  // No name is received with a milliwatt: its minus was left out.
  const value = unit === "dBm" ? -Math.abs(read) : read;
  const said = `${what} ${value} ${unit}`;
  if (least !== null && value < least)
    return { isRight: false, words: `${said} is less than ${least} ${unit}.` };
  if (most !== null && value > most)
    return { isRight: false, words: `${said} is more than ${most} ${unit}.` };
  return { isRight: true, words: `${said} is right.` };
}

/**
 * What was read, judged: an address or the whole text that a laptop prints about its network, "none", or
 * whether an answer came. Null where the text does not tell.
 */
export function judge(index: PlanIndex, expected: Expected, text: string): Judged | null {
  switch (expected.is) {
    case "lease":
      return judgeLease(index, expected, text);
    case "no link":
      return judgeLink(index, text);
    case "no lease":
      return judgeNoLease(index, text);
    case "answer":
    case "silence":
      return judgeAnswer(expected, text);
    case "measured":
      return judgeMeasured(expected, text);
    case "shown":
      return null;
  }
}
