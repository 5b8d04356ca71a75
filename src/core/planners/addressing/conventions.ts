import {
  asPrefix4,
  freeRanges,
  inRange,
  lastOf,
  nextFreeSubnet,
  parsePrefix,
  rangeCount,
  step,
  subPrefix6,
  usableRange,
  type Address,
  type AddressRange,
  type Ipv4,
  type Prefix,
  type Prefix4,
  type Prefix6,
  formatIpv4,
} from "../../address";
import { offeredRanges } from "../../dhcp";
import { byText, must } from "../../kernel";
import { vid, TAPE_COLOURS, type Plan, type PlanIndex, type Segment, type Vid } from "../../plan";
import { forbiddenRanges } from "./forbidden";
import { gatewayIn, staticBlockIn } from "./static-block";

/**
 * The gateway's address by the site's convention: the first or the last usable one; null without an IPv4
 * subnet.
 */
export function conventionalGateway(plan: Plan, segment: Segment): Ipv4 | null {
  const prefix = segment.prefixes4[0];
  return prefix === undefined ? null : gatewayIn(plan.site.conventions, prefix);
}

/**
 * The next VLAN ID of a domain by the site's steps: the one above the highest of them, then any that is free;
 * null when all are used.
 */
export function nextFreeVid(plan: Plan, domain: string): Vid | null {
  const { vidStart, vidStep } = plan.site.conventions;
  const used = new Set<number>([...plan.vlan.values()].filter((v) => v.domain === domain).map((v) => v.vid));
  const inSteps = [...plan.vlan.values()]
    .filter(
      (v) =>
        v.domain === domain &&
        v.purpose === "segment" &&
        v.vid >= vidStart &&
        (v.vid - vidStart) % vidStep === 0,
    )
    .map((v) => v.vid);
  const next = inSteps.length === 0 ? vidStart : Math.max(...inSteps) + vidStep;
  if (next <= 4094 && !used.has(next)) return vid(next);
  for (let n = 2; n <= 4094; n += 1) if (!used.has(n)) return vid(n);
  return null;
}

const FALLBACK_BLOCK = must(asPrefix4(parsePrefix("10.24.0.0/16")), "a prefix");

/** Subnets that a new one must not meet: those of segments, and what the site keeps clear of. */
const takenSubnets = (plan: Plan): Prefix[] => [
  ...[...plan.segment.values()].flatMap((s) => s.prefixes4),
  ...forbiddenRanges(plan).map((k) => k.prefix),
];

/** The site's own IPv4 blocks, or the one that is taken where it has none. */
function blocks4({ site }: Plan): Prefix4[] {
  const own = site.blocks.flatMap((block) => (block.family === 4 ? [block] : []));
  return own.length > 0 ? own : [FALLBACK_BLOCK];
}

/** The first free subnet of a length in the site's blocks; null where there is none. */
export function smallSubnet(plan: Plan, length: number): Prefix4 | null {
  const taken = takenSubnets(plan);
  for (const block of blocks4(plan)) {
    const free = nextFreeSubnet(block, length, taken);
    if (free?.family === 4) return free;
  }
  return null;
}

/**
 * The subnet for a new segment: the VLAN ID in the third octet where that is the site's way and free, else
 * the next free /24.
 */
export function nextSubnet(plan: Plan, wanted: Vid | null): Prefix4 | null {
  const taken = takenSubnets(plan);
  for (const block of blocks4(plan)) {
    if (
      plan.site.conventions.subnetScheme === "octet" &&
      wanted !== null &&
      wanted <= 255 &&
      block.length <= 24
    ) {
      const [a, b] = formatIpv4(block.network).split(".");
      const prefix = parsePrefix(`${a}.${b}.${wanted}.0/24`);
      const fits = prefix !== null && inRange({ first: block.network, last: lastOf(block) }, prefix.network);
      if (prefix?.family === 4 && fits && nextFreeSubnet(prefix, 24, taken) !== null) return prefix;
    }
    const free = nextFreeSubnet(block, Math.max(24, block.length), taken);
    if (free?.family === 4) return free;
  }
  return null;
}

/**
 * How many devices of a segment will ask its pool for an address: the plan with growth, less those with fixed
 * addresses, the gear's own among them.
 */
export function plannedDynamic(index: PlanIndex, segment: Segment): number {
  const hosts = index.hostsIn(segment.id);
  const planned = Math.max(Math.ceil((segment.planned * (100 + segment.growth)) / 100), hosts.length);
  const gear = index.interfacesIn(segment.id).filter((leg) => leg.id !== segment.gatewayInterface).length;
  return Math.max(0, planned - hosts.filter((host) => host.manner !== "dynamic").length - gear);
}

/**
 * A pool for the segment: the largest free run outside the static block, cut to what is planned and half as
 * much again (at least 20, in a small subnet half of it). Null when the subnet has no room.
 */
export function poolFor(index: PlanIndex, segment: Segment): AddressRange | null {
  const prefix = segment.prefixes4[0];
  if (prefix === undefined) return null;
  const usable = usableRange(prefix);
  const typed = index
    .hostsIn(segment.id)
    .flatMap((h) => (h.manner === "typed" && h.ipv4 !== null ? [h.ipv4] : []));
  const legs = index.interfacesIn(segment.id).flatMap((leg) => leg.addresses4);
  const { conventions } = index.plan.site;
  const gateway = gatewayIn(conventions, prefix);
  const whole = Number(rangeCount(usable));
  const asking =
    Math.ceil(plannedDynamic(index, segment) * 1.5) +
    index.hostsIn(segment.id).filter((h) => h.manner === "reserved").length;
  const needed = Math.max(Math.min(20, Math.floor(whole / 2)), asking);
  const kept = staticBlockIn(
    conventions,
    prefix,
    Math.min(conventions.staticSize, Math.max(0, whole - needed - 1)),
  );
  const blocked = [
    ...[...typed, ...legs, gateway].map((a): AddressRange => ({ first: a, last: a })),
    ...(kept === null ? [] : [kept]),
  ];
  const runs = freeRanges(usable, blocked);
  const best = runs.reduce<AddressRange | null>(
    (max, run) => (max === null || rangeCount(run) > rangeCount(max) ? run : max),
    null,
  );
  if (best === null) return null;
  const last = step<Address>(best.first, needed - 1);
  return { first: best.first, last: last === null || last > best.last ? best.last : last };
}

/**
 * Two characters from the name that no other segment wears: its capitals, its first two letters, then with
 * digits.
 */
export const markFor = (plan: Plan, name: string): string =>
  markAmong(new Set([...plan.segment.values()].map((s) => s.mark)), name);

/** The same beside the marks that are taken. */
export function markAmong(taken: ReadonlySet<string>, name: string): string {
  const letters = name.toUpperCase().replace(/[^A-Z0-9]/g, "");
  const words = name
    .toUpperCase()
    .split(/[^A-Z0-9]+/)
    .filter((w) => w !== "");
  const consonants = letters.slice(1).replace(/[AEIOU]/g, "");
  const candidates = [
    words.length > 1 ? `${words[0]?.[0] ?? ""}${words[1]?.[0] ?? ""}` : "",
    letters.slice(0, 2),
    `${letters[0] ?? ""}${consonants[0] ?? ""}`,
    ...[...letters.slice(1)].map((l) => `${letters[0] ?? ""}${l}`),
    ...Array.from({ length: 100 }, (_, i) => (i < 10 ? `${letters[0] ?? "S"}${i}` : String(i))),
  ];
  return candidates.find((mark) => /^[A-Z0-9]{2}$/.test(mark) && !taken.has(mark)) ?? "00";
}

/** The tape used least so far, in the order of the reels; a tracer once all twelve are used. */
export function tapeFor(plan: Plan): Segment["tape"] {
  const order = [
    "grey",
    "blue",
    "violet",
    "orange",
    "green",
    "brown",
    "yellow",
    "red",
    "aqua",
    "pink",
    "white",
    "black",
  ] as const;
  const worn = new Set([...plan.segment.values()].map((s) => `${s.tape.base}/${s.tape.tracer ?? ""}`));
  const plain = order.find((base) => !worn.has(`${base}/`));
  if (plain !== undefined) return { base: plain, tracer: null };
  for (const tracer of TAPE_COLOURS)
    if (tracer !== "white" && tracer !== "yellow" && !worn.has(`white/${tracer}`))
      return { base: "white", tracer };
  return { base: "white", tracer: "black" };
}

/** Free runs of a segment's first subnet outside pools, gateway and fixed addresses, in order. */
export function freeRuns(index: PlanIndex, segment: Segment): AddressRange[] {
  const prefix = segment.prefixes4[0];
  if (prefix === undefined) return [];
  const fixed = [
    ...index.hostsIn(segment.id).flatMap((h) => (h.ipv4 === null ? [] : [h.ipv4])),
    ...index.interfacesIn(segment.id).flatMap((i) => i.addresses4),
  ];
  const pools = index
    .scopesOf(segment.id)
    .filter((s) => s.family === 4)
    .flatMap(offeredRanges);
  return freeRanges(usableRange(prefix), [...fixed.map((a) => ({ first: a, last: a })), ...pools]);
}

/**
 * The domain new VLANs belong to: the one of the gateway on the internet line, else the first by id, which is
 * the one the site began with.
 */
export function mainDomain(plan: Plan): string | null {
  const gateways = [...plan.interface.values()]
    .flatMap((leg) => (leg.line === null ? [] : [leg.device]))
    .sort(byText);
  const shared = gateways.map((id) => plan.device.get(id)?.domain ?? null).find((domain) => domain !== null);
  return shared ?? [...plan.domain.keys()].sort(byText)[0] ?? null;
}

/** Where IPv6 subnets come from: the site's own blocks, then what its lines delegate. */
export const blocks6 = ({ site, line }: Plan): Prefix6[] => [
  ...site.blocks.flatMap((block) => (block.family === 6 ? [block] : [])),
  ...[...line.values()]
    .sort((a, b) => a.place - b.place || byText(a.id, b.id))
    .flatMap(({ delegated }) => delegated.prefix ?? []),
];

/** The segment's IPv6 subnet in the first IPv6 block of the site that has room for it; null without one. */
export function nextSubnet6(plan: Plan, wanted: number | null): Prefix6 | null {
  const taken = [
    ...[...plan.segment.values()].flatMap((s) => s.prefixes6),
    ...forbiddenRanges(plan).map((k) => k.prefix),
  ];
  for (const block of blocks6(plan)) {
    const found = subPrefix6(block, wanted, taken);
    if (found !== null) return found;
  }
  return null;
}
