import { containsAddress, containsPrefix, type Address } from "../address";
import { segmentHolding, type Exception, type PlanIndex, type RuleSide, type Segment } from "../plan";
import { sideOf } from "./found-list";
import { EVERYTHING, type FilterRule, type Side } from "./filter";
import { INTERNET, networkOfSegment } from "./networks";

type Hours = NonNullable<Exception["hours"]>;
const DAY = 1440;

/** Whether a minute of the week, from Monday on, lies in the hours; from later than to goes over midnight. */
export function inHours({ days, from, to }: Hours, minute: number): boolean {
  const [day, at] = [Math.floor(minute / DAY) + 1, minute % DAY];
  if (from < to) return days.includes(day) && from <= at && at < to;
  const before = day === 1 ? 7 : day - 1;
  return (days.includes(day) && at >= from) || (days.includes(before) && at < to);
}

/** Whether an exception holds on the day for which the plan is asked, its hours left aside. */
export const onItsDays = ({ today }: PlanIndex, { firstDay, lastDay }: Exception): boolean =>
  today === null || ((firstDay === null || firstDay <= today) && (lastDay === null || today <= lastDay));

/** Whether an exception holds on the day and at the minute for which the plan is asked. */
const holdsNow = (index: PlanIndex, exception: Exception): boolean =>
  onItsDays(index, exception) &&
  (exception.hours === null || (index.minute !== null && inHours(exception.hours, index.minute)));

/** An end of an exception: a host by its addresses in its own zone. Null where it is gone, or has none. */
function endOfException(index: PlanIndex, end: RuleSide): Side | null {
  const side = sideOf(index, end);
  if (side?.prefixes?.length === 0) return null;
  const segment =
    end.at === "host" ? index.plan.segment.get(index.plan.host.get(end.host)?.segment ?? "") : undefined;
  return side === null || segment === undefined ? side : { ...side, network: networkOfSegment(segment) };
}

/** What an exception lets pass, as a rule; null where nobody can meet it. */
export function ruleOfException(
  index: PlanIndex,
  { from, to, services }: Exception,
): Omit<FilterRule, "action"> | null {
  const [source, target] = [endOfException(index, from), endOfException(index, to)];
  if (source === null || target === null) return null;
  return {
    from: [source],
    to: [target],
    services:
      services.length === 0
        ? EVERYTHING
        : services.map(({ protocol, ports }) => ({ protocol, ports: ports.length === 0 ? null : ports })),
  };
}

/** The exceptions that hold now, each with what it lets pass. */
export const exceptionRules = (
  index: PlanIndex,
): { readonly exception: Exception; readonly rule: Omit<FilterRule, "action"> }[] =>
  [...index.plan.exception.values()]
    .filter((exception) => holdsNow(index, exception))
    .flatMap((exception) => {
      const rule = ruleOfException(index, exception);
      return rule === null ? [] : [{ exception, rule }];
    });

const isIn = (side: Side, network: string): boolean => side.network === "any" || side.network === network;

/** Whether an end takes in everybody of a segment. */
const takesAll = (side: Side, segment: Segment): boolean =>
  isIn(side, networkOfSegment(segment)) &&
  (side.prefixes === null ||
    [...segment.prefixes4, ...segment.prefixes6].every((own) =>
      side.prefixes?.some((prefix) => containsPrefix(prefix, own)),
    ));

/** Whether an end takes in an address, wherever the plan has it. */
function takesIn(index: PlanIndex, side: Side, address: Address): boolean {
  const home = segmentHolding(index.plan, address);
  return (
    isIn(side, home === null ? INTERNET : networkOfSegment(home)) &&
    (side.prefixes === null || side.prefixes.some((prefix) => containsAddress(prefix, address)))
  );
}

/** Whether an exception that holds now lets everybody of a segment ask an address at a port. */
export function exceptionLets(
  index: PlanIndex,
  from: Segment,
  to: Address,
  { protocol, port }: { readonly protocol: "tcp" | "udp"; readonly port: number },
): boolean {
  return exceptionRules(index).some(
    ({ rule }) =>
      rule.from.some((side) => takesAll(side, from)) &&
      rule.to.some((side) => takesIn(index, side, to)) &&
      rule.services.some(
        (service) =>
          (service.protocol === "any" || service.protocol === protocol) &&
          (service.ports === null || service.ports.some(([low, high]) => low <= port && port <= high)),
      ),
  );
}

/** The exceptions that hold in some hours of the week, on the day for which the plan is asked. */
export const limitedExceptions = (
  index: PlanIndex,
): { readonly exception: Exception; readonly hours: Hours }[] =>
  [...index.plan.exception.values()].flatMap((exception) =>
    exception.hours !== null && onItsDays(index, exception) ? [{ exception, hours: exception.hours }] : [],
  );

/** The exceptions with hours that hold at a minute of the week, in the plan's order. */
const holdingAt = (index: PlanIndex, minute: number): Exception[] =>
  limitedExceptions(index).flatMap(({ exception, hours }) => (inHours(hours, minute) ? [exception] : []));

/**
 * A minute of the week for every set of exceptions that hold together at some time, beside that in which none
 * with hours does: the first of the week at which it begins, or that at which an exception begins or ends where
 * one set holds all week. At the beginning and the end of each of their hours another set may hold.
 */
export function moments(index: PlanIndex): number[] {
  const edges = limitedExceptions(index)
    .flatMap(({ hours: { days, from, to } }) =>
      days.flatMap((day) => [
        (day - 1) * DAY + from,
        ((day - 1) * DAY + to + (from < to ? 0 : DAY)) % (7 * DAY),
      ]),
    )
    .sort((a, b) => a - b);
  const holding = (minute: number) =>
    holdingAt(index, minute)
      .map(({ id }) => id)
      .join();
  const begins = edges.filter((minute) => holding(minute) !== holding((minute + 7 * DAY - 1) % (7 * DAY)));
  const known = new Map<string, number>();
  for (const minute of begins.length > 0 ? begins : edges) {
    const set = holding(minute);
    if (set !== "" && !known.has(set)) known.set(set, minute);
  }
  return [...known.values()];
}

const DAYS = ["Mon", "Tue", "Wed", "Thu", "Fri", "Sat", "Sun"];

/** "Mon 08:00: Press vendor": a minute of the week, and the exceptions with hours that hold at it. */
export function momentWords(index: PlanIndex, minute: number): string {
  const at = minute % DAY;
  const clock = [Math.floor(at / 60), at % 60].map((part) => String(part).padStart(2, "0")).join(":");
  const names = holdingAt(index, minute).map(({ name }) => name);
  return `${DAYS[Math.floor(minute / DAY)] ?? ""} ${clock}: ${names.join(", ")}`;
}
