/** People or devices that come and go. Times in seconds. */
export interface Visits {
  /** Arrivals in an hour while the doors are open. */
  readonly perHour: number;
  readonly staySeconds: number;
  /** How long arrivals go on in a day; 86,400 for a place that never closes. */
  readonly openSeconds: number;
}

/**
 * How long one visit holds an address. A client asks again when half of its lease is over (RFC 2131 section
 * 4.4.5, T1) and most leave without giving the address back, so it is held until the last lease runs out:
 * whole half-leases of the stay, then one lease.
 */
export const holdSeconds = ({ staySeconds }: Pick<Visits, "staySeconds">, leaseSeconds: number): number =>
  Math.floor(staySeconds / (leaseSeconds / 2)) * (leaseSeconds / 2) + leaseSeconds;

export interface Peak {
  /**
   * Addresses in use at the busiest moment, on average: arrivals in the time that one visit holds an address.
   */
  readonly average: number;
  /** With room for busy days: what 99 of 100 days stay below when arrivals are independent of one another. */
  readonly needed: number;
  readonly holdSeconds: number;
  /** Whether the doors close before the first address comes back: then every visitor of the day needs one. */
  readonly wholeDay: boolean;
}

/** 99 % of a normal distribution lie below the mean and this many standard deviations. */
const ONE_IN_A_HUNDRED = 2.326;

/**
 * Addresses in use at the peak for a lease (Little's law; the count of independent arrivals has its mean as
 * variance).
 */
export function peakUse(visits: Visits, leaseSeconds: number): Peak {
  const hold = holdSeconds(visits, leaseSeconds);
  // A hold that outlasts the night would meet the next day's visitors; leases of whole days add the days they
  // span.
  const days = Math.floor(hold / 86_400);
  const rest = hold - days * 86_400;
  const counted = days * visits.openSeconds + Math.min(rest, visits.openSeconds);
  const average = (visits.perHour * counted) / 3600;
  return {
    average,
    needed: Math.ceil(average + ONE_IN_A_HUNDRED * Math.sqrt(average)),
    holdSeconds: hold,
    wholeDay: hold >= visits.openSeconds,
  };
}

/** Lease times that are commonly set: 10 minutes to a week. */
export const LEASES = [600, 1800, 3600, 7200, 14_400, 28_800, 43_200, 86_400, 259_200, 604_800] as const;

export interface LeaseAdvice {
  readonly leaseSeconds: number;
  /** The pool to set: the peak with `spare` percent more. */
  readonly pool: number;
  readonly reason: string;
  readonly fits: boolean;
}

const tooSmall = (pool: number, room: number) =>
  `Even at the shortest lease ${pool} addresses are in use at the ` +
  `peak, and there is room for ${room}; a larger subnet is needed.`;

const whyNotLonger = (pool: number, next: number | null, room: number) =>
  next === null
    ? `Even at this, the longest useful lease, ${pool} addresses ` +
      `are in use at the peak, and there is room for ${room}.`
    : `The next longer lease would need ${next} addresses, ` +
      `and there is room for ${room}; this one needs ${pool}.`;

/**
 * The longest of the usual leases, no longer than a day's opening, whose peak fits into `room` addresses; the
 * shortest when none does. Long leases survive a server's restart and cost less traffic, short ones give
 * addresses back sooner.
 */
export function adviseLease(visits: Visits, room: number, devices: number): LeaseAdvice {
  const needed = (lease: number) => peakUse(visits, lease).needed + devices;
  const candidates = LEASES.filter((lease) => lease <= Math.max(86_400, visits.staySeconds));
  const fitting = candidates.filter((lease) => needed(lease) <= room);
  const leaseSeconds = fitting.at(-1) ?? LEASES[0];
  const pool = needed(leaseSeconds);
  const fits = pool <= room;
  const longer = candidates.map((lease) => ({ lease, pool: needed(lease) }));
  const next = longer.find(({ lease }) => lease > leaseSeconds)?.pool ?? null;
  return { leaseSeconds, pool, reason: fits ? whyNotLonger(pool, next, room) : tooSmall(pool, room), fits };
}
