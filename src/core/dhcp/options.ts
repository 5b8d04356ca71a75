import { parseIpv4 } from "../address";

export type OptionType = "address" | "addresses" | "text" | "number" | "hex" | "flag";
/** An option that a scope can hand out (RFC 2132 and those that add to it). `source` names the document. */
export interface OptionKind {
  readonly code: number;
  readonly name: string;
  readonly type: OptionType;
  readonly most: number;
  readonly source: string;
}

const option = (
  code: number,
  name: string,
  type: OptionType,
  source: string,
  most = 0xffff_ffff,
  // eslint-disable-next-line max-params -- a row of the registry of options, read in columns
): OptionKind => ({ code, name, type, most, source });

export const OPTION_KINDS: readonly OptionKind[] = [
  option(2, "time offset", "number", "RFC 2132 section 3.4"),
  option(4, "time servers", "addresses", "RFC 2132 section 3.6"),
  option(7, "log servers", "addresses", "RFC 2132 section 3.9"),
  option(12, "host name", "text", "RFC 2132 section 3.14"),
  option(15, "domain name", "text", "RFC 2132 section 3.17"),
  option(19, "IP forwarding", "flag", "RFC 2132 section 4.1"),
  option(26, "interface MTU", "number", "RFC 2132 section 5.1", 65_535),
  option(28, "broadcast address", "address", "RFC 2132 section 5.3"),
  option(42, "NTP servers", "addresses", "RFC 2132 section 8.3"),
  option(43, "vendor-specific information", "hex", "RFC 2132 section 8.4"),
  option(44, "NetBIOS name servers", "addresses", "RFC 2132 section 8.5"),
  option(46, "NetBIOS node type", "number", "RFC 2132 section 8.7", 8),
  option(60, "vendor class identifier", "text", "RFC 2132 section 9.13"),
  option(66, "TFTP server name", "text", "RFC 2132 section 9.4"),
  option(67, "bootfile name", "text", "RFC 2132 section 9.5"),
  option(69, "SMTP servers", "addresses", "RFC 2132 section 8.10"),
  option(100, "time zone, POSIX", "text", "RFC 4833"),
  option(101, "time zone, by name", "text", "RFC 4833"),
  option(114, "captive portal", "text", "RFC 8910"),
  option(119, "domain search", "text", "RFC 3397"),
  option(120, "SIP servers", "addresses", "RFC 3361"),
  option(121, "classless static routes", "text", "RFC 3442"),
  option(150, "TFTP server addresses", "addresses", "RFC 5859"),
];

/** Codes that a scope sets by its own fields; handing them out a second time would only contradict these. */
const OWN: Readonly<Record<number, string>> = {
  1: "the subnet's length",
  3: "the gateway",
  6: "the DNS servers",
  51: "the lease time",
  54: "who serves",
  58: "half of the lease time",
  59: "seven eighths of the lease time",
};

const HEX = /^([0-9a-f]{2}[ :-]?)+$/i;

/** Why a value can't stand for an option, or null. */
function optionFault(kind: Pick<OptionKind, "name" | "type" | "most">, value: string): string | null {
  const say = (wanted: string) => `"${value}" is no value for ${kind.name}: ${wanted}.`;
  switch (kind.type) {
    case "address":
      return parseIpv4(value) === null ? say("one IPv4 address belongs here") : null;
    case "addresses":
      return value.split(/[\s,]+/).some((part) => parseIpv4(part) === null)
        ? say("IPv4 addresses with commas between belong here")
        : null;
    case "number":
      return /^-?\d{1,10}$/.test(value) && Number(value) <= kind.most && Number(value) >= -0x8000_0000
        ? null
        : say(`a whole number up to ${kind.most} belongs here`);
    case "flag":
      return /^(on|off)$/.test(value) ? null : say("on or off belongs here");
    case "hex":
      return HEX.test(value) ? null : say("bytes in hexadecimal belong here, such as 01:04:0a:18");
    case "text":
      return value === "" || value.length > 120 ? say("1 to 120 characters belong here") : null;
  }
}

export interface ReadOption {
  readonly code: number;
  readonly name: string;
  readonly value: string;
}

/**
 * "42 10.24.60.10", "NTP servers 10.24.60.10" or "224 any text": a code or a standard name, then the value. A
 * sentence when it can't be read.
 */
export function readOption(text: string): ReadOption | string {
  const trimmed = text.trim();
  const byName = [...OPTION_KINDS]
    .sort((a, b) => b.name.length - a.name.length)
    .find((kind) => trimmed.toLowerCase().startsWith(`${kind.name.toLowerCase()} `));
  const match = /^(\d{1,3})\s*[=: ]\s*(.+)$/.exec(trimmed);
  const code = byName?.code ?? (match === null ? Number.NaN : Number(match[1]));
  const value = (byName === undefined ? (match?.[2] ?? "") : trimmed.slice(byName.name.length))
    .trim()
    .replace(/^=\s*/, "");
  if (Number.isNaN(code))
    return `"${trimmed}" is no option; write its code or its name, then the value, such as 42 10.24.60.10.`;
  if (code < 1 || code > 254) return `${code} is no option's code; they run from 1 to 254.`;
  const own = OWN[code];
  if (own !== undefined) return `Option ${code} is ${own}, which the scope has a field for.`;
  const kind = OPTION_KINDS.find((optionKind) => optionKind.code === code);
  const fault = optionFault(kind ?? { name: `option ${code}`, type: "text", most: 0 }, value);
  return fault ?? { code, name: kind?.name ?? `option ${code}`, value };
}
