import { formatAddress, type Address } from "../address";
import type { Line, PlanIndex } from "../plan";

const OPCODE_UPDATE = 0x2800;
const TYPE = { A: 1, SOA: 6, AAAA: 28 } as const;
const CLASS = { IN: 1, ANY: 255 } as const;
/** How long others may keep the address, in seconds: it moves without notice. */
const TTL = 60;
/** The longest name and label (RFC 1035 section 2.3.4). */
const [MOST_NAME, MOST_LABEL] = [253, 63];

const big = (value: number, bytes: number): number[] =>
  Array.from({ length: bytes }, (_, at) => Math.floor(value / 256 ** (bytes - 1 - at)) % 256);
const nameBytes = (labels: readonly string[]): number[] => [
  ...labels.flatMap((label) => [label.length, ...[...label].map((letter) => letter.charCodeAt(0))]),
  0,
];
const addressBytes = (address: Address): number[] =>
  typeof address === "number"
    ? big(address, 4)
    : Array.from({ length: 16 }, (_, at) => Number((address / 256n ** BigInt(15 - at)) % 256n));

/** A record: its name, type and class, how long it holds, and its data. */
const record = (
  labels: readonly string[],
  type: number,
  [recordClass, ttl]: readonly [number, number],
  data: readonly number[],
): number[] => [
  ...nameBytes(labels),
  ...big(type, 2),
  ...big(recordClass, 2),
  ...big(ttl, 4),
  ...big(data.length, 2),
  ...data,
];

/** A host name's labels; null for what can be none, or has no zone above it. */
function labelsOf(name: string): string[] | null {
  const labels = name.toLowerCase().replace(/\.$/, "").split(".");
  const fits = labels.every(
    (label) => /^[a-z0-9]([a-z0-9-]*[a-z0-9])?$/.test(label) && label.length <= MOST_LABEL,
  );
  return fits && labels.length > 1 && name.length <= MOST_NAME ? labels : null;
}

/** A message that sets a name, with what it does in words. */
export interface NameUpdate {
  readonly bytes: Uint8Array;
  readonly says: string;
}

/**
 * The message that gives a line's name the address that the line has now (RFC 2136 section 2): its zone, every
 * older address of the name taken away, the present ones put in. It is signed and sent by whoever may; nothing
 * is sent here. A sentence where there is none.
 */
export function nameUpdate(index: PlanIndex, line: Line): NameUpdate | { readonly refusal: string } {
  const { name } = line.dynamicName;
  const labels = labelsOf(name);
  if (labels === null)
    return { refusal: `"${name}" is no name in a zone such as lock.example; write one at ${line.name}.` };
  const addresses = [...index.plan.interface.values()]
    .filter((leg) => leg.line === line.id)
    .flatMap((leg): Address[] => [...leg.addresses4, ...leg.addresses6]);
  if (addresses.length === 0)
    return { refusal: `Nobody has noted the address that ${line.name} has now; write it at its leg first.` };
  const typeOf = (address: Address) => (typeof address === "number" ? TYPE.A : TYPE.AAAA);
  const types = [...new Set(addresses.map(typeOf))];
  const updates = [
    ...types.map((type) => record(labels, type, [CLASS.ANY, 0], [])),
    ...addresses.map((address) => record(labels, typeOf(address), [CLASS.IN, TTL], addressBytes(address))),
  ];
  const zone = labels.slice(1);
  const bytes = [
    ...big(0, 2),
    ...big(OPCODE_UPDATE, 2),
    ...[1, 0, updates.length, 0].flatMap((count) => big(count, 2)),
    ...nameBytes(zone),
    ...big(TYPE.SOA, 2),
    ...big(CLASS.IN, 2),
    ...updates.flat(),
  ];
  return {
    bytes: new Uint8Array(bytes),
    says: `${labels.join(".")} is ${addresses.map(formatAddress).join(", ")}, in the zone ${zone.join(".")}`,
  };
}
