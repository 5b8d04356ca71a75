import {
  isLinkLocal,
  parseIpv4,
  parseIpv6,
  type Address,
  type Family,
  type Ipv4,
  type Ipv6,
} from "../address";

/** What a laptop shows of its network, as far as a text says it. */
export interface Shown {
  /** Its own address, of IPv6 the first that is not link-local; null where the text shows none. */
  readonly address: Address | null;
  /** All that are its own. */
  readonly own: readonly Address[];
  readonly gateway: Address | null;
  /** Whether it says outright that there is no gateway. */
  readonly hasNoGateway: boolean;
  readonly dns: readonly Address[];
  /** Whether it says outright that no name server is named. */
  readonly hasNoDns: boolean;
}

const FROM_OTHERS = /\b(gateway|router|default)\b/i;
const OF_NAMES = /\b(dns|name ?servers?|resolver)\b/i;
/** A line, trimmed, that names no gateway: "Gateway:" and nothing, or "Router: none". */
const WITHOUT = /^(default )?(gateway|router)[\s.]*([:=]\s*)?(none|-)?$/i;
/** The same of name servers, where "none" has to stand: what follows may stand on the next line. */
const WITHOUT_DNS = /^(dns|name ?servers?|resolver)[\s.]*([:=]\s*)?(none|-)$/i;
const NO_ADDRESS = /\b(mask|broadcast|dhcp server|lease (obtained|expires))\b/i;
const A_NUMBER = /(?<![\d.])\d{1,3}(?:\.\d{1,3}){3}(?![\d.])/g;

/** The IPv4 addresses of a line, without what is a mask. */
const addresses4In = (line: string): Ipv4[] =>
  (line.match(A_NUMBER) ?? []).flatMap((text) => {
    const address = parseIpv4(text);
    return address === null || isMask(address) ? [] : [address];
  });
/** The IPv6 addresses of a line, without the names of their interfaces (RFC 4007 section 11). */
const addresses6In = (line: string): Ipv6[] =>
  line.split(/[\s,;=()[\]/]+/).flatMap((text) => parseIpv6(text.replace(/%.*$/, "")) ?? []);
const addressesIn = (line: string, family: Family): Address[] =>
  family === 4 ? addresses4In(line) : addresses6In(line);
const isMask = (address: Ipv4): boolean => Number(address) >= MASKS;
/** 240.0.0.0: what begins there is no host's address (RFC 1112 section 4), so it is a mask. */
const MASKS = 0xf0000000;

type About = "own" | "gateway" | "dns" | "none";
/** A line that holds nothing but an address: it goes on with what the one before was about. */
const ONLY_AN_ADDRESS = /^\s+[\da-f:.]+(?:%\w+)?\s*$/i;

/** What a line is about; `before` is what the one before was about. */
function aboutOf(line: string, before: About): About {
  if (OF_NAMES.test(line)) return "dns";
  if (FROM_OTHERS.test(line)) return "gateway";
  if (NO_ADDRESS.test(line)) return "none";
  return ONLY_AN_ADDRESS.test(line) ? before : "own";
}

/**
 * The text that a laptop prints about its network, or one address. A line that speaks of gateways or name
 * servers is about those; lines below it that begin with blanks and hold an address only go on with it.
 */
export function shownIn(text: string, family: Family = 4): Shown {
  let gateway: Address | null = null;
  const [dns, own]: [Address[], Address[]] = [[], []];
  let about: About = "own";
  for (const line of text.split(/\r?\n/)) {
    about = aboutOf(line, about);
    const found = addressesIn(line, family);
    const [first = null] = found;
    if (about === "dns") dns.push(...found);
    else if (about === "gateway") gateway ??= first;
    else if (about === "own") own.push(...found);
  }
  const says = (without: RegExp) => text.split(/\r?\n/).some((line) => without.test(line.trim()));
  const hasNoGateway = gateway === null && says(WITHOUT);
  const address = own.find((address) => !isLinkLocal(address)) ?? own[0] ?? null;
  return { address, own, gateway, hasNoGateway, dns, hasNoDns: dns.length === 0 && says(WITHOUT_DNS) };
}
