import {
  asPrefix4,
  formatPrefix,
  packSubnets,
  parsePrefix,
  prefixesOverlap,
  usableIn,
  type Prefix,
  type Prefix4,
  type SubnetWish,
} from "../../address";
import { must } from "../../kernel";
import { BLANK_SEGMENT, type Segment, type Vid } from "../../plan";
import {
  devicesOf,
  enlarge,
  enlargementOf,
  forbiddenRanges,
  indexOf,
  markFor,
  nextFreeVid,
  nextSubnet6,
  octetSubnet,
  planOf,
  roomyLength,
  tapeFor,
  zoneNamed,
} from "../../planners";
import { groupTitle, type Group, groupKey } from "../groups";
import { PURPOSE_ROWS } from "../purposes";
import type { GroupTally } from "../tally";
import { segmentOf, sharedDomain, standsApart, frontOf, type Frame } from "./frame";

/**
 * Where a site without a block takes its subnets from: the first of these that meets nothing it must keep
 * clear of.
 */
const BLOCKS = ["10.24.0.0/16", "10.36.0.0/16", "10.88.0.0/16", "172.20.0.0/16", "172.26.0.0/16"].map(
  (text) => must(asPrefix4(parsePrefix(text)), text),
);

function blocksOf({ edits: edits, notes }: Frame): Prefix4[] {
  const site = edits.need("site", edits.plan.site.id);
  const own = site.blocks.filter((block): block is Prefix4 => block.family === 4);
  if (own.length > 0) return own;
  const kept = forbiddenRanges(edits.plan);
  const block = BLOCKS.find((prefix4) => !kept.some((f) => prefixesOverlap(f.prefix, prefix4)));
  if (block === undefined) return [];
  edits.put("site", { ...site, blocks: [...site.blocks, block] });
  notes.push(
    `The site has no address block; ${formatPrefix(block)} ` +
      "is taken, which meets none of the ranges to keep clear.",
  );
  return [block];
}

/** The domain of a group's VLAN: shared gear, or one of its own where a router or an air gap separates. */
function domainOf(frame: Frame, group: Group): string {
  const front = frontOf(frame);
  const apart = standsApart(frame, group) || (front !== null && groupKey(front) !== groupKey(group));
  if (!apart) return sharedDomain(frame);
  const name = groupTitle(frame.edits.plan.site, group);
  return (
    frame.edits.all("domain").find((domain) => domain.name === name)?.id ??
    frame.edits.put("domain", { id: frame.ids(), name }).id
  );
}

/** The tape a purpose is known by, when nobody else wears it. */
function tapeOf(frame: Frame, group: Group): Segment["tape"] {
  const { tape } = PURPOSE_ROWS[group.purpose];
  const worn = frame.edits
    .all("segment")
    .some((s) => s.tape.base === tape.base && s.tape.tracer === tape.tracer);
  return worn ? tapeFor(planOf(frame.edits)) : tape;
}

/** Percent that lead from the one count to the other, as a segment keeps its growth. */
const percentBetween = (now: number, planned: number): number =>
  now === 0 ? 0 : Math.min(1000, Math.max(0, Math.ceil((planned / now - 1) * 100 - 1e-9)));

/** What is taken of guests until somebody says better: a quarter of them an hour, staying an hour. */
const visitsOf = (guests: number): Segment["visit"] => ({
  perHour: Math.max(1, Math.ceil(guests / 4)),
  staySeconds: 3600,
  openSeconds: 36_000,
});

/**
 * Zones, VLANs and segments with their subnets, for every group of the survey that has none; sizes follow the
 * survey where it has.
 */
// eslint-disable-next-line complexity -- one line for each field of a new segment
export function draftSegments(frame: Frame): void {
  const { edits: edits, ids, notes } = frame;
  const fresh: { group: Group; tally: GroupTally; vid: Vid; domain: string }[] = [];
  for (const tally of frame.groups) {
    const known = segmentOf(edits, tally.group);
    const growth = percentBetween(tally.now, tally.planned);
    if (known !== undefined) {
      if (known.planned !== tally.now || known.growth !== growth)
        edits.patch("segment", known.id, { planned: tally.now, growth });
      continue;
    }
    const domain = domainOf(frame, tally.group);
    const vid = nextFreeVid(planOf(edits), domain);
    if (vid === null) {
      notes.push(
        `${groupTitle(edits.plan.site, tally.group)} is left out: all VLAN IDs from 2 to 4094 are in use.`,
      );
      continue;
    }
    const name = uniqueName(frame, groupTitle(edits.plan.site, tally.group));
    edits.put("vlan", { id: ids(), domain, vid, name, purpose: "segment" });
    fresh.push({ group: tally.group, tally, vid, domain });
  }
  const subnets = subnetsFor(frame, fresh);
  for (const { group, tally, vid, domain } of fresh) {
    const vlan = must(
      edits.all("vlan").find((v) => v.domain === domain && v.vid === vid),
      "the VLAN made above",
    );
    const row = PURPOSE_ROWS[group.purpose];
    const zone = zoneNamed(edits, ids, row.zone ?? vlan.name);
    if (row.insideOpen && !edits.plan.zone.has(zone)) edits.patch("zone", zone, { insideOpen: true });
    const prefix = subnets.get(groupKey(group));
    const prefix6 = standsApart(frame, group) ? null : nextSubnet6(planOf(edits), vid);
    if (prefix === undefined)
      notes.push(`${vlan.name} gets no subnet: the site's blocks have no room left; add a block.`);
    edits.put("segment", {
      ...BLANK_SEGMENT,
      id: ids(),
      zone,
      vlan: vlan.id,
      name: vlan.name,
      mark: markFor(planOf(edits), vlan.name),
      tape: tapeOf(frame, group),
      purpose: group.purpose,
      group: group.name,
      prefixes4: prefix === undefined ? [] : [prefix],
      prefixes6: prefix6 === null ? [] : [prefix6],
      advertise: prefix6 === null ? "none" : "slaac",
      planned: tally.now,
      growth: percentBetween(tally.now, tally.planned),
      management: group.purpose === "management",
      trafficClass: group.purpose === "voice" ? "voice" : BLANK_SEGMENT.trafficClass,
      domainName: edits.plan.site.conventions.domainName,
      visit: group.purpose === "guests" && tally.now > 0 ? visitsOf(tally.now) : null,
    });
  }
}

function uniqueName({ edits: edits }: Frame, title: string): string {
  const taken = new Set([
    ...edits.all("segment").map((s) => s.name.toLowerCase()),
    ...edits.all("vlan").map((v) => v.name.toLowerCase()),
  ]);
  for (let n = 1; ; n += 1) {
    const name = n === 1 ? title.slice(0, 80) : `${title.slice(0, 76)} ${n}`;
    if (!taken.has(name.toLowerCase())) return name;
  }
}

function subnetsFor(
  frame: Frame,
  fresh: readonly { group: Group; tally: GroupTally; vid: Vid }[],
): ReadonlyMap<string, Prefix4> {
  if (fresh.length === 0) return new Map();
  const blocks = blocksOf(frame);
  const { subnetScheme } = frame.edits.plan.site.conventions;
  const taken: Prefix[] = [
    ...frame.edits.all("segment").flatMap((s) => s.prefixes4),
    ...forbiddenRanges(frame.edits.plan).map((f) => f.prefix),
  ];
  const found = new Map<string, Prefix4>();
  const wishes: SubnetWish[] = [];
  for (const { group, tally, vid } of fresh) {
    const length = roomyLength(tally.planned);
    const place =
      subnetScheme === "octet"
        ? blocks
            .map((block) => octetSubnet(block, vid, length))
            .find((prefix) => prefix !== null && !taken.some((t) => prefixesOverlap(t, prefix)))
        : undefined;
    if (place === undefined || place === null)
      wishes.push({ key: groupKey(group), length, roomLength: length });
    else {
      found.set(groupKey(group), place);
      taken.push(place);
    }
  }
  for (const [key, prefix] of packSubnets(blocks, wishes, taken).placed)
    if (prefix.family === 4) found.set(key, prefix);
  return found;
}

/** Segments whose subnet no longer holds what is planned. */
function tooSmall(frame: Frame): { segment: Segment; from: Prefix4; length: number }[] {
  const index = indexOf(frame.edits);
  return frame.edits.all("segment").flatMap((segment) => {
    const from = segment.prefixes4[0];
    if (from === undefined) return [];
    const devices = devicesOf(index, segment);
    return usableIn(from.length) - 1 >= devices ? [] : [{ segment, from, length: roomyLength(devices) }];
  });
}

/**
 * Gives segments that have become too small a larger subnet: around the present one where its neighbours
 * leave room, so that no address changes; else elsewhere, with a sentence that says how many addresses in use
 * move.
 */
export function draftLargerSubnets(frame: Frame): void {
  const { edits: edits, notes } = frame;
  for (const { segment, from, length } of tooSmall(frame)) {
    blocksOf(frame);
    const larger = enlargementOf(planOf(edits), segment, length);
    if (larger === null) {
      notes.push(
        `${segment.name} no longer fits into ${formatPrefix(from)}, and ` +
          `the site's blocks have no room for a /${length}; add a block.`,
      );
      continue;
    }
    const used =
      edits.all("host").filter((h) => h.segment === segment.id && h.ipv4 !== null).length +
      edits.all("interface").filter((leg) => leg.segment === segment.id).length;
    const refusal = enlarge(edits, segment.id, larger);
    const to = formatPrefix(larger.to);
    notes.push(
      refusal ??
        (larger.inPlace
          ? `${segment.name} grows from ${formatPrefix(from)} to ${to} where it is; no ` +
            "address changes, but every device with a static address needs the new mask."
          : `${segment.name} moves from ${formatPrefix(from)} to ${to}: ${used} addresses in use change.`),
    );
  }
}
