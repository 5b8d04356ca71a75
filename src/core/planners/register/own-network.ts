import { familyOf, formatAddress, prefixLengthOf, type Address, type Family, type Ipv4 } from "../../address";
import type { PlanEdits, Host, Line } from "../../plan";
import type { EditContext, Refusal } from "../planner";
import { addressesText, notRead, readAddresses, readAs, type Read } from "../site/survey-text";

// What is entered by hand where a network is not the segment's own to tell: a static device's mask, gateway
// and name servers, a line's.

/**
 * Fields that a host and a line have in common but for the router's: a prefix length of each family, and name
 * servers.
 */
const LENGTHS = { length4: 4, length6: 6 } as const;

/** A prefix length as typed, for a field of an entity; null for an empty text. */
export function readLength(text: string, family: Family): Read<number | null> {
  if (text === "") return readAs(null);
  const value = prefixLengthOf(text, family);
  if (value !== null && value > 0) return readAs(value);
  return notRead(
    family === 4
      ? `"${text}" is no mask; write /25 or 255.255.255.128, or leave it empty.`
      : `"${text}" is no prefix length; write /64, or leave it empty.`,
  );
}

/** A router's address as typed; null for an empty text. */
export function readRouter(text: string, family: Family): Read<Address | null> {
  const read = readAddresses(text, 1);
  const [address] = read.value ?? [];
  if (read.refusal === null && (address === undefined || familyOf(address) === family))
    return readAs(address ?? null);
  return notRead(
    family === 4
      ? `"${text}" is not one IPv4 address such as 10.24.20.1; write it, or leave it empty.`
      : `"${text}" is not one IPv6 address such as fe80::1; write it, or leave it empty.`,
  );
}

export const OWN_FIELDS = ["length4", "gateway4", "length6", "gateway6", "dns"] as const;
export type OwnField = (typeof OWN_FIELDS)[number];
export const OUTSIDE_FIELDS = ["length4", "nextHop4", "length6", "nextHop6", "dns"] as const;
export type OutsideField = (typeof OUTSIDE_FIELDS)[number];

const lengthText = (length: number | null): string => (length === null ? "" : `/${length}`);
const addressText = (address: Address | null): string => (address === null ? "" : formatAddress(address));

/** A host's own mask, gateway or name servers as they can be typed in again; empty where its segment's hold. */
export const ownFieldText = (host: Host, field: OwnField): string => {
  if (field === "dns") return addressesText(host.dns);
  if (field in LENGTHS) return lengthText(host[field] as number | null);
  return addressText(host[field] as Address | null);
};

/** The same for a line's mask, next hop and name servers. */
export const outsideFieldText = (line: Line, field: OutsideField): string => {
  if (field === "dns") return addressesText(line.dns);
  if (field in LENGTHS) return lengthText(line[field] as number | null);
  return addressText(line[field] as Address | null);
};

function readerOf(field: OwnField | OutsideField): (text: string, family: Family) => Read<unknown> {
  if (field === "dns") return (text) => readAddresses(text, 8);
  return field in LENGTHS ? readLength : readRouter;
}

/** What was typed for one of these fields, ready to be patched; a sentence when it can't be read. */
function readField(field: OwnField | OutsideField, text: string): Read<object> {
  const family = field.endsWith("4") ? 4 : 6;
  const read = readerOf(field)(text, family);
  return read.refusal === null ? readAs({ [field]: read.value }) : read;
}

/**
 * What is entered on static devices follows a leg that gets another address: their gateway, their name
 * servers.
 */
export function followEntered(edits: PlanEdits, old: Ipv4, address: Ipv4): void {
  for (const host of edits.all("host")) {
    if (host.gateway4 !== old && !host.dns.includes(old)) continue;
    edits.patch("host", host.id, {
      gateway4: host.gateway4 === old ? address : host.gateway4,
      dns: host.dns.map((resolver) => (resolver === old ? address : resolver)),
    });
  }
}

/** Writes what is entered on a static device and differs from its segment: mask, gateway, name servers. */
export function setOwnNetwork(
  { edits }: Pick<EditContext, "edits">,
  id: string,
  field: OwnField,
  typed: string,
): Refusal {
  const read = readField(field, typed.trim());
  if (read.refusal !== null) return read.refusal;
  edits.patch("host", id, read.value);
  return null;
}

/** Writes what the provider has told of a line: mask, next hop, name servers. */
export function setOutside(
  { edits }: Pick<EditContext, "edits">,
  id: string,
  field: OutsideField,
  typed: string,
): Refusal {
  const read = readField(field, typed.trim());
  if (read.refusal !== null) return read.refusal;
  edits.patch("line", id, read.value);
  return null;
}
