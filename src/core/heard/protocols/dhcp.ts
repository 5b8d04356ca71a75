import { formatAddress, formatIpv4, type Address } from "../../address";
import { bitOf, macOf, type MacNumber, type Octets } from "../octets";
import type { Tagged } from "../rows";
import { namesIn } from "./labels";

/** Types of messages (RFC 2132 section 9.6). */
const TYPES = ["discover", "offer", "request", "decline", "ack", "nak", "release", "inform"] as const;
/** A message without a type, or of which too little is there, is one of BOOTP (RFC 951). */
export type DhcpType = (typeof TYPES)[number] | "bootp";

const AT = {
  op: 0,
  flags: 10,
  yiaddr: 16,
  giaddr: 24,
  chaddr: 28,
  server: 44,
  file: 108,
  cookie: 236,
} as const;
const OPTIONS_AT = 240;
const COOKIE = 0x63825363;
const PAD = 0;
const END = 255;
/** As many options are read: a message has a dozen or two. */
const MOST_OPTIONS = 300;

export const OPTION = {
  mask: 1,
  router: 3,
  dns: 6,
  hostname: 12,
  domain: 15,
  requested: 50,
  lease: 51,
  overload: 52,
  type: 53,
  server: 54,
  message: 56,
  vendorClass: 60,
  fullName: 81,
  relay: 82,
} as const;

/** A message of DHCP as it was heard. */
export interface DhcpMessage {
  readonly tagged: Tagged;
  readonly from: MacNumber;
  readonly source: Address;
  readonly isReply: boolean;
  readonly type: DhcpType;
  readonly client: MacNumber | null;
  readonly isBroadcast: boolean;
  readonly given: string;
  /** The relay's address towards the client; null for none. */
  readonly relay: string | null;
  /** The codes in the order in which they stand; 0 for a row of padding, and for the end. */
  readonly codes: readonly number[];
  readonly option: (code: number) => Octets | null;
}

interface Options {
  readonly codes: number[];
  readonly values: Map<number, Octets>;
}

/** Reads options of a field, one after the other (RFC 2132 section 2). */
function readOptions(field: Octets, { codes, values }: Options): void {
  for (let at = 0; at < field.length && codes.length < MOST_OPTIONS;) {
    const code = field.u8(at);
    if (code === PAD || code === END) {
      codes.push(PAD);
      if (code === END) return;
      while (at < field.length && field.u8(at) === PAD) at += 1;
      continue;
    }
    const length = field.u8(at + 1);
    if (!field.has(at + 2, length)) return;
    codes.push(code);
    if (!values.has(code)) values.set(code, field.from(at + 2, length));
    at += 2 + length;
  }
}

function optionsOf(body: Octets): Options {
  const options: Options = { codes: [], values: new Map() };
  if (!body.has(0, OPTIONS_AT) || body.u32(AT.cookie) !== COOKIE) return options;
  readOptions(body.from(OPTIONS_AT), options);
  // Options may go on in fields that are not used otherwise (RFC 2132 section 9.3).
  const overload = options.values.get(OPTION.overload)?.u8(0) ?? 0;
  if (bitOf(overload, 0)) readOptions(body.from(AT.file, 128), options);
  if (bitOf(overload, 1)) readOptions(body.from(AT.server, 64), options);
  return options;
}

/** A message of DHCP for IPv4 (RFC 2131 figure 1); null where not even the sender's side is there. */
export function dhcpMessage(
  tagged: Tagged,
  from: MacNumber,
  { source, body }: { readonly source: Address; readonly body: Octets },
): DhcpMessage | null {
  const op = body.u8(AT.op);
  if (!body.has(0, 2) || op < 1 || op > 2) return null;
  const { codes, values } = optionsOf(body);
  const relay = body.u32(AT.giaddr);
  return {
    tagged,
    from,
    source,
    isReply: op === 2,
    type: TYPES[(values.get(OPTION.type)?.u8(0) ?? 0) - 1] ?? "bootp",
    client: body.has(AT.chaddr, 6) ? body.u48(AT.chaddr) : null,
    isBroadcast: bitOf(body.u16(AT.flags), 15),
    given: formatIpv4(body.address4(AT.yiaddr)),
    relay: relay === 0 ? null : formatIpv4(body.address4(AT.giaddr)),
    codes,
    option: (code) => values.get(code) ?? null,
  };
}

/** One address in an option; null for none. */
export function addressOption(message: DhcpMessage, code: number): string | null {
  const value = message.option(code);
  return value === null || !value.has(0, 4) ? null : formatAddress(value.address4(0));
}

/** Sub-options of the relay agent information (RFC 3046 section 2.0). */
export function relayInformation(
  message: DhcpMessage,
): Readonly<Record<"circuitId" | "remoteId", string | null>> {
  const field = message.option(OPTION.relay);
  const found: Record<"circuitId" | "remoteId", string | null> = { circuitId: null, remoteId: null };
  for (let at = 0; field?.has(at, 2) === true; at += 2 + field.u8(at + 1)) {
    const value = field.from(at + 2, field.u8(at + 1)).hex();
    if (field.u8(at) === 1) found.circuitId ??= value;
    if (field.u8(at) === 2) found.remoteId ??= value;
  }
  return found;
}

/** Names are written as labels with their lengths where this bit is set (RFC 4702 section 2.1). */
const AS_LABELS = 2;

/** What a client calls itself: its host name, or the name that it wants in the DNS; null for neither. */
export function nameOfClient(message: DhcpMessage): string | null {
  const own = message.option(OPTION.hostname)?.text() ?? null;
  const full = message.option(OPTION.fullName);
  if (own !== null || full === null || !full.has(0, 4)) return own;
  const name = full.from(3);
  return bitOf(full.u8(0), AS_LABELS) ? (namesIn(name)[0] ?? null) : name.text();
}

export const clientOf = ({ client, from }: DhcpMessage): string => macOf(client ?? from);
