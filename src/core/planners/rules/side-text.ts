import { parseAddress, prefixOf, readPrefix, shortPrefix } from "../../address";
import type { PlanIndex, RuleSide } from "../../plan";

/** The pieces of a list with commas or semicolons between; what stands in quotation marks is one piece. */
export const pieces = (text: string): string[] =>
  [...text.matchAll(/\s*(?:"([^"]*)"|([^,;"]+))\s*/g)]
    .map(([, quoted, plain]) => (quoted ?? plain ?? "").trim())
    .filter((piece) => piece !== "");

const isAny = (text: string): boolean => /^(any|anywhere|all|\*)$/i.test(text);
const WORDS: readonly (readonly [RegExp, RuleSide])[] = [
  [/^(the )?internet|outside$/i, { at: "internet" }],
  [/^(the )?(gateway|router)( itself)?|itself$/i, { at: "gateway" }],
];

const alike = (a: string, b: string): boolean => a.toLowerCase() === b.toLowerCase();

interface Named {
  readonly kind: "zone" | "segment" | "host";
  readonly side: RuleSide;
}

/** What a name stands for: zones, segments (by their marks, too) and hosts that have it. */
function named({ plan }: PlanIndex, name: string): Named[] {
  const zones = [...plan.zone.values()].filter((zone) => alike(zone.name, name));
  const segments = [...plan.segment.values()].filter(
    (segment) => alike(segment.name, name) || alike(segment.mark, name),
  );
  const hosts = [...plan.host.values()].filter((host) => alike(host.name, name));
  return [
    ...zones.map(({ id }): Named => ({ kind: "zone", side: { at: "zone", zone: id } })),
    ...segments.map(({ id }): Named => ({ kind: "segment", side: { at: "segment", segment: id } })),
    ...hosts.map(({ id }): Named => ({ kind: "host", side: { at: "host", host: id } })),
  ];
}

/** A zone and its only segment of the same name are one thing to say. */
function isOne({ plan }: PlanIndex, found: readonly Named[]): boolean {
  const [zone, segment] = [found[0]?.side, found[1]?.side];
  if (found.length !== 2 || zone?.at !== "zone" || segment?.at !== "segment") return false;
  const own = [...plan.segment.values()].filter((segment) => segment.zone === zone.zone);
  return own.length === 1 && own[0]?.id === segment.segment;
}

function addressSide(text: string): RuleSide | string | null {
  const address = parseAddress(text);
  if (address !== null) {
    const prefix = prefixOf(address, typeof address === "number" ? 32 : 128);
    return prefix === null ? null : { at: "prefix", prefix };
  }
  if (!text.includes("/")) return null;
  const prefix = readPrefix(text);
  return prefix === null
    ? `"${text}" is no subnet: write its first address and its length, like 10.24.20.0/24.`
    : { at: "prefix", prefix };
}

function oneSide(index: PlanIndex, text: string): RuleSide | string {
  const word = WORDS.find(([pattern]) => pattern.test(text));
  if (word !== undefined) return word[1];
  const address = addressSide(text);
  if (address !== null) return address;
  const [, kind, rest] = /^(zone|segment|host)\s+(.+)$/i.exec(text) ?? [];
  const all = named(index, text);
  const found =
    all.length === 0 && kind !== undefined && rest !== undefined
      ? named(index, rest).filter((named) => named.kind === kind.toLowerCase())
      : all;
  const [first] = found;
  if (first === undefined)
    return (
      `There is no zone, segment or device called "${text}"; ` +
      "write one of theirs, an address, a subnet, Internet, Gateway or any."
    );
  if (found.length === 1 || isOne(index, found)) return first.side;
  const kinds = [...new Set(found.map((named) => named.kind))];
  return kinds.length === 1
    ? `Several have the name "${text}"; write an address instead.`
    : `"${text}" is a ${kinds.join(" and a ")}; write "${kinds[0]} ${text}" or "${kinds[1]} ${text}".`;
}

/**
 * One end of a rule as it is written: names, addresses and subnets; none is any. A sentence where it can't be
 * read.
 */
export function readSides(index: PlanIndex, text: string): readonly RuleSide[] | string {
  const parts = pieces(text);
  if (parts.length === 0 || (parts.length === 1 && isAny(parts[0] ?? ""))) return [];
  if (parts.length > 64) return `${parts.length} are too many for one end of a rule; it takes 64.`;
  const sides: RuleSide[] = [];
  for (const part of parts) {
    if (isAny(part)) return `"any" can't stand beside others; leave the others out.`;
    const side = oneSide(index, part);
    if (typeof side === "string") return side;
    sides.push(side);
  }
  return sides;
}

/** A name as a piece of a list: in quotation marks where it has a comma. */
export const quoted = (name: string): string => (/[,;]/.test(name) ? `"${name}"` : name);

/** A name, with its kind before it where something else has it, too. */
function nameText(index: PlanIndex, kind: Named["kind"], name: string): string {
  const found = named(index, name);
  return quoted(found.length <= 1 || isOne(index, found) ? name : `${kind} ${name}`);
}

export function sideText(index: PlanIndex, side: RuleSide): string {
  const { plan } = index;
  switch (side.at) {
    case "zone":
      return nameText(index, "zone", plan.zone.get(side.zone)?.name ?? "a removed zone");
    case "segment":
      return nameText(index, "segment", plan.segment.get(side.segment)?.name ?? "a removed segment");
    case "host":
      return nameText(index, "host", plan.host.get(side.host)?.name ?? "a removed device");
    case "prefix":
      return shortPrefix(side.prefix);
    case "internet":
      return "Internet";
    case "gateway":
      return "Gateway";
  }
}

/** One end of a rule as `readSides` reads it. */
export const sidesText = (index: PlanIndex, sides: readonly RuleSide[]): string =>
  sides.length === 0 ? "any" : sides.map((side) => sideText(index, side)).join(", ");
