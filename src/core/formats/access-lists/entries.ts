import { z } from "zod";
import { parsePrefix, type Family, type Prefix } from "../../address";
import type { FilterAction } from "../../policy";
import { everyService, spansOf, type ServiceSpan } from "../../rules";
import { NEVER_STOPPED } from "./write";

/** One entry of an access list as it was read. */
export interface Entry {
  readonly family: Family;
  readonly from: Prefix | null;
  readonly to: Prefix | null;
  readonly services: readonly ServiceSpan[];
  readonly action: FilterAction;
  readonly log: boolean;
}

/** Several entries as one: what comes from any of these to any of those by any of these services. */
export interface Joined extends Pick<Entry, "family" | "services" | "action" | "log"> {
  /** Sorted by their texts; null among them is any address. */
  readonly from: readonly (Prefix | null)[];
  readonly to: readonly (Prefix | null)[];
}

/** An identity with or without its module before it (RFC 7951 section 6.8). */
const identity = <T extends string>(values: readonly T[]) =>
  z
    .string()
    .transform((text) => text.replace(/^ietf-access-control-list:/, ""))
    .pipe(z.enum(values));
const port = z.int().min(0).max(65_535);
const portsField = z.union([
  z.strictObject({ "lower-port": port, "upper-port": port.optional() }),
  z.strictObject({ operator: z.enum(["eq", "lte", "gte", "neq"]).default("eq"), port }),
]);
const transport = z.strictObject({ "destination-port": portsField.optional() });
const protocol = z.int().min(0).max(255).optional();
const prefix = z
  .string()
  .max(49)
  .refine((text) => parsePrefix(text) !== null, "is no subnet")
  .optional();

const entrySchema = z.strictObject({
  name: z.string().min(1).max(64),
  matches: z
    .strictObject({
      ipv4: z
        .strictObject({ protocol, "source-ipv4-network": prefix, "destination-ipv4-network": prefix })
        .optional(),
      ipv6: z
        .strictObject({ protocol, "source-ipv6-network": prefix, "destination-ipv6-network": prefix })
        .optional(),
      tcp: transport.optional(),
      udp: transport.optional(),
      icmp: z.strictObject({ type: z.int().min(0).max(255) }).optional(),
    })
    .default({}),
  actions: z.strictObject({
    forwarding: identity(["accept", "drop", "reject"]),
    logging: identity(["log-syslog", "log-none"]).optional(),
  }),
});
type ReadEntry = z.output<typeof entrySchema>;

/** Where in the entry, and what belongs there: what a person needs to put it right. */
function whyNot(error: z.ZodError): string {
  const [issue] = error.issues;
  if (issue === undefined) return "it can't be read";
  const at = issue.path.join(".");
  if (issue.code === "unrecognized_keys") {
    const key = [at, issue.keys[0]].filter((part) => part !== "").join(".");
    return `${key} is something that a rule here can't say`;
  }
  return `${at}: ${issue.message}`;
}

function portSpans(ports: z.output<typeof portsField>, kind: "tcp" | "udp"): ServiceSpan[] {
  const range = (low: number, high: number) => (low > high ? [] : spansOf(kind, [[low, high]]));
  if ("lower-port" in ports) return range(ports["lower-port"], ports["upper-port"] ?? ports["lower-port"]);
  const { operator, port: number } = ports;
  switch (operator) {
    case "eq":
      return range(number, number);
    case "lte":
      return range(0, number);
    case "gte":
      return range(number, 65_535);
    case "neq":
      return [...range(0, number - 1), ...range(number + 1, 65_535)];
  }
}

const PROTOCOLS: Readonly<Record<number, "tcp" | "udp">> = { 6: "tcp", 17: "udp" };

/** The services that an entry matches; a sentence where its parts don't go together. */
function servicesOf({ matches }: ReadEntry, family: Family): readonly ServiceSpan[] | string {
  const number = matches[`ipv${family}`]?.protocol ?? null;
  for (const kind of ["tcp", "udp"] as const) {
    const own = matches[kind];
    if (own === undefined) continue;
    if (number !== null && PROTOCOLS[number] !== kind)
      return `it asks for ports of ${kind.toUpperCase()} and for IP protocol ${number}`;
    return own["destination-port"] === undefined
      ? spansOf(kind, null)
      : portSpans(own["destination-port"], kind);
  }
  if (number === null) return everyService(family);
  const ported = PROTOCOLS[number];
  if (ported !== undefined) return spansOf(ported, null);
  if (number === (family === 4 ? 1 : 58)) return spansOf("icmp", null);
  return `a rule here can't name IP protocol ${number}`;
}

/** Whether the entry is one of those that no list may be without, and that every list here lets pass anyway. */
const isSurvivor = ({ matches, actions }: ReadEntry): boolean =>
  matches.ipv6?.protocol === 58 &&
  matches.icmp !== undefined &&
  (NEVER_STOPPED as readonly number[]).includes(matches.icmp.type) &&
  actions.forwarding === "accept" &&
  Object.keys(matches).length === 2;

/** Reads one entry; null for one that goes without saying, and a sentence where a rule can't say the same. */
export function readEntry(value: unknown, listed: Family | null): Entry | string | null {
  const read = entrySchema.safeParse(value);
  if (!read.success) return whyNot(read.error);
  const { matches, actions } = read.data;
  if (isSurvivor(read.data)) return null;
  if (matches.icmp !== undefined) return "matches.icmp: a rule here takes all of ICMP or nothing of it";
  const named = ([4, 6] as const).find((family) => matches[`ipv${family}`] !== undefined) ?? null;
  if (named !== null && listed !== null && named !== listed)
    return `it matches IPv${named} in a list for IPv${listed}`;
  const family = named ?? listed;
  if (family === null) return "it says neither by its list nor by a match whether it is for IPv4 or IPv6";
  const services = servicesOf(read.data, family);
  if (typeof services === "string") return services;
  if (services.length === 0) return "its ports run from the higher to the lower, so that nothing meets it";
  const [from, to] = networksOf(matches, family);
  return {
    family,
    from,
    to,
    services,
    action: actions.forwarding,
    log: actions.logging === "log-syslog",
  };
}

function networksOf({ ipv4, ipv6 }: ReadEntry["matches"], family: Family): [Prefix | null, Prefix | null] {
  const [source, target] =
    family === 4
      ? [ipv4?.["source-ipv4-network"], ipv4?.["destination-ipv4-network"]]
      : [ipv6?.["source-ipv6-network"], ipv6?.["destination-ipv6-network"]];
  const whole = (text: string | undefined) => {
    const found = text === undefined ? null : parsePrefix(text);
    return found === null || found.length === 0 ? null : found;
  };
  return [whole(source), whole(target)];
}
