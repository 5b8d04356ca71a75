import { byNaturalText, grouped } from "../kernel";
import { counted, listed } from "../repairs";
import { wallEndName, type Device, type PlanIndex, type Segment, type Zone } from "../plan";

/**
 * Something that may happen, and what holds against it: VLANs with walls between them, or gear and cables of a
 * group's own.
 */
export interface Against {
  readonly what: string;
  readonly vlans: boolean;
  readonly gap: boolean;
  readonly why: string;
}

/** What an air gap around a group would cost on this site. */
export interface GapCost {
  /** Switches that carry the group and others now: one more has to stand beside each. */
  readonly switches: readonly Device[];
  /** Cables between gear that carry both. */
  readonly cables: number;
  /** Wireless names of the group at access points that offer others', too. */
  readonly points: readonly Device[];
  /** Doors to and from the group that nothing goes through any more. */
  readonly doors: readonly string[];
  readonly hosts: number;
  readonly internet: boolean;
}

/** What may happen to a network, and what holds: the same for every site. */
export const HOLDS_AGAINST: readonly Against[] = [
  {
    what: "a port in the wrong VLAN, by mistake",
    vlans: false,
    gap: true,
    why: "One wrong number joins two groups; between gear of its own there is no number to get wrong.",
  },
  {
    what: "a wall with too wide a door",
    vlans: false,
    gap: true,
    why: "What is let through is let through; here the walls are proven before they are set up.",
  },
  {
    what: "a flaw in the software of a switch or the gateway",
    vlans: false,
    gap: true,
    why: "Both groups hang on one device; support dates and updates are what helps.",
  },
  {
    what: "a flood or a loop in one group",
    vlans: false,
    gap: true,
    why: "The other group keeps its VLAN, but shares cables and processors; storm limits and trees help.",
  },
  {
    what: "a stranger at a socket of one group",
    vlans: true,
    gap: true,
    why: "The stranger is in that group and meets the wall; sign-in at the port keeps it out of both.",
  },
  {
    what: "somebody who plugs a cable across",
    vlans: true,
    gap: false,
    why: "A BPDU guard shuts a port that hears a bridge; two gaps have nobody who would notice.",
  },
  {
    what: "a memory stick, a laptop carried over",
    vlans: false,
    gap: false,
    why: "It goes round every wall; behind a gap it is the only way, so it is used more.",
  },
  {
    what: "updates that never come",
    vlans: true,
    gap: false,
    why: "Through a door updates come; across a gap somebody has to carry them, and it is put off.",
  },
];

const vidsOf = (index: PlanIndex, segments: readonly Segment[]): Set<number> =>
  new Set(segments.flatMap((segment) => index.vidOf(segment) ?? []));

/** Whether a list of VLANs has some of a group and some of others. */
function isShared(vids: Iterable<number>, own: ReadonlySet<number>): boolean {
  let [mine, theirs] = [false, false];
  for (const vid of vids) {
    if (own.has(vid)) mine = true;
    else theirs = true;
  }
  return mine && theirs;
}

/** What a device carries on ports that are on. */
const carriedBy = (index: PlanIndex, device: string): number[] =>
  index
    .portsOf(device)
    .filter(({ enabled }) => enabled)
    .flatMap(({ untagged, tagged }) => [...untagged, ...tagged]);

/** Wireless gear that offers names of a group and of others. */
function sharedPoints(index: PlanIndex, segments: ReadonlySet<string>): Device[] {
  const offers = [...index.plan.ssid.values()].map((ssid) => ({
    isOwn: [ssid.segment, ...ssid.moreSegments].some((id) => segments.has(id)),
    at: ssid.at,
  }));
  return [...index.plan.device.values()].filter(({ id, kind }) => {
    const here = offers.filter(({ at }) => at.length === 0 || at.includes(id));
    return kind === "accessPoint" && here.some(({ isOwn }) => isOwn) && here.some(({ isOwn }) => !isOwn);
  });
}

/** The walls of a zone that have a door, in words. */
function doorsOf(index: PlanIndex, zone: string): { words: string[]; internet: boolean } {
  const own = [...index.plan.wall.values()].filter(
    ({ from, to, door }) =>
      door !== "closed" &&
      [from, to].some((end) => end.at === "zone" && end.zone === zone) &&
      !(from.at === "zone" && to.at === "zone" && from.zone === to.zone),
  );
  return {
    words: own
      .map(({ from, to }) => `${wallEndName(index, from)} to ${wallEndName(index, to)}`)
      .sort(byNaturalText),
    internet: own.some(({ to }) => to.at === "internet"),
  };
}

/** What an air gap around a zone would cost: gear and cables to double, and ways that end. */
export function gapCost(index: PlanIndex, zone: Zone): GapCost {
  const byZone = grouped([...index.plan.segment.values()], (segment) => segment.zone);
  const segments = byZone.get(zone.id) ?? [];
  const own = vidsOf(index, segments);
  const ids = new Set(segments.map(({ id }) => id));
  const { words, internet } = doorsOf(index, zone.id);
  return {
    switches: [...index.plan.device.values()]
      .filter(
        ({ id, kind, bridging }) =>
          kind === "switch" && bridging === "vlan" && isShared(carriedBy(index, id), own),
      )
      .sort((a, b) => byNaturalText(a.name, b.name)),
    cables: [...index.plan.link.values()].filter(({ a }) => {
      const port = index.plan.port.get(a);
      return port !== undefined && isShared([...port.untagged, ...port.tagged], own);
    }).length,
    points: sharedPoints(index, ids),
    doors: words,
    hosts: [...index.plan.host.values()].filter(({ segment }) => ids.has(segment ?? "")).length,
    internet,
  };
}

/** "2 more switches, 3 more cables between gear, 1 more access point". */
export function gapCostWords({ switches, cables, points }: GapCost): string {
  const parts = [
    ...(switches.length === 0 ? [] : [counted(switches.length, "more switch", "more switches")]),
    ...(cables === 0 ? [] : [`${counted(cables, "more cable", "more cables")} between gear`]),
    ...(points.length === 0 ? [] : [counted(points.length, "more access point", "more access points")]),
  ];
  return parts.length === 0 ? "no gear: it shares none" : listed(parts);
}
